import { beforeAll, afterAll, describe, expect, it } from 'vitest';
import { asSpot, settleFrame, type FrameShape } from '@kevro/core';
import type { FittingView } from '@kevro/contract';
import { OLD, storeOldDemo } from './fixtures/old-demo';
import { startTestServer, type TestServer } from '../test-server';
import type { Db } from './db';
import { migrate } from './migrate';
import { dbOf, openEngine } from './pglite';

type Row = Record<string, unknown>;

describe('a demo shop that the last version stored', () => {
  let server: TestServer;
  let db: Db;
  const rows = (table: string, order = 'seq'): Promise<Row[]> =>
    db.query<Row>(`select * from ${table} order by ${order}`);
  const of = (table: string): Row[] => OLD[table] ?? [];
  const fitting = async (id: string): Promise<FittingView> =>
    (await server.call('GET', `/fittings/${id}`)).body;

  beforeAll(async () => {
    db = dbOf(await openEngine());
    await migrate(db, 2);
    await storeOldDemo(db);
    await migrate(db, 19);
    await db.query(
      `update setup set facts = facts || '{"stiffness": 64}' where id = (select min(id) from setup)`,
    );
    await migrate(db);
    server = await startTestServer(undefined, db);
  });
  afterAll(() => server.close());

  it.each(['measurement', 'aim', 'plan', 'part', 'instrument', 'calibration', 'stringing', 'reading'])(
    'keeps every row of %s with its content',
    async (table) => {
      const now = await rows(table);
      const kept = of(table).map((row) => now.find(({ seq, id }) => (seq ?? id) === (row.seq ?? row.id)));
      expect(kept).toHaveLength(of(table).length);
      const moved = new Set(['fitting_id', 'materials', 'placements', 'uncertainty']);
      kept.forEach((row, i) => {
        const before = of(table)[i] as Row;
        for (const [field, value] of Object.entries(before)) {
          if (moved.has(field)) continue;
          const expected =
            table === 'part' && field === 'data' ? expect.objectContaining(value as Row) : value;
          expect([field, row?.[field]]).toEqual([field, expected]);
        }
      });
    },
  );

  it('keeps every uncertainty of a measurement, split as its means usually split', async () => {
    const now = await rows('measurement');
    for (const { id, uncertainty, estimated, how } of of('measurement')) {
      const parts = now.find((row) => row.id === id)?.parts as Record<
        string,
        { random: number; common: number }
      >;
      for (const [spec, u] of Object.entries(uncertainty as Record<string, number>)) {
        const { random = NaN, common = NaN } = parts[spec] ?? {};
        expect(Math.hypot(random, common)).toBeCloseTo(u, 9);
        const means = (how as Record<string, { means: string[] }>)[spec]?.means ?? [];
        const isGuess = (estimated as string[]).includes(spec);
        const isEdgeOn = spec === 'twistWeight' && means.includes('edge-on');
        expect(random).toBeCloseTo(isGuess ? 0 : (isEdgeOn ? 0.8 : 0.6) * u, 9);
      }
    }
  });

  it.each(['player', 'frame', 'setup', 'model', 'capture', 'shop', 'fitting_reference'])(
    'keeps as many rows of %s',
    async (table) => {
      expect(await rows(table, '1')).toHaveLength(of(table).length);
    },
  );

  it('finds the stiffness of a setup among its specs, and nowhere else', async () => {
    const [{ id }] = (await db.query('select min(id) as id from setup')) as [{ id: string }];
    const { setup } = (await server.call('GET', `/setups/${id}`)).body;
    expect(setup.specs).toMatchObject({ stiffness: 64 });
    expect(setup.facts).not.toHaveProperty('stiffness');
  });

  it('gives each fitting its frame and a round, with its aims and plans', async () => {
    expect((await rows('round')).length).toBe(of('fitting').length);
    for (const { id, frame_id } of of('fitting')) {
      const { frames } = await fitting(String(id));
      expect(frames.map(({ frame }) => frame.id)).toEqual([frame_id]);
      const [round] = frames[0]?.rounds ?? [];
      expect(round?.aims.map((aim) => aim.id)).toEqual(
        of('aim').flatMap((aim) => (aim.fitting_id === id ? [aim.id] : [])),
      );
      expect(round?.plans.map((plan) => plan.id)).toEqual(
        of('plan').flatMap((plan) => (plan.fitting_id === id ? [plan.id] : [])),
      );
    }
  });

  it('keeps every tick with its time, and finds it in the steps of its plan', async () => {
    const marks = await rows('step_mark');
    expect(marks).toHaveLength(of('build_step').length);
    for (const { plan_id, step, done_at } of of('build_step')) {
      const mark = marks.find((m) => m.plan_id === plan_id && m.step === step);
      expect(mark).toMatchObject({ mark: 'done', at: done_at });
      const [plan] = await db.query<{ steps: { key: string }[] }>('select steps from plan where id = $1', [
        plan_id,
      ]);
      expect(plan?.steps.map(({ key }) => key)).toContain(step);
    }
  });

  it('lays every placement where it lay: the same grams at the same place, to a hundredth of a millimetre, and on the hoop itself what lay on the edge of the one outline there was', async () => {
    let compared = 0;
    for (const { id, fitting_id, placements } of of('plan')) {
      const view = await fitting(String(fitting_id));
      const [{ frame, rounds } = { frame: undefined, rounds: [] }] = view.frames;
      const plan = rounds.flatMap((round) => round.plans).find((p) => p.id === id);
      const settled = settleFrame(frame?.shape as FrameShape);
      const spots = plan?.placements.map((p) => asSpot(settled, p)) ?? [];
      expect(spots).toHaveLength((placements as Row[]).length);
      (placements as { zone: string; massG: number; xCm: number; yCm: number; mirrored: boolean }[]).forEach(
        (p, i) => {
          const spot = spots[i];
          expect(spot).toMatchObject({ massG: p.massG, mirrored: p.mirrored });
          // By hand a piece may have been put a little beside the line that it lies on now.
          // What was said on the edge lies on the middle of the hoop, beside the strings.
          const onHoop = plan?.placements[i]?.path === 'rim' ? settled.sport.hoop.widthCm : 1e-3;
          const slack = plan?.byHand ? Math.max(0.5, onHoop) : onHoop;
          expect(
            Math.hypot((spot?.xCm ?? 0) - p.xCm, Math.abs(spot?.yCm ?? 0) - Math.abs(p.yCm)),
          ).toBeLessThan(slack);
          expect(plan?.parts.some((part) => part.id === plan.placements[i]?.partId)).toBe(true);
          compared++;
        },
      );
    }
    expect(compared).toBe(of('plan').flatMap(({ placements }) => placements as Row[]).length);
  });

  it('brings back the plan and the ticks that a measurement in the middle of a build had hidden', async () => {
    const [frame] = (await fitting('f-barto')).frames;
    const round = frame?.rounds[0];
    expect(round?.state.planId).toBe(of('plan').find((p) => p.fitting_id === 'f-barto')?.id);
    expect(Object.values(round?.state.steps ?? {})).toHaveLength(2);
    expect(round?.measurements.map(({ purpose }) => purpose)).toEqual(['found', 'found']);
  });

  it('gives a ceiling to the sport that it was said for, and a guide to tennis', async () => {
    for (const { id, ceiling_swing_weight: ceiling, guide } of of('player')) {
      const player = (await server.call('GET', `/players/${String(id)}`)).body;
      expect(Object.values(player.ceilings)).toEqual(ceiling === null ? [] : [ceiling]);
      expect(player.guides).toEqual(guide === null ? {} : { tennis: guide });
    }
    const both = of('player').find((p) => (p.sports as string[]).join() === 'padel,tennis');
    const { ceilings } = (await server.call('GET', `/players/${String(both?.id)}`)).body;
    expect(Object.keys(ceilings)).toEqual(['padel']);
  });

  it('notes what is on a frame in the language of placements', async () => {
    const { frame } = (await server.call('GET', '/frames/tv-112')).body;
    expect(frame.weights).toMatchObject([
      { path: 'handle', massG: 6, sides: 1, partId: '', what: 'lead under the grip, from before' },
    ]);
    const [weight] = frame.weights;
    expect(weight.endCm - weight.startCm).toBeCloseTo(6, 9);
  });

  it('goes on: today lists its fittings, and a plan is chosen', async () => {
    const { rows: today, total } = (await server.call('GET', '/today')).body;
    expect(total).toBe(of('fitting').length);
    expect(today.map((row: { id: string }) => row.id)).toEqual(
      of('fitting')
        .map(({ id }) => id)
        .toReversed(),
    );
  });
});
