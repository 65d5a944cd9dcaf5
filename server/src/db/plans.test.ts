import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fill, multiplySetups } from '../test-large';
import { startTestServer, type TestServer } from '../test-server';
import type { Db } from './db';
import { dbOfPool, poolAt } from './postgres';
import { quickenSearch } from './quick-search';
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
  await quickenSearch(db);
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
  'Index Name'?: string;
  Plans?: Plan[];
}
const all = (plan: Plan): Plan[] => [plan, ...(plan.Plans ?? []).flatMap(all)];
/** How what a page asks is found, each step of it with its query. */
async function stepsOf(path: string): Promise<(Plan & { sql: string })[]> {
  asked = [];
  const answer = await server.call('GET', path);
  expect([path, answer.status]).toEqual([path, 200]);
  const steps: (Plan & { sql: string })[] = [];
  for (const { sql, values } of asked.filter((one) => /^\s*(select|with)\b/i.test(one.sql))) {
    const [explained] = await server.db.query<{ 'QUERY PLAN': [{ Plan: Plan }] }>(
      `explain (format json) ${sql}`,
      values,
    );
    for (const step of all((explained as { 'QUERY PLAN': [{ Plan: Plan }] })['QUERY PLAN'][0].Plan))
      steps.push({ ...step, sql: sql.replace(/\s+/g, ' ').slice(0, 200) });
  }
  return steps;
}
/** Tables that are read through for what a page asks. */
const readThrough = async (path: string): Promise<string[]> => [
  ...new Set(
    (await stepsOf(path)).flatMap(({ 'Node Type': type, 'Relation Name': table = '', sql }) =>
      type === 'Seq Scan' && GROW.includes(table) ? [`${table}: ${sql}`] : [],
    ),
  ),
];

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

it('the index of parts of words is asked for words that it knows parts of, and for no shorter ones', async () => {
  const indexes = async (path: string) => (await stepsOf(path)).map((step) => step['Index Name']);
  expect(await indexes('/frames?search=t-0045+57')).toContain('frame_by_words');
  expect(await indexes('/frames?search=model+57+33')).not.toContain('frame_by_words');
});

it('the nearest setups of a frame are found without reading the others', async () => {
  const steps = await stepsOf('/measurements/m77-6/setups?limit=50');
  const looked = steps.filter((step) => step['Index Name'] === 'setup_by_bare_swing');
  expect(looked.map((step) => step['Node Type'])).toContain('Index Only Scan');
  expect(looked.map((step) => step['Node Type'])).not.toContain('Index Scan');
});
