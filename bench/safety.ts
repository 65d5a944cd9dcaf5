// What safety costs, and whether it stays quick for everybody: commits with and without the disk, fifty at once, answers beside heavy work, a backup of a large shop.
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, statSync, createWriteStream } from 'node:fs';
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
  insert into measurement (id, key, frame_id, taken_at, dress, mass_g, balance_cm, swing_weight, twist_weight, axis_cm, uncertainty, note)
    select 'm' || i || '-' || j, 'k' || i || '-' || j, 'f' || i, now(), '{"strings":true}', 300 + i % 30, 31 + (j % 10) / 10.0, 300 + j, 13.5, 10.16,
      '{"massG":0.3,"balanceCm":0.05,"swingWeight":0.6,"twistWeight":0.1}', ''
    from generate_series(1, ${FRAMES}) i, generate_series(1, ${MEASUREMENTS}) j;
`);
await shop.close();

async function start(): Promise<ChildProcess> {
  const child = spawn(process.execPath, [join(root, 'server/dist/main.js')], {
    env: { ...process.env, PORT: String(PORT), KEVRO_DATA: data },
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
const read = (path: string) => () => fetch(url + path);
const write = (path: string, body: object) => () =>
  fetch(url + path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });

const server = await start();
// Fifty at once, nine reading for each that writes.
const before = memoryMb(server);
const reads: number[] = [];
const writes: number[] = [];
const until = performance.now() + SECONDS * 1000;
await Promise.all(
  Array.from({ length: CLIENTS }, async (_, client) => {
    for (let i = 0; performance.now() < until; i++) {
      const one = 1 + ((client * 97 + i) % FRAMES);
      if (client % 10 === 0)
        writes.push(await timed(write('/players', { name: `Client ${client} ${i}`, sports: ['tennis'] })));
      else reads.push(await timed(read(i % 2 ? `/frames/f${one}` : `/players?search=${one % 500}&limit=20`)));
    }
  }),
);
const stored = (await (await fetch(`${url}/players?search=Client&limit=1`)).json()) as { total: number };
row(
  `${CLIENTS} clients for ${SECONDS} s`,
  `${reads.length} reads, ${writes.length} writes, ${writes.length - stored.total} lost`,
);
for (const [name, values] of [
  ['a read', reads],
  ['a write', writes],
] as const)
  row(
    `  ${name}`,
    `median ${ms(at(values, 0.5))}, p95 ${ms(at(values, 0.95))}, p99 ${ms(at(values, 0.99))}, ${(at(values, 0.99) / at(values, 0.5)).toFixed(1)} medians (aim under 10)`,
  );
row('  memory of the server', `${before.toFixed(0)} MB before, ${memoryMb(server).toFixed(0)} MB after`);

// Health beside plans that take seconds.
const heavy = Array.from({ length: 8 }, () =>
  write('/compute/plan', {
    shape: { sport: 'tennis', lengthCm: 68.58 },
    specs: { massG: 322, balanceCm: 32.8, swingWeight: 316, twistWeight: 13.9 },
    target: {
      massG: { value: 334, tolerance: 1 },
      balanceCm: { value: 32.4, tolerance: 0.15 },
      swingWeight: { value: 322, tolerance: 1.5 },
      twistWeight: { value: 14.1, tolerance: 0.2 },
    },
  })().then((r) => r.arrayBuffer()),
);
let working = true;
const done = Promise.all(heavy).then(() => {
  working = false;
});
const health: number[] = [];
while (working) {
  health.push(await timed(read('/health')));
  await new Promise((next) => setTimeout(next, 20));
}
await done;
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
