import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fill, multiplySetups } from '../test-large';
import { startTestServer, type TestServer } from '../test-server';
import type { Db } from './db';
import { dbOfPool, poolAt } from './postgres';
import { newDatabase, startCluster, type Cluster } from './test-cluster';
import { makeTemplate } from './test-template';

// How a server finds what a page asks of a large shop: by an index wherever one should serve.

/** Tables that grow with the shop: none of them is read through for a page. */
const GROW = [
  'setup',
  'frame',
  'measurement',
  'player',
  'fitting',
  'round',
  'session',
  'step_mark',
  'plan',
  'aim',
];
const SIZE = { frames: 6000, players: 6000, measurements: 6, fittings: 3000 };

let cluster: Cluster;
let server: TestServer;
/** What was asked of the database since this was emptied. */
let asked: { sql: string; values: readonly unknown[] }[] = [];
beforeAll(async () => {
  cluster = await startCluster();
  await makeTemplate(cluster);
  const db = dbOfPool(poolAt(await newDatabase(cluster.url('postgres'), 'an_empty_shop')));
  const heard: Db = {
    ...db,
    query: (sql, values = []) => {
      asked.push({ sql, values });
      return db.query(sql, values);
    },
  };
  server = await startTestServer(undefined, heard);
  const rows = Array.from(
    { length: 200 },
    (_, i) => `Player ${i},tennis,${(270 + i * 0.5).toFixed(1)},32.${i % 9},31${i % 9},13.${i % 9},yes,1`,
  );
  const read = await fetch(`${server.base}/setups/import?mode=store`, {
    method: 'POST',
    headers: { 'content-type': 'text/csv' },
    body: ['name,sport,weight (g),balance (cm),swing weight,twist weight,strings on,overgrips', ...rows].join(
      '\n',
    ),
  });
  expect(read.status).toBe(200);
  await multiplySetups(db, 100);
  await fill(db, SIZE);
  // Of a shop of which nothing was said it is asked whether it is used.
  await server.call('PUT', '/shop', {
    ...(await server.call('GET', '/shop')).body,
    begun: undefined,
    demo: undefined,
  });
}, 120_000);
afterAll(async () => {
  await server.close();
  await cluster.stop();
});

interface Plan {
  'Node Type': string;
  'Relation Name'?: string;
  Plans?: Plan[];
}
const all = (plan: Plan): Plan[] => [plan, ...(plan.Plans ?? []).flatMap(all)];
/** Tables that are read through for what a page asks. */
async function readThrough(path: string): Promise<string[]> {
  asked = [];
  const answer = await server.call('GET', path);
  expect([path, answer.status]).toEqual([path, 200]);
  const found = new Set<string>();
  for (const { sql, values } of asked.filter((one) => /^\s*(select|with)\b/i.test(one.sql))) {
    const [explained] = await server.db.query<{ 'QUERY PLAN': [{ Plan: Plan }] }>(
      `explain (format json) ${sql}`,
      values,
    );
    for (const node of all((explained as { 'QUERY PLAN': [{ Plan: Plan }] })['QUERY PLAN'][0].Plan))
      if (node['Node Type'] === 'Seq Scan' && GROW.includes(node['Relation Name'] ?? ''))
        found.add(`${node['Relation Name']}: ${sql.replace(/\s+/g, ' ').slice(0, 200)}`);
  }
  return [...found];
}

describe('no table that grows is read through for', () => {
  it.each([
    ['one frame with its history', '/frames/f77'],
    ['its measurements', '/frames/f77/measurements'],
    ['a player’s page', '/players/p77/page'],
    ['a fitting', '/fittings/x77'],
    ['a page of frames by owner', '/frames?sort=owner&offset=1000'],
    ['a page of frames by when they were measured', '/frames?sort=measured&offset=1000'],
    ['a page of frames by model', '/frames?sort=model&offset=1000'],
    ['frames by their words and their owner’s', '/frames?search=t-0045+number'],
    ['the first setups by weight', '/setups?limit=100&sport=tennis&sort=weight'],
    ['the first setups by name', '/setups?limit=100&sport=tennis&sort=name'],
    ['the nearest setups of a frame', '/measurements/m77-6/setups?limit=50'],
  ])('%s', async (_, path) => {
    expect(await readThrough(path)).toEqual([]);
  });
});
