import { cpSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { Db } from '../db/db';
import { openShop } from '../start/open-shop';
import { startTestServer, type TestServer } from '../test-server';
import { erasePlayer, finishErasing } from './person';

const folder = mkdtempSync(join(tmpdir(), 'kevro-person-'));
let server: TestServer;
beforeAll(async () => {
  server = await startTestServer(undefined, await openShop(join(folder, 'shop')));
});
afterAll(async () => {
  await server.close();
  rmSync(folder, { recursive: true, force: true });
});

/** Files of the shop in which a text stands, anywhere. */
const filesWith = (text: string): string[] =>
  readdirSync(folder, { recursive: true, withFileTypes: true }).flatMap((file) =>
    file.isFile() && readFileSync(join(file.parentPath, file.name)).includes(text) ? [file.name] : [],
  );
const made = async (path: string, body: object) => {
  const { status, body: found } = await server.call('POST', path, body);
  expect(status, JSON.stringify(found)).toBe(200);
  return found;
};

it('a person is given out whole, and erased from tables, old pages and the log; the frame and its numbers stay', async () => {
  const SECRETS = [
    'Wanda Quellenstein',
    'sore-elbow-since-March',
    'wept-after-the-match',
    'Wanda-wants-it-so',
    'Wanda-hurried-me',
    'Wanda-wants-more-weight',
    'Wanda-grows-again',
    'Wanda-tapped-wrong',
    'Wanda-skipped-this',
  ];
  const [name, arm, feel, why, slip, more, again, mistake, skipped] = SECRETS as string[] as [
    string,
    string,
    string,
    string,
    string,
    string,
    string,
    string,
    string,
  ];
  const player = await made('/players', { name, sports: ['tennis'], armHistory: arm });
  const frame = await made('/frames', {
    tag: 'WQ-1',
    maker: 'Velmond',
    model: 'Quarr 97',
    ownerId: player.id,
    shape: { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 645 },
  });
  const fitting = await made('/fittings', { playerId: player.id, frameIds: [frame.id] });
  const roundId = fitting.frames[0].rounds[0].id as string;
  const first = await made(`/frames/${frame.id}/measurements`, {
    key: 'first measurement',
    dress: { strings: true },
    specs: { massG: 320, balanceCm: 32, swingWeight: 315 },
    purpose: 'found',
    roundId,
  });
  for (const counts of [false, true])
    await server.call('PUT', `/measurements/${first.id}/counts`, { counts, reason: slip });
  await made(`/fittings/${fitting.id}/aims`, {
    roundId,
    way: 'by-hand',
    target: { massG: { value: 324, tolerance: 1 } },
    note: why,
  });
  await made(`/fittings/${fitting.id}/sessions`, {
    key: 'how it felt',
    roundId,
    playedOn: '2026-11-20',
    energyLeft: 'little',
    arm: 'sore',
    note: feel,
  });
  const { sessions } = (await server.call('GET', `/fittings/${fitting.id}`)).body.frames[0].rounds[0];
  await server.call('PUT', `/sessions/${sessions[0].id}/counts`, { counts: false, reason: mistake });
  const begun = await made(`/fittings/${fitting.id}/programmes`, {
    key: 'a programme',
    frameId: frame.id,
    name: 'climb',
    note: more,
  });
  const programmeId = begun.frames[0].programmes[0].id as string;
  await made(`/fittings/${fitting.id}/programmes/act`, { programmeId, act: 'once-more', note: skipped });
  await made('/look-again', { playerId: player.id, dueOn: '2027-05-01', why: 'growing', note: again });
  await made(`/fittings/${fitting.id}/links`, { roundId });
  // Changed once, so that an old form of it lies in the pages.
  await server.call('PUT', `/players/${player.id}`, { name, sports: ['tennis'], botherNote: 'twists' });
  for (const secret of SECRETS) expect(filesWith(secret), secret).not.toEqual([]);

  const data = await server.call('GET', `/players/${player.id}/data`);
  for (const secret of SECRETS) expect(JSON.stringify(data.body)).toContain(secret);
  expect(Object.keys(data.body)).toEqual(
    expect.arrayContaining(['player', 'fitting', 'session', 'measurement']),
  );
  expect((await server.call('GET', '/players/nobody/data')).status).toBe(404);

  const wrong = await server.call('POST', `/players/${player.id}/erase`, { name: 'Wanda' });
  expect([wrong.status, wrong.body.code]).toEqual([422, 'not-the-name']);
  const { ids } = await made(`/players/${player.id}/erase`, { name });
  const named = [player.id, fitting.id, roundId, first.id, programmeId, sessions[0].id] as string[];
  expect(ids).toEqual(expect.arrayContaining(named));
  expect(ids).not.toContain(frame.id);
  for (const secret of SECRETS) expect(filesWith(secret), secret).toEqual([]);
  const stays = (await server.call('GET', `/frames/${frame.id}`)).body;
  expect(stays.frame).toMatchObject({ tag: 'WQ-1', ownerId: null });
  expect(stays.measurements[0].specs.massG).toBe(320);
  const emptied = (await server.call('GET', `/fittings/${fitting.id}`)).body;
  expect(emptied.player.name).toBe('erased');
  expect(emptied.closed).not.toBeNull();
  expect(emptied.frames[0].rounds[0].sessions).toEqual([]);
});

it('goes from what lies elsewhere too: notes and paint of frames, notes of strings, measurements outside a fitting, names of pieces', async () => {
  const name = 'Ottilie Brandwein';
  const player = await made('/players', { name, sports: ['tennis'] });
  const shape = { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 645 };
  const own = await made('/frames', {
    tag: 'OB-1',
    maker: 'Velmond',
    model: 'Quarr 97',
    ownerId: player.id,
    shape,
    note: 'Ottilie-likes-it-so',
    paint: 'Ottilie-blue',
    weights: [
      {
        id: 'w1',
        partId: '',
        path: 'rim',
        startCm: 0,
        endCm: 0,
        sides: 1,
        layers: 1,
        massG: 2,
        what: 'Ottilie-tape',
      },
    ],
  });
  const strings = { strungOn: '2026-11-20', mains: 'gut', mainsKg: 24, crossesKg: 24, unit: 'kg' };
  await made(`/frames/${own.id}/stringings`, { ...strings, note: 'Ottilie-broke-one' });
  await made(`/frames/${own.id}/measurements`, {
    key: 'outside a fitting',
    dress: {},
    specs: { massG: 320, balanceCm: 32, swingWeight: 315 },
    note: 'Ottilie-was-there',
  });
  // A stock frame that she borrowed, and a part that was named for her.
  const stock = await made('/frames', {
    tag: 'ST-9',
    maker: 'Velmond',
    model: 'Quarr 97',
    shape,
    note: `lent to ottilie brandwein in May`,
  });
  await made(`/frames/${stock.id}/stringings`, { ...strings, note: `as ${name} likes it` });
  const part = await made('/parts', {
    kind: 'tape',
    name: `${name}’s roll`,
    material: 'lead',
    widthMm: 6,
    gPerCm: 0.4,
    stepCm: 0.5,
  });
  const SECRETS = [
    name,
    'ottilie brandwein',
    'Ottilie-likes-it-so',
    'Ottilie-blue',
    'Ottilie-tape',
    'Ottilie-broke-one',
    'Ottilie-was-there',
  ];
  for (const secret of SECRETS) expect(filesWith(secret), secret).not.toEqual([]);
  const { finished } = await made(`/players/${player.id}/erase`, { name });
  expect(finished).toBe(true);
  for (const secret of SECRETS) expect(filesWith(secret), secret).toEqual([]);
  const { frame } = (await server.call('GET', `/frames/${own.id}`)).body;
  expect(frame.weights[0]).toMatchObject({ massG: 2, path: 'rim', what: '' });
  expect((await server.call('GET', `/frames/${stock.id}`)).body.frame.note).toBe('lent to erased in May');
  const parts = (await server.call('GET', '/parts')).body as { part: { id: string; name: string } }[];
  expect(parts.find((row) => row.part.id === part.id)?.part.name).toBe('erased’s roll');
});

it('is finished at the next start, wherever it was cut off', async () => {
  const place = join(folder, 'killed');
  const db = await openShop(place);
  const name = 'Rosalind Feuerbach';
  await db.query(
    "insert into player (id, name, sports, level, style, bothers, arm_history) values ('r', $1, '[]', '', '', '[]', 'Rosalind-was-sore')",
    [name],
  );
  // An old form of the row lies in the pages, and in the log.
  await db.query("update player set level = 'club' where id = 'r'");
  await db.transaction((tx) => erasePlayer(tx, 'r', '2026-11-23T09:00:00.000Z'));
  const held = (at: string): string[] =>
    readdirSync(at, { recursive: true, withFileTypes: true }).flatMap((file) =>
      file.isFile() && /Rosalind/.test(readFileSync(join(file.parentPath, file.name), 'latin1'))
        ? [file.name]
        : [],
    );
  expect(held(place)).not.toEqual([]);
  // What a kill leaves is what lies in the files just then: a copy of them before each of the steps.
  const images: string[] = [];
  const steps: Db = {
    ...db,
    run: async (script) => {
      const image = join(folder, `killed-${images.length}`);
      if (images.length < 30) {
        cpSync(place, image, { recursive: true });
        images.push(image);
      }
      await db.run(script);
    },
  };
  expect(await finishErasing(steps)).toBe(true);
  await db.close();
  expect(held(place)).toEqual([]);
  const chosen = images.filter((_, i) => i % Math.max(1, Math.floor(images.length / 6)) === 0).slice(0, 6);
  expect(chosen).toHaveLength(6);
  for (const image of chosen) {
    const again = await openShop(image);
    expect(await again.query('select name from player')).toEqual([{ name: 'erased' }]);
    expect(await again.query('select 1 from unfinished')).toEqual([]);
    await again.close();
    expect(held(image), image).toEqual([]);
  }
}, 120_000);
