// npm run backup [file]: the shop as one file. A server that is at work on it is asked; without one the folder is opened for as long as it takes.
import { createWriteStream } from 'node:fs';
import { resolve } from 'node:path';
import { Readable } from 'node:stream';
import type { ReadableStream as WebStream } from 'node:stream/web';
import { pipeline } from 'node:stream/promises';
import { backupName } from './backup/kept';
import { backupOf } from './backup/write';
import { systemClock } from './clock';
import { databaseIn } from './start/demo-folder';
import { Held, holdFolder } from './start/hold';
import { openShop } from './start/open-shop';

const folder = resolve(process.env.KEVRO_DATA ?? '.data/shop');
const file = resolve(process.argv[2] ?? backupName(systemClock()));

process.umask(0o077);
try {
  try {
    const hold = await holdFolder(folder, 'a backup');
    const db = await openShop(databaseIn(folder));
    const { zip } = await backupOf(db, systemClock);
    await pipeline(zip, createWriteStream(file, { flags: 'wx' }));
    await db.close();
    await hold.release();
  } catch (error) {
    if (!(error instanceof Held) || !error.holder) throw error;
    const answer = await fetch(`${error.holder.url}/api/v1/backup`);
    if (!answer.ok || !answer.body)
      throw new Error(`The server at ${error.holder.url} did not give a backup (${answer.status}).`, {
        cause: error,
      });
    await pipeline(Readable.fromWeb(answer.body as WebStream), createWriteStream(file, { flags: 'wx' }));
  }
  console.log(`The shop is in ${file}`);
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  process.exit(1);
}
process.exit(0);
