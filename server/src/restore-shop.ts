// npm run restore file [folder]: makes a shop from a backup, in a folder that holds none; or in the empty database that DATABASE_URL names.
import { resolve } from 'node:path';
import { restore, restoreOnServer } from './backup/restore';
import { readDatabaseUrl } from './db/postgres';
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

process.umask(0o077);
try {
  if (!given) throw new Error('Name the backup: npm run restore -- kevro-….zip [folder]');
  // A folder that is named is meant, whatever database is.
  const url = into ? undefined : process.env.DATABASE_URL;
  const { tables, takenAt } = url
    ? await restoreOnServer(resolve(given), readDatabaseUrl(url))
    : await inFolder(resolve(given));
  const rows = tables.reduce((sum, table) => sum + table.rows, 0);
  console.log(
    `The shop of ${takenAt} is in ${url ? 'the database' : folder}: ${rows} rows in ${tables.length} tables.`,
  );
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  process.exit(1);
}
process.exit(0);
