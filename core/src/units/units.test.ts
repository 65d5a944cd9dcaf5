import fc from 'fast-check';
import { unit } from 'mathjs';
import { describe, expect, it } from 'vitest';
import {
  CM_PER_INCH,
  G_PER_OUNCE,
  G_PER_POUND,
  STANDARD_GRAVITY,
  balanceFromPoints,
  parseBalance,
  parseMass,
  parseMeasure,
  parseNumber,
  pointsHeadLight,
  partWeight,
} from '.';

describe('conversions, against a general-purpose units library (NIST SP 811 values)', () => {
  it('agrees on inch, ounce, pound and standard gravity', () => {
    expect(CM_PER_INCH).toBeCloseTo(unit(1, 'inch').toNumber('cm'), 12);
    expect(G_PER_OUNCE).toBeCloseTo(unit(1, 'ounce').toNumber('g'), 9);
    expect(G_PER_POUND).toBeCloseTo(unit(1, 'lbm').toNumber('g'), 9);
    expect(STANDARD_GRAVITY).toBeCloseTo(
      unit('1 lbf').toNumber('N') / unit(1, 'lbm').toNumber('kg') / 0.01,
      9,
    );
  });
});

describe('points of balance (common practice)', () => {
  it.each([
    [32.4, 6],
    [33.0, 4],
    [31.3, 9],
  ])('a 27 in frame at %f cm is about %i points head-light', (balanceCm, points) => {
    expect(Math.abs(pointsHeadLight(balanceCm, 27 * CM_PER_INCH) - points)).toBeLessThan(0.5);
  });

  it('takes the middle of the frame’s own length', () => {
    expect(pointsHeadLight(34.925, 69.85)).toBe(0);
    expect(pointsHeadLight(34.925, 68.58)).toBeCloseTo(-2, 9);
  });

  it('is undone by its inverse', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 68, noNaN: true }), (b) => {
        expect(balanceFromPoints(pointsHeadLight(b, 68.58), 68.58)).toBeCloseTo(b, 9);
      }),
    );
  });
});

describe('typed values', () => {
  it('takes a point or a comma and refuses letters', () => {
    expect(parseNumber('31.5')).toBe(31.5);
    expect(parseNumber(' 31,5 ')).toBe(31.5);
    expect(parseNumber('-4')).toBe(-4);
    for (const text of ['', '3o2', 'abc', '1.2.3', '12 kg', 'NaN', '1e3'])
      expect(parseNumber(text)).toBeUndefined();
  });

  it('reads weights in the shown unit unless another is named', () => {
    expect(parseMass('327', 'g')).toBe(327);
    expect(parseMass('11.5', 'oz')).toBeCloseTo(unit(11.5, 'ounce').toNumber('g'), 9);
    expect(parseMass('11.5oz', 'g')).toBeCloseTo(326.02, 2);
    expect(parseMass('327 g', 'oz')).toBe(327);
    expect(parseMass('327 kg', 'g')).toBeUndefined();
  });

  it('reads balances in cm, mm, inches and points', () => {
    const length = 68.58;
    expect(parseBalance('32.4', 'cm', length)).toBe(32.4);
    expect(parseBalance('324mm', 'cm', length)).toBeCloseTo(32.4, 9);
    expect(parseBalance('12.75 in', 'cm', length)).toBeCloseTo(32.385, 9);
    for (const text of ['6 HL', '6 pts HL', '6 points hl', '6hl']) {
      expect(parseBalance(text, 'cm', length)).toBeCloseTo(32.385, 9);
    }
    expect(parseBalance('5 HH', 'cm', length)).toBeCloseTo(34.29 + 5 * 0.3175, 9);
    expect(parseBalance('6', 'points', length)).toBeCloseTo(32.385, 9);
    expect(parseBalance('6 furlongs', 'cm', length)).toBeUndefined();
  });

  it('reads every measure in the units that people say, as a units library does (NIST SP 811)', () => {
    for (const [text, measure, said, kept] of [
      ['98 sq in', 'area', '98 in^2', 'cm^2'],
      ['98 in²', 'area', '98 in^2', 'cm^2'],
      ['645 cm2', 'area', '645 cm^2', 'cm^2'],
      ['27 in', 'length', '27 in', 'cm'],
      ['27"', 'length', '27 in', 'cm'],
      ['685,8 mm', 'length', '685.8 mm', 'cm'],
      ['52 lb', 'tension', '52 lbm', 'kg'],
      ['230 N', 'tension', '23.4534728 kg', 'kg'],
      ['.9 in', 'thickness', '0.9 in', 'mm'],
      ['0.6 oz', 'mass', '0.6 oz', 'g'],
    ] as const) {
      expect(parseMeasure(text, measure), text).toBeCloseTo(unit(said).toNumber(kept), 6);
    }
  });

  it('takes a point or a comma, and the minus sign that is shown; anything doubtful is no number', () => {
    expect(['16.5', '16,5', '16.', ',5', '−3', '-3', '+2', ' 7 '].map(parseNumber)).toEqual([
      16.5, 16.5, 16, 0.5, -3, -3, 2, 7,
    ]);
    for (const text of ['', '1.234,5', '3o1', '1 2', '--3', 'abc', '12 furlongs', '5 g', 'even'])
      expect(parseNumber(text), text).toBeUndefined();
    expect(parseMeasure('27 in', 'area')).toBeUndefined();
    expect(parseMeasure('320 kg·cm²', 'inertia')).toBe(320);
    expect(parseMeasure('0,5', 'shift', 'points')).toBeCloseTo(0.15875, 9);
    expect(parseBalance('even', 'cm', 68.58)).toBe(34.29);
    expect(parseBalance('−1', 'points', 68.58)).toBeCloseTo(34.29 + 0.3175, 9);
  });
});

describe('the weight of a part', () => {
  it('is said in the shop’s unit, as finely as in grams (NIST SP 811, appendix B)', () => {
    expect(partWeight(2.345)).toBe('2.3 g');
    expect(partWeight(2, 'g', 2, true)).toBe('2 g');
    expect(partWeight(-1.25, 'g', 2)).toBe('−1.25 g');
    expect(partWeight(2.345, 'oz')).toBe('0.083 oz');
    expect(partWeight(2.345, 'grains')).toBe('36 grains');
    expect(partWeight(2.345, 'grains', 2)).toBe('36.2 grains');
  });
  it('is typed in each of them', () => {
    expect(parseMeasure('0.083 oz', 'mass')).toBeCloseTo(2.353, 3);
    expect(parseMeasure('36.2 grains', 'mass')).toBeCloseTo(2.3457, 4);
  });
});
