import { existsSync, realpathSync, rmSync, statSync } from 'node:fs';
import { createConnection, createServer, type Server } from 'node:net';
import { tmpdir } from 'node:os';
import { basename, dirname, join } from 'node:path';
import { OWN_NAMES } from './demo-folder';
import { makeFolder } from './make-folder';

/** Who holds a folder: what the one that comes second is told. */
export interface Holder {
  pid: number;
  url: string;
}

/** The folder is held by another server. Its message is the sentence for the one who started a second. */
export class Held extends Error {
  constructor(
    readonly folder: string,
    readonly holder: Holder | undefined,
  ) {
    const who = holder ? ` (process ${holder.pid}, ${holder.url})` : '';
    super(
      `Another Kevro is at work on ${folder}${who}. Stop that one first, or name another folder in KEVRO_DATA.`,
    );
    this.name = 'Held';
  }
}

export interface Hold {
  release: () => Promise<void>;
}

/**
 * A name that only one process of this machine can listen on. The system itself gives it back when the process ends, however it ends: nothing is left
 * behind that a next start would have to judge. The folder is named by device and number, so that two paths to it are one.
 */
function nameOf(folder: string): string {
  const { dev, ino } = statSync(folder);
  const name = `kevro-${dev}-${ino}`;
  if (process.platform === 'linux') return `\0${name}`;
  return process.platform === 'win32' ? `\\\\.\\pipe\\${name}` : join(tmpdir(), `${name}.sock`);
}

const ASK_MS = 2000;

/** Asks who listens on a name; undefined where nobody answers. */
const askHolder = (name: string): Promise<Holder | undefined> =>
  new Promise((resolve) => {
    let text = '';
    const socket = createConnection(name);
    const done = (holder?: Holder): void => {
      socket.destroy();
      resolve(holder);
    };
    socket.setTimeout(ASK_MS, () => done());
    socket.on('error', () => done());
    socket.on('data', (part) => (text += part.toString()));
    socket.on('end', () => {
      try {
        done(JSON.parse(text) as Holder);
      } catch {
        done();
      }
    });
  });

const listen = (server: Server, name: string): Promise<boolean> =>
  new Promise((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) =>
      error.code === 'EADDRINUSE' ? resolve(false) : reject(error),
    );
    server.listen(name, () => resolve(true));
  });

/** Names under which Kevro keeps something within the folder of a shop. */
const INNER = new Set<string>(OWN_NAMES);

/**
 * Takes the folder of a shop and that of its database for this process alone. Whoever starts on the inner one finds it held, and so does who starts on the outer
 * one while the inner is served.
 * @param databaseIn finds the database's folder, once the shop's is held
 * @throws Held where another process has either
 */
export async function holdShop(
  folder: string,
  url: string,
  databaseIn: () => string,
): Promise<Hold & { database: string; holdDatabase: () => Promise<void> }> {
  const holds: Hold[] = [];
  const release = async (): Promise<void> => {
    for (const hold of holds.splice(0)) await hold.release();
  };
  try {
    makeFolder(folder);
    const real = realpathSync(folder);
    // A first start makes the inner folder only when the outer one is held: until then the outer one speaks for it.
    if (INNER.has(basename(real))) await refuseHeld(dirname(real));
    holds.push(await holdFolder(folder, url));
    const database = databaseIn();
    const holdDatabase = async (): Promise<void> => {
      if (existsSync(database) && realpathSync(database) !== real && holds.length === 1)
        holds.push(await holdFolder(database, url));
    };
    await holdDatabase();
    return { database, holdDatabase, release };
  } catch (error) {
    await release();
    throw error;
  }
}

/** @throws Held where another process has the folder */
async function refuseHeld(folder: string): Promise<void> {
  const hold = await holdFolder(folder, '');
  await hold.release();
}

/**
 * Takes a folder for this process alone, before anything in it is opened.
 * @param folder made when missing @param url where this server can be found, told to one that comes later
 * @throws Held where another process has it
 */
export async function holdFolder(folder: string, url: string): Promise<Hold> {
  makeFolder(folder);
  const name = nameOf(folder);
  const own: Holder = { pid: process.pid, url };
  const server = createServer((socket) => {
    socket.on('error', () => undefined);
    socket.end(JSON.stringify(own));
  });
  // It must not keep the process alive by itself.
  server.unref();
  if (!(await listen(server, name))) {
    const holder = await askHolder(name);
    const leftBehind = !holder && process.platform !== 'linux' && process.platform !== 'win32';
    if (leftBehind) rmSync(name, { force: true });
    if (!leftBehind || !(await listen(server, name))) throw new Held(folder, holder);
  }
  return {
    release: () => new Promise((done) => server.close(() => done())),
  };
}
