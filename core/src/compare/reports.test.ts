import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SPEC_KEYS, specsOf, swingAbout } from '../mass';
import { ALL_SPORTS, sportData, type Dress } from '../sport';
import { parseSpecs } from '../typed';
import { averageOf, bareOf, bringTo, compareReports, dressSums, type Report } from '.';

const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const dresses = fc.record({
  strings: fc.oneof(fc.boolean(), fc.record({ massG: fc.double({ min: 3, max: 18, noNaN: true }) })),
  baseGrip: fc.constantFrom('none', 'synthetic', 'leather'),
  overgrips: fc.integer({ min: 0, max: 3 }),
  dampener: fc.boolean(),
}) as fc.Arbitrary<Dress>;

describe('the sums of a bare frame', () => {
  it('give the setup in any other dress as bringing it over does, in every sport', () => {
    fc.assert(
      fc.property(fc.constantFrom(...ALL_SPORTS), dresses, dresses, (sport, from, to) => {
        const { usual, lengthCm, axisCm } = sportData(sport);
        const report = { shape: { sport, lengthCm }, dress: from, specs: { ...usual, axisCm } };
        const bare = bareOf(report);
        const on = dressSums(report.shape, to);
        const brought = bringTo(report, to, axisCm).specs;
        expect((bare.massG ?? 0) + on.massG).toBeCloseTo(brought.massG ?? 0, 9);
        const moment = (bare.momentGCm ?? 0) + on.firstGCm;
        expect(moment / ((bare.massG ?? 0) + on.massG)).toBeCloseTo(brought.balanceCm ?? 0, 9);
        expect((bare.swingWeight ?? 0) + swingAbout(on, axisCm)).toBeCloseTo(brought.swingWeight ?? 0, 9);
        expect((bare.twistWeight ?? 0) + on.twistGCm2 / 1000).toBeCloseTo(brought.twistWeight ?? 0, 9);
      }),
    );
  });

  it('hold no value that was not reported, nor one that another is missing for', () => {
    expect(bareOf({ shape, dress: {}, specs: { balanceCm: 32 } })).toEqual({ axisCm: 10.16 });
    expect(bareOf({ shape, dress: {}, specs: { swingWeight: 320, axisCm: 10 } })).toEqual({
      axisCm: 10,
      swingWeight: 320,
    });
  });

  it('are a rigid body’s: weight, moment and inertia about the butt give the specs back (parallel axes)', () => {
    const specs = { massG: 330, balanceCm: 32, swingWeight: 320, twistWeight: 14 };
    const bare = bareOf({ shape, dress: {}, specs });
    const a = bare.axisCm;
    const secondGCm2 =
      (bare.swingWeight ?? 0) * 1000 + 2 * a * (bare.momentGCm ?? 0) - a * a * (bare.massG ?? 0);
    const sums = {
      massG: bare.massG ?? 0,
      firstGCm: bare.momentGCm ?? 0,
      secondGCm2,
      twistGCm2: (bare.twistWeight ?? 0) * 1000,
    };
    for (const key of SPEC_KEYS) expect(specsOf(sums, a, true)[key]).toBeCloseTo(specs[key], 9);
  });
});

const report = (confidence: Report['confidence'], specs: Report['specs'], dress: Dress = {}): Report => ({
  shape,
  dress,
  specs,
  confidence,
  sourceKind: 'published',
});

describe('several reports of one frame', () => {
  it('stand side by side in one dress, with their spread', () => {
    const found = compareReports(
      [
        report('high', { massG: 324, swingWeight: 310 }),
        report('low', { massG: 345, balanceCm: 32.4 }, { strings: true, overgrips: 1 }),
      ],
      {},
      10.16,
    );
    expect(found.massG?.values[0]).toBe(324);
    // 16 g of strings and an overgrip of 5.5 g come off (common practice).
    expect(found.massG?.values[1]).toBeCloseTo(323.5, 9);
    expect(found.massG?.spread).toBeCloseTo(0.5, 9);
    expect(found.massG?.disagree).toBe(false);
    expect(found.swingWeight?.values).toEqual([310, undefined]);
    expect(found.twistWeight).toBeUndefined();
  });

  it('disagree where they lie further apart than their intervals', () => {
    const far = compareReports([report('high', { massG: 324 }), report('high', { massG: 331 })], {}, 10.16);
    expect(far.massG?.disagree).toBe(true);
  });

  it('are averaged by confidence: between the least and the most, nearer to the trusted one', () => {
    const confidence = fc.constantFrom('high', 'medium', 'low') as fc.Arbitrary<Report['confidence']>;
    const any = fc.tuple(confidence, fc.double({ min: 300, max: 360, noNaN: true }));
    fc.assert(
      fc.property(fc.array(any, { minLength: 1, maxLength: 6 }), (all) => {
        const found = compareReports(
          all.map(([sure, massG]) => report(sure, { massG })),
          {},
          10.16,
        );
        const { massG = 0 } = averageOf(found);
        const values = all.map(([, value]) => value);
        expect(massG).toBeGreaterThanOrEqual(Math.min(...values) - 1e-9);
        expect(massG).toBeLessThanOrEqual(Math.max(...values) + 1e-9);
      }),
    );
    const { massG = 0 } = averageOf(
      compareReports([report('high', { massG: 320 }), report('low', { massG: 332 })], {}, 10.16),
    );
    expect(massG).toBeCloseTo((320 + 0.2 * 332) / 1.2, 9);
  });
});

it('one setup, typed strung in ounces and points and unstrung in grams and centimetres, lands within its own uncertainty', () => {
  const unstrung = parseSpecs('306 g 31.9 cm sw 290 unstrung');
  // The same frame with 16 g of strings about the middle of the bed (common practice: near +30 in swing weight).
  const strung = parseSpecs('11.36 oz 4.5 HL 320 strung');
  const own = { strings: true };
  const a = bringTo(
    { shape, dress: unstrung.dress, specs: unstrung.specs, sourceKind: 'published' },
    own,
    10.16,
  );
  const b = bringTo({ shape, dress: strung.dress, specs: strung.specs, sourceKind: 'published' }, own, 10.16);
  for (const key of ['massG', 'balanceCm', 'swingWeight'] as const) {
    const apart = Math.abs((a.specs[key] ?? 0) - (b.specs[key] ?? 0));
    expect(apart).toBeLessThan(2 * Math.hypot(a.uncertainty[key] ?? 0, b.uncertainty[key] ?? 0));
  }
});
