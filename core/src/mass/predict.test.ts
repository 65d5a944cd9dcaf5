import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Fault } from '../fault';
import { settleFrame } from '../frame';
import {
  NOTHING,
  add,
  additionSums,
  derive,
  predict,
  recoilWeight,
  shiftAxis,
  specsOf,
  sumsOf,
  swingAbout,
  type AxisSpecs,
  swingAtPlaces,
} from '.';

const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const frame = settleFrame(shape);
const measured = { massG: 336, balanceCm: 32.4, swingWeight: 339 };

const specsArbitrary = fc
  .record({
    massG: fc.double({ min: 200, max: 400, noNaN: true }),
    balanceCm: fc.double({ min: 25, max: 42, noNaN: true }),
    recoil: fc.double({ min: 60, max: 300, noNaN: true }),
    twistWeight: fc.double({ min: 5, max: 25, noNaN: true }),
  })
  .map(({ recoil, ...rest }): AxisSpecs => ({
    ...rest,
    swingWeight: recoil + (rest.massG * (rest.balanceCm - 10.16) ** 2) / 1000,
    axisCm: 10.16,
  }));

const additionArbitrary = fc.record({
  massG: fc.double({ min: 0.1, max: 20, noNaN: true }),
  at: fc.oneof(
    fc.record({ clock: fc.double({ min: 0, max: 12, noNaN: true }) }),
    fc.record({ xCm: fc.double({ min: 0, max: 68, noNaN: true }) }),
  ),
  spanCm: fc.option(fc.double({ min: 0.5, max: 14, noNaN: true }), { nil: undefined }),
});

describe('predict', () => {
  it('does not depend on the order of additions', () => {
    fc.assert(
      fc.property(specsArbitrary, fc.array(additionArbitrary, { maxLength: 6 }), (specs, additions) => {
        const a = predict(shape, specs, additions).specs;
        const b = predict(shape, specs, additions.toReversed()).specs;
        for (const key of ['massG', 'balanceCm', 'swingWeight', 'twistWeight'] as const) {
          expect(b[key]).toBeCloseTo(a[key] ?? 0, 8);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('is undone by taking the same off again', () => {
    fc.assert(
      fc.property(specsArbitrary, additionArbitrary, (specs, addition) => {
        const there = predict(shape, specs, [addition]).specs;
        const back = predict(shape, { ...specs, ...pick(there) }, [
          { ...addition, massG: -addition.massG },
        ]).specs;
        expect(back.massG).toBeCloseTo(specs.massG, 9);
        expect(back.balanceCm).toBeCloseTo(specs.balanceCm, 8);
        expect(back.swingWeight).toBeCloseTo(specs.swingWeight, 8);
        expect(back.twistWeight).toBeCloseTo(specs.twistWeight ?? 0, 8);
      }),
      { numRuns: 60 },
    );
  });

  it('never lets twist weight depend on x', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 68, noNaN: true }), (xCm) => {
        expect(predict(shape, measured, [{ massG: 5, at: { xCm } }]).delta.twistWeight).toBeCloseTo(0, 12);
      }),
    );
  });

  it('keeps recoil weight positive whatever is added', () => {
    fc.assert(
      fc.property(specsArbitrary, fc.array(additionArbitrary, { maxLength: 6 }), (specs, additions) => {
        expect(predict(shape, specs, additions).specs.recoilWeight).toBeGreaterThan(0);
      }),
      { numRuns: 60 },
    );
  });

  it('gives a pair the same effect as the whole on one side, and leaves an unknown twist weight out', () => {
    const pair = predict(shape, measured, [{ massG: 6, at: { clock: 3 } }]);
    const single = predict(shape, measured, [{ massG: 6, at: { clock: 3 }, mirrored: false }]);
    expect(pair).toEqual(single);
    expect(pair.specs.twistWeight).toBeUndefined();
    expect(pair.delta.twistWeight).toBeCloseTo((6 * frame.rim.acrossCm ** 2) / 1000, 9);
  });

  it('integrates a strip: 10 cm across the tip swings less than a point there', () => {
    const strip = additionSums(frame, { massG: 4, at: { clock: 12 }, spanCm: 10 });
    const dot = additionSums(frame, { massG: 4, at: { clock: 12 } });
    expect(swingAbout(strip, 10.16)).toBeLessThan(swingAbout(dot, 10.16));
    expect(strip.twistGCm2).toBeGreaterThan(4);
  });

  it('refuses impossible input with every problem named', () => {
    const codes = (run: () => unknown): string[] => {
      try {
        run();
        return [];
      } catch (fault) {
        return (fault as Fault).problems.map((p) => `${p.code} ${p.path}`);
      }
    };
    expect(codes(() => predict(shape, { massG: -1, balanceCm: 90, swingWeight: 300 }, []))).toEqual([
      'mass-negative specs.massG',
      'balance-off-frame specs.balanceCm',
    ]);
    expect(codes(() => predict(shape, { massG: 336, balanceCm: 32.4, swingWeight: 160 }, []))).toEqual([
      'swing-weight-impossible specs.swingWeight',
    ]);
    expect(codes(() => predict(shape, { ...measured, twistWeight: 0 }, []))).toEqual([
      'twist-weight-impossible specs.twistWeight',
    ]);
    expect(codes(() => predict(shape, measured, [{ massG: -336, at: { xCm: 30 } }]))).toEqual([
      'removal-too-large additions',
    ]);
    expect(codes(() => predict(shape, measured, [{ massG: -150, at: { clock: 12 } }]))).toEqual([
      'removal-too-large additions',
    ]);
    expect(
      codes(() =>
        predict(shape, measured, [
          { massG: 1, at: { clock: 12 } },
          { massG: 1, at: { xCm: 99 } },
        ]),
      ),
    ).toEqual(['spot-off-frame additions.1.at']);
    expect(codes(() => predict(shape, measured, [{ massG: 1, at: { clock: 12 }, spanCm: 0 }]))).toEqual([
      'span-not-positive additions.0.spanCm',
    ]);
  });
});

const pick = ({ massG, balanceCm, swingWeight, twistWeight }: AxisSpecs) => ({
  massG,
  balanceCm,
  swingWeight,
  twistWeight,
});

describe('axes and derived numbers', () => {
  it('shifts reversibly and leaves recoil weight alone', () => {
    fc.assert(
      fc.property(specsArbitrary, fc.double({ min: 0, max: 20, noNaN: true }), (specs, axis) => {
        const there = shiftAxis(specs, axis);
        expect(recoilWeight(there)).toBeCloseTo(recoilWeight(specs), 8);
        expect(shiftAxis(there, specs.axisCm).swingWeight).toBeCloseTo(specs.swingWeight, 8);
      }),
    );
  });

  it('is the identity from specs to sums and back', () => {
    fc.assert(
      fc.property(specsArbitrary, (specs) => {
        const back = specsOf(add(sumsOf(specs), NOTHING), specs.axisCm, true);
        expect(back.swingWeight).toBeCloseTo(specs.swingWeight, 9);
        expect(back.balanceCm).toBeCloseTo(specs.balanceCm, 9);
      }),
    );
  });

  it('a uniform rod has the handbook’s pendulum, percussion and recoil', () => {
    // Rod of length l: S(0) = m l²/3; ω² = 3 g / (2 l); percussion from the end at 2 l/3; recoil m l²/12.
    const [m, l] = [300, 60];
    const rod: AxisSpecs = { massG: m, balanceCm: l / 2, swingWeight: (m * l * l) / 3000, axisCm: 0 };
    const { naturalSwing, percussionCm, recoilWeight: recoil, pointsHeadLight } = derive(rod, l);
    expect(naturalSwing).toBeCloseTo((3 * 980.665) / (2 * l), 9);
    expect(percussionCm).toBeCloseTo((2 * l) / 3, 9);
    expect(recoil).toBeCloseTo((m * l * l) / 12_000, 9);
    expect(pointsHeadLight).toBe(0);
  });

  it('a full-size tennis frame swings naturally near 20 to 21 s⁻² (from memory)', () => {
    const { naturalSwing } = derive({ ...measured, axisCm: 10.16 }, 68.58);
    expect(naturalSwing).toBeGreaterThan(19.5);
    expect(naturalSwing).toBeLessThan(21.5);
  });
});

describe('swing weight about the places people speak of', () => {
  it('is that of the rod about its end, its middle and between (handbook)', () => {
    const [massG, l] = [300, 60];
    const rod = { massG, balanceCm: l / 2, swingWeight: (massG * l * l) / 3000, axisCm: 0 };
    const places = swingAtPlaces(rod, 10);
    expect(places.butt).toBeCloseTo((massG * l * l) / 3000, 9);
    expect(places.balance).toBeCloseTo((massG * l * l) / 12_000, 9);
    expect(places.hand).toBeCloseTo((massG * l * l) / 12_000 + (massG * 20 ** 2) / 1000, 9);
    expect(places.wrist).toBeCloseTo((massG * l * l) / 12_000 + (massG * 27 ** 2) / 1000, 9);
  });
});
