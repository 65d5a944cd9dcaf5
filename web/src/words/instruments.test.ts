import { describe, expect, it } from 'vitest';
import { CALIBRATION_WORDS, ageWords } from './instruments';

describe('the age of a calibration', () => {
  const now = Date.parse('2026-11-24T10:00:00.000Z');
  const ago = (minutes: number): string => ageWords(new Date(now - minutes * 60_000).toISOString(), now);

  it('is said in minutes, hours or days', () => {
    expect(ago(0)).toBe('0 min');
    expect(ago(59)).toBe('59 min');
    expect(ago(90)).toBe('2 h');
    expect(ago(47 * 60)).toBe('47 h');
    expect(ago(72 * 60)).toBe('3 days');
  });

  it('is never negative where a clock is a little behind', () => {
    expect(ago(-5)).toBe('0 min');
  });

  it('comes with how it stands', () => {
    expect(CALIBRATION_WORDS.stale('11 days')).toBe('calibration is stale: 11 days old');
    expect(CALIBRATION_WORDS.never('')).toContain('less sure');
  });
});
