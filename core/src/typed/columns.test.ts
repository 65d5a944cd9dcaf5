import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FIELD_UNITS, fieldScale, guessColumns, type SetupField } from '.';

const guess = (headers: string[], ...rows: string[][]) => guessColumns(headers, rows, 'tennis');

describe('what the columns of a list are', () => {
  it('is read from names and units as people write them, in any order (common practice)', () => {
    expect(
      guess(['Player', 'Weight (oz)', 'Balance (pts HL)', 'SW', 'Twistweight', 'Head Size (sq in)']),
    ).toEqual([
      { field: 'name' },
      { field: 'massG', unit: 'oz' },
      { field: 'balanceCm', unit: 'points head-light' },
      { field: 'swingWeight', unit: 'kg·cm²' },
      { field: 'twistWeight', unit: 'kg·cm²' },
      { field: 'headAreaCm2', unit: 'in²' },
    ]);
    expect(guess(['weight_g', 'balance, mm', 'length [in]'])).toEqual([
      { field: 'massG', unit: 'g' },
      { field: 'balanceCm', unit: 'mm' },
      { field: 'lengthCm', unit: 'in' },
    ]);
  });

  it('knows the short names of lists that people keep (common practice)', () => {
    const fields = guess(['Player Name', 'Racquet', 'Yr', 'Wt', 'Bal Pt', 'SW', 'TW', 'RW', 'Comments']);
    expect(fields.map(({ field }) => field)).toEqual([
      'name',
      'frameName',
      'year',
      'massG',
      'balanceCm',
      'swingWeight',
      'twistWeight',
      'recoilWeight',
      'note',
    ]);
  });

  it('a unit that no name says is told by what a frame can be; two that fit, and points without a way, stay open', () => {
    const unit = (header: string, ...cells: string[]) =>
      guess([header], ...cells.map((cell) => [cell]))[0]?.unit;
    expect(unit('weight', '11,5', '12,1')).toBe('oz');
    expect(unit('weight', '327', '331')).toBe('g');
    expect(unit('weight', '0.327')).toBe('kg');
    expect(unit('balance', '313', '320')).toBe('mm');
    expect(unit('balance', '31.3')).toBe('cm');
    expect(unit('balance', '12.6')).toBe('in');
    expect(unit('balance', '6', '7')).toBeUndefined();
    expect(unit('balance', '-6', '-4')).toBeUndefined();
    expect(unit('balance', '10')).toBeUndefined();
    expect(unit('length', '27', '27.5')).toBe('in');
  });

  it('nothing is taken twice, and what is not known is left out', () => {
    expect(guess(['name', 'player', 'lorem', ''])).toEqual([{ field: 'name' }, {}, {}, {}]);
  });

  it('whatever the headers, there is one answer a column and none fails', () => {
    fc.assert(
      fc.property(fc.array(fc.string()), fc.array(fc.array(fc.string())), (headers, rows) => {
        const fields = guess(headers, ...rows).flatMap(({ field }) => field ?? []);
        expect(guess(headers, ...rows)).toHaveLength(headers.length);
        expect(new Set(fields).size).toBe(fields.length);
      }),
    );
  });

  it('every unit but points has a scale (NIST SP 811, appendix B)', () => {
    for (const [field, units] of Object.entries(FIELD_UNITS) as [SetupField, string[]][]) {
      for (const unit of units) {
        if (unit.startsWith('points')) expect(fieldScale(field, unit)).toBeUndefined();
        else expect(fieldScale(field, unit)).toBeGreaterThan(0);
      }
    }
    expect(fieldScale('massG', 'lb')).toBe(453.59237);
    expect(fieldScale('headAreaCm2', 'in²')).toBeCloseTo(6.4516, 9);
  });
});
