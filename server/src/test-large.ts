import type { Db } from './db/db';

/** A large shop, for what is measured or looked at with one. */
export interface Size {
  frames: number;
  players: number;
  /** Of each frame. */
  measurements: number;
  /** Open ones, each with a round that was measured three times, aimed twice, planned and half built. */
  fittings: number;
}

/** Rows are made in the database itself: what is timed is reading them. */
export async function fill(db: Db, { frames, players, measurements, fittings }: Size): Promise<void> {
  await db.query(
    `insert into player (id, name, level, style, sports)
     select 'p' || i, 'Player ' || md5(i::text) || ' Number ' || i, 'club', 'all-court', '["tennis"]'
     from generate_series(1, $1::int) i`,
    [players],
  );
  await db.query(
    `insert into frame (id, tag, maker, model, owner_id, shape, pattern, grip_size, note)
     select 'f' || i, 'T-' || lpad(i::text, 6, '0'), 'Maker ' || i % 17, 'Model ' || i % 113,
       case when i % 3 = 0 then null else 'p' || 1 + i % $2::int end,
       '{"sport":"tennis","lengthCm":68.58,"headAreaCm2":632}', '16×19', '4 3/8', ''
     from generate_series(1, $1::int) i`,
    [frames, players],
  );
  await db.query(
    `insert into measurement (id, key, frame_id, taken_at, dress, mass_g, balance_cm, swing_weight, twist_weight,
       axis_cm, parts, note)
     select 'm' || f || '-' || n, 'm' || f || '-' || n, 'f' || f, timestamptz '2025-01-01' + (f + 9 * n) * interval '1 hour',
       '{"strings":true}', 300 + f % 40, 31 + (f % 20) / 10.0, 300 + (f + n) % 50, 13.5, 10.16,
       '{"massG":{"random":0.3,"common":0},"balanceCm":{"random":0.07,"common":0},"swingWeight":{"random":0.8,"common":0},"twistWeight":{"random":0.15,"common":0}}', ''
     from generate_series(1, $1::int) f, generate_series(1, $2::int) n`,
    [frames, measurements],
  );
  await db.query(
    `update frame set newest_measurement_id = m.id, measured_at = m.taken_at from measurement m
     where m.id = 'm' || substr(frame.id, 2) || '-' || $1::text`,
    [String(measurements)],
  );
  // Every frame strung three times.
  await db.query(
    `insert into stringing (id, frame_id, strung_on, data)
     select 't' || f || '-' || n, 'f' || f, date '2025-10-01' + 60 * n,
       '{"mains":"round poly","crosses":"round poly","mainsMm":1.25,"crossesMm":1.25,"mainsKg":24,"crossesKg":23,"unit":"kg","preStretchPercent":0,"note":""}'
     from generate_series(1, $1::int) f, generate_series(1, 3) n`,
    [frames],
  );
  await fillFittings(db, { players, fittings });
  // As a server does by itself in a while.
  await db.run('vacuum (analyze)');
}

async function fillFittings(
  db: Db,
  { players, fittings }: Pick<Size, 'players' | 'fittings'>,
): Promise<void> {
  const steps = JSON.stringify(
    Array.from({ length: 9 }, (_, i) => ({
      key: `step-${i}`,
      kind: 'fix-head',
      placementIds: [],
      cautions: [],
    })),
  );
  const each = `from generate_series(1, ${fittings}) i`;
  await db.run(`
    insert into fitting (id, player_id, opened_at) select 'x' || i, 'p' || 1 + i % ${players}, now() ${each};
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

/** Copies of the setups that are there, each a little heavier than the one before and under a name of its own. @param times how many there are of each afterwards */
export async function multiplySetups(db: Db, times: number): Promise<void> {
  const columns = await db.query<{ name: string }>(
    `select attname as name from pg_attribute where attrelid = 'setup'::regclass and attnum > 0 and not attisdropped
       and attgenerated = '' and attidentity = ''`,
  );
  const OTHER: Record<string, string> = {
    id: "id || '-' || n",
    fingerprint: "fingerprint || '-' || n",
    name: "name || ' ' || md5(n::text || id)",
    mass_g: 'mass_g + n % 17 * 0.1',
    bare_mass: 'bare_mass + n % 17 * 0.1',
    swing_weight: 'swing_weight + n % 13 * 0.1',
  };
  const names = columns.map(({ name }) => name);
  await db.query(
    `insert into setup (${names.join(', ')}) select ${names.map((name) => OTHER[name] ?? name).join(', ')}
     from setup, generate_series(1, $1::int) n`,
    [times - 1],
  );
  await db.run('vacuum (analyze) setup');
}
