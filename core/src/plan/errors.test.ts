import { bySpec } from '../spec';
import { SPORTS } from '../sport';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { laidAt, putty, tape } from '../../test/parts';
import type { Aim } from '../aim';
import { settleFrame } from '../frame';
import { SPEC_KEYS, add, specsOf, sumsOf, total, type SpecKey } from '../mass';
import { normalBelow, normalBox, normalQuantile, seededNormals, type SpecUncertainty } from '../measure';
import { placementSums, type Part, type Placement } from '../part';
import {
  CUTTING_CM,
  NO_CHANGE,
  PLACING_CM,
  SLACK_CM,
  changeOutcome,
  changeUncertainty,
  chanceOf,
  errorSources,
  instrumentErrors,
  simulateBuilds,
  specErrors,
  spreadOf,
} from '.';

const TYPICAL_READING = SPORTS.tennis.typicalReading;

const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const frame = settleFrame(shape);
const before = { massG: 336, balanceCm: 32.4, swingWeight: 321, twistWeight: 13.9, axisCm: 10.16 };
const parts = [tape, putty];
const tip = laidAt(frame, 'tip', tape, 2.65, 10);
const sides = laidAt(frame, 'sides', tape, 4.24, 8);
const handle = laidAt(frame, 'handle', putty, 6, 3.75);
const build = [tip, sides, handle];
const NO_READING: SpecUncertainty = { massG: 0, balanceCm: 0, swingWeight: 0, twistWeight: 0 };
const changeOf = (placements: Placement[], of: Part[] = parts) => ({ ...NO_CHANGE, placements, parts: of });
const errorsOf = (placements: Placement[], care = {}) => {
  const change = changeOf(placements);
  const after = changeOutcome(frame, before, {}, change).specs;
  return { after, errors: specErrors(after, errorSources(frame, {}, change, care)) };
};
const aimAt = (specs: Partial<Record<SpecKey, number>>, tolerance: Record<SpecKey, number>): Aim =>
  Object.fromEntries(SPEC_KEYS.map((key) => [key, { value: specs[key] ?? 0, tolerance: tolerance[key] }]));
const TOLERANCE = { massG: 1, balanceCm: 0.15, swingWeight: 1.5, twistWeight: 0.2 };

/**
 * A build made from scratch, strip by strip: every piece is laid along the hoop where it ends up and integrated there. It shares nothing with the error
 * model but its standard uncertainties.
 */
function builtByHand(normal: () => number): Record<SpecKey, number> {
  const roll: Record<string, number> = {};
  const sums = build.flatMap((placement) => {
    if (placement.path === 'slot') return [];
    const share = 1 + 0.04 * (roll[placement.partId] ??= normal());
    return Array.from({ length: placement.sides }, () => {
      const span = placement.endCm - placement.startCm;
      const cut = placement.partId === 'tape' ? CUTTING_CM * normal() : 0;
      const slide = PLACING_CM * normal();
      const middle = (placement.startCm + placement.endCm) / 2 + slide;
      const half = (span + cut) / 2;
      const piece: Placement = { ...placement, sides: 1, startCm: middle - half, endCm: middle + half };
      piece.massG = (placement.massG / placement.sides) * share * ((span + cut) / span);
      const part = parts.find(({ id }) => id === placement.partId) as Part;
      return placementSums(frame, piece, part);
    });
  });
  return specsOf(add(sumsOf(before), total(sums)), before.axisCm, true) as Record<SpecKey, number>;
}

describe('the error model', () => {
  it('spreads as builds do that are laid strip by strip', () => {
    const normal = seededNormals(7);
    const runs = Array.from({ length: 4000 }, () => builtByHand(normal));
    const stated = spreadOf(errorsOf(build).errors);
    for (const key of SPEC_KEYS) {
      const mean = runs.reduce((sum, r) => sum + r[key], 0) / runs.length;
      const spread = Math.sqrt(runs.reduce((sum, r) => sum + (r[key] - mean) ** 2, 0) / runs.length);
      expect(stated[key] / spread).toBeGreaterThan(0.93);
      expect(stated[key] / spread).toBeLessThan(1.1);
    }
  });

  it('states intervals that hold: ±2u covers 90 to 99 % of builds whose pieces share a roll, in every spec', () => {
    const normal = seededNormals(11);
    const { after, errors } = errorsOf(build);
    const u = spreadOf(errors);
    const inside = { massG: 0, balanceCm: 0, swingWeight: 0, twistWeight: 0 };
    const RUNS = 4000;
    for (let n = 0; n < RUNS; n++) {
      const made = builtByHand(normal);
      for (const key of SPEC_KEYS) if (Math.abs(made[key] - (after[key] ?? 0)) <= 2 * u[key]) inside[key]++;
    }
    for (const key of SPEC_KEYS) {
      expect(inside[key] / RUNS).toBeGreaterThan(0.9);
      expect(inside[key] / RUNS).toBeLessThan(0.99);
    }
  });

  it('counts one density a roll: two pieces of it are off together, pieces of two rolls are not', () => {
    const density = (all: ReturnType<typeof errorsOf>['errors']): number =>
      spreadOf(all.filter(({ what }) => what === 'density')).massG;
    expect(density(errorsOf([tip, sides]).errors)).toBeCloseTo(0.04 * (2.65 + 4.24), 9);
    expect(density(errorsOf([tip, handle]).errors)).toBeCloseTo(0.04 * Math.hypot(2.65, 6), 9);
  });

  it('places each strip of a pair on its own, along the hoop', () => {
    // A point-like pair beside the middle of the head: there the hoop runs along x (ellipse), so that sliding changes the balance and not the twist.
    const pair = laidAt(frame, 'sides', tape, 4, 0.02);
    const placing = spreadOf(errorsOf([pair]).errors.filter(({ what }) => what === 'placing'));
    const along = (PLACING_CM * 4) / Math.SQRT2 / 340;
    expect(placing.balanceCm / along).toBeCloseTo(1, 2);
    // Only the tape's slack moves it sideways: d(m y²) = 2 m y dy.
    const y = frame.rim.acrossCm;
    expect(placing.twistWeight / ((2 * 4 * y * SLACK_CM) / Math.SQRT2 / 1000)).toBeCloseTo(1, 1);
  });

  it('puts the scale in the place of the roll where pieces are weighed first', () => {
    const weighed = errorsOf(build, { weighedG: 0.05 }).errors;
    expect(spreadOf(weighed).massG).toBeCloseTo(0.05 * Math.sqrt(3), 9);
    expect(spreadOf(weighed).massG).toBeLessThan(spreadOf(errorsOf(build).errors).massG);
  });

  it('moves nothing where nothing is put on, and leaves the readings as they are', () => {
    expect(changeUncertainty(frame, before, TYPICAL_READING, {}, NO_CHANGE)).toEqual(
      bySpec((key) => TYPICAL_READING[key]),
    );
  });
});

describe('the chance to pass', () => {
  it('agrees with Monte Carlo, whatever is built and however wide the tolerances are', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 4, noNaN: true }),
        fc.double({ min: -0.6, max: 0.6, noNaN: true }),
        fc.boolean(),
        (width, off, instruments) => {
          const { after, errors } = errorsOf(build);
          const readings = instruments ? TYPICAL_READING : NO_READING;
          const tolerance = { ...TOLERANCE };
          for (const key of SPEC_KEYS) tolerance[key] *= width;
          const aim = aimAt(
            Object.fromEntries(SPEC_KEYS.map((key) => [key, (after[key] ?? 0) + off * tolerance[key]])),
            tolerance,
          );
          const stated = chanceOf(aim, after, [...errors, ...instrumentErrors(readings)]).chance;
          const simulated = simulateBuilds(shape, before, readings, build, parts, aim, 20_000, 3).passes;
          expect(Math.abs(stated - simulated)).toBeLessThan(0.015);
        },
      ),
      { numRuns: 12, seed: 4 },
    );
  });

  it('names what contributes, in shares that add to 1', () => {
    const { after, errors } = errorsOf(build);
    const all = [...errors, ...instrumentErrors(TYPICAL_READING)];
    const { contributions, narrowest, spread } = chanceOf(aimAt(after, TOLERANCE), after, all);
    expect(contributions.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
    expect(narrowest).toBe('twistWeight');
    expect(contributions[0]?.what).toBe('instruments');
    expect(spread.massG).toBeGreaterThan(TYPICAL_READING.massG);
  });

  it('is 1 without any error inside, and 0 outside', () => {
    const { after } = errorsOf([]);
    expect(chanceOf(aimAt(after, TOLERANCE), after, []).chance).toBe(1);
    expect(chanceOf(aimAt({ ...after, massG: 400 }, TOLERANCE), after, []).chance).toBe(0);
    expect(chanceOf({}, after, []).chance).toBe(1);
  });
});

describe('the normal distribution', () => {
  it('has the tabled values (Abramowitz & Stegun, table 26.1)', () => {
    for (const [x, p] of [
      [0, 0.5],
      [1, 0.841344746],
      [1.96, 0.975002105],
      [3, 0.998650102],
    ] as const) {
      expect(normalBelow(x)).toBeCloseTo(p, 6);
      expect(normalQuantile(p)).toBeCloseTo(x, 5);
    }
  });

  it('fills boxes: independent dimensions multiply, a shared error binds them', () => {
    const one = normalBelow(1) - normalBelow(-1);
    const apart = [
      [1, 0],
      [0, 1],
    ];
    expect(normalBox(apart, [-1, -1], [1, 1])).toBeCloseTo(one * one, 3);
    expect(normalBox([[1, 1]], [-1, -1], [1, 1])).toBeCloseTo(one, 6);
    expect(normalBox([[1, -1]], [-1, -2], [2, 1])).toBeCloseTo(normalBelow(2) - normalBelow(-1), 6);
    // Orthant of two deviates with correlation ρ: 1/4 + asin ρ / 2π (Sheppard 1899; a textbook result).
    const quarter = normalBox(
      [
        [1, 0.6],
        [0, 0.8],
      ],
      [0, 0],
      [Infinity, Infinity],
    );
    expect(quarter).toBeCloseTo(0.25 + Math.asin(0.6) / (2 * Math.PI), 3);
  });
});
