import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startTestServer, type TestServer } from './test-server';

let now = '2026-11-23T09:00:00.000Z';
let server: TestServer;
beforeAll(async () => {
  server = await startTestServer(() => now, undefined, { addresses: () => ['http://192.0.2.7:4700'] });
  await made('/parts', {
    kind: 'tape',
    name: 'grey tape 6 mm',
    material: 'tungsten',
    widthMm: 6,
    gPerCm: 0.265,
    stepCm: 0.5,
  });
  await made('/parts', { kind: 'filling', name: 'putty', material: 'putty', dabG: 0.5, gPerCm: 1.6 });
});
afterAll(() => server.close());

const made = async (path: string, body: object, method = 'POST') => {
  const { status, body: found } = await server.call(method, path, body);
  expect(status, JSON.stringify(found)).toBe(200);
  return found;
};
const SPECS = { massG: 318, balanceCm: 32.2, swingWeight: 302, twistWeight: 13.4 };
let count = 0;
const key = (): string => `key number ${++count}`;

/** A fitting of a player and a frame that is measured. */
async function opened(specs: object = SPECS, player: object = {}) {
  const { id: playerId } = await made('/players', {
    name: `Player ${++count}`,
    sports: ['tennis'],
    ...player,
  });
  const { id: frameId } = await made('/frames', {
    tag: `T-${count}`,
    maker: 'Velmond',
    model: 'Quarr 97',
    shape: { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 645 },
  });
  const fitting = await made('/fittings', { playerId, frameIds: [frameId] });
  const id = fitting.id as string;
  const at = `/fittings/${id}`;
  await made(`/frames/${frameId}/measurements`, {
    key: key(),
    dress: { strings: true },
    specs,
    purpose: 'found',
    roundId: fitting.frames[0].rounds[0].id,
  });
  const view = async () => (await server.call('GET', at)).body;
  const entry = async () => (await view()).frames[0];
  const round = async () => (await entry()).rounds.at(-1);
  /** The programme as it stands, with its next step. */
  const programme = async () => {
    const own = (await entry()).programmes.at(-1);
    return { ...own, ...(await server.call('GET', `/programmes/${own.id}/next`)).body };
  };
  const play = async (felt: object = {}) =>
    made(`${at}/sessions`, {
      key: key(),
      roundId: (await round()).id,
      playedOn: '2026-11-22',
      energyLeft: 'plenty',
      arm: 'fine',
      ...felt,
    });
  const begin = (name: string, more: object = {}) =>
    made(`${at}/programmes`, { key: key(), frameId, name, ...more });
  const take = async (more: object = {}) => {
    const { id: programmeId, sessions } = await programme();
    return server.call('POST', `${at}/programmes/step`, { key: key(), programmeId, sessions, ...more });
  };
  /** Builds what is planned, measures what was predicted, and signs it off. */
  const build = async (off: object = {}) => {
    const { plans, id: roundId } = await round();
    const plan = plans.at(-1);
    for (const { key: step } of plan.steps)
      await made(`${at}/marks`, { planId: plan.id, step, mark: 'done' });
    const { axisCm: _, ...specs } = plan.specs;
    const check = await made(`/frames/${frameId}/measurements`, {
      key: key(),
      dress: { strings: true },
      specs: { ...specs, ...off },
      purpose: 'check',
      roundId,
    });
    return made(`${at}/sign-offs`, { key: key(), planId: plan.id, measurementId: check.id });
  };
  const step = async () => {
    const { status, body } = await take();
    expect(status, JSON.stringify(body)).toBe(200);
    await build();
  };
  return { id, at, playerId, frameId, view, entry, round, programme, play, begin, take, build, step };
}

describe('a player’s link', () => {
  const link = async (f: Awaited<ReturnType<typeof opened>>) =>
    made(`${f.at}/links`, { roundId: (await f.round()).id, days: 7 });
  const answers = { playedOn: '2026-11-23', energyLeft: 'enough', arm: 'fine', note: 'went well' };

  it('notes one session, once', async () => {
    const f = await opened();
    const { code, address, picture } = await link(f);
    expect(address).toBe(`http://192.0.2.7:4700/played/${code}`);
    expect(picture).toContain('<svg');
    const page = await server.call('GET', `/played/${code}`);
    expect(page.body).toMatchObject({ frame: { model: 'Quarr 97' }, noted: false });
    // Nothing of the player is told to who has only the link.
    expect(JSON.stringify(page.body)).not.toContain('Player');
    const first = key();
    for (let i = 0; i < 2; i++) await made(`/played/${code}`, { key: first, ...answers });
    expect((await f.round()).sessions).toHaveLength(1);
    const again = await server.call('POST', `/played/${code}`, { key: key(), ...answers });
    expect([again.status, again.body.code]).toEqual([410, 'link-used']);
    expect((await server.call('GET', `/played/${code}`)).body.noted).toBe(true);
  });

  it('ends, by its day or by another link; and takes nothing that is no session', async () => {
    const f = await opened();
    const { code: old } = await link(f);
    const { code } = await link(f);
    expect((await server.call('GET', `/played/${old}`)).status).toBe(404);
    const wrong = await server.call('POST', `/played/${code}`, {
      key: key(),
      ...answers,
      energyLeft: 'heaps',
    });
    expect([wrong.status, wrong.body.errors[0].path]).toEqual([422, 'energyLeft']);
    now = '2026-12-01T09:00:00.000Z';
    expect((await server.call('GET', `/played/${code}`)).body.code).toBe('link-ended');
    expect((await server.call('POST', `/played/${code}`, { key: key(), ...answers })).status).toBe(410);
    now = '2026-11-23T09:00:00.000Z';
    expect((await f.round()).sessions).toHaveLength(0);
  });

  it('opens nothing else to another device', async () => {
    const f = await opened();
    const { code } = await link(f);
    const phone = { 'x-forwarded-for': '192.0.2.50' };
    const from = (path: string) => fetch(server.base + path, { headers: phone });
    expect((await from(`/played/${code}`)).status).toBe(200);
    for (const path of [
      '/players',
      '/today',
      `/fittings/${f.id}`,
      '/search?q=a',
      '/day',
      '/shop',
      '/changes',
    ])
      expect([path, (await from(path)).status]).toEqual([path, 401]);
  });
});

describe('the shop’s day', () => {
  it('finds everything by its words, kind by kind, and tells how many more there are', async () => {
    const f = await opened(SPECS, { name: 'Quilla Sarnbeck' });
    const found = (await server.call('GET', '/search?q=sarn%20quil')).body;
    expect(found).toMatchObject([
      { kind: 'player', total: 1, rows: [{ id: f.playerId, title: 'Quilla Sarnbeck' }] },
      { kind: 'fitting', total: 1, rows: [{ id: f.id, detail: 'open' }] },
    ]);
    for (let i = 0; i < 6; i++) await opened(SPECS);
    const many = (await server.call('GET', '/search?q=velmond')).body;
    const frames = many.find(({ kind }: { kind: string }) => kind === 'frame');
    expect(frames.total).toBeGreaterThan(6);
    expect(frames.rows).toHaveLength(6);
    expect((await server.call('GET', '/search?q=')).body).toEqual([]);
  });

  it('lists fittings by sport and by person, with the programme that goes on', async () => {
    const f = await opened(SPECS, { name: 'Yorrick Tamblen' });
    await f.begin('find-ceiling');
    const rows = async (query: string) => (await server.call('GET', `/today?${query}`)).body;
    const { rows: own, total } = await rows('search=tamblen&sport=tennis');
    expect(total).toBe(1);
    expect(own[0].frames[0]).toMatchObject({
      programme: 'find-ceiling',
      sport: 'tennis',
      next: { station: 'play', because: 'not-played' },
    });
    await f.play();
    expect((await rows('search=tamblen')).rows[0].frames[0].next.because).toBe('step-due');
    expect((await rows('search=tamblen&sport=padel')).total).toBe(0);
  });

  it('keeps who changed what and when, without a word of it', async () => {
    const { id } = await made('/players', {
      name: 'Changed Once',
      sports: ['tennis'],
      botherNote: 'a secret word',
    });
    const { rows } = (await server.call('GET', '/changes?limit=5')).body;
    expect(rows[0]).toMatchObject({
      who: 'bench',
      call: 'addPlayer',
      what: 'Add a player',
      record: 'player',
      recordId: id,
      title: 'Changed Once',
    });
    const stored = await server.db.query<{ row: string }>('select change_log::text as row from change_log');
    expect(stored.some(({ row }) => row.includes('secret') || row.includes('Changed'))).toBe(false);
    // Looking and working out change nothing.
    const before = (await server.call('GET', '/changes')).body.total;
    await server.call('POST', '/compute/compare', {});
    await server.call('GET', '/players');
    expect((await server.call('GET', '/changes')).body.total).toBe(before);
  });
});
