// npm run backup [file]: the shop as one file. A server that is at work on it is asked; without one the folder is opened for as long as it takes.
import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { Readable } from 'node:stream';
import type { ReadableStream as WebStream } from 'node:stream/web';
import { backupName } from './backup/kept';
import { writeWhole } from './backup/whole-file';
import { backupOf } from './backup/write';
import { systemClock } from './clock';
import { databaseIn } from './start/demo-folder';
import { asOwner } from './start/as-owner';
import type { Db } from './db/db';
import { openPostgres, readDatabaseUrl } from './db/postgres';
import { listShops, standWalls } from './shops/list';
import { Held, holdShop } from './start/hold';
import { openShop } from './start/open-shop';

const folder = resolve(process.env.KEVRO_DATA ?? '.data/shop');
const file = resolve(process.argv[2] ?? backupName(systemClock()));

function refuse(error: unknown): never {
  console.error(error instanceof Error ? error.message : String(error));
  process.exit(1);
}

/** The shop on a server; of several that which `KEVRO_SHOP` names. */
async function theShopOn(url: string): Promise<Db> {
  const db = await openPostgres(readDatabaseUrl(url), async () => undefined, refuse);
  const shops = await listShops(db);
  if (shops.length === 1) return db;
  await standWalls(db);
  const { KEVRO_SHOP = '' } = process.env;
  const shop = shops.find(({ code }) => code === KEVRO_SHOP);
  if (!shop) throw new Error(`Say which shop in KEVRO_SHOP: ${shops.map(({ code }) => code).join(', ')}.`);
  return { ...db.ofShop(shop.id), close: () => db.close() };
}

process.umask(0o077);
try {
  if (existsSync(file)) throw new Error(`${file} is there already. Name another file.`);
  let from: { stream: Readable; done: () => Promise<void> };
  try {
    const { DATABASE_URL } = process.env;
    const hold = await holdShop(folder, 'a backup', () => (DATABASE_URL ? folder : databaseIn(folder)));
    const db = DATABASE_URL ? await theShopOn(DATABASE_URL) : await openShop(hold.database);
    const { zip } = await backupOf(db, systemClock);
    from = { stream: zip, done: () => db.close().then(hold.release) };
  } catch (error) {
    if (!(error instanceof Held) || !error.holder) throw error;
    const answer = await fetch(`${error.holder.url}/api/v1/backup`, {
      headers: asOwner(folder),
    });
    if (!answer.ok || !answer.body)
      throw new Error(`The server at ${error.holder.url} did not give a backup (${answer.status}).`, {
        cause: error,
      });
    from = {
      stream: Readable.fromWeb(answer.body as WebStream),
      done: () => Promise.resolve(),
    };
  }
  await writeWhole(from.stream, file);
  await from.done();
  console.log(`The shop is in ${file}`);
} catch (error) {
  refuse(error);
}
process.exit(0);
