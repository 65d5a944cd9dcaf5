import { describe, expect, it } from 'vitest';
import { recoilWeight, sportData, type AxisSpecs } from '@kevro/core';
import { awayWords, missingWords } from './words';
import { axes, extent, inBrush, placesOf, rangeOf, swingLines } from './plane';

const lengthCm = 68.58;
const own: AxisSpecs = { massG: 320, balanceCm: 32.4, swingWeight: 318, axisCm: 10.16 };
const way = (mass: 'g' | 'oz', balance: 'cm' | 'in' | 'points') =>
  axes({ mass, balance, length: 'cm', label: '' }, lengthCm);

describe('the plane of weight and balance', () => {
  it('is written and brushed in the units of the fitter', () => {
    const points = way('oz', 'points');
    // 6 points head-light on 27 in: 13.5 in less 6/8 in; 11.5 oz of 28.3495 g (international avoirdupois ounce).
    expect(points.balance.write((13.5 - 6 / 8) * 2.54)).toBeCloseTo(6, 9);
    expect(points.mass.write(11.5 * 28.349523125)).toBeCloseTo(11.5, 9);
    // More points are further from the tip: the ends change places.
    const [low, high] = rangeOf([4, 8], points.balance.read);
    expect(low).toBeCloseTo((13.5 - 1) * 2.54, 9);
    expect(high).toBeCloseTo((13.5 - 0.5) * 2.54, 9);
    expect(way('g', 'in').balance.read(12.75)).toBeCloseTo(32.385, 9);
  });

  it('writes no name over the ring of a neighbour or over another name, where there is room', () => {
    const within = { width: 600, height: 400 };
    // A setup that is 20 px over the frame has its name over it, and the frame under it; two side by side have theirs over and under.
    expect(placesOf([{ x: 300, y: 200, name: 'this frame 318' }], [], within)).toEqual(['top center']);
    expect(
      placesOf(
        [
          { x: 300, y: 200, name: 'this frame 318' },
          { x: 300, y: 180, name: 'Quarry Pro 320' },
        ],
        [],
        within,
      ),
    ).toEqual(['bottom center', 'top center']);
    const [a, b] = placesOf(
      [
        { x: 300, y: 200, name: 'this frame 318' },
        { x: 330, y: 200, name: 'Quarry Pro 320' },
      ],
      [],
      within,
    );
    expect(new Set([a, b]).size).toBe(2);
    // A point without a name is not written over either.
    expect(placesOf([{ x: 300, y: 200, name: 'this frame 318' }], [{ x: 310, y: 185 }], within)).toEqual([
      'bottom center',
    ]);
    // At the edge a name stands where it is whole.
    expect(placesOf([{ x: 5, y: 4, name: 'Quarry Pro 320' }], [], within)).toEqual(['bottom right']);
  });

  it('brushes what lies within, and nothing that has no place on it', () => {
    const brush = { massG: [310, 330] as [number, number], balanceCm: [32, 33] as [number, number] };
    expect(inBrush(brush, own)).toBe(true);
    expect(inBrush(brush, { ...own, massG: 331 })).toBe(false);
    expect(inBrush(brush, { massG: 320 })).toBe(false);
  });

  it('has lines of equal swing weight on which every frame of this recoil weight has it', () => {
    const shown = extent(sportData('tennis'), own, [
      { massG: 300, balanceCm: 31 },
      { massG: 350, balanceCm: 34 },
    ]);
    const lines = swingLines(own, shown);
    expect(lines.length).toBeGreaterThan(4);
    expect(lines.every(({ swingWeight }) => swingWeight % 10 === 0)).toBe(true);
    for (const { swingWeight, points } of lines)
      for (const { massG, balanceCm } of points) {
        const recoil = recoilWeight({ massG, balanceCm, swingWeight, axisCm: own.axisCm });
        expect(recoil).toBeCloseTo(recoilWeight(own), 6);
        expect(inBrush(shown, { massG, balanceCm })).toBe(true);
      }
    // In every sport there are some, at round numbers.
    const light = { massG: 86, balanceCm: 29.5, swingWeight: 88, axisCm: 5 };
    const few = swingLines(light, extent(sportData('badminton'), light, []));
    expect(few.length).toBeGreaterThan(2);
  });
});

it('a setup says what it lacks, and not what this frame lacks', () => {
  const far = { unknown: ['balanceCm', 'twistWeight'] as const, distanceSteps: 3.25 };
  expect(awayWords({ ...far, unknown: [...far.unknown] })).toBe('≥ 3.3');
  expect(missingWords({ unknown: [...far.unknown] }, ['twistWeight'])).toBe('no balance');
  expect(missingWords({ unknown: ['twistWeight'] }, ['twistWeight'])).toBe('');
});
