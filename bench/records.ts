// How long lists, search, one frame's page and Today take with 5,000 frames of 20 measurements each and 500 open fittings, over HTTP. Prints the 95th percentile of many requests.
import { mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seededUniforms } from '@kevro/core';
import { createApp } from '../server/src/app';
import { systemClock } from '../server/src/clock';
import { computeHere } from '../server/src/compute/compute';
import type { Db } from '../server/src/db/db';
import { openPglite } from '../server/src/db/pglite';
import { Hub } from '../server/src/instruments/hub';
import { BENCH_PACE } from '../server/src/instruments/stand-in';

const FRAMES = 5000;
const PLAYERS = 1500;
const MEASUREMENTS = 20;
/** Open fittings, each with a round that was measured three times, aimed twice, planned and half built. */
const FITTINGS = 500;
const REQUESTS = 200;
const AIM_MS = 100;

/** Rows are made in the database itself: what is timed is reading them. */
async function fill(db: Db): Promise<void> {
  await db.query(
    `insert into player (id, name, level, style, sports)
     select 'p' || i, 'Player ' || md5(i::text) || ' Number ' || i, 'club', 'all-court', '["tennis"]'
     from generate_series(1, $1::int) i`,
    [PLAYERS],
  );
  await db.query(
    `insert into frame (id, tag, maker, model, owner_id, shape, pattern, grip_size, note)
     select 'f' || i, 'T-' || lpad(i::text, 5, '0'), 'Maker ' || i % 17, 'Model ' || i % 113,
       case when i % 3 = 0 then null else 'p' || 1 + i % $2::int end,
       '{"sport":"tennis","lengthCm":68.58,"headAreaCm2":632}', '16×19', '4 3/8', ''
     from generate_series(1, $1::int) i`,
    [FRAMES, PLAYERS],
  );
  await db.query(
    `insert into measurement (id, key, frame_id, taken_at, dress, mass_g, balance_cm, swing_weight, twist_weight,
       axis_cm, uncertainty, note)
     select 'm' || f || '-' || n, 'm' || f || '-' || n, 'f' || f, timestamptz '2025-01-01' + (f + 9 * n) * interval '1 hour',
       '{"strings":true}', 300 + f % 40, 31 + (f % 20) / 10.0, 300 + (f + n) % 50, 13.5, 10.16,
       '{"massG":0.3,"balanceCm":0.07,"swingWeight":0.8,"twistWeight":0.15}', ''
     from generate_series(1, $1::int) f, generate_series(1, $2::int) n`,
    [FRAMES, MEASUREMENTS],
  );
  await db.query(
    `update frame set newest_measurement_id = m.id, measured_at = m.taken_at from measurement m
     where m.id = 'm' || substr(frame.id, 2) || '-' || $1::text`,
    [String(MEASUREMENTS)],
  );
  await fillFittings(db);
  await db.query('analyze');
}

async function fillFittings(db: Db): Promise<void> {
  const steps = JSON.stringify(
    Array.from({ length: 9 }, (_, i) => ({
      key: `step-${i}`,
      kind: 'fix-head',
      placementIds: [],
      cautions: [],
    })),
  );
  const each = `from generate_series(1, ${FITTINGS}) i`;
  await db.run(`
    insert into fitting (id, player_id, opened_at) select 'x' || i, 'p' || 1 + i % ${PLAYERS}, now() ${each};
    insert into fitting_frame (fitting_id, frame_id, position) select 'x' || i, 'f' || i, 0 ${each};
    insert into round (id, fitting_id, frame_id, number, why, begun_at, start_id)
      select 'r' || i, 'x' || i, 'f' || i, 1, 'first', now(), 'm' || i || '-1' ${each};
    update measurement set round_id = 'r' || substr(frame_id, 2), purpose = 'trial'
      where id in (select 'm' || i || '-' || n ${each}, generate_series(1, 3) n);
    insert into aim (id, round_id, created_at, way, target)
      select 'a' || i || '-' || n, 'r' || i, now(), 'by-hand', '{}' ${each}, generate_series(1, 2) n;
    insert into plan (id, round_id, aim_id, measurement_id, created_at, school, by_hand, placements, specs, uncertainty,
        within_tolerance, steps)
      select 'q' || i, 'r' || i, 'a' || i || '-2', 'm' || i || '-1', now(), 'free', false, '[]', '{}', '{}', true,
        '${steps}' ${each};
    insert into session (id, key, round_id, played_on, at, data)
      select 's' || i || '-' || n, 's' || i || '-' || n, 'r' || i, date '2026-01-01' + n, now(),
        '{"energyLeft":"enough","arm":"fine","note":"","by":""}' ${each}, generate_series(1, 20) n;
    insert into programme (id, key, fitting_id, frame_id, name, begun_at, round_id, start_id)
      select 'g' || i, 'g' || i, 'x' || i, 'f' || i, 'climb', now(), 'r' || i, 'm' || i || '-1' ${each} where i % 4 = 0;
    insert into step_mark (plan_id, step, mark, at)
      select 'q' || i, 'step-' || n, 'done', now() ${each}, generate_series(0, i % 9) n;`);
}

const folder = mkdtempSync(join(tmpdir(), 'kevro-bench-records-'));
const db = await openPglite(join(folder, 'data'));
const hub = new Hub(db, systemClock, BENCH_PACE);
const server = createApp({ db, hub, compute: computeHere }).listen(0);
try {
  await fill(db);
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
    ['frames, searched by tag', () => `/frames?search=t-${String(any(FRAMES)).padStart(5, '0').slice(0, 4)}`],
    ['frames, searched by owner and model', () => `/frames?search=number+${any(99)}+model+${any(113)}`],
    ['players, searched', () => `/players?search=number+${any(PLAYERS)}`],
    ['one frame with its history', () => `/frames/f${any(FRAMES)}`],
    [`today, the screen's page of ${FITTINGS} fittings`, () => '/today?limit=100'],
    [`today, all of ${FITTINGS} fittings at once`, () => `/today?limit=${FITTINGS}`],
    ['one fitting', () => `/fittings/x${any(FITTINGS)}`],
    ['today, narrowed by person', () => `/today?search=number+${any(PLAYERS)}`],
    ['everything, searched', () => `/search?q=model+${any(113)}`],
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
