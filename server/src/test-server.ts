import { readFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, inject } from 'vitest';
import { createApp, type AppParts } from './app';
import type { Clock } from './clock';
import { computeHere } from './compute/compute';
import type { Db } from './db/db';
import { dbOf, openEngine } from './db/pglite';
import { keepAll } from './db/test-kept';
import { copyOnServer } from './db/test-template';
import { Hub } from './instruments/hub';

export interface Answer {
  status: number;
  type: string;
  // The tests read answers of every shape.
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  body: any;
}

export interface TestServer {
  db: Db;
  hub: Hub;
  base: string;
  call: (method: string, path: string, body?: unknown) => Promise<Answer>;
  close: () => Promise<void>;
}

/** A database, and what brings it back to the empty shop; that tells whether it could. */
interface Kept {
  db: Db;
  bringBack: () => Promise<boolean>;
}
/** Those that tests are done with. */
const free: Kept[] = [];
async function shopInMemory(file: string): Promise<Db> {
  const one = free.pop() ?? (await openedAnew(file));
  let isOpen = true;
  // What a test left running must not reach the shop of the next.
  const whileOpen = <Given extends unknown[], Back>(ask: (...given: Given) => Promise<Back>) => {
    return async (...given: Given): Promise<Back> => {
      if (!isOpen) throw new Error('this shop is closed');
      return ask(...given);
    };
  };
  const shop: Db = {
    ...one.db,
    query: whileOpen(one.db.query) as Db['query'],
    run: whileOpen(one.db.run),
    transaction: whileOpen(one.db.transaction) as Db['transaction'],
    session: (work) => work(shop),
    close: async () => {
      if (!isOpen) return;
      isOpen = false;
      if (await one.bringBack()) free.push(one);
      else await one.db.close();
    },
  };
  return shop;
}
async function openedAnew(file: string): Promise<Kept> {
  const db = dbOf(await openEngine(undefined, () => new Blob([readFileSync(file)])));
  return { db, bringBack: await keepAll(db) };
}

/** An empty shop: a copy of one that was made once, since making one takes seconds. In memory, or on the server where the tests run on one. */
export async function emptyShop(): Promise<Db> {
  const { file, server } = inject('emptyShop');
  return server ? copyOnServer(server) : shopInMemory(file);
}

/** The whole server on an empty database in memory, with instruments that take no time. */
export async function startTestServer(
  now: Clock = () => '2026-11-23T09:00:00.000Z',
  db?: Db,
  parts: Partial<AppParts> = {},
  among?: ConstructorParameters<typeof Hub>[3],
): Promise<TestServer> {
  const opened = db ?? (await emptyShop());
  const hub = new Hub(opened, now, { aValue: 5, aSample: 20 }, among);
  await hub.start();
  const server = createApp({
    db: opened,
    hub,
    compute: computeHere,
    now,
    ...(among ? { changes: among.changes } : {}),
    ...parts,
  }).listen(0);
  // Server and client take turns in one process here: after one long answer the other would find its idle connection ended.
  server.keepAliveTimeout = 600_000;
  const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api/v1`;
  // As the bench's browser keeps it.
  let cookie = '';
  return {
    db: opened,
    hub,
    base,
    call: async (method, path, body) => {
      const response = await fetch(base + path, {
        method,
        headers: { 'content-type': 'application/json', ...(cookie ? { cookie } : {}) },
        ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
      });
      const given = response.headers.get('set-cookie')?.split(';')[0];
      if (given && path !== '/sign-in') cookie = given;
      return {
        status: response.status,
        type: response.headers.get('content-type') ?? '',
        body: await response.json(),
      };
    },
    close: async () => {
      hub.stop();
      server.close();
      server.closeAllConnections();
      await opened.close();
    },
  };
}

/** The server of a file of tests, started before them and ended after them; with the calls that most of them send. */
export function onServer(start: () => Promise<TestServer> = startTestServer) {
  let server: TestServer;
  beforeAll(async () => {
    server = await start();
  });
  afterAll(() => server.close());
  const call: TestServer['call'] = (...all) => server.call(...all);
  return {
    get db() {
      return server.db;
    },
    get hub() {
      return server.hub;
    },
    get base() {
      return server.base;
    },
    call,
    get: (path: string): Promise<Answer> => call('GET', path),
    post: (path: string, body: unknown = {}): Promise<Answer> => call('POST', path, body),
    put: (path: string, body: unknown): Promise<Answer> => call('PUT', path, body),
  };
}

/** The fields that an answer complains of. */
export const paths = ({ body }: Answer): string[] => body.errors.map((e: { path: string }) => e.path);
