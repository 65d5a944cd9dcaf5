import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bringTo } from '../compare';
import { redress } from '../dress';
import { placeOf, settleFrame } from '../frame';
import { DERIVED_KEYS, SPEC_KEYS, derivedOf, shiftAxis, type SpecKey } from '../mass';
import { NO_CHANGE, changeOutcome } from '../plan';
import { ALL_SPORTS, BASE_GRIPS, SPORTS, type Dress, type Sport } from '../sport';
import { laidAt, putty, tape } from '../../test/parts';
import { explainDerived, explainOutcome, explainReading, type Working, type WorkingValue } from '.';

const words = { before: 'before', after: 'after', nameOf: () => 'part', assumes: 'nothing' };

const sport = fc.constantFrom<Sport>(...ALL_SPORTS);
const dress: fc.Arbitrary<Dress> = fc.record(
  {
    strings: fc.oneof(fc.boolean(), fc.record({ massG: fc.double({ min: 2, max: 18, noNaN: true }) })),
    baseGrip: fc.constantFrom(...BASE_GRIPS),
    overgrips: fc.integer({ min: 0, max: 3 }),
    dampener: fc.boolean(),
  },
  { requiredKeys: [] },
);
const axis = fc.double({ min: 0, max: 15, noNaN: true });
const near = (value: number) => fc.double({ min: 0.95 * value, max: 1.05 * value, noNaN: true });
/** Specs as usual frames of a sport have them, any of them missing. */
const known = (of: Sport) => {
  const { usual } = SPORTS[of];
  return fc.record(
    Object.fromEntries(SPEC_KEYS.map((key) => [key, near(usual[key])])) as Record<
      SpecKey,
      fc.Arbitrary<number>
    >,
    { requiredKeys: [] },
  );
};

/**
 * What the values shown add up to; undefined where the result is not a sum of them. What a reader does who checks the sheet with a calculator.
 * @example addUp(working) // working.result.value
 */
function addUp({ values }: Working): number | undefined {
  const sum = (role: WorkingValue['role']): number =>
    values.reduce((all, v) => (v.role === role ? all + v.value : all), 0);
  if (values.some((v) => v.role === 'moment')) return sum('moment') / sum('mass');
  return values.some((v) => v.role === 'term') ? sum('term') : undefined;
}

describe('the terms of a working give its result', () => {
  it('for setups of every sport, in every dress, about every axis, with any value missing (property)', () => {
    let explained = 0;
    fc.assert(
      fc.property(
        sport.chain((of) => fc.tuple(fc.constant(of), known(of), dress, dress, axis, axis)),
        ([of, specs, from, to, theirAxis, ownAxis]) => {
          const shape = { sport: of, lengthCm: SPORTS[of].lengthCm };
          const report = { shape, dress: from, specs: { ...specs, axisCm: theirAxis } };
          const { specs: brought, outcome } = bringTo(report, to, ownAxis);
          for (const key of SPEC_KEYS) {
            const working = explainOutcome(key, outcome, words);
            expect(working === undefined).toBe(brought[key] === undefined);
            if (!working) continue;
            explained++;
            expect(addUp(working)).toBeCloseTo(working.result.value, 8);
            expect(working.result.value).toBe(brought[key]);
          }
        },
      ),
      { numRuns: 300 },
    );
    expect(explained).toBeGreaterThan(300);
  });

  it('says what moving the axis adds: the whole of it, by the parallel-axes theorem', () => {
    const specs = { massG: 330, balanceCm: 32, swingWeight: 325, axisCm: 10 };
    const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
    const { outcome } = bringTo({ shape, dress: {}, specs }, {}, 10.16);
    const working = explainOutcome('swingWeight', outcome, words);
    const shift = working?.values.find(({ meaning }) => meaning === 'moving the axis');
    expect(shift?.value).toBeCloseTo(shiftAxis(specs, 10.16).swingWeight - 325, 9);
  });

  it('for plans: every placement is a term (property)', () => {
    const frame = settleFrame({ sport: 'tennis', lengthCm: 68.58 });
    const before = { massG: 327, balanceCm: 32.2, swingWeight: 320, twistWeight: 13.6, axisCm: 10.16 };
    const zones = fc.subarray(['tip', 'shoulders', 'sides', 'throat', 'butt'] as const);
    fc.assert(
      fc.property(zones, dress, fc.integer({ min: 0, max: 2 }), (names, from, overgrips) => {
        const placements = names.map((zone) => laidAt(frame, zone, zone === 'butt' ? putty : tape, 3, 2));
        const change = {
          ...NO_CHANGE,
          placements,
          parts: [tape, putty],
          swaps: [{ what: 'overgrips' as const, to: overgrips }],
        };
        const outcome = changeOutcome(frame, before, from, change);
        for (const key of SPEC_KEYS) {
          const working = explainOutcome(key, outcome, words);
          expect(working && addUp(working)).toBeCloseTo(outcome.specs[key] ?? Number.NaN, 9);
        }
      }),
    );
    // A handbook's point mass: 4 g at the tip.
    const tip = { ...laidAt(frame, 'tip', tape, 4, 0) };
    const outcome = changeOutcome(frame, before, {}, { ...NO_CHANGE, placements: [tip], parts: [tape] });
    const term = explainOutcome('swingWeight', outcome, words)?.values.find(({ symbol }) => symbol === 'ΔS');
    expect(term?.value).toBeCloseTo((4 * (placeOf(frame, { clock: 12 }).xCm - 10.16) ** 2) / 1000, 9);
  });

  it('for a change of dress: what came off and what went on', () => {
    const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
    const specs = { massG: 340, balanceCm: 32.5, swingWeight: 337 };
    const { outcome } = redress(shape, specs, { strings: true, overgrips: 1 }, { strings: true });
    const working = explainOutcome('massG', outcome, {
      ...words,
      nameOf: (part) => `${part.name}, ${part.takenOff ? 'off' : 'on'}`,
    });
    expect(working?.values.map((v) => v.meaning)).toEqual(['before', 'overgrip 5.5 g, off']);
    expect(working && addUp(working)).toBeCloseTo(334.5, 9);
  });
});

describe('derived numbers', () => {
  const specs = { massG: 336, balanceCm: 32.385, swingWeight: 339, axisCm: 10.16 };

  it('are explained by the very entry that computes them', () => {
    for (const key of DERIVED_KEYS) {
      const { result, values, equation, source } = explainDerived(key, specs, 68.58, 'measured');
      expect(result.value).toBe(derivedOf(key, specs, 10.16, 68.58));
      expect(values.length).toBeGreaterThan(1);
      expect(equation).toContain('=');
      expect(source).not.toBe('');
    }
    // Common practice: a 27 in frame at 32.4 cm is about 6 points head-light.
    expect(explainDerived('pointsHeadLight', specs, 68.58, '').result.value).toBeCloseTo(6, 9);
  });

  it('stay unknown where what goes in is', () => {
    expect(derivedOf('recoilWeight', { massG: 330 }, 10.16, 68.58)).toBeUndefined();
    expect(derivedOf('pointsHeadLight', { balanceCm: 34.29 }, 10.16, 68.58)).toBeCloseTo(0, 12);
  });
});

describe('a measured value', () => {
  const measured = {
    specs: { massG: 327, balanceCm: 32, swingWeight: 320, axisCm: 10.16 },
    uncertainty: { massG: 0.2, balanceCm: 0.05, swingWeight: 0.6, twistWeight: 0.1 },
  };

  it('says how it was really measured: by what, how often, and with what uncertainty', () => {
    const byMachine = explainReading('swingWeight', measured, { means: ['instrument'], count: 3 }, '');
    expect(byMachine?.equation).toContain('mean of the readings');
    expect(byMachine?.values.find(({ symbol }) => symbol === 'n')?.value).toBe(3);
    expect(byMachine?.values.find(({ symbol }) => symbol === 'u')?.value).toBe(0.6);
    const swung = explainReading('swingWeight', measured, { means: ['pendulum'], count: 1 }, '');
    expect(swung?.source).toContain('pendulum');
    const guessed = explainReading('swingWeight', measured, { means: ['estimate'], count: 1 }, '');
    expect(guessed?.source).toContain('not measured');
    expect(explainReading('massG', measured, undefined, '')?.source).toContain('entered whole');
    expect(explainReading('twistWeight', measured, undefined, '')).toBeUndefined();
  });
});
