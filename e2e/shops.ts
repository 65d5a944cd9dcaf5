import { createServer, type RequestListener } from 'node:http';
import { execFileSync } from 'node:child_process';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { createApp } from '../server/src/app';
import { computeInThreads } from '../server/src/compute/compute';
import { systemClock } from '../server/src/clock';
import { dbOf, openEngine } from '../server/src/db/pglite';
import { keepAll } from '../server/src/db/test-kept';
import { readInThread } from '../server/src/exchange/threaded-reading';
import { Hub } from '../server/src/instruments/hub';
import { BENCH_PACE } from '../server/src/instruments/stand-in';
import { Door } from '../server/src/safety/access';

// One server for the tests of one worker, and one shop after another in it: a process for each would take a second and a half to start, an engine half of one.

/** What a test is told of the shop that stands now. */
export interface Opened {
  url: string;
  ownersKey: string;
}

const [copyOf = '', built = ''] = process.argv.slice(2);
const thread = (name: string): URL => pathToFileURL(join(built, `${name}-thread.js`));
const compute = computeInThreads(thread('compute'));
const reading = readInThread(thread('reading'));
/** Nobody watches the display: a reading takes a fifth of its time. */
const PACE = { aValue: BENCH_PACE.aValue / 5, aSample: BENCH_PACE.aSample / 5 };

const unready: RequestListener = (_request, response) => response.writeHead(503).end();
let answering = unready;
const server = createServer((request, response) => answering(request, response));
await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;

// In memory, where a table that is emptied and filled again is no files that are made and deleted.
const files = execFileSync('tar', ['cf', '-', '-C', join(copyOf, 'database'), '.'], { maxBuffer: 1e9 });
const db = dbOf(await openEngine(undefined, () => new Blob([files])));

const bringBack = await keepAll(db);

let hub: Hub | undefined;
let underWay = 0;
async function open(): Promise<Opened> {
  answering = unready;
  // What the pages of the last test still ask is nobody's question any more.
  hub?.stop();
  server.closeAllConnections();
  while (underWay > 0) await new Promise((again) => setTimeout(again, 5));
  if (!(await bringBack())) throw new Error('a test changed the tables of its shop');
  hub = new Hub(db, systemClock, PACE);
  await hub.start();
  const door = new Door(db, systemClock);
  const app = createApp({ db, hub, compute, door, reading, pageFolder: join(built, '../../web/dist') });
  answering = (request, response) => {
    underWay++;
    response.once('close', () => underWay--);
    app(request, response);
  };
  return { url, ownersKey: door.ownersKey };
}
process.on('message', () => void open().then((opened) => process.send?.(opened)));
process.on('disconnect', () => process.exit(0));
