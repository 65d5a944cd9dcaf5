import fc from 'fast-check';
import { add as plus, inv, multiply, transpose, type MathType } from 'mathjs';
import { describe, expect, it } from 'vitest';
import { bySpec } from '../spec';
import { laidAt, lead, putty } from '../../test/parts';
import { settleFrame } from '../frame';
import type { AxisSpecs } from '../mass';
import { DRIFT_SHARE, seededNormals, usualParts } from '../measure';
import type { Part, Placement } from '../part';
import { CUTTING_CM, NO_CHANGE, PLACING_CM, changeOutcome } from '../plan';
import { HABIT_PRIOR_CM, learn, updated, type Stated, type TaughtBuild } from '.';

describe('the update of a belief', () => {
  it('is that of matrices by a general library, whatever is observed', () => {
    const number = fc.double({ min: -3, max: 3, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            y: fc.tuple(number, number),
            x: fc.tuple(number, number, number, number, number, number),
            u: fc.double({ min: 0.1, max: 2, noNaN: true }),
          }),
          { minLength: 1, maxLength: 5 },
        ),
        (rows) => {
          const priors = [0.5, 1, 2];
          const observations = rows.map(({ y, x, u }) => ({
            values: y,
            design: [x.slice(0, 3), x.slice(3)],
            noise: [
              [u * u, 0.3 * u * u],
              [0.3 * u * u, 1.5 * u * u],
            ],
          }));
          let precision: MathType = priors.map((p, i) => priors.map((_, j) => (i === j ? 1 / p ** 2 : 0)));
          let weighted: MathType = [0, 0, 0];
          for (const { values, design, noise } of observations) {
            const xtv = multiply(transpose(design), inv(noise));
            precision = plus(precision, multiply(xtv, design)) as MathType;
            weighted = plus(weighted, multiply(xtv, values)) as MathType;
          }
          const covariance = inv(precision as number[][]);
          const mean = multiply(covariance, weighted as number[]);
          const found = updated(priors, observations);
          found.mean.forEach((m, i) => expect(m).toBeCloseTo(mean[i] as number, 8));
          found.covariance.forEach((row, i) =>
            row.forEach((v, j) => expect(v).toBeCloseTo(covariance[i]?.[j] ?? NaN, 8)),
          );
        },
      ),
    );
  });

  it('of one number is the mean of prior and reading by their weights (handbook: normal with known variance)', () => {
    const { mean, covariance } = updated([2], [{ values: [3], design: [[1]], noise: [[1]] }]);
    expect(mean[0]).toBeCloseTo((3 * 4) / 5, 12);
    expect(covariance[0]?.[0]).toBeCloseTo(4 / 5, 12);
  });
});

const frame = settleFrame({ sport: 'tennis', lengthCm: 68.58 });
const u = { massG: 0.15, balanceCm: 0.03, swingWeight: 0.5, twistWeight: 0.1 };
const readings = usualParts(u);
const before: AxisSpecs = { massG: 320, balanceCm: 32.5, swingWeight: 315, twistWeight: 13.6, axisCm: 10.16 };
const parts: Part[] = [lead, putty];
const dress = { strings: true } as const;

/**
 * Builds of a bench whose roll is heavier than it says, whose hand lays everything too far along, and whose instruments waver: the same ones at start and check, which
 * only drift, or others each time.
 */
function bench(
  seed: number,
  count: number,
  truth: { share: number; alongCm: number },
  sameAlways = true,
): TaughtBuild[] {
  const normal = seededNormals(seed);
  const same = bySpec(() => sameAlways);
  return Array.from({ length: count }, (_, i): TaughtBuild => {
    // Both, or one of them: builds that are all alike cannot tell a heavy roll from a hand that lays too far.
    const both = [
      { ...laidAt(frame, i % 2 ? 'shoulders' : 'sides', lead, 4.24, 8), id: 'a' },
      { ...laidAt(frame, 'butt', putty, 4, 2.5), id: 'b' },
    ] as Placement[];
    const planned = i % 3 === 0 ? both : both.filter(({ id }) => id === (i % 3 === 1 ? 'a' : 'b'));
    const change = { ...NO_CHANGE, placements: planned, parts };
    const built = planned.map((p): Placement => {
      if (p.path === 'slot') return p;
      const by = truth.alongCm + (PLACING_CM / Math.sqrt(p.sides)) * normal();
      const cut = p.partId === 'lead' ? (CUTTING_CM / 8 / Math.SQRT2) * normal() : 0;
      const heavier = p.partId === 'lead' ? 1 + truth.share + cut : 1;
      return { ...p, massG: p.massG * heavier, startCm: p.startCm + by, endCm: p.endCm + by };
    });
    const is = changeOutcome(frame, before, dress, { ...change, placements: built }).specs;
    const stays = { massG: normal(), swingWeight: normal() };
    const read = (of: AxisSpecs, drift: number): AxisSpecs => {
      const off = (key: 'massG' | 'swingWeight'): number => {
        const shared = sameAlways ? 0.8 * stays[key] + drift * normal() : 0.8 * normal();
        return u[key] * (shared + 0.6 * normal());
      };
      return { ...of, massG: of.massG + off('massG'), swingWeight: of.swingWeight + off('swingWeight') };
    };
    return {
      frame,
      before: read(before, 0),
      readings,
      dress,
      change,
      check: read(is, DRIFT_SHARE),
      checkReadings: readings,
      same,
    };
  });
}
const rollOf = (builds: TaughtBuild[], stated = new Map<string, Stated>()) =>
  learn(builds, stated).rolls.find(({ partId }) => partId === 'lead');

describe('what a shop learns of its builds', () => {
  it('knows nothing before the first: a roll is as it says, ± 4 %', () => {
    const { rolls, habit } = learn([], new Map());
    expect(rolls).toEqual([]);
    expect(habit).toEqual({ alongCm: 0, uncertainty: HABIT_PRIOR_CM, builds: 0 });
  });

  it('finds how much heavier a roll is and how far along a hand lays, closer with every build', () => {
    const truth = { share: 0.05, alongCm: 0.3 };
    const after = [1, 5, 25, 120].map((count) => learn(bench(3, count, truth), new Map()));
    const u = after.map(({ rolls }) => rolls.find(({ partId }) => partId === 'lead')?.uncertainty ?? 9);
    expect(u).toEqual(u.toSorted((a, b) => b - a));
    const last = after.at(-1);
    const roll = last?.rolls.find(({ partId }) => partId === 'lead');
    expect(Math.abs((roll?.share ?? 0) - truth.share)).toBeLessThan(2.5 * (roll?.uncertainty ?? 0));
    expect(Math.abs((last?.habit.alongCm ?? 0) - truth.alongCm)).toBeLessThan(
      // A third of a mm is what taking the hoop as straight leaves.
      2.5 * (last?.habit.uncertainty ?? 0) + 0.03,
    );
    expect(roll).toMatchObject({ builds: 80, massG: expect.closeTo(80 * 4.24, 6) });
  });

  it.each([
    ['the same instruments at start and check', true],
    ['others each time', false],
  ])(
    'is as sure as it says with %s: 93 to 98 % of the shops have their roll within twice the uncertainty',
    (_, same) => {
      const normal = seededNormals(11);
      let within = 0;
      const shops = 600;
      for (let i = 0; i < shops; i++) {
        const share = 0.04 * normal();
        const truth = { share, alongCm: HABIT_PRIOR_CM * normal() };
        const found = rollOf(bench(100 + i, 6, truth, same));
        if (Math.abs((found?.share ?? 0) - share) <= 2 * (found?.uncertainty ?? 0)) within++;
      }
      expect(within / shops).toBeGreaterThan(0.93);
      expect(within / shops).toBeLessThan(0.98);
    },
  );

  it('is surer of a roll where one machine read start and check', () => {
    const truth = { share: 0.05, alongCm: 0 };
    const [same, others] = [true, false].map((of) => rollOf(bench(4, 10, truth, of))?.uncertainty ?? NaN);
    expect(same).toBeLessThan(0.9 * (others ?? NaN));
  });

  it('means the same of a roll whose density was corrected meanwhile: its share is of what it is said to be', () => {
    const builds = bench(7, 30, { share: 0.05, alongCm: 0 });
    const plain = rollOf(builds);
    // The same builds, planned with a density that was 5 % higher: so many more grams were expected of the same lengths.
    const corrected = builds.map((build): TaughtBuild => {
      const heavier = (p: Placement): Placement =>
        p.partId === 'lead' ? { ...p, massG: 1.05 * p.massG } : p;
      const own = { ...lead, gPerCm: 1.05 * (lead as { gPerCm: number }).gPerCm } as Part;
      return {
        ...build,
        change: { ...build.change, placements: build.change.placements.map(heavier), parts: [own, putty] },
      };
    });
    const again = rollOf(corrected, new Map([['lead', lead as Stated]]));
    expect(again?.share).toBeCloseTo(plain?.share ?? NaN, 3);
  });

  it('starts again with a new roll, while what was learned of the hand stays', () => {
    const old = bench(9, 40, { share: 0.05, alongCm: 0.2 }).map((build) => ({
      ...build,
      finished: new Set(['lead']),
    }));
    expect(rollOf(old)).toBeUndefined();
    const fresh = bench(10, 1, { share: -0.02, alongCm: 0.2 });
    const { rolls, habit } = learn([...old, ...fresh], new Map());
    const roll = rolls.find(({ partId }) => partId === 'lead');
    expect(roll).toMatchObject({ builds: 1 });
    expect(roll?.share).toBeLessThan(0.02);
    expect(Math.abs(habit.alongCm - 0.2)).toBeLessThan(2.5 * habit.uncertainty + 0.03);
  });
});
