import { spawn, type ChildProcess } from 'node:child_process';
import { rmSync, writeFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { createServer, type RequestListener, type Server } from 'node:http';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { sentence, statusOf } from '@kevro/contract';
import { createApp } from './app';
import { writeLine } from './act';
import { KeptBackups } from './backup/kept';
import { Restorer } from './backup/restorer';
import { computeInThreads } from './compute/compute';
import { systemClock } from './clock';
import type { Db } from './db/db';
import { Hub } from './instruments/hub';
import { BENCH_PACE } from './instruments/stand-in';
import { dropUnfinishedBatches } from './records/setup-batch';
import { openPostgres, readDatabaseUrl } from './db/postgres';
import { openThreaded } from './db/threaded';
import { loadShop, readShopFile } from './exchange/shop-file';
import { readInThread } from './exchange/threaded-reading';
import { BACKUPS, OWNERS_KEY, demoFolder, shopFolder } from './start/demo-folder';
import { dropBefore, takeNext } from './start/take-next';
import { addressesAt, isLoopback, ownAddresses, ownNames } from './safety/own-pages';
import { isLetIn } from './records/access';
import { OtherDevices } from './start/other-devices';
import { roomIn } from './safety/room';
import { BENCH_NAME, Door } from './safety/access';
import { log } from './safety/log';
import { holdShop } from './start/hold';
import { openShop } from './start/open-shop';

const ownFolder = dirname(fileURLToPath(import.meta.url));
const port = Number(process.env.PORT ?? 4700);
const host = process.env.HOST ?? '127.0.0.1';
const folder = resolve(process.env.KEVRO_DATA ?? '.data/shop');
const url = `http://${host}:${port}`;
/** Where this machine's own browsers find it: an address that stands for all of them is none that every browser opens. */
const here = `http://${/^(0\.0\.0\.0|\[?::\]?)$/.test(host) ? '127.0.0.1' : host}:${port}`;
/** `fresh`: the demo begins anew; `keep`: it goes on with what was stored; left out: this is a shop of somebody's own. */
const demo = process.env.KEVRO_DEMO;

function listen(server: Server): Promise<void> {
  return new Promise((done, fail) => {
    server.once('error', (error) => fail(new Error(`Kevro cannot listen on ${url}: ${error.message}`)));
    server.listen(port, host, done);
  });
}

/** What the system says where a folder cannot be written to, in words. */
const NOT_WRITABLE: Record<string, string> = {
  EACCES: 'this user may not write there',
  EPERM: 'this user may not write there',
  EROFS: 'it is on a disk that is mounted for reading only',
  ENOSPC: 'the disk is full',
  ENOENT: 'it cannot be made there',
  ENOTDIR: 'a part of its path is a file',
};

/** Says why it did not start, in one sentence, and ends. */
function refuse(error: unknown): never {
  const why = NOT_WRITABLE[(error as NodeJS.ErrnoException).code ?? ''];
  const said = error instanceof Error ? error.message : String(error);
  console.error(why ? `Kevro cannot keep its data in ${folder}: ${why}. Nothing was changed.` : said);
  process.exit(1);
}

if (!Number.isInteger(port) || port < 0 || port > 65_535)
  refuse(new Error(`PORT must be a whole number from 0 to 65535, not “${process.env.PORT}”.`));
/** The shop's database where it lies on a PostgreSQL server; else it lies in the folder. */
let databaseUrl: string | undefined;
try {
  databaseUrl = process.env.DATABASE_URL && !demo ? readDatabaseUrl(process.env.DATABASE_URL) : undefined;
} catch (error) {
  refuse(error);
}
// What is stored here is nobody's but the owner's.
process.umask(0o077);

// The port and the folder are this server's own before anything in the folder is opened: of two servers that start at once, one refuses.
const starting: RequestListener = (_request, response) => {
  response.writeHead(statusOf('starting'), { 'Content-Type': 'application/problem+json' }).end(
    JSON.stringify({
      type: 'urn:kevro:problem:starting',
      title: 'Not now',
      status: statusOf('starting'),
      detail: sentence('starting'),
      code: 'starting',
    }),
  );
};
let answering: RequestListener = starting;
const server = createServer((request, response) => answering(request, response));
await listen(server).catch(refuse);
/** Whether this start is the first with a shop that was restored. */
let isRestored = false;
const hold = await holdShop(folder, url, () => {
  if (demo) return demoFolder(folder, demo === 'fresh');
  const database = shopFolder(folder);
  isRestored = !databaseUrl && takeNext(database);
  return database;
}).catch(refuse);

const compute = computeInThreads(new URL('./compute-thread.js', import.meta.url));
const shopFile = process.env.KEVRO_SHOP_FILE;
const loadFile = async (db: Db): Promise<void> => {
  if (shopFile)
    await loadShop(db, readShopFile(JSON.parse(await readFile(shopFile, 'utf8'))), compute, systemClock());
};
/** Without its engine the server can store nothing: it ends, and says why. */
const engineEnded = (error: Error): never => {
  log.fatal({ err: error }, 'the database has ended');
  process.exit(1);
};
const engine = new URL('./engine-thread.js', import.meta.url);
const db = await (
  databaseUrl
    ? openPostgres(databaseUrl, loadFile, engineEnded)
    : openShop(hold.database, loadFile, (place) => openThreaded(engine, place, engineEnded))
).catch(refuse);
await hold.holdDatabase().catch(refuse);
dropBefore(hold.database);
if (isRestored)
  await db.transaction((tx) =>
    writeLine(tx, { name: 'restoreBackup', who: BENCH_NAME, id: null, at: systemClock() }),
  );

await dropUnfinishedBatches(db);

const hub = new Hub(db, systemClock, BENCH_PACE);
await hub.start();

const room = roomIn(folder);
// The demo is made anew each time: nothing of it is worth keeping.
const backups = demo ? undefined : new KeptBackups(db, join(folder, BACKUPS), systemClock, room);
backups?.start();

/** A shop that was begun before databases had a folder of their own is put in place by hand; so is one on a database server. */
const restorer =
  backups && hold.database !== folder && !databaseUrl
    ? new Restorer(folder, hold.database, backups, db, () => void startAgain())
    : undefined;

const door = new Door(db, systemClock);
// For the commands that run beside the server: whoever can read the shop's folder is its owner.
const keyFile = join(folder, OWNERS_KEY);
writeFileSync(keyFile, door.ownersKey, { mode: 0o600 });

/** On loopback alone, others are let in by a word on the page. */
const others = isLoopback(host)
  ? new OtherDevices((request, response) => answering(request, response), port, ownAddresses)
  : undefined;
if (await isLetIn(db)) await others?.open();

answering = createApp({
  door,
  onBenchCode: (code) =>
    console.log(`Another browser of this machine is let in, once, by ${here}/sign-in#${code}`),
  reading: readInThread(new URL('./reading-thread.js', import.meta.url)),
  ...(backups ? { backups } : {}),
  ...(restorer ? { restorer } : {}),
  room,
  addresses: () => others?.addresses ?? addressesAt(host).map((name) => `http://${name}:${port}`),
  ...(others ? { others } : {}),
  db,
  hub,
  compute,
  pageFolder: resolve(ownFolder, '../../web/dist'),
  isOwnName: ownNames([host, ...(process.env.KEVRO_NAMES ?? '').split(',')]),
});
console.log(`Kevro is ready at ${url}`);

/** The server that goes on in this one's place, once this one was started again. */
let successor: ChildProcess | undefined;
let stopping = false;
/** Ends all that this process does for the shop, and gives the folder and the port back. */
async function end(): Promise<void> {
  stopping = true;
  hub.stop();
  backups?.stop();
  rmSync(keyFile, { force: true });
  others?.close();
  const closed = new Promise((done) => server.close(done));
  server.closeAllConnections();
  await closed;
  await db.close();
  await hold.release();
}
/** A restored shop is served by a new process. This one stays only to pass on how the new one is told to end, and how it ended. */
async function startAgain(): Promise<void> {
  if (stopping) return;
  await end();
  successor = spawn(process.execPath, process.argv.slice(1), {
    stdio: ['inherit', 'inherit', 'inherit', 'ipc'],
  });
  successor.on('exit', (code) => process.exit(code ?? 0));
}
const stop = (): void => {
  if (successor) successor.kill('SIGTERM');
  else if (!stopping) void end().finally(() => process.exit(0));
};
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
// Started by a launcher that is gone, however it went: nobody could end this server any more.
process.on('disconnect', stop);
