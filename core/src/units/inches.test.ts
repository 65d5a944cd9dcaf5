import fc from 'fast-check';
import { expect, it } from 'vitest';
import { CM_PER_INCH, inchFraction } from '.';

it('reads a length off a tape measure in sixteenths, in lowest terms', () => {
  expect(inchFraction(8)).toBe('3 1/8');
  expect(inchFraction(0)).toBe('0');
  expect(inchFraction(2.54)).toBe('1');
  expect(inchFraction(CM_PER_INCH / 2)).toBe('1/2');
  expect(inchFraction((5 * CM_PER_INCH) / 16)).toBe('5/16');
  expect(inchFraction(CM_PER_INCH * 0.99)).toBe('1');
  expect(inchFraction(-CM_PER_INCH * 1.75)).toBe('−1 3/4');
});

it('is never off by more than half a sixteenth (property)', () => {
  fc.assert(
    fc.property(fc.double({ min: 0, max: 80, noNaN: true }), (cm) => {
      const parts = inchFraction(cm).split(' ');
      const inches = parts.reduce((sum, part) => {
        const [n = 0, of = 1] = part.split('/').map(Number);
        return sum + n / of;
      }, 0);
      expect(Math.abs(inches * CM_PER_INCH - cm)).toBeLessThanOrEqual(CM_PER_INCH / 32 + 1e-9);
    }),
  );
});
