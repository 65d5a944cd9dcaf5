// npm run restore file [folder]: makes a shop from a backup, in a folder that holds none; or in the database that DATABASE_URL names: an empty one, or beside its shops under the code in KEVRO_SHOP.
import { resolve } from 'node:path';
import { restore, restoreBeside, restoreOnServer } from './backup/restore';
import { openPostgres, readDatabaseUrl, standsAt } from './db/postgres';
import { newDatabaseIn } from './start/demo-folder';
import { holdShop } from './start/hold';

const [, , given, into] = process.argv;
const folder = resolve(into ?? process.env.KEVRO_DATA ?? '.data/shop');

async function inFolder(file: string) {
  const hold = await holdShop(folder, 'a restore', () => newDatabaseIn(folder));
  const manifest = await restore(file, hold.database);
  await hold.release();
  return manifest;
}

async function onServer(file: string, url: string) {
  const { KEVRO_SHOP: code } = process.env;
  if (!code || !(await standsAt(url))) return restoreOnServer(file, url, code);
  const db = await openPostgres(url, async () => undefined, refuse);
  const manifest = await restoreBeside(file, db, code);
  await db.close();
  return manifest;
}

function refuse(error: unknown): never {
  console.error(error instanceof Error ? error.message : String(error));
  process.exit(1);
}

process.umask(0o077);
try {
  if (!given) throw new Error('Name the backup: npm run restore -- kevro-….zip [folder]');
  // A folder that is named is meant, whatever database is.
  const url = into ? undefined : process.env.DATABASE_URL;
  const { tables, takenAt } = url
    ? await onServer(resolve(given), readDatabaseUrl(url))
    : await inFolder(resolve(given));
  const rows = tables.reduce((sum, table) => sum + table.rows, 0);
  console.log(
    `The shop of ${takenAt} is in ${url ? 'the database' : folder}: ${rows} rows in ${tables.length} tables.`,
  );
} catch (error) {
  refuse(error);
}
process.exit(0);
