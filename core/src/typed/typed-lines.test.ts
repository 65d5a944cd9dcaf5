import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { parseSpecs } from '.';
import type { Sport } from '../sport';

interface TypedLine {
  text: string;
  sport: Sport;
  specs: Record<string, number>;
  dress: Record<string, unknown>;
  shape: Record<string, unknown>;
}

/** Lines as fitters write them, with what is to be understood of each (common practice). */
const LINES = JSON.parse(readFileSync(new URL('./typed-lines.json', import.meta.url), 'utf8')) as TypedLine[];

describe('lines as fitters write them', () => {
  it.each(LINES)('$text', ({ text, sport, specs, dress, shape }) => {
    const parsed = parseSpecs(text, sport);
    expect(Object.keys(parsed.specs).toSorted()).toEqual(Object.keys(specs).toSorted());
    for (const [key, value] of Object.entries(specs))
      expect(parsed.specs[key as keyof typeof parsed.specs]).toBeCloseTo(value, 2);
    expect(parsed.dress).toEqual(dress);
    const { sport: _, ...rest } = parsed.shape;
    expect(Object.keys(rest).toSorted()).toEqual(Object.keys(shape).toSorted());
    for (const [key, value] of Object.entries(shape)) {
      if (typeof value === 'number') expect(rest[key as keyof typeof rest]).toBeCloseTo(value, 2);
      else expect(rest[key as keyof typeof rest]).toEqual(value);
    }
  });
});

describe('more of the same kind', () => {
  const of = (text: string, sport: Sport = 'tennis') => parseSpecs(text, sport);

  it.each([
    ['318 sw 14 tw', { swingWeight: 318, twistWeight: 14 }],
    ['weight 11.5', { massG: 326.02 }],
    ['balance 325', { balanceCm: 32.5 }],
    ['327 g / 31.3 cm / 320', { massG: 327, balanceCm: 31.3, swingWeight: 320 }],
    ['M: 327, B: 31.3, S: 320', { massG: 327, balanceCm: 31.3, swingWeight: 320 }],
    ['23mm beam 300g', { massG: 300 }],
    ['315g beam 23mm 32cm', { massG: 315, balanceCm: 32 }],
    ['340g with 4g of lead at 3 and 9', { massG: 340 }],
    ['6g under grip, 330g', { massG: 330 }],
    ['325 ± 2 g', { massG: 325 }],
    ['0.5 in head light', { balanceCm: 33.02 }],
    ['sw 299 (10 cm axis)', { swingWeight: 299, axisCm: 10 }],
  ])('%s is read', (text, specs) => {
    const parsed = of(text).specs;
    expect(Object.keys(parsed).toSorted()).toEqual(Object.keys(specs).toSorted());
    for (const [key, value] of Object.entries(specs))
      expect(parsed[key as keyof typeof parsed]).toBeCloseTo(value, 2);
  });

  it.each([
    'about 325g',
    '~325 g',
    '325g-330g',
    'between 320 and 325 g',
    '6 pts',
    '-3 HH',
    'sw 332/335',
    'sw ~332',
    '325g?',
    '<320g',
    '370g + 5g overgrip',
    'was 310g now 325g',
    'target 340 g',
    '312 g unstrung 330 strung',
    '312 g unstrung, 330, strung',
    'sw 33',
    '300 320',
    '66RA',
  ])('%s is left over whole', (text) => {
    expect(of(text).specs).toEqual({});
    expect(of(text).leftover).not.toBe('');
  });

  it('takes the finer of two that agree as far as they are rounded, and neither of two that do not', () => {
    expect(of('11.5 oz (326 g)').specs.massG).toBe(326);
    expect(of('32.4 cm (6 HL)').specs.balanceCm).toBe(32.4);
    expect(of('11.5 oz (330 g)').specs).toEqual({});
  });

  it('reads what a sport’s own frames can be: a length in one is a balance in another', () => {
    expect(of('45.5 cm', 'padel').shape.lengthCm).toBe(45.5);
    expect(of('16 in x 8 in 8oz', 'pickleball')).toMatchObject({
      specs: { massG: expect.closeTo(226.8, 1) },
    });
    expect(of('29 cm', 'badminton').specs.balanceCm).toBe(29);
    expect(of('29 cm', 'pickleball').specs.balanceCm).toBe(29);
    expect(of('38 cm', 'pickleball').shape.lengthCm).toBe(38);
    expect(of('88 g', 'tennis').specs).toEqual({});
  });
});
