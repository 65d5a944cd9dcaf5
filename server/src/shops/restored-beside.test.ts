import { copyFileSync, mkdtempSync, readdirSync, rmSync, truncateSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { restoreBeside } from '../backup/restore';
import { NOW, loadDemo, saveBackup } from '../backup/test-backup';
import type { Manifest } from '../backup/write';
import type { Db } from '../db/db';
import { currentStep, migrate } from '../db/migrate';
import { dbOf, openEngine, openPglite } from '../db/pglite';
import { openPostgres, type SharedDb } from '../db/postgres';
import { databaseForShops, startCluster, type Cluster } from '../db/test-cluster';
import { startTestServer } from '../test-server';
import { addShop, listShops } from './list';

// A shop of one machine moves into a database where others are at work.

const folder = mkdtempSync(join(tmpdir(), 'kevro-beside-test-'));
const nobody = async (): Promise<void> => undefined;
let cluster: Cluster;
let database: SharedDb;
/** Of the demo shop, as it is in a folder. */
let demo: { file: string; manifest: Manifest };
beforeAll(async () => {
  cluster = await startCluster();
  database = await openPostgres(await databaseForShops(cluster.url('postgres')), nobody, (error) => {
    throw error;
  });
  await addShop(database, 'harbour');
  const here = await openPglite();
  await loadDemo(here);
  demo = await save(here, 'demo.zip');
  await here.close();
});
afterAll(async () => {
  await database.close();
  await cluster.stop();
  rmSync(folder, { recursive: true, force: true });
});

const shopOf = async (code: string): Promise<Db> =>
  database.ofShop((await listShops(database)).find((shop) => shop.code === code)?.id ?? '');
const codes = async (): Promise<string[]> => (await listShops(database)).map(({ code }) => code);

const save = (db: Db, name: string) => saveBackup(db, join(folder, name));

it('has the same content there, counts on, and holds nobody up', async () => {
  const { file, manifest } = demo;
  const harbour = await startTestServer(() => NOW, { ...(await shopOf('harbour')), close: nobody });
  const player = (name: string) => harbour.call('POST', '/players', { name, sports: ['tennis'], key: name });
  expect((await player('Here before')).status).toBe(200);
  const restored = restoreBeside(file, database, 'lantern-lane');
  let meanwhile = 0;
  let ended = false;
  void restored.finally(() => (ended = true)).catch(() => undefined);
  while (!ended) if ((await player(`Meanwhile ${++meanwhile}`)).status !== 200) break;
  expect((await restored).tables).toEqual(manifest.tables);
  expect(meanwhile).toBeGreaterThan(3);

  const lantern = await shopOf('lantern-lane');
  expect((await save(lantern, 'there.zip')).manifest.tables).toEqual(manifest.tables);
  const playersOf = async (db: Db) =>
    (await db.query<{ n: number }>('select count(*) as n from player'))[0]?.n;
  expect(await playersOf(await shopOf('harbour'))).toBe(meanwhile + 1);
  const names = manifest.tables.find(({ name }) => name === 'player')?.rows;
  expect(await playersOf(lantern)).toBe(names);

  // What comes next in either is counted after all that was there.
  const counted = await database.query<{ table: string; sequence: string }>(
    `select table_name as "table", pg_get_serial_sequence(quote_ident(table_name), column_name) as sequence
     from information_schema.columns where table_schema = 'public' and is_identity = 'YES' and column_name = 'seq'`,
  );
  expect(counted.length).toBeGreaterThan(10);
  for (const { table, sequence } of counted) {
    const [most] = await lantern.query<{ n: number }>(`select coalesce(max(seq), 0) as n from "${table}"`);
    const [next] = await database.query<{ n: number }>(`select nextval('${sequence}') as n`);
    expect([table, (next?.n ?? 0) > (most?.n ?? 0)]).toEqual([table, true]);
  }
  await harbour.close();
});

it('comes from an earlier step of the tables too', async () => {
  const old = dbOf(await openEngine());
  await migrate(old, 31);
  await old.query(
    `insert into player (id, name, level, style, sports) values ('p1', 'Old Pellam', 'club', 'all-court', '["tennis"]')`,
  );
  const { file, manifest } = await save(old, 'old.zip');
  await old.close();
  expect(manifest.version).toBe(31);
  expect(currentStep()).toBeGreaterThan(31);
  const before = readdirSync(tmpdir()).filter((name) => name.startsWith('kevro-beside-'));
  await restoreBeside(file, database, 'old-lane');
  expect(await (await shopOf('old-lane')).query('select name from player')).toEqual([{ name: 'Old Pellam' }]);
  // What it was brought up to date in is gone: there are health notes in a backup.
  expect(readdirSync(tmpdir()).filter((name) => name.startsWith('kevro-beside-'))).toEqual(before);
});

it('is not there at all where its backup is damaged, names what is missing, or its code is taken', async () => {
  const before = await codes();
  await expect(restoreBeside(demo.file, database, 'harbour')).rejects.toThrow(/asked for by harbour already/);
  await expect(restoreBeside(demo.file, database, 'Harbour!')).rejects.toThrow(/small letters/);
  const damaged = join(folder, 'damaged.zip');
  copyFileSync(demo.file, damaged);
  truncateSync(damaged, 2000);
  await expect(restoreBeside(damaged, database, 'new-lane')).rejects.toThrow(/Nothing was changed/);

  const here = await openPglite();
  await here.run('alter table frame drop constraint frame_owner_id_fkey');
  await here.query(
    `insert into frame (id, tag, maker, model, owner_id, shape, pattern, grip_size, note)
     values ('f1', 'T-1', 'Oskerra', 'Tide', 'nobody', '{"sport":"tennis","lengthCm":68.58}', '', '', '')`,
  );
  const dangling = await save(here, 'dangling.zip');
  await here.close();
  await expect(restoreBeside(dangling.file, database, 'new-lane')).rejects.toThrow(/names what is not there/);
  expect(await codes()).toEqual(before);
});
