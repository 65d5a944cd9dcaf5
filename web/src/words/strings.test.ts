import { describe, expect, it } from 'vitest';
import { leversFor, tensionSpread } from '@kevro/core';
import type { StringBed, Stringing } from '@kevro/contract';
import {
  bedWords,
  dueWords,
  leftWords,
  leverWords,
  spreadWords,
  stringWords,
  toldStrings,
  useWords,
} from './strings';

const stringing: Stringing = {
  id: 's',
  strungOn: '2026-11-01',
  mains: 'round poly',
  crosses: 'soft multifilament',
  mainsMm: 1.25,
  crossesMm: 1.3,
  mainsKg: 24,
  crossesKg: 23,
  unit: 'kg',
  preStretchPercent: 0,
  mainsKind: null,
  crossesKind: null,
  by: '',
  hoursPlayed: null,
  readings: [],
  note: '',
  retired: false,
};
const bed = (more: Partial<StringBed> = {}, of: Partial<Stringing> = {}): StringBed => ({
  frameId: 'f',
  stringing: { ...stringing, ...of },
  days: 20,
  hours: 6,
  notedHours: 6,
  sessions: 4,
  due: [],
  ...more,
});

describe('strings in words', () => {
  it('say what is left of the tension as an estimate, and of a measured one that it was measured', () => {
    expect(leftWords(bed())).toMatch(/^about 1\d(\.\d)? kg ±\d(\.\d)?, estimated$/);
    // What nobody named is not guessed.
    expect(leftWords(bed({}, { mains: 'the blue one', crosses: 'the blue one' }))).toBe('');
    expect(leftWords(bed({}, { mains: 'the blue one', mainsKind: 'gut', crossesKind: 'gut' }))).not.toBe('');
    const read = { on: '2026-11-21', kg: 20.5, with: 'clamp' };
    expect(leftWords(bed({}, { readings: [read] }))).toBe('20.5 kg measured 21 Nov (clamp)');
    const later = leftWords(bed({ days: 60, hours: 30 }, { readings: [read] }));
    expect(later).toMatch(
      /^20\.5 kg measured 21 Nov \(clamp\); now about 1\d(\.\d)? kg ±\d(\.\d)?, estimated$/,
    );
    // In the unit in which they were said.
    expect(leftWords(bed({}, { unit: 'lb' }))).toMatch(/^about 4\d(\.\d)? lb/);
  });
  it('say how long they were played, and why they are due', () => {
    expect(useWords(bed())).toBe('20 days, 6 h of play in 4 sessions');
    expect(useWords(bed({ hours: 40 }))).toBe('20 days, 40 h of play as somebody says');
    expect(useWords(bed({ days: 1, hours: 0, notedHours: 0, sessions: 0 }))).toBe('1 day');
    expect(dueWords(bed({ due: ['days', 'hours'] }))).toBe('20 days in, 6 h played');
    expect(dueWords(bed())).toBe('');
  });
  it('stand beside those of others in one unit', () => {
    expect(bedWords(bed())).toBe('24 / 23 kg, polyester / nylon');
    expect(toldStrings({ mains: 'shaped poly', tension: '52/50 lb' }, 'tennis', 'kg')).toBe(
      '23.6 / 22.7 kg, polyester',
    );
    expect(toldStrings({ mains: 'shaped poly', tension: '24 kg' }, 'tennis', 'lb')).toBe(
      '52.9 lb, polyester',
    );
    // What cannot be read stands as it was told.
    expect(toldStrings({ tension: '30' }, 'tennis', 'kg')).toBe('30');
    expect(toldStrings({}, 'tennis', 'kg')).toBe('');
    const spread = tensionSpread(['50 lb', '52 lb', '54 lb', '56 lb', '58 lb'], 'tennis');
    expect(spread && spreadWords(spread, 'lb')).toBe(
      'Tensions of 5 setups: half of them 52 to 56 lb, around 54.',
    );
  });
  it('say what a change is for and what it gives up', () => {
    const [tighter, weight] = leversFor('tennis', 'long').map((lever) => leverWords(lever, 'kg'));
    expect(tighter?.what).toBe('tighter strings, by 1 to 1.5 kg');
    expect(tighter?.why).toContain('gives up');
    expect(weight?.what).toBe('weight: swing weight down');
    expect(leverWords({ lever: 'strings', change: 'looser', byKg: [1, 1.5], costs: 1 }, 'lb').what).toBe(
      'looser strings, by 2 to 3 lb',
    );
    expect(leverWords({ lever: 'strings', change: 'softer', to: 'nylon', costs: 2 }, 'kg').what).toBe(
      'softer strings, nylon',
    );
  });
  it('name who strung them', () => {
    expect(stringWords({ ...stringing, by: 'Tamsin', note: 'on trial' })).toMatch(/by Tamsin · on trial$/);
  });
});
