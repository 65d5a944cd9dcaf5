import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import loadHighs from 'highs';
import { withinTolerance, type Aim } from '../aim';
import { Fault } from '../fault';
import { settleFrame } from '../frame';
import { add, specsOf, sumsOf } from '../mass';
import { partNamed, placementSums, spanCmOf, type Part } from '../part';
import { putty, tape } from '../../test/parts';
import { generalSolver } from '../../test/general-solver';
import { lpText, type SolveMilp } from '../../test/milp';
import { solveGenerally } from '../../test/programme';
import {
  SCHOOLS,
  distinctPlans,
  compareScores,
  makePlans,
  planProblem,
  scoreOf,
  searchPlan,
  type PlanProblem,
  type PlanRequest,
  type Score,
} from '.';
import { chosenSums } from './problem';

const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const specs = { massG: 336, balanceCm: 32.4, swingWeight: 321, twistWeight: 13.9 };
const thinPutty: Part = { ...putty, gPerCm: 0.9 } as Part;
const parts = [tape, thinPutty];
/** +12 g, same balance, +12 kg·cm², +0.6 twist. */
const heavier: Aim = {
  massG: { value: 348, tolerance: 1 },
  balanceCm: { value: 32.4, tolerance: 0.15 },
  swingWeight: { value: 333, tolerance: 1.5 },
  twistWeight: { value: 14.5, tolerance: 0.2 },
};

let solve: SolveMilp;
beforeAll(async () => {
  const highs = await loadHighs();
  solve = generalSolver((lp, options) => highs.solve(lp, options));
}, 30_000);

/** Every choice there is. */
function bruteForce(problem: PlanProblem): Score {
  let best: Score | undefined;
  const walk = (chosen: (number | undefined)[]): void => {
    if (chosen.length === problem.columns.length) {
      if (!obeysTie(problem, chosen)) return;
      const score = scoreOf(problem, chosen);
      if (!best || compareScores(score, best) < 0) best = score;
      return;
    }
    const options = problem.columns[chosen.length]?.options.length ?? 0;
    for (let j = -1; j < options; j++) walk([...chosen, j < 0 ? undefined : j]);
  };
  walk([]);
  if (!best) throw new Error('no choice at all');
  return best;
}

const optimum = (request: PlanRequest, school: (typeof SCHOOLS)[number]): { found: Score; best: Score } => {
  const problem = planProblem(request, school);
  const found = searchPlan(problem);
  expect(found.proven).toBe(true);
  expect(scoreOf(problem, found.choice)).toEqual(found.score);
  return { found: found.score, best: bruteForce(problem) };
};

/** Whether a choice obeys the school's tie. */
function obeysTie(problem: PlanProblem, chosen: readonly (number | undefined)[]): boolean {
  const { keepBalanceWithinCm } = problem.rule;
  if (keepBalanceWithinCm === undefined) return true;
  const sums = chosenSums(problem, chosen);
  return Math.abs(sums.firstGCm / sums.massG - problem.before.balanceCm) <= keepBalanceWithinCm + 1e-9;
}

describe('the plan', () => {
  it('brings +12 g, same balance, +12 kg·cm², +0.6 twist inside, in whole pieces', () => {
    const [plan] = makePlans({ shape, specs, target: heavier, quantumG: 0.5 });
    expect(plan?.school).toBe('free');
    expect(plan?.withinTolerance).toBe(true);
    for (const p of plan?.placements ?? []) expect(p.massG / 0.5).toBeCloseTo(Math.round(p.massG / 0.5), 9);
  });

  it('is proven: every choice of one or two zones more is no better, over all zones', () => {
    const caps = {
      tip: 2,
      shoulders: 5,
      sides: 3,
      lowerHoop: 2,
      throat: 2,
      handleTop: 3,
      handle: 7,
      butt: 3,
    };
    const { found, best } = optimum(
      { shape, specs, target: heavier, quantumG: 1, caps, atMiddle: true },
      'free',
    );
    expect(compareScores(found, best)).toBe(0);
  });

  it.each(SCHOOLS)('equals brute force for the school %s on random small cases', (school) => {
    fc.assert(
      fc.property(
        fc.record({
          massG: fc.integer({ min: -2, max: 14 }),
          balanceCm: fc.integer({ min: -5, max: 5 }),
          swingWeight: fc.integer({ min: -4, max: 20 }),
          twist: fc.integer({ min: -2, max: 12 }),
          must: fc.boolean(),
          free: fc.boolean(),
        }),
        (d) => {
          const target: Aim = {
            massG: { value: specs.massG + d.massG, tolerance: 1, priority: d.must ? 'must' : 'want' },
            balanceCm: { value: specs.balanceCm + d.balanceCm / 10, tolerance: 0.15 },
            swingWeight: { value: specs.swingWeight + d.swingWeight, tolerance: 1.5 },
            twistWeight: { value: 13.9 + d.twist / 10, tolerance: 0.2, priority: d.free ? 'free' : 'want' },
          };
          const caps = {
            tip: 2,
            shoulders: 3,
            sides: 3,
            lowerHoop: 1,
            throat: 1,
            handleTop: 2,
            handle: 3,
            butt: 3,
          };
          const { found, best } = optimum(
            { shape, specs, target, quantumG: 1, caps, atMiddle: true },
            school,
          );
          expect(compareScores(found, best)).toBe(0);
        },
      ),
      { numRuns: 4, seed: 11 },
    );
  });

  it('equals brute force with real tape and dabs, whose strips are integrated along the hoop', () => {
    const caps = {
      tip: 1.1,
      shoulders: 2.2,
      sides: 0,
      lowerHoop: 0,
      throat: 0,
      handleTop: 2,
      handle: 4,
      butt: 2,
    };
    const target: Aim = {
      ...heavier,
      massG: { value: 343, tolerance: 1 },
      swingWeight: { value: 326, tolerance: 1.5 },
    };
    const { found, best } = optimum({ shape, specs, target, parts, caps, atMiddle: true }, 'free');
    expect(compareScores(found, best)).toBe(0);
  });

  it('predicts what its placements add up to, for points and for strips', () => {
    for (const request of [
      { shape, specs, target: heavier },
      { shape, specs, target: heavier, parts },
    ]) {
      for (const plan of makePlans({ ...request, schools: ['free', 'tip'] })) {
        const settled = settleFrame(shape);
        const before = { ...specs, axisCm: settled.sport.axisCm };
        const sums = plan.placements
          .map((p) => placementSums(settled, p, partNamed(parts, p.partId)))
          .reduce((all, one) => add(all, one), sumsOf(before));
        const after = specsOf(sums, before.axisCm, true);
        for (const key of ['massG', 'balanceCm', 'swingWeight', 'twistWeight'] as const) {
          expect(plan.specs[key]).toBeCloseTo(after[key] ?? 0, 9);
        }
        expect(plan.withinTolerance).toBe(withinTolerance(heavier, after));
      }
    }
  });

  it('cuts tape to whole steps on both sides and weighs out whole dabs', () => {
    const [plan] = makePlans({ shape, specs, target: heavier, parts, schools: ['free'] });
    expect(plan?.withinTolerance).toBe(true);
    for (const p of plan?.placements ?? []) {
      const steps = p.partId === 'putty' ? p.massG / 0.5 : spanCmOf(p) / 0.5;
      expect(steps).toBeCloseTo(Math.round(steps), 6);
      if (p.partId === 'tape') expect(p.massG).toBeCloseTo(spanCmOf(p) * 0.265 * p.layers * p.sides, 9);
      expect(p.path === 'handle').toBe(p.partId === 'putty');
    }
  });

  it('says by how much a school misses, keeps a tie, and puts the best first', () => {
    const plans = makePlans({ shape, specs, target: heavier });
    expect(plans.map((p) => p.school).toSorted()).toEqual([...SCHOOLS].toSorted());
    expect(plans[0]?.school).toBe('free');
    const handle = plans.find((p) => p.school === 'handle-first');
    expect(handle?.withinTolerance).toBe(false);
    expect(handle?.deviation.swingWeight).toBeLessThan(-5);
    const keeping = plans.find((p) => p.school === 'balance-keeping');
    expect(Math.abs((keeping?.specs.balanceCm ?? 0) - specs.balanceCm)).toBeLessThanOrEqual(0.1 + 1e-9);
  });

  it('shows plans that do the same once, the first of them, whatever their school or ids', () => {
    const [free, other] = makePlans({ shape, specs, target: heavier, schools: ['free', 'handle-first'] });
    if (!free || !other) throw new Error('there are two ways to this aim');
    const same = {
      ...free,
      school: 'tip' as const,
      placements: free.placements.toReversed().map((p, i) => ({ ...p, id: `other${i}` })),
    };
    expect(distinctPlans(shape, [free, same, other])).toEqual([free, other]);
  });

  it('keeps a must where a want has to give way', () => {
    const clash: Aim = {
      massG: { value: 337, tolerance: 0.5, priority: 'must' },
      swingWeight: { value: 345, tolerance: 1 },
    };
    const [plan] = makePlans({ shape, specs, target: clash, schools: ['free'] });
    expect(Math.abs(plan?.deviation.massG ?? 9)).toBeLessThanOrEqual(0.5 + 1e-9);
    expect(plan?.deviation.swingWeight).toBeLessThan(-10);
  });

  it('puts nothing on where no zone takes a whole piece', () => {
    const caps = Object.fromEntries(settleFrame(shape).sport.zones.map(({ name }) => [name, 0]));
    const [plan] = makePlans({ shape, specs, target: heavier, caps, schools: ['free'] });
    expect(plan).toMatchObject({ places: 0, addedG: 0, withinTolerance: false });
  });

  it('puts nothing on where nothing is needed', () => {
    const here: Aim = { massG: { value: 336, tolerance: 1 } };
    const [plan] = makePlans({ shape, specs, target: here, schools: ['free'] });
    expect(plan).toMatchObject({ places: 0, addedG: 0, withinTolerance: true });
  });

  it('asks for a twist weight where the aim names one and the frame has none', () => {
    const { twistWeight: _, ...untwisted } = specs;
    expect(() => makePlans({ shape, specs: untwisted, target: heavier })).toThrow(Fault);
    const free: Aim = { ...heavier, twistWeight: { value: 14.5, tolerance: 0.2, priority: 'free' } };
    expect(makePlans({ shape, specs: untwisted, target: free, schools: ['free'] })).toHaveLength(1);
  });

  it('writes programmes that a general solver reads', () => {
    const text = lpText({
      variables: [
        { name: 'n', lower: 0, upper: 7, kind: 'integer' },
        { name: 'c', lower: 0, upper: Infinity, kind: 'continuous' },
      ],
      rows: [
        {
          terms: [
            ['n', 2],
            ['c', 1],
          ],
          lower: 5,
          upper: 5,
        },
      ],
      objective: [['c', 1]],
    });
    expect(solve(text)).toMatchObject({ status: 'optimal', values: { n: 2, c: 1 } });
  });
});

describe('the search against a general mixed-integer solver', () => {
  const between = (min: number, max: number): fc.Arbitrary<number> => fc.double({ min, max, noNaN: true });

  it('has the same objective on 300 random problems', () => {
    const problems = fc.sample(
      fc.record({
        massG: between(295, 345),
        balanceCm: between(31, 34),
        recoil: between(135, 180),
        twistWeight: between(12, 15.5),
        more: fc.record({
          massG: between(-1, 14),
          balanceCm: between(-0.5, 0.5),
          swing: between(0, 20),
          twist: between(0, 1.2),
        }),
        must: fc.boolean(),
        free: fc.boolean(),
        real: fc.boolean(),
        school: fc.constantFrom(...SCHOOLS),
      }),
      { numRuns: 300, seed: 20_26 },
    );
    let compared = 0;
    for (const { massG, balanceCm, recoil, twistWeight, more, must, free, real, school } of problems) {
      const frame = {
        massG,
        balanceCm,
        swingWeight: recoil + (massG * (balanceCm - 10.16) ** 2) / 1000,
        twistWeight,
      };
      const target: Aim = {
        massG: { value: massG + more.massG, tolerance: 1, priority: must ? 'must' : 'want' },
        balanceCm: { value: balanceCm + more.balanceCm, tolerance: 0.15 },
        swingWeight: { value: frame.swingWeight + more.swing, tolerance: 1.5 },
        twistWeight: { value: twistWeight + more.twist, tolerance: 0.2, priority: free ? 'free' : 'want' },
      };
      // Small enough that the general solver can prove all of them: coarse pieces, low caps.
      const caps = {
        tip: 3,
        shoulders: 5,
        sides: 5,
        lowerHoop: 3,
        throat: 3,
        handleTop: 4,
        handle: 6,
        butt: 4,
      };
      const coarse = [{ ...tape, stepCm: 2 } as Part, { ...thinPutty, dabG: 1 } as Part];
      const problem = planProblem(
        {
          shape,
          specs: frame,
          target,
          caps,
          atMiddle: true,
          ...(real ? { parts: coarse } : { quantumG: 1 }),
        },
        school,
      );
      const theirs = solveGenerally(problem, solve);
      if (!theirs) continue;
      compared++;
      const own = searchPlan(problem);
      expect(own.proven).toBe(true);
      expect(compareScores(own.score, scoreOf(problem, theirs))).toBe(0);
    }
    expect(compared).toBe(300);
  }, 240_000);
});
