import { spawn, type ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { rmSync, writeFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import type { RequestListener, Server } from 'node:http';
import type { Socket } from 'node:net';
import { dirname, join, resolve } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { writeLine } from './act';
import { Changes } from './changes';
import { KeptBackups } from './backup/kept';
import { Restorer } from './backup/restorer';
import { computeInThreads } from './compute/compute';
import { systemClock } from './clock';
import type { Db } from './db/db';
import { Hub } from './instruments/hub';
import { noPorts, type Ports } from './instruments/ports';
import { BENCH_PACE } from './instruments/stand-in';
import { dropUnfinishedBatches } from './records/setup-batch';
import { openPostgres, type SharedDb } from './db/postgres';
import type { Wire } from './db/presence';
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
import { builtPage } from './routes/page';
import { finishErasing } from './records/person';
import { houseOf } from './shops/house';
import { listShops, shopByCode, standWalls, type ListedShop } from './shops/list';
import { SplitWire } from './shops/split-wire';
import { holdShop } from './start/hold';
import { openShop } from './start/open-shop';
import { serverFor } from './start/server-for';
import { readSettings, type Settings } from './start/settings';
import { starting } from './start/starting';

let settings: Settings;
try {
  settings = readSettings(process.env);
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  process.exit(1);
}
const { port, host, folder, names, shopFile, demo, databaseUrl, bench } = settings;
const ownFolder = dirname(fileURLToPath(import.meta.url));
const url = `http://${host}:${port}`;
/** Where this machine's own browsers find it: an address that stands for all of them is none that every browser opens. */
const here = `http://${/^(0\.0\.0\.0|\[?::\]?)$/.test(host) ? '127.0.0.1' : host}:${port}`;

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

// What is stored here is nobody's but the owner's.
process.umask(0o077);

// The port and the folder are this server's own before anything in the folder is opened: of two servers that start at once, one refuses.
let answering: RequestListener = starting;
let stopping = false;
/** Answers that were begun, but for streams: those end with their page. */
let underWay = 0;
const counted: RequestListener = (request, response) => {
  // What comes on a connection that was kept is the last that does.
  if (stopping) response.setHeader('Connection', 'close');
  if (!/\/stream(\?|$)/.test(request.url ?? '')) {
    underWay++;
    response.once('close', () => underWay--);
  }
  answering(request, response);
};
const server = serverFor(counted);
/** Every connection, with a request or without: one that nobody closes would keep an end waiting. */
const sockets = new Set<Socket>();
server.on('connection', (socket) => {
  sockets.add(socket);
  socket.once('close', () => sockets.delete(socket));
});
await listen(server).catch(refuse);
/** Whether this start is the first with a shop that was restored. */
let isRestored = false;
const hold = await holdShop(folder, url, () => {
  if (demo) return demoFolder(folder, demo === 'fresh');
  const database = shopFolder(folder);
  isRestored = !databaseUrl && takeNext(database);
  return database;
}).catch(refuse);

// What answers calls is read while the database opens in a thread of its own.
const answers = import('./app');
const compute = computeInThreads(new URL('./compute-thread.js', import.meta.url));
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
const shared = databaseUrl ? await openPostgres(databaseUrl, loadFile, engineEnded).catch(refuse) : undefined;
const db =
  shared ??
  (await openShop(hold.database, loadFile, (place) => openThreaded(engine, place, engineEnded)).catch(
    refuse,
  ));
await hold.holdDatabase().catch(refuse);
dropBefore(hold.database);
if (isRestored)
  await db.transaction((tx) =>
    writeLine(tx, { name: 'restoreBackup', who: BENCH_NAME, id: null, at: systemClock() }),
  );

const room = roomIn(folder);
const reading = readInThread(new URL('./reading-thread.js', import.meta.url));
const pageFolder = resolve(ownFolder, '../../web/dist');
const isOwnName = ownNames([host, ...names]);
const keyFile = join(folder, OWNERS_KEY);
/** For the commands that run beside the server: whoever can read the shop's folder is its owner. */
const ownersKey = randomBytes(32).toString('base64url');
writeFileSync(keyFile, ownersKey, { mode: 0o600 });
const machineAddresses = (): string[] => addressesAt(host).map((name) => `http://${name}:${port}`);

/** What ends with this process. */
const stops: (() => void)[] = [];
/** What serves one shop beside its database, whether it is alone or one of several. */
async function startShop(of: Db, keptIn: string, wire: Wire | undefined, ports?: Ports) {
  await dropUnfinishedBatches(of);
  const changes = new Changes(wire);
  const hub = new Hub(of, systemClock, BENCH_PACE, wire && { bench, changes }, ports);
  await hub.start();
  // The demo is made anew each time: nothing of it is worth keeping.
  const backups = demo ? undefined : new KeptBackups(of, keptIn, systemClock, room);
  backups?.start();
  stops.push(
    () => hub.stop(),
    () => backups?.stop(),
  );
  const parts = { db: of, hub, changes, compute, reading, room, pageFolder, isOwnName };
  return { backups, parts: backups ? { ...parts, backups } : parts };
}

/** On loopback alone, others are let in by a word on the page. */
let others: OtherDevices | undefined;
/** The one shop of this machine. */
async function onlyShop(): Promise<RequestListener> {
  const { backups, parts } = await startShop(db, join(folder, BACKUPS), shared?.wire);
  /** A shop that was begun before databases had a folder of their own is put in place by hand; so is one on a database server. */
  const restorer =
    backups && hold.database !== folder && !databaseUrl
      ? new Restorer(folder, hold.database, backups, db, () => void startAgain())
      : undefined;
  const own = isLoopback(host) ? new OtherDevices(counted, port, ownAddresses) : undefined;
  others = own;
  if (await isLetIn(db)) await own?.open();
  const { createApp } = await answers;
  return createApp({
    ...parts,
    door: new Door(db, systemClock, ownersKey),
    onBenchCode: (code) =>
      console.log(`Another browser of this machine is let in, once, by ${here}/sign-in#${code}`),
    ...(restorer ? { restorer } : {}),
    addresses: () => own?.addresses ?? machineAddresses(),
    ...(own ? { others: own } : {}),
  });
}
/** Several shops in one database: each is served as if it were alone, and asked for by its code. */
function severalShops(database: SharedDb): RequestListener {
  const wires = new SplitWire(database.wire);
  const served = new Map<string, Promise<RequestListener>>();
  async function serve({ id, code }: ListedShop): Promise<RequestListener> {
    const of = database.ofShop(id);
    await finishErasing(of);
    const { parts } = await startShop(of, join(folder, BACKUPS, code), wires.of(id), noPorts);
    const { createApp } = await answers;
    return createApp({
      ...parts,
      door: new Door(of, systemClock, ownersKey, false),
      addresses: machineAddresses,
      shopCode: code,
    });
  }
  return houseOf({
    shop: async (code) => {
      const known = served.get(code);
      if (known) return known;
      const listed = await shopByCode(database, code);
      // Asked for by two at once, it is opened once.
      if (listed && !served.has(code)) {
        const opening = serve(listed);
        // What could not be opened is tried anew by who asks next.
        opening.catch(() => served.delete(code));
        served.set(code, opening);
      }
      return served.get(code);
    },
    page: builtPage(pageFolder),
    isOwnName,
  });
}
const isHouse = shared !== undefined && (await listShops(shared)).length > 1;
if (isHouse) await standWalls(shared).catch(refuse);
answering = isHouse ? severalShops(shared) : await onlyShop();
console.log(`Kevro is ready at ${url}`);

/** The server that goes on in this one's place, once this one was started again. */
let successor: ChildProcess | undefined;
/** How long an end waits for answers that were begun, and how often it looks, ms. */
const LONGEST_END_MS = 5000;
const LOOK_MS = 20;
/** How long it waits for connections to be gone, ms. */
const LONGEST_CLOSE_MS = 1000;
/** Says which part of an end takes long. */
async function ending(what: string, part: Promise<unknown>): Promise<void> {
  const late = setTimeout(() => log.warn({ what }, 'an end waits'), LONGEST_END_MS);
  await part;
  clearTimeout(late);
}
/** Ends all that this process does for the shop, and gives the folder and the port back. */
async function end(): Promise<void> {
  stopping = true;
  for (const stop of stops) stop();
  rmSync(keyFile, { force: true });
  others?.close();
  const closed = new Promise((done) => server.close(done));
  // What was begun is answered, if it does not take long.
  for (let waited = 0; underWay > 0 && waited < LONGEST_END_MS; waited += LOOK_MS) await wait(LOOK_MS);
  for (const socket of sockets) socket.destroy();
  // The port is free already: what is still open goes with the process.
  await Promise.race([closed, wait(LONGEST_CLOSE_MS)]);
  await ending('the database', db.close());
  await ending('the hold on the folder', hold.release());
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
