// npm run shops -- [add code | rename code code]: the shops of the database that DATABASE_URL names.
import { openPostgres, readDatabaseUrl } from './db/postgres';
import { addShop, listShops, renameShop } from './shops/list';

const [, , act, ...words] = process.argv;
const [one = '', two = ''] = words;

try {
  const { DATABASE_URL } = process.env;
  if (!DATABASE_URL) throw new Error('Several shops need a database on a server: name it in DATABASE_URL.');
  const db = await openPostgres(
    readDatabaseUrl(DATABASE_URL),
    async () => undefined,
    (error) => {
      throw error;
    },
  );
  if (act === 'add') await addShop(db, one);
  else if (act === 'rename') await renameShop(db, one, two);
  else if (act !== undefined)
    throw new Error('Say add and a code, or rename and two codes, or nothing for the list.');
  console.log((await listShops(db)).map(({ code }) => code).join('\n'));
  if (act) console.log('A Kevro that is at work serves them so once it is started again.');
  await db.close();
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  process.exit(1);
}
process.exit(0);
