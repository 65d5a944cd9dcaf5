import { createServer, type RequestListener } from 'node:http';
import { execFileSync } from 'node:child_process';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { createApp } from '../server/src/app';
import { computeInThreads } from '../server/src/compute/compute';
import { systemClock } from '../server/src/clock';
import type { Db } from '../server/src/db/db';
import { dbOf, openEngine } from '../server/src/db/pglite';
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

/** Keeps the shop as it was copied, and notes which tables are written to from then on. @returns what brings the shop back */
async function keepAll(on: Db): Promise<() => Promise<void>> {
  const tables = await on.query<{ name: string; columns: string }>(`
    select format('%I', table_name) as name, string_agg(format('%I', column_name), ', ' order by ordinal_position) as columns
    from information_schema.columns join information_schema.tables using (table_schema, table_name)
    where table_schema = 'public' and table_type = 'BASE TABLE' and is_generated = 'NEVER'
    group by table_name`);
  const sequences = await on.query<{ name: string; value: number }>(
    `select format('%I', sequencename) as name, coalesce(last_value, 0) as value from pg_sequences where schemaname = 'public'`,
  );
  await on.run(`
    create schema kept;
    create table kept.written (name text primary key);
    create function kept.note() returns trigger language plpgsql as $$
      begin insert into kept.written values (format('%I', tg_table_name)) on conflict do nothing; return null; end $$;
    ${tables
      .map(
        ({ name }) => `
    create table kept.${name} as table public.${name};
    create trigger zz_kept after insert or update or delete or truncate on public.${name} for each statement execute function kept.note();`,
      )
      .join('')}`);
  return () =>
    on.transaction(async (tx) => {
      const written = new Set(
        (await tx.query<{ name: string }>('select name from kept.written')).map(({ name }) => name),
      );
      const changed = tables.filter(({ name }) => written.has(name));
      await tx.run(
        [
          // No key asks for its row meanwhile, and nothing is noted.
          'set local session_replication_role = replica',
          'delete from kept.written',
          ...changed.map(
            ({ name, columns }) =>
              `delete from ${name}; insert into ${name} (${columns}) overriding system value select ${columns} from kept.${name}`,
          ),
          ...sequences.map(
            ({ name, value }) => `select setval('${name}', ${Math.max(value, 1)}, ${value > 0})`,
          ),
        ].join(';\n'),
      );
    });
}
const bringBack = await keepAll(db);

let hub: Hub | undefined;
let underWay = 0;
async function open(): Promise<Opened> {
  answering = unready;
  // What the pages of the last test still ask is nobody's question any more.
  hub?.stop();
  server.closeAllConnections();
  while (underWay > 0) await new Promise((again) => setTimeout(again, 5));
  await bringBack();
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
