import { describe, expect, it } from 'vitest';
import { placeOf, settleFrame } from '../frame';
import { changePieces, dragTo, nudge, placementPlace, type Materials, type Placement } from '.';

const frame = settleFrame({ sport: 'tennis', lengthCm: 68.58 });
const materials: Materials = {
  tape: { name: 'tape', material: 'tungsten', widthMm: 6, gPerCm: 0.265, stepCm: 0.5 },
  filling: { name: 'putty', material: 'putty', dabG: 0.5, gPerCm: 1.6 },
};
const at = (zone: Placement['zone'], mirrored: boolean, spanCm: number, massG: number): Placement => {
  const { xCm, yCm } = placeOf(frame, { zone });
  return { zone, xCm, yCm, mirrored, spanCm, massG, layers: 1 };
};
const sides = at('sides', true, 6, 2 * 6 * 0.265);
const butt = at('butt', false, 2, 3.2);
const throat = at('throat', true, 3, 1.59);
const arc = (p: Placement): number => {
  const place = placementPlace(frame, p);
  return place.on === 'rim' ? place.arcCm() : Number.NaN;
};

describe('by hand', () => {
  it('moves along the hoop, 5 mm of arc nearer the tip, and back', () => {
    const moved = nudge(frame, sides, 0.5);
    expect(arc(moved)).toBeCloseTo(arc(sides) - 0.5, 9);
    const back = nudge(frame, moved, -0.5);
    expect(back.xCm).toBeCloseTo(sides.xCm, 9);
    expect(back.yCm).toBeCloseTo(sides.yCm, 9);
  });

  it('moves in the handle and on the limb, and stops at their ends', () => {
    expect(nudge(frame, butt, 0.5).xCm).toBeCloseTo(2, 9);
    expect(nudge(frame, butt, -9).xCm).toBe(1);
    expect(nudge(frame, butt, 99).xCm).toBe(19);
    expect(placementPlace(frame, nudge(frame, throat, -99)).on).toBe('free');
    expect(nudge(frame, throat, 2).yCm).toBeGreaterThan(throat.yCm);
  });

  it('never lets a pair cross the tip and leaves a strip across the tip alone', () => {
    expect(arc(nudge(frame, sides, 99))).toBeCloseTo(3, 9);
    const tip = at('tip', false, 8, 2.12);
    expect(nudge(frame, tip, -2)).toEqual(tip);
    expect(dragTo(frame, tip, { xCm: 50, yCm: 12 })).toEqual(tip);
  });

  it('drags to the nearest place on the same part of the frame, either side', () => {
    const shoulders = placeOf(frame, { zone: 'shoulders' });
    for (const side of [1, -1]) {
      const moved = dragTo(frame, sides, { xCm: shoulders.xCm, yCm: side * shoulders.yCm });
      expect(moved.xCm).toBeCloseTo(shoulders.xCm, 6);
    }
    expect(dragTo(frame, butt, { xCm: 12, yCm: 30 }).xCm).toBe(12);
  });

  it('adds and takes away whole pieces until none is left', () => {
    const longer = changePieces(frame, sides, materials, 1);
    expect(longer?.spanCm).toBeCloseTo(6.5, 9);
    expect(longer?.massG).toBeCloseTo(2 * 6.5 * 0.265, 9);
    const less = changePieces(frame, butt, materials, -1);
    expect(less?.massG).toBeCloseTo(2.7, 9);
    expect(less?.spanCm).toBeCloseTo(2.7 / 1.6, 9);
    expect(changePieces(frame, { ...butt, massG: 0.5 }, materials, -1)).toBeUndefined();
    expect(changePieces(frame, { ...sides, spanCm: 0.5 }, materials, -1)).toBeUndefined();
  });
});
