import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startTestServer } from '../test-server';
import { openShop } from '../start/open-shop';
import type { Db, Queries } from './db';
import { storeOldDemo } from './fixtures/old-demo';
import { migrate, migrationNumbers } from './migrate';
import { dbOf, openEngine } from './pglite';

/** What later versions added, as the first that had it would have stored it: the tables came with these migrations. */
const CAME_LATER: Record<number, string[]> = {
  11: [`insert into guide (sport, name, bands) values ('tennis', 'advanced', '{"massG":[300,320]}')`],
  12: [
    `insert into fitting_beside (fitting_id, position, what)
       select id, 1, '{"kind":"guide","name":"advanced"}' from fitting order by id limit 1`,
  ],
  14: [
    `insert into roll (part_id, begun_at) select id, '2026-10-01T10:00:00Z' from part order by seq limit 1`,
  ],
  15: [
    `insert into shop_lock (salt, hash, set_at) values ('salt', 'hash', '2026-10-01T10:00:00Z')`,
    `insert into device (token_hash, name, signed_in_at) values ('t1', ' Bench', '2026-10-01T10:00:00Z')`,
  ],
  16: [
    `insert into programme (id, key, fitting_id, frame_id, name, begun_at, round_id, start_id)
       select 'pr1', 'a programme', r.fitting_id, r.frame_id, 'climb', '2026-10-02T10:00:00Z', r.id, r.start_id
       from round r where r.start_id is not null order by r.id limit 1`,
    `insert into programme_event (programme_id, what, at, sessions) values ('pr1', 'pause', '2026-10-03T10:00:00Z', 0)`,
    `insert into look_again (id, player_id, due_on, why, set_at)
       select 'l1', id, '2027-01-01', 'growing', '2026-10-03T10:00:00Z' from player order by id limit 1`,
    `insert into session_link (code_hash, round_id, made_at, ends_at)
       select 'c1', id, '2026-10-03T10:00:00Z', '2026-10-17T10:00:00Z' from round order by id limit 1`,
    `insert into change_log (at, who, call, record, record_id) values ('2026-10-03T10:00:00Z', 'bench', 'addPlayer', 'player', 'p1')`,
  ],
};

/** Takes a shop that is not there yet to a version, with what each version since could store. */
async function storedBy(db: Db, version: number): Promise<void> {
  await migrate(db, 2);
  await storeOldDemo(db);
  for (const number of migrationNumbers()) {
    if (number > version) break;
    await migrate(db, number);
    for (const row of CAME_LATER[number] ?? []) await db.query(row);
  }
}
/** How many rows each table has, by its name. */
async function counts(db: Queries): Promise<Record<string, number>> {
  const tables = await db.query<{ name: string }>(
    "select table_name as name from information_schema.tables where table_schema = 'public' order by 1",
  );
  const found: Record<string, number> = {};
  for (const { name } of tables) {
    const [row] = await db.query<{ n: number }>(`select count(*) as n from "${name}"`);
    found[name] = row?.n ?? 0;
  }
  return found;
}
/** A version that has no demo of its own begins with that of the second. */
const VERSIONS = migrationNumbers().filter((number) => number >= 2);
const LAST = Math.max(...VERSIONS);

const root = mkdtempSync(join(tmpdir(), 'kevro-versions-'));
afterAll(() => rmSync(root, { recursive: true, force: true }));

/** A shop of every version, in a folder; taken while the next step of its upgrade was under way and not yet stored. */
const images = new Map<number, string>();
let before: Record<string, number>;
beforeAll(async () => {
  const folder = join(root, 'shop');
  const db = dbOf(await openEngine(folder));
  await migrate(db, 2);
  await storeOldDemo(db);
  for (const version of VERSIONS) {
    for (const row of CAME_LATER[version] ?? []) await db.query(row);
    if (version === LAST) continue;
    const image = join(root, `killed-after-${version}`);
    const cutOff: Db = {
      ...db,
      transaction: (work) =>
        db.transaction(async (tx) => {
          const done = await work(tx);
          // All of the step is done, nothing of it is stored: here the process is killed.
          cpSync(folder, image, { recursive: true });
          return done;
        }),
    };
    await migrate(cutOff, version + 1);
    images.set(version, image);
  }
  before = await counts(db);
  await db.close();
}, 120_000);

describe.each(VERSIONS.filter((version) => version < LAST))('a shop of version %i', (version) => {
  it('that was killed in the middle of its upgrade is upgraded whole', async () => {
    const db = await openShop(images.get(version) ?? '');
    const later = Object.entries(CAME_LATER).filter(([number]) => Number(number) > version);
    for (const [, rows] of later) for (const row of rows) await db.query(row);
    expect(await counts(db)).toEqual(before);
    await db.close();
  });
});

it('every record of a shop that went through all versions can be read', async () => {
  const db = dbOf(await openEngine());
  await storedBy(db, LAST);
  const server = await startTestServer(undefined, db);
  await db.query('delete from shop_lock');
  const read = async (path: string) => {
    const { status, body } = await server.call('GET', path);
    expect([path, status]).toEqual([path, 200]);
    return body;
  };
  for (const list of ['/parts', '/instruments', '/guides', '/learning', '/changes', '/day', '/shop'])
    await read(list);
  for (const [list, each] of [
    ['/players', (id: string) => [`/players/${id}/page`, `/players/${id}/data`]],
    ['/frames', (id: string) => [`/frames/${id}`, `/frames/${id}/sessions`, `/frames/${id}/capture`]],
    ['/setups', (id: string) => [`/setups/${id}`]],
    ['/today', (id: string) => [`/fittings/${id}`, `/fittings/${id}/calendar.ics`]],
  ] as const) {
    const { rows } = await read(list);
    expect(rows.length).toBeGreaterThan(0);
    for (const { id } of rows)
      for (const path of each(id)) {
        if (path.endsWith('.ics')) expect([200, 404]).toContain((await fetch(server.base + path)).status);
        else await read(path);
      }
  }
  expect(await db.query('select name from device')).toEqual([{ name: '' }]);
  await server.close();
});
