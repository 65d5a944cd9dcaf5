import { expect, it } from 'vitest';
import { dayIn } from '.';

it('is the day of the place, not of the clock in Greenwich', () => {
  expect(dayIn('Pacific/Auckland', '2026-12-31T12:00:00Z')).toBe('2027-01-01');
  expect(dayIn('America/Los_Angeles', '2027-01-01T05:00:00Z')).toBe('2026-12-31');
  expect(dayIn('UTC', '2026-12-31T23:59:59Z')).toBe('2026-12-31');
  expect(() => dayIn('Nowhere/Else', '2026-12-31T12:00:00Z')).toThrow(RangeError);
});
