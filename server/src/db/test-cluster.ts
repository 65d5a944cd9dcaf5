import { execFileSync, spawn } from 'node:child_process';
import { chownSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';

// A PostgreSQL server of the tests' own: on a free port of this machine, in a folder that is gone after them.

const DEBIAN = '/usr/lib/postgresql';
/** Where the programs of the server are: the newest that Debian's packages put there. */
function programs(): string {
  const [newest] = existsSync(DEBIAN) ? readdirSync(DEBIAN).sort((a, b) => Number(b) - Number(a)) : [];
  if (!newest) throw new Error('These tests need PostgreSQL (apt-get install postgresql).');
  return join(DEBIAN, newest, 'bin');
}

/** A port of this machine that nobody listens on. */
export const freePort = (): Promise<number> =>
  new Promise((done, fail) => {
    const probe = createServer();
    probe.once('error', fail);
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => done(typeof address === 'object' && address ? address.port : 0));
    });
  });

/** The server does not run as root: there its own user does it. */
function ownUser(): { uid?: number; gid?: number } {
  if (process.getuid?.() !== 0) return {};
  const [uid, gid] = ['-u', '-g'].map((which) => Number(execFileSync('id', [which, 'postgres']).toString()));
  return { uid, gid } as { uid: number; gid: number };
}

export interface Cluster {
  /** The address of one of its databases. */
  url: (database: string) => string;
  /** Ends it as when its process is killed, and starts it again at the same address. */
  killAndStart: () => Promise<void>;
  stop: () => Promise<void>;
}

/** Makes a cluster and starts its server. */
export async function startCluster(): Promise<Cluster> {
  const user = ownUser();
  const folder = mkdtempSync(join(tmpdir(), 'kevro-postgres-'));
  if (user.uid !== undefined && user.gid !== undefined) chownSync(folder, user.uid, user.gid);
  const bin = programs();
  const data = join(folder, 'data');
  execFileSync(
    join(bin, 'initdb'),
    ['-D', data, '-U', 'kevro', '-A', 'trust', '-E', 'UTF8', '--locale=C.UTF-8', '-N'],
    {
      ...user,
      cwd: folder,
      stdio: 'ignore',
    },
  );
  const port = await freePort();
  const url = (database: string): string => `postgresql://kevro@127.0.0.1:${port}/${database}`;
  // What a killed process wrote is there without it; the power does not go here.
  const settings = [
    'listen_addresses=127.0.0.1',
    'unix_socket_directories=',
    'max_connections=200',
    'fsync=off',
    'full_page_writes=off',
    'jit=off',
  ];
  async function start() {
    const server = spawn(
      join(bin, 'postgres'),
      ['-D', data, '-p', String(port), ...settings.flatMap((one) => ['-c', one])],
      {
        ...user,
        cwd: folder,
        stdio: 'ignore',
      },
    );
    const gone = new Promise<void>((done) => server.once('exit', () => done()));
    for (;;) {
      if (server.exitCode !== null) throw new Error(`PostgreSQL ended with ${server.exitCode}`);
      const client = new pg.Client({ connectionString: url('postgres') });
      client.on('error', () => undefined);
      try {
        await client.connect();
        await client.end();
        return { server, gone };
      } catch {
        await new Promise((again) => setTimeout(again, 50));
      }
    }
  }
  let now = await start();
  return {
    url,
    killAndStart: async () => {
      now.server.kill('SIGQUIT');
      await now.gone;
      now = await start();
    },
    stop: async () => {
      now.server.kill('SIGINT');
      await now.gone;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** Runs a statement. */
export async function asked(url: string, sql: string): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    await client.query(sql);
  } finally {
    await client.end();
  }
}

/** An empty database of a test's own. @param of its address, as the first one of the cluster has it @param from what it begins as */
export async function newDatabase(of: string, from = 'template0'): Promise<string> {
  const name = `shop_${process.pid}_${Math.random().toString(36).slice(2)}`;
  await asked(of, `create database ${name} template ${from}`);
  return of.replace(/[^/]*$/, name);
}

/** An empty database for several shops: its user owns the tables, and sees through no wall between them. @param of the address of the cluster's first database */
export async function databaseForShops(of: string): Promise<string> {
  await asked(of, 'create role shopkeeper login');
  const made = await newDatabase(of);
  await asked(of, `alter database ${made.replace(/^.*\//, '')} owner to shopkeeper`);
  return made.replace('//kevro@', '//shopkeeper@');
}
