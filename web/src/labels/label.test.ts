import fc from 'fast-check';
import { expect, it } from 'vitest';
import {
  SHEET_SIZES,
  USUAL_SHEETS,
  barsFit,
  cornerOf,
  labelSvg,
  perPage,
  sheetProblem,
  type Label,
} from './label';

const label: Label = {
  id: 'bd-040',
  title: 'BD-040',
  lines: ['Brindlow Quill 98', '303.0 g · 31.8 cm', 'swing 292 · twist 12.8'],
  code: 'BD-040',
  address: 'http://10.0.0.5:4780/tag/BD-040',
};

it('every usual size fits its sheet, and no label lies on another or off the paper', () => {
  for (const { sheet } of USUAL_SHEETS) {
    expect(sheetProblem(sheet)).toBe('');
    if (sheet.paper === 'roll') continue;
    const corners = Array.from({ length: perPage(sheet) }, (_, at) => cornerOf(sheet, at));
    const size = SHEET_SIZES[sheet.paper];
    for (const { x, y } of corners) {
      expect(x).toBeGreaterThanOrEqual(-1e-9);
      expect(x + sheet.widthMm).toBeLessThanOrEqual(size.widthMm + 1e-9);
      expect(y + sheet.heightMm).toBeLessThanOrEqual(size.heightMm + 1e-9);
    }
    for (const [at, a] of corners.entries())
      for (const b of corners.slice(at + 1))
        expect(
          Math.abs(a.x - b.x) >= sheet.widthMm - 1e-9 || Math.abs(a.y - b.y) >= sheet.heightMm - 1e-9,
        ).toBe(true);
  }
});

it('says what does not fit', () => {
  const first = USUAL_SHEETS[0]?.sheet;
  if (!first) throw new Error('no size');
  expect(sheetProblem({ ...first, columns: 4 })).toMatch('larger than the sheet');
  expect(sheetProblem({ ...first, widthMm: 5 })).toMatch('mm wide');
  expect(sheetProblem({ ...first, rows: 2.5 })).toMatch('how many rows');
  expect(sheetProblem({ ...first, widthMm: NaN })).not.toBe('');
});

it('leaves bars out where a scanner could not read them', () => {
  const small = USUAL_SHEETS.at(-1)?.sheet;
  if (!small) throw new Error('no size');
  expect(barsFit(small, 'BD-040')).toBe(true);
  expect(barsFit(small, 'a-very-long-tag-that-nobody-would-give-a-frame')).toBe(false);
  expect(barsFit(small, 'Ü-1')).toBe(false);
});

it('draws any words as words (property)', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 60 }), fc.constantFrom(...USUAL_SHEETS), (words, { sheet }) => {
      const svg = labelSvg({ ...label, title: words || 'x', lines: [words] }, sheet);
      const texts = [...svg.matchAll(/<text[^>]*>([^<]*)<\/text>/g)];
      expect(texts).toHaveLength(2);
      for (const [, said = ''] of texts) expect(said).not.toMatch(/&(?!(amp|lt|gt|quot);)/);
    }),
  );
});
