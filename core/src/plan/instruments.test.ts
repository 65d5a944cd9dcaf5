import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { laidAt, putty, tape } from '../../test/parts';
import type { Aim } from '../aim';
import { settleFrame } from '../frame';
import { partedMean, seededNormals, usualParts, wholeOf, type Parted, type SpecParted } from '../measure';
import { ALL_SPORTS, sportData } from '../sport';
import { bySpec, SPEC_KEYS, type SpecKey } from '../spec';
import {
  CheckVariance,
  MOST_READINGS,
  NO_CHANGE,
  asAimed,
  chanceByParts,
  chanceToPass,
  enoughReadings,
  everySpec,
  instrumentsAfter,
  judgeable,
  makePlans,
  readingsToStart,
  startingTolerances,
  toCheck,
  usualBuild,
  usualInstruments,
  type Instruments,
  type Readings,
  type ToCheck,
} from '.';

const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const frame = settleFrame(shape);
const before = { massG: 322, balanceCm: 32.8, swingWeight: 316, twistWeight: 13.9, axisCm: 10.16 };
const change = {
  ...NO_CHANGE,
  placements: [laidAt(frame, 'sides', tape, 4, 7.5), laidAt(frame, 'handle', putty, 6, 3.75)],
  parts: [tape, putty],
};
const aimAt = (tolerance: Record<SpecKey, number>, off = 0): Aim => {
  const { after } = toCheck({ shape, specs: before, target: {} }, change, {});
  return Object.fromEntries(
    SPEC_KEYS.map((key) => [
      key,
      { value: (after[key] ?? 0) + off * tolerance[key], tolerance: tolerance[key] },
    ]),
  );
};
const checkOf = (aim: Aim, instruments: Instruments): ToCheck =>
  toCheck({ shape, specs: before, target: aim }, change, { instruments });

/**
 * A bench that shares nothing with the model but its standard uncertainties: the start is read n times, what is put on comes to what was planned for it with errors
 * of its own, and the check is read m times, by the same instruments a little later or by others.
 */
function simulated(check: ToCheck, readings: Readings, same: boolean, runs: number, seed: number) {
  const normal = seededNormals(seed);
  const build = check.build;
  const u = usualParts(frame.sport.typicalReading);
  let [passes, truly] = [0, 0];
  for (let n = 0; n < runs; n++) {
    const stays = bySpec((key) => u[key].common * normal());
    const read = (times: number, key: SpecKey, value: number, off: number): number => {
      let sum = 0;
      for (let i = 0; i < times; i++) sum += value + off + u[key].random * normal();
      return sum / times;
    };
    // As read before: the truth is what was read less its error.
    const truth = { ...before };
    for (const key of SPEC_KEYS) truth[key] = before[key] - read(readings[key].start, key, 0, stays[key]);
    const after = { ...truth };
    const added = check.after.massG - before.massG;
    after.massG = truth.massG + added;
    const moment = check.after.massG * check.after.balanceCm - before.massG * before.balanceCm;
    after.balanceCm = (truth.massG * truth.balanceCm + moment) / after.massG;
    after.swingWeight = truth.swingWeight + check.after.swingWeight - before.swingWeight;
    after.twistWeight = truth.twistWeight + (check.after.twistWeight ?? 0) - before.twistWeight;
    for (const { of } of build) {
      const z = normal();
      for (const key of SPEC_KEYS) after[key] += z * of[key];
    }
    const inside = (of: (key: SpecKey) => number): boolean =>
      SPEC_KEYS.every((key) => {
        const { value, tolerance } = check.aim[key] as { value: number; tolerance: number };
        return Math.abs(of(key) - value) <= tolerance;
      });
    if (inside((key) => after[key])) truly++;
    const later = bySpec((key) =>
      same ? stays[key] + 0.2 * wholeOf(u[key]) * normal() : u[key].common * normal(),
    );
    if (inside((key) => read(readings[key].check, key, after[key], later[key]))) passes++;
  }
  return { chance: passes / runs, truly: truly / runs };
}

const sharing = (same: boolean): Instruments => ({
  ...usualInstruments(frame.sport),
  same: bySpec(() => same),
});
const times = fc.integer({ min: 1, max: 5 });
const someReadings = fc.record({
  massG: fc.record({ start: times, check: times }),
  balanceCm: fc.record({ start: times, check: times }),
  swingWeight: fc.record({ start: times, check: times }),
  twistWeight: fc.record({ start: times, check: times }),
});

describe('the chance to pass, start and check counted', () => {
  it('is what a simulated bench finds, and so is the chance to be truly inside', () => {
    fc.assert(
      fc.property(
        someReadings,
        fc.boolean(),
        fc.double({ min: 0.8, max: 2.5, noNaN: true }),
        fc.double({ min: -0.5, max: 0.5, noNaN: true }),
        (readings, same, width, off) => {
          const tolerance = bySpec((key) => width * frame.sport.tolerance[key]);
          const check = checkOf(aimAt(tolerance, off), sharing(same));
          const stated = chanceToPass(check, readings);
          const found = simulated(check, readings, same, 12_000, 9);
          expect(Math.abs(stated.chance - found.chance)).toBeLessThan(0.018);
          expect(Math.abs(stated.truly - found.truly)).toBeLessThan(0.018);
        },
      ),
      { numRuns: 10, seed: 21 },
    );
  });

  it('is r₀²/n + r₁²/m + build² and what start and check do not share (the law of propagation, JCGM 100:2008, 5.1.2)', () => {
    const u = usualParts(frame.sport.typicalReading);
    const readings = everySpec(2);
    const build = checkOf({}, sharing(true)).build.reduce((sum, { of }) => sum + of.swingWeight ** 2, 0);
    const { random: r, common: c } = u.swingWeight;
    const drift = 0.2 * 0.8;
    const of = (same: boolean): number =>
      new CheckVariance(checkOf({}, sharing(same))).of('swingWeight', readings);
    expect(of(true) ** 2).toBeCloseTo(r ** 2 / 2 + r ** 2 / 2 + build + drift ** 2, 9);
    expect(of(false) ** 2).toBeCloseTo(r ** 2 / 2 + r ** 2 / 2 + build + 2 * c ** 2, 9);
  });

  it('lets no repeats lessen what an instrument shares, nor the start what is read already', () => {
    const aim = aimAt(frame.sport.tolerance);
    const one = { random: 0, common: 0.8 };
    const stays: SpecParted = bySpec(() => one);
    const fixed = { ...sharing(false), start: stays, check: stays };
    expect(chanceToPass(checkOf(aim, fixed), everySpec(5)).chance).toBeCloseTo(
      chanceToPass(checkOf(aim, fixed), everySpec(1)).chance,
      9,
    );
    const read = instrumentsAfter(frame.sport, {
      parts: bySpec((key): Parted => partedMean(usualParts(frame.sport.typicalReading)[key], 3)),
      counts: bySpec(() => 3),
      estimated: ['twistWeight'],
    });
    const { readings } = chanceToPass(checkOf(aim, read), everySpec(1));
    expect(readings.massG).toEqual({ start: 3, check: 1 });
    expect(read.start.massG?.random).toBeCloseTo(0.6 * 0.3, 9);
    // What was estimated is measured at the check, with something else.
    expect(read.same).toEqual({ massG: true, balanceCm: true, swingWeight: true, twistWeight: false });
  });

  it('takes a start that is exact as nothing to cancel against', () => {
    const exact = { ...usualInstruments(frame.sport), start: {}, drift: bySpec(() => 0) };
    const u = new CheckVariance(checkOf({}, exact)).of('swingWeight', everySpec(1));
    const build = checkOf({}, exact).build.reduce((sum, { of }) => sum + of.swingWeight ** 2, 0);
    expect(u ** 2).toBeCloseTo(frame.sport.typicalReading.swingWeight ** 2 + build, 9);
  });
});

describe('enough readings', () => {
  it('are the least: no other numbers that reach it are fewer together (all of them tried)', () => {
    const pairs = [1, 2, 3, 4, 5].flatMap((start) => [1, 2, 3, 4, 5].map((check) => ({ start, check })));
    fc.assert(
      fc.property(
        fc.double({ min: 0.6, max: 2, noNaN: true }),
        fc.double({ min: 0.6, max: 2, noNaN: true }),
        fc.double({ min: 0.7, max: 0.95, noNaN: true }),
        (first, second, wanted) => {
          const whole = aimAt(
            bySpec((key) => (key === 'twistWeight' ? second : first) * frame.sport.tolerance[key]),
          );
          const { swingWeight, twistWeight } = whole;
          const check = checkOf(
            { ...(swingWeight ? { swingWeight } : {}), ...(twistWeight ? { twistWeight } : {}) },
            sharing(true),
          );
          const variance = new CheckVariance(check);
          const { readings, reached } = enoughReadings(check, wanted);
          const total = (of: Readings): number =>
            of.swingWeight.start + of.swingWeight.check + of.twistWeight.start + of.twistWeight.check;
          const reaching = pairs.flatMap((s) =>
            pairs
              .map((t): Readings => ({ ...everySpec(1), swingWeight: s, twistWeight: t }))
              .filter((of) => chanceByParts(check, of, variance) >= wanted + 1e-9),
          );
          if (!reached) expect(reaching).toEqual([]);
          else
            expect(total(readings)).toBeLessThanOrEqual(Math.min(...reaching.map(total), 4 * MOST_READINGS));
        },
      ),
      { numRuns: 12, seed: 6 },
    );
  });

  it('ask for nothing more where one of each is enough, and for the start only while it is not measured', () => {
    const wide = checkOf(aimAt(bySpec((key) => 5 * frame.sport.tolerance[key])), sharing(true));
    expect(enoughReadings(wide).readings).toEqual(everySpec(1));
    const tight = aimAt(frame.sport.tolerance);
    const taken = { ...sharing(true), taken: bySpec(() => 2) };
    const { readings } = enoughReadings(checkOf(tight, taken));
    for (const key of SPEC_KEYS) expect(readings[key].start).toBe(2);
    expect(readings.twistWeight.check).toBeGreaterThan(1);
  });

  it('let a tolerance pass that is said to be judged with them: each of four specs 0.975 times and more', () => {
    const check = checkOf(aimAt(frame.sport.tolerance), sharing(true));
    const least = judgeable(check);
    const { after } = check;
    const aim: Aim = Object.fromEntries(
      SPEC_KEYS.map((key) => [key, { value: after[key] ?? 0, tolerance: least[key] }]),
    );
    expect(chanceToPass({ ...check, aim }, everySpec(MOST_READINGS)).chance).toBeGreaterThan(0.9);
    expect(asAimed(before, aim)).toEqual(after);
  });
});

describe('what an aim begins with', () => {
  it.each(ALL_SPORTS)(
    'in %s: tolerances that two readings can judge, and no tighter than the sport’s',
    (name) => {
      const sport = sportData(name);
      const own = settleFrame({ sport: name, lengthCm: sport.lengthCm });
      const usual = { ...sport.usual, axisCm: sport.axisCm };
      const build = usualBuild(own, usual, usualInstruments(sport));
      const found = startingTolerances(sport, build);
      const least = judgeable(build, everySpec(2));
      for (const key of SPEC_KEYS) {
        expect(found[key]).toBeGreaterThanOrEqual(Math.max(sport.tolerance[key], least[key]));
        // A tolerance of more than a step is none: a hand would tell frames of one aim apart.
        const step =
          key === 'swingWeight'
            ? sport.noticeable.swingWeightShare * usual.swingWeight
            : sport.noticeable[key];
        expect(found[key]).toBeLessThan(step);
      }
      const aim: Aim = Object.fromEntries(
        SPEC_KEYS.map((key) => [key, { value: build.after[key] ?? 0, tolerance: found[key] }]),
      );
      expect(chanceToPass({ ...build, aim }, everySpec(2)).chance).toBeGreaterThan(0.9);
      const starts = readingsToStart(own, usual, usualInstruments(sport));
      for (const key of SPEC_KEYS) expect([1, 2]).toContain(starts[key]);
    },
  );

  it('is wider for a machine that scatters more', () => {
    const usual = usualInstruments(frame.sport);
    const rough = { ...usual.check, swingWeight: { random: 2, common: 1 } };
    const build = usualBuild(frame, before, { ...usual, start: rough, check: rough });
    // Two readings of ±2 before and after: √2 · 2 / √2, times 2.5.
    expect(judgeable(build, everySpec(2)).swingWeight).toBeGreaterThan(2.5 * 2);
    const found = startingTolerances(frame.sport, build);
    expect(found.swingWeight).toBeGreaterThan(2.5 * 2);
    expect(found.massG).toBe(startingTolerances(frame.sport, usualBuild(frame, before, usual)).massG);
  });
});

it('a plan passes as often as wanted with the readings that it asks for, and asks for more where more is wanted', () => {
  const target: Aim = {
    massG: { value: 330, tolerance: 1 },
    balanceCm: { value: 32.6, tolerance: 0.15 },
    swingWeight: { value: 320, tolerance: 1.5 },
    twistWeight: { value: 14.1, tolerance: 0.3 },
  };
  const asked = { shape, specs: before, target, parts: [tape, putty], schools: ['free'] as const };
  const [plan] = makePlans(asked);
  const [more] = makePlans({ ...asked, wanted: 0.97 });
  expect(plan?.chance).toBeGreaterThan(0.9);
  expect(more?.chance).toBeGreaterThan(0.96);
  const sum = (of: Readings | undefined): number =>
    SPEC_KEYS.reduce((n, key) => n + (of?.[key].start ?? 0) + (of?.[key].check ?? 0), 0);
  expect(sum(more?.readings)).toBeGreaterThan(sum(plan?.readings));
  expect(plan?.truly).toBeLessThan(plan?.chance ?? 0);
});
