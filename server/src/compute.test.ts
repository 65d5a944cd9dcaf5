import { describe, expect, it } from 'vitest';
import { SPORTS, bySpec, settleFrame, placeOf } from '@kevro/core';
import type { AnswerOf, CallName } from '@kevro/contract';
import { calls } from '@kevro/contract';
import { computeHere, computePlans, type Compute } from './compute/compute';
import { onServer } from './test-server';

const server = onServer();

const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const specs = { massG: 322, balanceCm: 32.8, swingWeight: 316, twistWeight: 13.9 };
const target = {
  massG: { value: 334, tolerance: 1 },
  balanceCm: { value: 32.4, tolerance: 0.15 },
  swingWeight: { value: 322, tolerance: 1.5 },
  twistWeight: { value: 14.1, tolerance: 0.2 },
};

async function ask<N extends CallName>(name: N, body: unknown): Promise<AnswerOf<N>> {
  const { status, body: answer } = await server.call('POST', calls[name].path, body);
  expect(status).toBe(200);
  return answer as AnswerOf<N>;
}

describe('the second part of the computation over HTTP', () => {
  it('takes as many pieces as it says, written out as a script writes them', async () => {
    const piece = { massG: 0.123456789, at: { xCm: 61.123456789, yCm: 12.123456789 }, mirrored: true };
    const additions = Array.from({ length: 500 }, () => piece);
    const { specs: after } = await ask('predict', { shape, specs, additions });
    expect(after.massG).toBeCloseTo(specs.massG + 500 * piece.massG, 6);
    const body = JSON.stringify({ shape, specs, additions }, null, 2);
    expect(body.length).toBeGreaterThan(64 * 1024);
    expect((await server.call('POST', calls.predict.path, body)).status).toBe(200);
  });

  it('plans with a margin that the chance confirms, and finishes from what is locked', async () => {
    const { plans } = await ask('plan', { shape, specs, target, schools: ['free'] });
    const [plan] = plans;
    expect(plan).toMatchObject({ withinTolerance: true, guarded: true, proven: true });
    expect(plan).not.toHaveProperty('bound');
    // The sport's typical instruments in their usual parts, the same at start and check.
    const u = SPORTS.tennis.typicalReading;
    const parts = bySpec((key) => ({ random: 0.6 * u[key], common: 0.8 * u[key] }));
    const asked = { shape, specs, target, placements: plan?.placements };
    const { chance, truly, contributions } = await ask('chance', {
      ...asked,
      start: parts,
      uncertainty: parts,
      drift: bySpec((key) => 0.2 * u[key]),
      readings: plan?.readings,
    });
    expect(chance).toBeCloseTo(plan?.chance ?? 0, 6);
    expect(truly).toBeCloseTo(plan?.truly ?? 0, 6);
    expect(contributions.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
    // Without a start it is exact, and plain numbers are all scatter: one reading of each at the check.
    const { spread } = await ask('chance', asked);
    expect(spread.massG).toBeGreaterThan(u.massG);
    const build = Math.sqrt(spread.massG ** 2 - u.massG ** 2);
    const two = await ask('chance', { ...asked, readings: { massG: { start: 1, check: 4 } } });
    expect(two.spread.massG).toBeCloseTo(Math.hypot(build, u.massG / 2), 9);
    // What readings share counts twice with other instruments, and not at all with the same.
    const others = await ask('chance', {
      ...asked,
      start: parts,
      uncertainty: parts,
      sameInstruments: false,
    });
    expect(others.spread.massG).toBeCloseTo(Math.hypot(build, Math.SQRT2 * u.massG), 6);
    const same = await ask('chance', { ...asked, start: parts, uncertainty: parts });
    expect(same.spread.massG).toBeCloseTo(Math.hypot(build, Math.SQRT2 * 0.6 * u.massG), 6);

    const tip = placeOf(settleFrame(shape), { zone: 'tip' });
    const mine = { zone: 'tip', massG: 2, xCm: tip.xCm, yCm: 0, mirrored: false };
    const { plans: around } = await ask('plan', {
      shape,
      specs,
      target,
      schools: ['free'],
      locked: [mine],
      margin: false,
    });
    expect(around[0]?.placements.some((p) => p.zone === 'tip' && p.massG === 2)).toBe(true);
    const mass = around[0]?.placements.reduce((sum, p) => sum + p.massG, 0) ?? 0;
    expect(around[0]?.specs.massG).toBeCloseTo(specs.massG + mass, 9);
  });

  it('says how often to read so that a check passes, and what can be judged at all', async () => {
    const { plans } = await ask('plan', { shape, specs, target, schools: ['free'] });
    const placements = plans[0]?.placements;
    const found = await ask('readings', { shape, specs, target, placements });
    expect(found).toMatchObject({ readings: plans[0]?.readings, reached: true });
    expect(found.chance).toBeCloseTo(plans[0]?.chance ?? 0, 9);
    const u = SPORTS.tennis.typicalReading.swingWeight;
    // Five readings each of the readings alone: 2.5 √(2 · 0.36 u²/5 + 0.04 u²).
    const alone = await ask('readings', { shape, specs, target });
    expect(alone.judgeable.swingWeight).toBeCloseTo(2.5 * u * Math.sqrt((2 * 0.36) / 5 + 0.04), 9);
    const exact = { massG: 0, balanceCm: 0, swingWeight: 0, twistWeight: 0 };
    const free = await ask('readings', {
      shape,
      specs,
      target,
      placements,
      start: exact,
      uncertainty: exact,
    });
    expect(free.readings.swingWeight).toEqual({ start: 1, check: 1 });
    const tight = { swingWeight: { value: target.swingWeight.value, tolerance: 0.01 } };
    expect((await ask('readings', { shape, specs, target: tight, placements })).reached).toBe(false);
  });

  it('says the next step of a programme with its reason, stops for a sore arm, and never mixes sports', async () => {
    const good = { energyLeft: 'plenty', arm: 'fine' };
    const body = { programme: 'find-ceiling', sport: 'tennis', shape, specs };
    const tip = [{ zone: 'tip', massG: 2 }];
    const on = await ask('nextStep', { ...body, history: [{ change: [], session: good }] });
    expect(on).toMatchObject({ state: 'go-on', change: tip, reason: 'energy-left' });
    expect(on.sentence).toBe('Energy left: the ceiling is higher. 2 g onto the tip.');
    expect(on.specs.massG).toBeCloseTo(specs.massG + 2, 9);
    const history = [
      { change: [], session: good },
      { change: tip, session: { energyLeft: 'none', arm: 'fine' } },
    ];
    const found = await ask('nextStep', { ...body, history });
    expect(found.ceiling?.swingWeight).toBeCloseTo(specs.swingWeight, 6);
    expect(found.sentence).toMatch(/ceiling: 316 ±7 kg·cm²\. Go back: 2 g off the tip\.$/);
    const sore = await ask('nextStep', {
      ...body,
      history: [{ change: tip, session: { energyLeft: 'plenty', arm: 'sore' } }],
    });
    expect(sore).toMatchObject({ state: 'stopped', change: [{ zone: 'tip', massG: -2 }] });
    expect(sore.sentence).toContain('physician or physiotherapist');
    const mixed = await server.call('POST', calls.nextStep.path, { ...body, sport: 'padel', history: [] });
    expect([mixed.status, mixed.body.errors[0].path]).toEqual([422, 'shape.sport']);
  });

  it('says less chance with a worse roll, more with none of the errors', async () => {
    const { plans } = await ask('plan', { shape, specs, target, schools: ['free'] });
    const placements = plans[0]?.placements;
    const none = { massG: 1e-6, balanceCm: 1e-6, swingWeight: 1e-6, twistWeight: 1e-6 };
    const of = async (more: object): Promise<number> =>
      (await ask('chance', { shape, specs, target, placements, uncertainty: none, ...more })).chance;
    expect(await of({ densityShare: 0, placingCm: 0 })).toBeGreaterThan(0.999);
    expect(await of({ densityShare: 0.15 })).toBeLessThan(await of({}));
  });

  it('trims a checked build, fewest touches first, with signed grams', async () => {
    const { plans } = await ask('plan', { shape, specs, target, schools: ['free'] });
    const built = plans[0]?.placements ?? [];
    const checked = { ...(plans[0]?.specs ?? specs), massG: (plans[0]?.specs.massG ?? 0) + 1.6 };
    const { trims } = await ask('trim', { shape, specs: checked, placements: built, target });
    expect(trims.length).toBeGreaterThan(0);
    for (const trim of trims) {
      expect(trim.withinTolerance).toBe(true);
      const sum = trim.changes.reduce((all, { massG }) => all + massG, 0);
      expect(trim.specs.massG - checked.massG).toBeCloseTo(sum, 9);
      for (const { index } of trim.changes) if (index !== null) expect(built[index]).toBeDefined();
    }
  });

  it('lightens, brings a set together, and says what a gram does', async () => {
    const spot = { zone: 'sides' as const, xCm: 52, yCm: 12, mirrored: true };
    const { placements } = await ask('lighten', {
      placements: [
        { ...spot, massG: 3, spanCm: 6 },
        { ...spot, massG: 9 },
      ],
      share: 0.3,
      quantumG: 1,
    });
    expect(placements.map(({ massG }) => massG)).toEqual([2, 6]);
    const { target: common, frames } = await ask('commonAim', {
      frames: [
        { id: 'a', shape, specs },
        { id: 'b', shape, specs: { ...specs, massG: 326 } },
      ],
      keys: ['massG'],
    });
    expect(Object.keys(common)).toEqual(['massG']);
    expect(frames.map(({ id }) => id)).toEqual(['a', 'b']);
    expect(frames.every(({ withinTolerance }) => withinTolerance)).toBe(true);
    const { points } = await ask('sensitivity', { shape, specs });
    expect(points[0]).toMatchObject({ xCm: 0, massG: 1 });
    expect(points[0]?.swingWeight).toBeCloseTo(10.16 ** 2 / 1000, 9);
  });

  it('answers every setup, whatever is missing of it or wrong with it', async () => {
    const setups = [
      { id: 'weight', specs: { massG: 330 } },
      { id: 'cannot', specs: { massG: -3 } },
      { id: 'whole', specs: { ...specs, massG: 325 } },
    ];
    const { reach } = await ask('reach', { shape, specs, setups });
    expect(reach.map(({ id, reachable }) => [id, reachable])).toEqual([
      ['weight', true],
      ['cannot', false],
      ['whole', true],
    ]);
    expect(reach[1]?.impossible).toBe('mass-negative');
    const { nearest } = await ask('nearest', { specs, setups });
    expect(nearest.map(({ id }) => id)).toEqual(['whole', 'weight', 'cannot']);
    const { nearest: inBadminton } = await ask('nearest', {
      sport: 'badminton',
      specs: { massG: 88, balanceCm: 29.5, swingWeight: 88 },
      setups: [{ id: 'a', specs: { massG: 89 } }],
    });
    // A gram is a step in badminton, a third of one in tennis.
    expect(inBadminton[0]?.distanceSteps).toBeCloseTo(1, 9);
  });
});

describe('plans of several schools', () => {
  it('are worked out each by itself: one that takes long holds no other', async () => {
    const order: string[] = [];
    const slow: Compute = async (job, ...args) => {
      const [request] = args as unknown as [{ schools: string[] }];
      const [name = ''] = request.schools;
      if (name === 'free') await new Promise((done) => setTimeout(done, 60));
      order.push(name);
      return computeHere(job, ...args);
    };
    const plans = await computePlans(slow, { shape, specs, target, quantumG: 1 });
    expect(plans).toHaveLength(7);
    expect(order.at(-1)).toBe('free');
    expect(plans[0]?.school).toBe('free');
  });
});
