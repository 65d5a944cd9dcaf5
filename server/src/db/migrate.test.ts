import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startTestServer, type TestServer } from '../test-server';
import { migrate } from './migrate';
import { dbOf, openEngine } from './pglite';

/** A shop as the first version stored it, with every kind of row that later versions change. */
const OLD_ROWS = [
  `insert into shop (name, town, demo) values ('Old Shop', 'Elsewhere', false)`,
  `insert into player values ('p1', 'Wanda Quill', 'tennis', 1990, 'club', 'all-court', 'late on returns', 340, 'advanced')`,
  `insert into player values ('p2', 'Abel Quill', 'padel', null, '', '', '', null, null)`,
  `insert into frame values ('f1', 'T-1', 'Oskerra', 'Tide 98', 'p1', '{"sport":"tennis","lengthCm":68.58}', '16×19', '4 3/8', 'first')`,
  `insert into frame values ('f2', 'T-2', 'Oskerra', 'Tide 98', null, '{"sport":"tennis","lengthCm":68.58}', '', '', '')`,
  ...[327, 331].map(
    (massG, i) =>
      `insert into measurement (id, key, frame_id, taken_at, dress, mass_g, balance_cm, swing_weight, twist_weight, axis_cm,
         uncertainty, note) values ('m${i}', 'key ${i}', 'f1', '2026-10-0${i + 1}T10:00:00Z', '{"strings":true,"overgrips":${i}}',
         ${massG}, 32.2, 320, null, 10.16, '{"massG":0.3,"balanceCm":0.07,"swingWeight":0.8,"twistWeight":0.15}', '')`,
  ),
  `insert into fitting (id, player_id, frame_id, opened_at) values ('x1', 'p1', 'f1', '2026-10-01T09:00:00Z')`,
];

describe('a shop of the first version', () => {
  let server: TestServer;
  beforeAll(async () => {
    const pg = await openEngine();
    const db = dbOf(pg);
    const first = readFileSync(join(import.meta.dirname, 'migrations/0001_first.sql'), 'utf8');
    await pg.exec(first);
    await pg.exec(
      'create table migration (number integer primary key, name text not null, run_at timestamptz not null default now())',
    );
    await db.query("insert into migration (number, name) values (1, '0001_first.sql')");
    for (const row of OLD_ROWS) await db.query(row);
    await migrate(db);
    server = await startTestServer(undefined, db);
  });
  afterAll(() => server.close());

  it('keeps its players: the sport becomes one of several, what bothers them their own words', async () => {
    const { rows } = (await server.call('GET', '/players')).body;
    expect(rows.map((p: { name: string }) => p.name)).toEqual(['Abel Quill', 'Wanda Quill']);
    expect(rows[1]).toMatchObject({
      sports: ['tennis'],
      birthYear: 1990,
      bothers: [],
      botherNote: 'late on returns',
      ceilings: { tennis: 340 },
      guides: { tennis: 'advanced' },
      hasArmHistory: false,
      archived: false,
    });
    expect((await server.call('GET', '/players?search=returns')).body.total).toBe(1);
  });

  it('keeps its frames, with the newest measurement found and what it was measured in as what is on it', async () => {
    const { rows } = (await server.call('GET', '/frames?sort=measured')).body;
    expect(rows.map((f: { tag: string }) => f.tag)).toEqual(['T-1', 'T-2']);
    expect(rows[0].newest).toMatchObject({ specs: { massG: 331 }, estimated: [] });
    expect(rows[1].newest).toBeNull();
    const page = (await server.call('GET', '/frames/f1')).body;
    expect(page.frame).toMatchObject({ onIt: { strings: true, overgrips: 1 }, weights: [], nominal: null });
    expect(page.measurements.map((m: { specs: { massG: number } }) => m.specs.massG)).toEqual([331, 327]);
  });

  it('goes on: its fitting opens, and another measurement is stored', async () => {
    const [frame] = (await server.call('GET', '/fittings/x1')).body.frames;
    expect(frame.rounds[0].state.next.station).toBe('compare');
    expect((await server.call('GET', '/shop')).body).toMatchObject({
      name: 'Old Shop',
      calibrationHours: 72,
    });
    const stored = await server.call('POST', '/frames/f1/measurements', {
      key: 'after the change',
      dress: {},
      specs: { massG: 310, balanceCm: 32, swingWeight: 300 },
    });
    expect(stored.status).toBe(200);
    expect((await server.call('GET', '/frames/f1')).body.frame.onIt).toEqual({});
  });
});
