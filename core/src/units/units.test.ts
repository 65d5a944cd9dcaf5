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
  parseNumber,
  pointsHeadLight,
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
});
