// One PostgreSQL server and two processes of Kevro: 200 clients for a minute, a killed process and a killed server; then a million setups and 100,000 frames.
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { dbOfPool, poolAt } from '../server/src/db/postgres';
import { freePort, newDatabase, startCluster } from '../server/src/db/test-cluster';
import { fill, multiplySetups } from '../server/src/test-large';
import { listOfSetups } from './setup-list';

const SECONDS = Number(process.env.SECONDS ?? 60);
const CLIENTS = Number(process.env.CLIENTS ?? 200);
const FRAMES = Number(process.env.FRAMES ?? 100_000);
const SETUPS = Number(process.env.SETUPS ?? 1_000_000);
/** As many are read in by the application; the others are copies of them. */
const READ_IN = 10_000;
const REQUESTS = 100;
const root = resolve(import.meta.dirname, '../..');
const folder = mkdtempSync(join(tmpdir(), 'kevro-bench-server-'));

const at = (values: readonly number[], share: number): number =>
  values.toSorted((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))] ?? NaN;
const row = (name: string, said: string): void => console.log(`${name.padEnd(58)} ${said}`);
const memoryMb = (pid: number | undefined): number => {
  try {
    return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;
  } catch {
    return 0;
  }
};
const ms = (value: number): string => `${value.toFixed(value < 10 ? 1 : 0)} ms`;

const cluster = await startCluster();
const database = await newDatabase(cluster.url('postgres'));

/** A process of the application on the database, with a folder of its own. */
class Kevro {
  private child: ChildProcess | undefined;
  url = '';
  constructor(
    private readonly name: string,
    private readonly databaseUrl: string | undefined,
  ) {}
  async start(): Promise<void> {
    const port = await freePort();
    this.url = `http://127.0.0.1:${port}/api/v1`;
    this.child = spawn(process.execPath, [join(root, 'server/dist/main.js')], {
      env: {
        ...process.env,
        PORT: String(port),
        KEVRO_DATA: join(folder, this.name),
        KEVRO_BENCH: this.name,
        ...(this.databaseUrl ? { DATABASE_URL: this.databaseUrl } : {}),
      },
      stdio: ['ignore', 'ignore', 'ignore'],
    });
    const isReady = (): Promise<boolean> =>
      fetch(`${this.url}/health`).then(
        (answer) => answer.ok,
        () => false,
      );
    while (!(await isReady())) await new Promise((again) => setTimeout(again, 100));
  }
  async end(signal: 'SIGTERM' | 'SIGKILL' = 'SIGTERM'): Promise<void> {
    const { child } = this;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const gone = new Promise((done) => child.once('exit', done));
    child.kill(signal);
    await gone;
  }
}

interface Told {
  times: { read: number[]; write: number[] };
  /** Answers that were no answer, by what they said. */
  errors: Map<string, number>;
  /** Keys of writes that were acknowledged. */
  stored: Set<string>;
}
/**
 * Clients that read and write, one in five writing; each sends a write that failed again under its key until it is answered.
 * @param again whether failures are to be met: else each is an error
 */
async function load(
  processes: readonly Kevro[],
  clients: number,
  seconds: number,
  again: boolean,
): Promise<Told> {
  const told: Told = { times: { read: [], write: [] }, errors: new Map(), stored: new Set() };
  const until = performance.now() + seconds * 1000;
  const fail = (what: string): void => void told.errors.set(what, (told.errors.get(what) ?? 0) + 1);
  await Promise.all(
    Array.from({ length: clients }, async (_, client) => {
      for (let i = 0; performance.now() < until; i++) {
        const writes = client % 5 === 0;
        const key = `client-${client}-${i}`;
        for (let attempt = 0; ; attempt++) {
          const { url } = processes[(client + attempt) % processes.length] as Kevro;
          const began = performance.now();
          try {
            const answer = writes
              ? await fetch(`${url}/players`, {
                  method: 'POST',
                  headers: { 'content-type': 'application/json' },
                  body: JSON.stringify({ key, name: `Client ${key}`, sports: ['tennis'] }),
                })
              : await fetch(
                  url +
                    (i % 3 === 0
                      ? '/today?limit=50'
                      : i % 3 === 1
                        ? `/players?search=client&limit=20`
                        : '/parts'),
                );
            await answer.arrayBuffer();
            if (!answer.ok) throw new Error(String(answer.status));
            told.times[writes ? 'write' : 'read'].push(performance.now() - began);
            if (writes) told.stored.add(key);
            break;
          } catch (error) {
            if (!again) fail(error instanceof Error ? error.message : String(error));
            if (!again || performance.now() > until + 30_000) break;
            await new Promise((rest) => setTimeout(rest, 200));
          }
        }
      }
    }),
  );
  return told;
}
const db = dbOfPool(poolAt(database));
async function storedNames(): Promise<{ rows: number; names: Set<string> }> {
  const rows = await db.query<{ name: string }>("select name from player where name like 'Client %'");
  return { rows: rows.length, names: new Set(rows.map(({ name }) => name.slice('Client '.length))) };
}
function say(
  title: string,
  { times, errors, stored }: Told,
  there?: { rows: number; names: Set<string> },
): void {
  const lost = there ? [...stored].filter((key) => !there.names.has(key)).length : 0;
  const doubled = there ? there.rows - there.names.size : 0;
  row(
    title,
    `${times.read.length} reads, ${times.write.length} writes; errors ${[...errors].map(([what, n]) => `${n} × ${what}`).join(', ') || 0}, ${lost} lost, ${doubled} doubled`,
  );
  for (const [name, values] of Object.entries(times))
    row(
      `  a ${name}`,
      `median ${ms(at(values, 0.5))}, p95 ${ms(at(values, 0.95))}, p99 ${ms(at(values, 0.99))}, ${(at(values, 0.99) / at(values, 0.5)).toFixed(1)} medians (aim at most 10)`,
    );
}

try {
  const [one, two] = [new Kevro('front', database), new Kevro('back', database)];
  await one.start();
  await two.start();
  say(
    `${CLIENTS} clients for ${SECONDS} s at two processes`,
    await load([one, two], CLIENTS, SECONDS, false),
    await storedNames(),
  );

  const killing = load([one, two], CLIENTS, 20, true);
  await new Promise((later) => setTimeout(later, 5000));
  await two.end('SIGKILL');
  await new Promise((later) => setTimeout(later, 5000));
  await cluster.killAndStart();
  say('  one process killed after 5 s, the database after 10', await killing, await storedNames());
  await one.end();

  const alone = new Kevro('alone', undefined);
  await alone.start();
  const embedded = await load([alone], 50, SECONDS, false);
  const names: string[] = [];
  for (let offset = 0; ; offset += 500) {
    const part = await fetch(`${alone.url}/players?search=client&limit=500&offset=${offset}`);
    const { rows } = (await part.json()) as { rows: { name: string }[] };
    names.push(...rows.map(({ name }) => name.slice('Client '.length)));
    if (rows.length < 500) break;
  }
  say(`50 clients for ${SECONDS} s at one process on the embedded database`, embedded, {
    rows: names.length,
    names: new Set(names),
  });
  await alone.end();

  // The same server with a large library and many frames.
  const large = new Kevro('large', database);
  await large.start();
  await fill(db, { frames: FRAMES, players: 5000, measurements: 3, fittings: 500 });
  const file = join(folder, 'backup.zip');
  const command = async (name: string, words: string[], databaseUrl: string): Promise<string> => {
    const began = performance.now();
    const child = spawn(process.execPath, [join(root, 'server/dist', name), ...words], {
      env: { ...process.env, DATABASE_URL: databaseUrl, KEVRO_DATA: join(folder, 'commands') },
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    let most = 0;
    const looking = setInterval(() => (most = Math.max(most, memoryMb(child.pid))), 50);
    const code = await new Promise((done) => child.once('exit', done));
    clearInterval(looking);
    if (code !== 0) throw new Error(`${name} ended with ${code}`);
    return `${((performance.now() - began) / 1000).toFixed(1)} s, at most ${most.toFixed(0)} MB (aim 600)`;
  };
  row(`a backup of ${FRAMES} frames`, await command('backup-shop.js', [file], database));
  const elsewhere = await newDatabase(cluster.url('postgres'));
  row('  restored into another database', await command('restore-shop.js', [file], elsewhere));
  const read = await fetch(`${large.url}/setups/import?mode=store`, {
    method: 'POST',
    headers: { 'content-type': 'text/csv' },
    body: listOfSetups(READ_IN),
  });
  if (!read.ok) throw new Error(await read.text());
  await read.arrayBuffer();
  await multiplySetups(db, SETUPS / READ_IN);
  const [counted] = await db.query<{ setups: number; frames: number }>(
    'select (select count(*) from setup) as setups, (select count(*) from frame) as frames',
  );
  console.log(
    `${counted?.setups} setups, ${counted?.frames} frames, ${REQUESTS} requests a line, one after the other`,
  );
  const any = (i: number, most: number): number => 1 + ((i * 7919) % most);
  const QUERIES: [string, (i: number) => string][] = [
    ['frames, first page by tag', () => '/frames'],
    ['frames, a page in the middle', (i) => `/frames?sort=tag&offset=${any(i, FRAMES - 100)}`],
    ['frames, searched', (i) => `/frames?search=t-${String(any(i, FRAMES)).padStart(6, '0')}`],
    ['one frame with its history', (i) => `/frames/f${any(i, FRAMES)}`],
    ['players, searched', (i) => `/players?search=number+${any(i, 5000)}`],
    ['today', () => '/today?limit=100'],
    [
      'setups, first page, sorted',
      (i) => `/setups?limit=100&sport=tennis&sort=${['weight', 'swing', 'name'][i % 3]}`,
    ],
    [
      'setups, filtered by ranges',
      (i) =>
        `/setups?limit=100&sport=tennis&minWeight=${310 + (i % 20)}&maxWeight=${312 + (i % 20)}&sort=swing`,
    ],
    ['setups, searched', (i) => `/setups?limit=100&search=player+${any(i, READ_IN).toString(36)}`],
    ['everything, searched', (i) => `/search?q=number+${any(i, 5000)}`],
    ['nearest 50 of a frame', (i) => `/measurements/m${any(i, FRAMES)}-3/setups?limit=50`],
  ];
  for (const [name, path] of QUERIES) {
    const times: number[] = [];
    for (let i = 0; i < REQUESTS + 5; i++) {
      const began = performance.now();
      const answer = await fetch(large.url + path(i));
      await answer.arrayBuffer();
      if (!answer.ok) throw new Error(`${name}: ${answer.status}`);
      if (i >= 5) times.push(performance.now() - began);
    }
    row(name, `median ${ms(at(times, 0.5))}, p95 ${ms(at(times, 0.95))} (aim 150)`);
  }
  await large.end();
} finally {
  await db.close();
  await cluster.stop();
  rmSync(folder, { recursive: true, force: true });
}
