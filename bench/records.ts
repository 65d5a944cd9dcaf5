// How long lists, search, one frame's page and Today take over HTTP, as the 95th percentile of many requests: with 5,000 frames of 20 measurements each and 500 open fittings
// on the embedded database; after the word `large` with 100,000 frames, 5,000 fittings and a million setups on a PostgreSQL server.
import { mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ALL_SPORTS, seededUniforms } from '@kevro/core';
import { createApp } from '../server/src/app';
import { systemClock } from '../server/src/clock';
import { computeHere } from '../server/src/compute/compute';
import { openPglite } from '../server/src/db/pglite';
import { openPostgres } from '../server/src/db/postgres';
import { newDatabase, startCluster } from '../server/src/db/test-cluster';
import { Hub } from '../server/src/instruments/hub';
import { BENCH_PACE } from '../server/src/instruments/stand-in';
import { fill, multiplySetups } from '../server/src/test-large';
import { listOfSetups } from './setup-list';

const LARGE = process.argv[2] === 'large';
const SIZE = LARGE
  ? { frames: 100_000, players: 20_000, measurements: 4, fittings: 5_000 }
  : { frames: 5_000, players: 1_500, measurements: 20, fittings: 500 };
/** What is read in from a list, and how many there are of each in the end. */
const SETUPS = LARGE ? { listed: 5_000, times: 200 } : { listed: 0, times: 0 };
const { frames: FRAMES, players: PLAYERS, fittings: FITTINGS } = SIZE;
/** As many as may be asked for at once. */
const AT_ONCE = Math.min(FITTINGS, 1000);
const REQUESTS = 200;
const AIM_MS = LARGE ? 150 : 100;

const folder = mkdtempSync(join(tmpdir(), 'kevro-bench-records-'));
const cluster = LARGE ? await startCluster() : undefined;
const nothing = async (): Promise<void> => undefined;
const db = cluster
  ? await openPostgres(await newDatabase(cluster.url('postgres')), nothing, (error) => {
      throw error;
    })
  : await openPglite(join(folder, 'data'));
const hub = new Hub(db, systemClock, BENCH_PACE);
const server = createApp({ db, hub, compute: computeHere }).listen(0);
try {
  const { port } = server.address() as AddressInfo;
  const base = `http://127.0.0.1:${port}/api/v1`;
  const setups = SETUPS.listed * SETUPS.times;
  if (setups > 0) {
    const read = await fetch(`${base}/setups/import?mode=store`, {
      method: 'POST',
      headers: { 'content-type': 'text/csv' },
      body: listOfSetups(SETUPS.listed),
    });
    if (!read.ok) throw new Error(await read.text());
    await multiplySetups(db, SETUPS.times);
  }
  await fill(db, SIZE);
  const random = seededUniforms(5);
  const any = (most: number): number => 1 + Math.floor(random() * most);
  const QUERIES: [string, () => string][] = [
    ['frames, first page by tag', () => '/frames'],
    [
      'frames, a page in the middle, last measured first',
      () => `/frames?sort=measured&offset=${any(FRAMES - 100)}`,
    ],
    ['frames, by owner', () => `/frames?sort=owner&offset=${any(40) * 100}`],
    ['frames, searched by tag', () => `/frames?search=t-${String(any(FRAMES)).padStart(6, '0').slice(0, 5)}`],
    ['frames, searched by owner and model', () => `/frames?search=number+${any(99)}+model+${any(113)}`],
    ['players, searched', () => `/players?search=number+${any(PLAYERS)}`],
    ['one frame with its history', () => `/frames/f${any(FRAMES)}`],
    [`today, the screen's page of ${FITTINGS} fittings`, () => '/today?limit=100'],
    [`today, ${AT_ONCE} fittings at once`, () => `/today?limit=${AT_ONCE}`],
    ['one fitting', () => `/fittings/x${any(FITTINGS)}`],
    ['today, narrowed by person', () => `/today?search=number+${any(PLAYERS)}`],
    ['everything, searched', () => `/search?q=model+${any(113)}`],
    ['one player’s season', () => `/players/p${any(PLAYERS)}/season`],
    ['what the shop has learned of one', () => `/players/p${any(PLAYERS)}/learned?sport=tennis`],
    ['what the day asks for', () => '/day'],
    ['one player’s page', () => `/players/p${any(PLAYERS)}/page`],
    ['measurements of one frame', () => `/frames/f${any(FRAMES)}/measurements`],
  ];
  const OF_SETUPS: typeof QUERIES = [
    ['setups, first page by weight', () => `/setups?limit=100&sport=${ALL_SPORTS[any(4) - 1]}&sort=weight`],
    ['setups, first page by name', () => '/setups?limit=100&sport=tennis&sort=name'],
    [
      'setups, first page within ranges',
      () =>
        `/setups?limit=100&sport=tennis&kind=published&minWeight=${310 + any(20)}&maxWeight=${318 + any(20)}&sort=swing`,
    ],
    ['setups, searched', () => `/setups?limit=100&search=${(any(5000) * 131).toString(36)}`],
    ['the nearest 50 setups of a frame', () => `/measurements/m${any(FRAMES)}-1/setups?limit=50`],
  ];
  const quantile = (values: number[], q: number): number =>
    values.toSorted((a, b) => a - b)[Math.floor(q * (values.length - 1))] ?? Number.NaN;
  console.log(
    `${FRAMES} frames with ${SIZE.measurements} measurements each, ${setups} setups, ${cluster ? 'on a PostgreSQL server' : 'embedded'}; ${REQUESTS} requests a line, one after the other`,
  );
  for (const [name, path] of [...QUERIES, ...(setups > 0 ? OF_SETUPS : [])]) {
    for (let i = 0; i < 10; i++) await (await fetch(base + path())).text();
    const times: number[] = [];
    for (let i = 0; i < REQUESTS; i++) {
      const began = performance.now();
      const response = await fetch(base + path());
      await response.text();
      if (!response.ok) throw new Error(`${name}: ${response.status}`);
      times.push(performance.now() - began);
    }
    const p95 = quantile(times, 0.95);
    const middle = quantile(times, 0.5).toFixed(1).padStart(7);
    console.log(
      `${name.padEnd(52)} median ${middle} ms  p95 ${p95.toFixed(1).padStart(7)} ms  ${(p95 / AIM_MS).toFixed(2)} of the aim (${AIM_MS} ms)`,
    );
  }
} finally {
  hub.stop();
  server.close();
  server.closeAllConnections();
  await db.close();
  await cluster?.stop();
  rmSync(folder, { recursive: true, force: true });
}
