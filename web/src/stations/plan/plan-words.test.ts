import { describe, expect, it } from 'vitest';
import type { Aim, Materials, Placement } from '@kevro/core';
import { missWords, pieceWords, placesWords } from './plan-words';

const strip: Placement = {
  zone: 'shoulders',
  massG: 4.505,
  xCm: 62,
  yCm: 9.9,
  mirrored: true,
  spanCm: 8.5,
  layers: 1,
};
const materials: Materials = {
  tape: { name: 'tape 6 mm', material: 'lead', widthMm: 6, gPerCm: 0.265, stepCm: 0.5 },
  filling: { name: 'putty', material: 'putty', dabG: 0.5, gPerCm: 1.6 },
};
const aim: Aim = {
  massG: { value: 348, tolerance: 1 },
  swingWeight: { value: 345, tolerance: 1.5 },
  twistWeight: { value: 15, tolerance: 0.2, priority: 'free' },
};

describe('a plan in words', () => {
  it('names places with their grams', () => {
    expect(placesWords([strip])).toBe('shoulders 4.5 g');
    expect(placesWords([])).toBe('nothing to put on');
  });

  it('names what is furthest outside, counted in tolerances, and leaves out what is free', () => {
    expect(missWords(aim, { massG: -2, swingWeight: -9.04, twistWeight: 5 })).toBe(
      'misses swing weight by 9.0',
    );
    expect(missWords(aim, { massG: 1, swingWeight: 1.5 })).toBe('');
  });

  it('says what to cut', () => {
    expect(pieceWords(strip, materials, false)).toBe('2 strips of 8.5 cm, tape 6 mm');
    expect(pieceWords({ ...strip, layers: 2 }, materials, false)).toBe(
      '4 strips of 8.5 cm, 2 layers, tape 6 mm',
    );
    expect(pieceWords({ ...strip, zone: 'butt', spanCm: 3 }, materials, true)).toBe('3.0 cm of putty');
  });
});
