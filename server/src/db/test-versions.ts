import type { Db, Queries } from './db';
import { storeOldDemo } from './fixtures/old-demo';
import { migrate, migrationNumbers } from './migrate';

/** What later versions added, as the first that had it would have stored it: the tables came with these migrations. */
export const CAME_LATER: Record<number, string[]> = {
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
export async function storedBy(db: Db, version: number): Promise<void> {
  await migrate(db, 2);
  await storeOldDemo(db);
  for (const number of migrationNumbers()) {
    if (number > version) break;
    await migrate(db, number);
    for (const row of CAME_LATER[number] ?? []) await db.query(row);
  }
}
/** How many rows each table has, by its name. */
export async function counts(db: Queries): Promise<Record<string, number>> {
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
export const VERSIONS = migrationNumbers().filter((number) => number >= 2);
export const LAST = Math.max(...VERSIONS);
