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
    // A slash parts what differs, whatever the units and their order.
    ['SW 320 / 31.3 cm / 325 g', { swingWeight: 320, balanceCm: 31.3, massG: 325 }],
    ['320 / 31.3 cm / 325 g', { swingWeight: 320, balanceCm: 31.3, massG: 325 }],
    ['325 g / sw 320 / 31.3 cm', { swingWeight: 320, balanceCm: 31.3, massG: 325 }],
    ['325 g; 31.3 cm; 320 sw', { swingWeight: 320, balanceCm: 31.3, massG: 325 }],
    // A label before or after its number, in any spelling.
    ['320 sw', { swingWeight: 320 }],
    ['320 s/w, 14.2 t/w', { swingWeight: 320, twistWeight: 14.2 }],
    ['s/w 320 t/w 14.2', { swingWeight: 320, twistWeight: 14.2 }],
    ['sw: 320', { swingWeight: 320 }],
    ['swingweight 320', { swingWeight: 320 }],
    ['320 swingweight', { swingWeight: 320 }],
    // Said roughly, it is that number.
    ['about 325g', { massG: 325 }],
    ['~325 g', { massG: 325 }],
    ['≈ 31.5 cm', { balanceCm: 31.5 }],
    ['sw ~332', { swingWeight: 332 }],
    ['weight approx. 325 g', { massG: 325 }],
    ['sw 320 @ 10 cm', { swingWeight: 320, axisCm: 10 }],
    ['320 sw @ 4 in', { swingWeight: 320, axisCm: 10.16 }],
    // Three bare numbers in the order of the trade.
    ['327 31.3 320', { massG: 327, balanceCm: 31.3, swingWeight: 320 }],
    ['327 31.3 320 strung', { massG: 327, balanceCm: 31.3, swingWeight: 320 }],
    ['325 g strung, 320', { massG: 325, swingWeight: 320 }],
  ])('%s is read', (text, specs) => {
    const parsed = of(text).specs;
    expect(Object.keys(parsed).toSorted()).toEqual(Object.keys(specs).toSorted());
    for (const [key, value] of Object.entries(specs))
      expect(parsed[key as keyof typeof parsed]).toBeCloseTo(value, 2);
  });

  it.each([
    '325g-330g',
    'between 320 and 325 g',
    '6 pts',
    '-3 HH',
    'sw 332/335',
    'at least 320g',
    '325 strung',
    'strung 325',
    '325/330 g',
    'sw 320/325',
    '310 315 320',
    '327 31.3 320 332',
    // In millimetres each of them could be the balance.
    '327/313/320',
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

  it('reads a paddle’s smaller length as its width, which is not its balance', () => {
    expect(of('16.5 in 9.5 in 8 oz', 'pickleball')).toMatchObject({
      specs: { massG: expect.closeTo(226.8, 1) },
      shape: { lengthCm: expect.closeTo(41.91, 2) },
    });
    expect(of('45.5 cm, 26 cm, 365 g', 'padel').specs).toEqual({ massG: 365 });
    expect(of('45.5 cm, 26 cm balance, 365 g', 'padel').specs).toEqual({ massG: 365, balanceCm: 26 });
    expect(of('240 mm balance', 'pickleball').specs).toEqual({ balanceCm: 24 });
  });

  it('takes even for what the sport calls even, and for nothing in a sport that has no word for it', () => {
    // Tennis: balanced at the middle of its length (common practice). Badminton: 290 to 295 mm (common practice).
    expect(of('even').specs.balanceCm).toBeCloseTo(34.29, 2);
    expect(of('88 g, even balance', 'badminton').specs).toEqual({ massG: 88, balanceCm: 29.25 });
    expect(of('8 oz even', 'pickleball').leftover).toContain('even');
    expect(of('365 g even', 'padel').specs).toEqual({ massG: 365 });
  });

  it('reads three bare numbers of a shuttle racket too, in millimetres', () => {
    expect(of('88/290/89', 'badminton').specs).toEqual({ massG: 88, balanceCm: 29, swingWeight: 89 });
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
