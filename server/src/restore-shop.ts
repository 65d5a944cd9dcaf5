// npm run restore file [folder]: makes a shop from a backup, in a folder that holds none.
import { resolve } from 'node:path';
import { restore } from './backup/restore';
import { newDatabaseIn } from './start/demo-folder';
import { holdShop } from './start/hold';

const [, , given, into] = process.argv;
const folder = resolve(into ?? process.env.KEVRO_DATA ?? '.data/shop');

process.umask(0o077);
try {
  if (!given) throw new Error('Name the backup: npm run restore -- kevro-….zip [folder]');
  const hold = await holdShop(folder, 'a restore', () => newDatabaseIn(folder));
  const { tables, takenAt } = await restore(resolve(given), hold.database);
  await hold.release();
  const rows = tables.reduce((sum, table) => sum + table.rows, 0);
  console.log(`The shop of ${takenAt} is in ${folder}: ${rows} rows in ${tables.length} tables.`);
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  process.exit(1);
}
process.exit(0);
