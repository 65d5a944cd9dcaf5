import loadHighs from 'highs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { generalSolver } from '../../test/general-solver';
import { lpText, type Milp, type Term } from '../../test/milp';
import { laidAt, putty, tape } from '../../test/parts';
import type { Aim } from '../aim';
import { redress } from '../dress';
import { Fault } from '../fault';
import { placeOf, settleFrame } from '../frame';
import { predict } from '../mass';
import { spanCmOf } from '../part';
import { ALL_SPORTS, SPORTS } from '../sport';
import {
  asSpot,
  changeOutcome,
  NO_CHANGE,
  commonAim,
  lightenEvenly,
  makePlans,
  removalOffers,
  swapOffers,
  type SetFrame,
} from '.';

const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const frame = settleFrame(shape);
const specs = { massG: 336, balanceCm: 32.4, swingWeight: 321, twistWeight: 13.9 };
const aim = (massG: number, balanceCm: number, swingWeight: number): Aim => ({
  massG: { value: massG, tolerance: 1 },
  balanceCm: { value: balanceCm, tolerance: 0.15 },
  swingWeight: { value: swingWeight, tolerance: 1.5 },
});

describe('swaps', () => {
  const dress = { strings: true, baseGrip: 'synthetic', overgrips: 1 } as const;
  const off = redress(shape, specs, dress, { ...dress, overgrips: 0 }).specs;

  it('takes an overgrip off where only that leads to the aim', () => {
    const target = aim(off.massG, off.balanceCm, off.swingWeight);
    const without = makePlans({ shape, specs, target, schools: ['free'] })[0];
    expect(without?.withinTolerance).toBe(false);
    const plan = makePlans({ shape, specs, target, schools: ['free'], offers: swapOffers(frame, dress) })[0];
    expect(plan?.withinTolerance).toBe(true);
    expect(plan?.swaps).toEqual([{ what: 'overgrips', to: 0 }]);
    expect(plan?.places).toBe(1);
    expect(plan?.addedG).toBeCloseTo(-5.5, 9);
    expect(plan?.specs.balanceCm).toBeCloseTo(off.balanceCm, 9);
  });

  it('offers only what the dress and the sport allow', () => {
    const offered = (d: Parameters<typeof swapOffers>[1], on = frame): string[] =>
      swapOffers(on, d).flatMap(({ ways }) =>
        ways.map(({ change }) => ('swap' in change ? `${change.swap.what} ${change.swap.to}` : 'removal')),
      );
    expect(offered({})).toEqual(['overgrips 1', 'baseGrip leather', 'baseGrip synthetic']);
    expect(offered({ baseGrip: 'leather', overgrips: 1 })).toEqual([
      'overgrips 0',
      'overgrips 2',
      'baseGrip synthetic',
    ]);
  });

  it('shortens a strip that is there already: the smallest trim that brings it in', () => {
    const there = laidAt(frame, 'sides', tape, 2 * 8 * 0.265, 8);
    const shorter = laidAt(frame, 'sides', tape, 2 * 5 * 0.265, 5);
    const before = { ...specs, axisCm: 10.16 };
    const with_ = (placement: typeof there) =>
      changeOutcome(frame, before, {}, { ...NO_CHANGE, placements: [placement], parts: [tape] }).specs;
    const meant = with_(shorter);
    const target: Aim = {
      ...aim(meant.massG, meant.balanceCm, meant.swingWeight),
      massG: { value: meant.massG, tolerance: 0.2 },
    };
    const built = with_(there);
    const [trim] = makePlans({
      shape,
      specs: built,
      target,
      parts: [tape, putty],
      schools: ['free'],
      offers: removalOffers(frame, [there], [tape]),
    });
    expect(trim?.withinTolerance).toBe(true);
    expect(trim?.places).toBe(1);
    const [removal] = trim?.removals ?? [];
    expect(removal?.of).toEqual(there);
    expect(removal?.left && spanCmOf(removal.left)).toBeCloseTo(5, 9);
    // What the plan says is what the change leads to.
    const change = { ...NO_CHANGE, removals: trim?.removals ?? [], parts: [tape] };
    expect(changeOutcome(frame, built, {}, change).specs.swingWeight).toBeCloseTo(
      trim?.specs.swingWeight ?? 0,
      9,
    );
  });
});

describe('every sport', () => {
  it.each(ALL_SPORTS)('%s gets a plan inside the aim that predict confirms, slots and all', (sport) => {
    const { usual, lengthCm } = SPORTS[sport];
    const own = { shape: { sport, lengthCm }, specs: usual };
    const settled = settleFrame(own.shape);
    const some = settled.sport.zones.slice(1, 3).map((z) => ({ massG: z.capG / 2, at: { zone: z.name } }));
    const made = predict(own.shape, usual, some).specs;
    const target: Aim = {
      massG: { value: made.massG, tolerance: 1 },
      balanceCm: { value: made.balanceCm, tolerance: 0.1 },
      swingWeight: { value: made.swingWeight, tolerance: 1 },
      twistWeight: { value: made.twistWeight ?? 0, tolerance: 0.3 },
    };
    const [plan] = makePlans({ ...own, target, schools: ['free'], quantumG: 0.5 });
    expect(plan?.withinTolerance).toBe(true);
    const additions = (plan?.placements ?? []).map((p) => {
      const { xCm, yCm, massG, mirrored } = asSpot(settled, p);
      return { at: { xCm, yCm }, massG, mirrored };
    });
    const again = predict(own.shape, usual, additions).specs;
    expect(again.swingWeight).toBeCloseTo(plan?.specs.swingWeight ?? 0, 9);
    expect(again.twistWeight).toBeCloseTo(plan?.specs.twistWeight ?? 0, 9);
  });
});

describe('lightening evenly', () => {
  const build = [
    laidAt(frame, 'tip', tape, 3, 10),
    laidAt(frame, 'sides', tape, 6, 10),
    laidAt(frame, 'handle', putty, 9, 6),
  ];

  it('30 % of 3 g tip, 6 g sides, 9 g handle takes about 1, 2 and 3 g (common practice)', () => {
    expect(lightenEvenly(build, 0.3, 1).map((p) => p.massG)).toEqual([2, 4, 6]);
  });

  it('takes nothing at 0 and all at 1, and keeps every place', () => {
    expect(lightenEvenly(build, 0, 0.5)).toEqual(build);
    expect(lightenEvenly(build, 1, 0.5)).toEqual([]);
    expect(lightenEvenly(build, 0.3, 1).map((p) => asSpot(frame, p).zone)).toEqual([
      'tip',
      'sides',
      'handle',
    ]);
    expect(() => lightenEvenly(build, 1.1, 1)).toThrow(Fault);
  });
});

describe('a set brought to one aim', () => {
  const member = (massG: number, balanceCm: number, swingWeight: number, twistWeight: number): SetFrame => ({
    shape,
    specs: { massG, balanceCm, swingWeight, twistWeight },
  });

  it('leaves the heaviest alone and loads the lighter one with what it lacks', () => {
    const heavy = member(330, 32.3, 322, 13.8);
    const light = { shape, specs: { ...heavy.specs, massG: 326, swingWeight: 322 } };
    const found = commonAim([heavy, light]);
    expect(found.reachable).toBe(true);
    expect(found.specs.massG).toBeGreaterThanOrEqual(330 - 1e-6);
  });

  it('agrees with a general solver on the least heaviest load, and each load leads to the same specs', async () => {
    const highs = await loadHighs();
    const solve = generalSolver((lp, options) => highs.solve(lp, options));
    const sets = fc.sample(
      fc.array(
        fc.record({
          massG: fc.double({ min: 322, max: 330, noNaN: true }),
          balanceCm: fc.double({ min: 32, max: 32.6, noNaN: true }),
          swingWeight: fc.double({ min: 316, max: 323, noNaN: true }),
          twistWeight: fc.double({ min: 13.3, max: 13.9, noNaN: true }),
        }),
        { minLength: 2, maxLength: 4 },
      ),
      { numRuns: 25, seed: 5 },
    );
    let reached = 0;
    for (const set of sets) {
      const found = commonAim(set.map((own) => ({ shape, specs: own })));
      const zones = frame.sport.zones.map((zone) => ({
        ...placeOf(frame, { zone: zone.name }),
        capG: zone.capG,
      }));
      const base = set.map((s) => [
        s.massG,
        s.massG * s.balanceCm,
        s.swingWeight * 1000 - s.massG * 10.16 ** 2 + 2 * 10.16 * s.massG * s.balanceCm,
        s.twistWeight * 1000,
      ]);
      const of = [
        () => 1,
        (z: { xCm: number }) => z.xCm,
        (z: { xCm: number }) => z.xCm ** 2,
        (z: { yCm: number }) => z.yCm ** 2,
      ];
      const scale = [1, 30, 1000, 100];
      const rows: Milp['rows'] = [];
      for (let f = 1; f < set.length; f++) {
        of.forEach((measure, i) => {
          const side = (g: number, sign: number): Term[] =>
            zones.map((z, k) => [`m${g}_${k}`, (sign * measure(z as never)) / (scale[i] ?? 1)] as const);
          const gap = ((base[0]?.[i] ?? 0) - (base[f]?.[i] ?? 0)) / (scale[i] ?? 1);
          rows.push({ terms: [...side(f, 1), ...side(0, -1)], lower: gap, upper: gap });
        });
      }
      set.forEach((_, f) => {
        rows.push({
          terms: [...zones.map((__, k) => [`m${f}_${k}`, 1] as const), ['load', -1]],
          lower: -Infinity,
          upper: 0,
        });
      });
      const variables: Milp['variables'] = [
        ...set.flatMap((_, f) =>
          zones.map((z, k) => ({ name: `m${f}_${k}`, lower: 0, upper: z.capG, kind: 'continuous' as const })),
        ),
        { name: 'load', lower: 0, upper: Infinity, kind: 'continuous' },
      ];
      const { status, values } = solve(lpText({ variables, rows, objective: [['load', 1]] }));
      expect(found.reachable).toBe(status === 'optimal');
      if (status !== 'optimal') continue;
      reached++;
      // The little price of every other gram may move the heaviest load by as little.
      expect(Math.abs(Math.max(...found.loadsG) - (values.load ?? 0))).toBeLessThan(0.15);
    }
    expect(reached).toBeGreaterThan(5);
  });

  it('takes two to six frames', () => {
    const one = member(330, 32.3, 322, 13.8);
    for (const n of [0, 1, 7]) expect(() => commonAim(Array.from({ length: n }, () => one))).toThrow(Fault);
    expect(commonAim([one, one]).loadsG).toEqual([0, 0]);
  });
});
