// What safety costs, and whether it stays quick for everybody: commits with and without the disk, fifty at once, answers beside heavy work, a backup of a large shop.
import { spawn, type ChildProcess } from 'node:child_process';
import { createWriteStream, existsSync, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { get } from 'node:http';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import { pipeline } from 'node:stream/promises';
import { PGlite } from '@electric-sql/pglite';
import { restore } from '../server/src/backup/restore';
import { dbOf } from '../server/src/db/pglite';
import { openShop } from '../server/src/start/open-shop';

const FRAMES = Number(process.env.FRAMES ?? 5000);
const MEASUREMENTS = 20;
const CLIENTS = 50;
const SECONDS = Number(process.env.SECONDS ?? 60);
const PORT = 4793;
const url = `http://127.0.0.1:${PORT}/api/v1`;
const root = resolve(import.meta.dirname, '../..');
const folder = mkdtempSync(join(tmpdir(), 'kevro-safety-'));
const data = join(folder, 'data');
const database = join(data, 'database');

const at = (values: readonly number[], share: number): number =>
  values.toSorted((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))] ?? NaN;
const row = (name: string, said: string): void => console.log(`${name.padEnd(58)} ${said}`);
const ms = (value: number): string => `${value.toFixed(value < 10 ? 1 : 0)} ms`;

// Commits a second, one after the other, in a folder of this disk.
async function commits(where: string, durable: boolean): Promise<number> {
  const db = durable ? await openShop(where) : dbOf(await PGlite.create(where));
  if (!durable) await db.run('create table setup_shape (key text, sport text, shape jsonb)');
  const COUNT = 300;
  const began = performance.now();
  for (let i = 0; i < COUNT; i++)
    await db.query("insert into setup_shape (key, sport, shape) values ($1, '', '{}')", [`c${i}`]);
  const rate = (COUNT / (performance.now() - began)) * 1000;
  await db.close();
  return rate;
}
const [durable, loose] = [
  await commits(join(folder, 'durable'), true),
  await commits(join(folder, 'loose'), false),
];
row(
  'commits a second, each on the disk',
  `${durable.toFixed(0)} (${(durable / loose).toFixed(2)} of those that are not)`,
);

// A large shop.
const shop = await openShop(database);
await shop.run(`
  insert into player (id, name, sports, level, style, bothers)
    select 'p' || i, 'Player ' || i, '["tennis"]', '', '', '[]' from generate_series(1, 500) i;
  insert into frame (id, tag, maker, model, shape, pattern, grip_size, note, owner_id)
    select 'f' || i, 'T-' || i, 'Velmond', 'Quarr 97', '{"sport":"tennis","lengthCm":68.58,"headAreaCm2":645}', '', '', '', 'p' || (1 + i % 500)
    from generate_series(1, ${FRAMES}) i;
  insert into measurement (id, key, frame_id, taken_at, dress, mass_g, balance_cm, swing_weight, twist_weight, axis_cm, parts, note)
    select 'm' || i || '-' || j, 'k' || i || '-' || j, 'f' || i, now(), '{"strings":true}', 300 + i % 30, 31 + (j % 10) / 10.0, 300 + j, 13.5, 10.16,
      '{"massG":{"random":0.3,"common":0},"balanceCm":{"random":0.05,"common":0},"swingWeight":{"random":0.6,"common":0},"twistWeight":{"random":0.1,"common":0}}', ''
    from generate_series(1, ${FRAMES}) i, generate_series(1, ${MEASUREMENTS}) j;
`);
await shop.close();

const turnFile = join(folder, 'longest-turn');
async function start(): Promise<ChildProcess> {
  const turn = join(root, 'bench/longest-turn.mjs');
  const child = spawn(process.execPath, ['--import', turn, join(root, 'server/dist/main.js')], {
    env: { ...process.env, PORT: String(PORT), KEVRO_DATA: data, LONGEST_TURN: turnFile },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  while (
    !(await fetch(`${url}/health`).then(
      (r) => r.ok,
      () => false,
    ))
  )
    await new Promise((again) => setTimeout(again, 50));
  return child;
}
const memoryMb = (child: ChildProcess): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))?.[1] ?? NaN) / 1024;
const timed = async (work: () => Promise<Response>): Promise<number> => {
  const began = performance.now();
  const answer = await work();
  await answer.arrayBuffer();
  if (!answer.ok) throw new Error(`${answer.status} from ${answer.url}`);
  return performance.now() - began;
};
/** The longest turn of the server's main thread since this was asked before, ms. */
async function longestTurn(child: ChildProcess): Promise<number> {
  rmSync(turnFile, { force: true });
  child.kill('SIGUSR2');
  while (!existsSync(turnFile) || readFileSync(turnFile, 'utf8') === '')
    await new Promise((again) => setTimeout(again, 10));
  return Number(readFileSync(turnFile, 'utf8'));
}
/** How long the first answer on a new connection takes, ms. */
const onNewConnection = (path: string): Promise<number> =>
  new Promise((done, fail) => {
    const began = performance.now();
    get(url + path, { agent: false }, (answer) => {
      answer.resume();
      answer.on('end', () => done(performance.now() - began));
    }).on('error', fail);
  });
const read = (path: string) => () => fetch(url + path);
const write = (path: string, body: object) => () =>
  fetch(url + path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });

let server = await start();
/** The wait for what is asked again and again while something else goes on. */
async function beside(work: Promise<unknown>, ask: () => Promise<number>): Promise<number[]> {
  const found: number[] = [];
  let going = true;
  const end = work.finally(() => {
    going = false;
  });
  while (going) {
    found.push(await ask());
    await new Promise((next) => setTimeout(next, 20));
  }
  await end;
  return found;
}
/** Clients at once for a while, one in ten writing. @returns how long each answer took */
async function clients(seconds: number, name: string): Promise<{ reads: number[]; writes: number[] }> {
  const reads: number[] = [];
  const writes: number[] = [];
  const until = performance.now() + seconds * 1000;
  await Promise.all(
    Array.from({ length: CLIENTS }, async (_, client) => {
      for (let i = 0; performance.now() < until; i++) {
        const one = 1 + ((client * 97 + i) % FRAMES);
        if (client % 10 === 0)
          writes.push(await timed(write('/players', { name: `${name} ${client} ${i}`, sports: ['tennis'] })));
        else
          reads.push(await timed(read(i % 2 ? `/frames/f${one}` : `/players?search=${one % 500}&limit=20`)));
      }
    }),
  );
  return { reads, writes };
}

// Fifty at once, nine reading for each that writes; and others that come to it on new connections.
const before = memoryMb(server);
await longestTurn(server);
/** A list that is not searched is counted to the last. */
const players = async (): Promise<number> =>
  ((await (await fetch(`${url}/players?limit=1`)).json()) as { total: number }).total;
const there = await players();
const load = clients(SECONDS, 'Client');
const fresh: Promise<number>[] = [];
const firsts = beside(load, () => {
  fresh.push(onNewConnection('/players?limit=5'));
  return Promise.resolve(0);
});
const { reads, writes } = await load;
await firsts;
const firstAnswers = await Promise.all(fresh);
const turn = await longestTurn(server);
const stored = (await players()) - there;
row(
  `${CLIENTS} clients for ${SECONDS} s`,
  `${reads.length} reads, ${writes.length} writes, ${writes.length - stored} lost`,
);
for (const [name, values] of [
  ['a read', reads],
  ['a write', writes],
] as const)
  row(
    `  ${name}`,
    `median ${ms(at(values, 0.5))}, p95 ${ms(at(values, 0.95))}, p99 ${ms(at(values, 0.99))}, ${(at(values, 0.99) / at(values, 0.5)).toFixed(1)} medians (aim under 10)`,
  );
row(
  '  the first answer on a new connection',
  `median ${ms(at(firstAnswers, 0.5))}, p95 ${ms(at(firstAnswers, 0.95))} (aim under 1000), longest ${ms(at(firstAnswers, 1))}`,
);
row('  longest turn of the main thread', `${ms(turn)} (aim under 50)`);
row('  memory of the server', `${before.toFixed(0)} MB before, ${memoryMb(server).toFixed(0)} MB after`);

// All fifty on a new connection each time.
const newcomers: number[] = [];
const end = performance.now() + 10_000;
await Promise.all(
  Array.from({ length: CLIENTS }, async (_, client) => {
    for (let i = 0; performance.now() < end; i++)
      newcomers.push(await onNewConnection(`/frames/f${1 + ((client * 97 + i) % FRAMES)}`));
  }),
);
row(
  `${CLIENTS} readers, each on a new connection each time, for 10 s`,
  `${newcomers.length} answers, median ${ms(at(newcomers, 0.5))}, p95 ${ms(at(newcomers, 0.95))}, longest ${ms(at(newcomers, 1))}`,
);

// One body of 30 MB of zeros.
await longestTurn(server);
const zeros = `{"setups":[${'0,'.repeat(15 * 2 ** 20)}0]}`;
let memoryThen = 0;
const large = performance.now();
const refusal = fetch(`${url}/compute/nearest`, {
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: zeros,
}).then((answer) => answer.status);
const besideZeros = await beside(refusal, async () => {
  memoryThen = Math.max(memoryThen, memoryMb(server));
  return timed(read('/health'));
});
row(
  'one body of 30 MB of zeros',
  `answered ${await refusal} after ${((performance.now() - large) / 1000).toFixed(1)} s, the server at most ${memoryThen.toFixed(0)} MB`,
);
row(
  '  /health meanwhile',
  `median ${ms(at(besideZeros, 0.5))}, longest ${ms(at(besideZeros, 1))}; longest turn ${ms(await longestTurn(server))} (aim under 50)`,
);

// Eight heavy computations that nobody waits for any more.
const HEAVY = {
  shape: { sport: 'tennis', lengthCm: 68.58 },
  specs: { massG: 322, balanceCm: 32.8, swingWeight: 316, twistWeight: 13.9 },
  target: {
    massG: { value: 334, tolerance: 1 },
    balanceCm: { value: 32.4, tolerance: 0.15 },
    swingWeight: { value: 322, tolerance: 1.5 },
    twistWeight: { value: 14.1, tolerance: 0.2 },
  },
};
const leaving = new AbortController();
const left = Array.from({ length: 8 }, () =>
  fetch(`${url}/compute/plan`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(HEAVY),
    signal: leaving.signal,
  }).catch(() => undefined),
);
await new Promise((next) => setTimeout(next, 400));
leaving.abort();
await Promise.all(left);
const EASY = {
  ...HEAVY,
  schools: ['free'],
  target: { massG: { value: 326, tolerance: 2 } },
};
row(
  'the next plan after eight heavy ones were left',
  `${((await timed(write('/compute/plan', EASY)).catch(() => NaN)) / 1000).toFixed(2)} s (aim under 2)`,
);

// Killed in the middle of it all: whatever was acknowledged is there.
const acknowledged: string[] = [];
let alive = true;
const writing = Promise.all(
  Array.from({ length: CLIENTS }, async (_, client) => {
    for (let i = 0; alive; i++) {
      const name = `Kept ${client} ${i}`;
      const ok = await write('/players', { name, sports: ['tennis'] })()
        .then(async (answer) => (await answer.json().catch(() => undefined)) !== undefined && answer.ok)
        .catch(() => false);
      if (!ok) return;
      acknowledged.push(name);
    }
  }),
);
await new Promise((next) => setTimeout(next, 5000));
server.kill('SIGKILL');
alive = false;
await writing;
await new Promise((next) => setTimeout(next, 300));
server = await start();
const kept = new Set<string>();
for (let offset = 0; ; offset += 500) {
  const part = (await (await fetch(`${url}/players?search=Kept&limit=500&offset=${offset}`)).json()) as {
    rows: { name: string }[];
  };
  for (const { name } of part.rows) kept.add(name);
  if (part.rows.length < 500) break;
}
row(
  'killed amid fifty that write',
  `${acknowledged.length} acknowledged, ${acknowledged.filter((name) => !kept.has(name)).length} of them lost`,
);

// Health beside plans that take seconds.
const heavy = Promise.all(
  Array.from({ length: 8 }, () => write('/compute/plan', HEAVY)().then((r) => r.arrayBuffer())),
);
const health = await beside(heavy, () => timed(read('/health')));
row(
  '/health while eight plans are worked out',
  `median ${ms(at(health, 0.5))}, p95 ${ms(at(health, 0.95))} (aim under 50)`,
);

// A backup of it all, while it is asked for other things.
let saving = true;
const meanwhile: number[] = [];
const file = join(folder, 'backup.zip');
const began = performance.now();
const saved = fetch(`${url}/backup`)
  .then((answer) => pipeline(Readable.fromWeb(answer.body as ReadableStream), createWriteStream(file)))
  .finally(() => {
    saving = false;
  });
let most = 0;
while (saving) {
  meanwhile.push(await timed(read('/frames/f7')));
  most = Math.max(most, memoryMb(server));
  await new Promise((next) => setTimeout(next, 20));
}
await saved;
const seconds = (performance.now() - began) / 1000;
server.kill('SIGTERM');
await new Promise((gone) => server.once('exit', gone));
const again = performance.now();
const { tables } = await restore(file, join(folder, 'restored'));
const rows = tables.reduce((sum, table) => sum + table.rows, 0);
row(
  `a backup of ${rows} rows`,
  `${seconds.toFixed(1)} s, ${(rows / seconds).toFixed(0)} rows a second, ${(statSync(file).size / 1e6).toFixed(1)} MB, the server at most ${most.toFixed(0)} MB`,
);
row('  another answer meanwhile', `median ${ms(at(meanwhile, 0.5))}, longest ${ms(at(meanwhile, 1))}`);
row('  restored in', `${((performance.now() - again) / 1000).toFixed(1)} s`);
rmSync(folder, { recursive: true, force: true });
