// How long lists, search, one frame's page and Today take with 5,000 frames of 20 measurements each and 500 open fittings, over HTTP. Prints the 95th percentile of many requests.
import { mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seededUniforms } from '@kevro/core';
import { createApp } from '../server/src/app';
import { systemClock } from '../server/src/clock';
import { computeHere } from '../server/src/compute/compute';
import { openPglite } from '../server/src/db/pglite';
import { Hub } from '../server/src/instruments/hub';
import { BENCH_PACE } from '../server/src/instruments/stand-in';
import { fill } from '../server/src/test-large';

const FRAMES = 5000;
const PLAYERS = 1500;
const MEASUREMENTS = 20;
const FITTINGS = 500;
const REQUESTS = 200;
const AIM_MS = 100;

const folder = mkdtempSync(join(tmpdir(), 'kevro-bench-records-'));
const db = await openPglite(join(folder, 'data'));
const hub = new Hub(db, systemClock, BENCH_PACE);
const server = createApp({ db, hub, compute: computeHere }).listen(0);
try {
  await fill(db, { frames: FRAMES, players: PLAYERS, measurements: MEASUREMENTS, fittings: FITTINGS });
  const { port } = server.address() as AddressInfo;
  const base = `http://127.0.0.1:${port}/api/v1`;
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
    [`today, all of ${FITTINGS} fittings at once`, () => `/today?limit=${FITTINGS}`],
    ['one fitting', () => `/fittings/x${any(FITTINGS)}`],
    ['today, narrowed by person', () => `/today?search=number+${any(PLAYERS)}`],
    ['everything, searched', () => `/search?q=model+${any(113)}`],
    ['one player’s season', () => `/players/p${any(PLAYERS)}/season`],
    ['what the shop has learned of one', () => `/players/p${any(PLAYERS)}/learned?sport=tennis`],
    ['what the day asks for', () => '/day'],
    ['one player’s page', () => `/players/p${any(PLAYERS)}/page`],
    ['measurements of one frame', () => `/frames/f${any(FRAMES)}/measurements`],
  ];
  const quantile = (values: number[], q: number): number =>
    values.toSorted((a, b) => a - b)[Math.floor(q * (values.length - 1))] ?? Number.NaN;
  console.log(
    `${FRAMES} frames with ${MEASUREMENTS} measurements each, ${REQUESTS} requests a line, one after the other`,
  );
  for (const [name, path] of QUERIES) {
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
  rmSync(folder, { recursive: true, force: true });
}
