import { describe, expect, it } from 'vitest';
import { laidAt, lead, putty, tape } from '../../test/parts';
import { redress } from '../dress';
import { settleFrame } from '../frame';
import { SPEC_KEYS, type AxisSpecs } from '../mass';
import type { Part, Placement } from '../part';
import { NO_CHANGE, changeOutcome, type Change, type Swap } from '../plan';
import { asBuiltOf, benchSteps, expectedAfter, surpriseAfter, type Building } from '.';

const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const frame = settleFrame(shape);
const before: AxisSpecs = { massG: 322, balanceCm: 32.8, swingWeight: 316, twistWeight: 13.9, axisCm: 10.16 };
const readings = { massG: 0.3, balanceCm: 0.05, swingWeight: 0.6, twistWeight: 0.1 };
const dress = { strings: true, baseGrip: 'synthetic', overgrips: 1 } as const;
const wide: Part = { ...lead, id: 'wide', widthMm: 12, gPerCm: 0.42 } as Part;
const shoulders = { ...laidAt(frame, 'shoulders', tape, 4.24, 8), id: 'shoulders' };
const butt = { ...laidAt(frame, 'butt', putty, 6, 3.75), id: 'butt' };
const change: Change = { ...NO_CHANGE, placements: [shoulders, butt], parts: [tape, putty] };
const building: Building = { frame, before, readings, dress, change, steps: benchSteps(change, dress) };
const specsOf = (placements: Placement[], parts = change.parts): AxisSpecs =>
  changeOutcome(frame, before, dress, { ...change, placements, parts }).specs;

describe('what should be read after a step', () => {
  it('is the frame as it was before the first, and the plan after the last', () => {
    expect(expectedAfter(building, 'weigh-before').specs).toEqual(before);
    const whole = specsOf([shoulders, butt]);
    for (const key of SPEC_KEYS)
      expect(expectedAfter(building, 'final-check').specs[key]).toBeCloseTo(whole[key] ?? 0, 9);
  });

  it('is without grips from stripping to gripping, as redress says it', () => {
    const bare = redress(shape, before, dress, { strings: true, baseGrip: 'none', overgrips: 0 }).specs;
    const { specs, dress: on } = expectedAfter(building, 'strip-handle');
    for (const key of SPEC_KEYS) expect(specs[key]).toBeCloseTo(bare[key] ?? 0, 9);
    expect(on).toMatchObject({ baseGrip: 'none', overgrips: 0, strings: true });
    expect(expectedAfter(building, 'regrip').dress).toEqual(dress);
  });

  it('has everything in the trial, then what was fixed so far', () => {
    const grams = (key: string): number =>
      expectedAfter(building, key).specs.massG - expectedAfter(building, 'strip-handle').specs.massG;
    expect(grams('measure-trial')).toBeCloseTo(10.24, 9);
    expect(grams('fix-head:shoulders')).toBeCloseTo(4.24, 9);
    expect(grams('fill-handle:butt')).toBeCloseTo(10.24, 9);
  });

  it('follows what was built where that is not what was planned', () => {
    const lighter = { ...building, asBuilt: new Map([['butt', { ...butt, massG: 5 }]]) };
    expect(expectedAfter(lighter, 'final-check').specs.massG).toBeCloseTo(before.massG + 9.24, 9);
    const without = { ...building, asBuilt: new Map([['butt', undefined]]) };
    expect(expectedAfter(without, 'final-check').specs.massG).toBeCloseTo(before.massG + 4.24, 9);
  });

  it('keeps what was noted as built through a reading and a step that is opened and done again', () => {
    const { steps } = building;
    const noted = { step: 'fill-handle:butt', mark: 'done' as const, asBuilt: [{ ...butt, massG: 5 }] };
    const again = (mark: 'done' | 'open' | 'skipped') => ({ step: noted.step, mark, asBuilt: null });
    expect(asBuiltOf(steps, [noted, again('done')]).get('butt')?.massG).toBe(5);
    expect(asBuiltOf(steps, [noted, again('open'), again('done')]).get('butt')?.massG).toBe(5);
    expect(asBuiltOf(steps, [noted, again('open')]).has('butt')).toBe(false);
    expect(asBuiltOf(steps, [noted, again('skipped')])).toEqual(new Map([['butt', undefined]]));
  });

  it('takes off what comes off, and changes grips from their step on', () => {
    const there = { ...laidAt(frame, 'tip', tape, 3, 5), id: 'there' };
    const more: Change = {
      ...NO_CHANGE,
      parts: [tape],
      removals: [{ of: there }],
      swaps: [{ what: 'overgrips', to: 0 }],
    };
    const other = { ...building, change: more, steps: benchSteps(more, dress) };
    expect(expectedAfter(other, 'take-off').specs.massG).toBeCloseTo(before.massG - 3, 9);
    expect(expectedAfter(other, 'swap').dress.overgrips).toBe(0);
  });

  it('has new strings from their own step on: about 16 g and 28 kg·cm² over the bare frame (common practice)', () => {
    const swaps: Swap[] = [
      { what: 'overgrips', to: 0 },
      { what: 'strings', to: { massG: 16 } },
    ];
    const more: Change = { ...NO_CHANGE, swaps };
    const bare = { ...dress, strings: false };
    const other = { ...building, dress: bare, change: more, steps: benchSteps(more, bare) };
    const [swapped, strung] = ['swap', 'restring'].map((key) => expectedAfter(other, key));
    expect(swapped?.dress.strings).toBe(false);
    expect(strung?.dress.strings).toEqual({ massG: 16 });
    expect((strung?.specs.massG ?? 0) - (swapped?.specs.massG ?? 0)).toBeCloseTo(16, 9);
    expect(Math.abs((strung?.specs.swingWeight ?? 0) - (swapped?.specs.swingWeight ?? 0) - 28)).toBeLessThan(
      1.5,
    );
  });
});

describe('a reading that surprises', () => {
  const at = 'final-check';
  const read = (placements: Placement[], parts = change.parts) =>
    surpriseAfter(building, at, specsOf(placements, parts), readings, [tape, wide, putty]);

  it('is none where it is what was expected, within what instruments and tape leave open', () => {
    expect(read([shoulders, butt])).toBeUndefined();
    const expected = specsOf([shoulders, butt]);
    expect(
      surpriseAfter(building, at, { ...expected, swingWeight: expected.swingWeight + 1.5 }, readings),
    ).toBeUndefined();
  });

  it.each([
    ['a piece left out', [shoulders], { kind: 'left-out', placementId: 'butt' }],
    [
      'a piece put on twice',
      [shoulders, butt, { ...butt, id: 'b2' }],
      { kind: 'twice', placementId: 'butt' },
    ],
    [
      'another roll',
      [{ ...shoulders, massG: 6.72, partId: 'wide' }, butt],
      { kind: 'other-part', placementId: 'shoulders', partId: 'wide' },
    ],
  ])('names %s as the likeliest cause', (_, placements, cause) => {
    const surprise = read(placements as Placement[], [tape, wide, putty]);
    expect(surprise?.off.length).toBeGreaterThan(0);
    expect(surprise?.causes[0]).toEqual(cause);
  });

  it('finds a strip that was measured from the wrong end, or lies on one side only', () => {
    const sharp = { massG: 0.1, balanceCm: 0.02, swingWeight: 0.2, twistWeight: 0.05 };
    const strict: Building = { ...building, readings: sharp, change: { ...change, placements: [shoulders] } };
    const length = frame.rim.sideCm;
    const turned = { ...shoulders, startCm: length - 13, endCm: length - 5 } as Placement;
    const from = (p: Placement) => changeOutcome(frame, before, dress, { ...change, placements: [p] }).specs;
    const exact = {
      ...strict,
      change: { ...strict.change, placements: [{ ...shoulders, startCm: 5, endCm: 13 } as Placement] },
    };
    expect(surpriseAfter(exact, at, from(turned), sharp)?.causes).toContainEqual({
      kind: 'other-end',
      placementId: 'shoulders',
    });
    const half = surpriseAfter(strict, at, from({ ...shoulders, massG: 2.12 }), sharp);
    expect(half?.causes[0]).toEqual({ kind: 'one-side', placementId: 'shoulders' });
  });

  it('suspects one instrument where the others agree, and says no cause where nothing simple explains it', () => {
    const expected = specsOf([shoulders, butt]);
    const scale = surpriseAfter(building, at, { ...expected, massG: expected.massG + 2.4 }, readings);
    expect(scale?.off.map(({ spec }) => spec)).toEqual(['massG']);
    expect(scale?.causes).toContainEqual({ kind: 'instrument', spec: 'massG' });
    const odd = surpriseAfter(
      building,
      at,
      { ...expected, massG: expected.massG + 30, swingWeight: expected.swingWeight - 20 },
      readings,
    );
    expect(odd?.causes).toEqual([]);
    expect(odd?.off).toHaveLength(2);
  });
});
