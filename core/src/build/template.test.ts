import { describe, expect, it } from 'vitest';
import { laidAt, putty, tape } from '../../test/parts';
import { settleFrame } from '../frame';
import type { Placement } from '../part';
import { OVERLAP_MM, cutList, templateOf, tilesOf, type OnPaper } from '.';

const frame = settleFrame({ sport: 'tennis', lengthCm: 68.58, headLengthCm: 33, headWidthCm: 25 });
const parts = [tape, putty];
const lengthOf = (line: readonly OnPaper[]): number =>
  line.slice(1).reduce((sum, p, i) => sum + Math.hypot(p.x - (line[i]?.x ?? 0), p.y - (line[i]?.y ?? 0)), 0);

describe('the template', () => {
  const shoulders = { ...laidAt(frame, 'shoulders', tape, 4.24, 8), id: 'shoulders' } as Placement & {
    path: 'rim';
  };
  const tip: Placement = { ...shoulders, id: 'tip', sides: 1, startCm: -3, endCm: 3, massG: 1.6 };
  const butt = { ...laidAt(frame, 'butt', putty, 6, 3.75), id: 'butt' };
  const template = templateOf(frame, [shoulders, tip, butt], parts);

  it('is as large as the head: its bed is as long and wide as the head is said to be', () => {
    const xs = template.inner.map(({ x }) => x);
    const ys = template.inner.map(({ y }) => y);
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(250, 0);
    expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(330, 0);
    expect(template.hours.find(({ hour }) => hour === 12)?.at.x).toBeCloseTo(template.widthMm / 2, 6);
  });

  it('has a strip on each side, as long as it is cut and as wide as its tape', () => {
    const [cut] = cutList(frame, [shoulders], parts);
    const own = template.pieces.filter(({ placementId }) => placementId === 'shoulders');
    expect(own.map(({ side }) => side)).toEqual(['right', 'left']);
    for (const { line, widthMm } of own) {
      // Chords are a little shorter than the arc.
      expect(lengthOf(line)).toBeGreaterThan(10 * (cut?.lengthCm ?? 0) * 0.999);
      expect(lengthOf(line)).toBeLessThanOrEqual(10 * (cut?.lengthCm ?? 0) + 1e-6);
      expect(widthMm).toBe(6);
    }
    const [right, left] = own;
    right?.line.forEach(({ x, y }, i) => {
      expect((left?.line[i]?.x ?? 0) + x).toBeCloseTo(template.widthMm, 9);
      expect(left?.line[i]?.y).toBeCloseTo(y, 9);
    });
  });

  it('begins a strip at its length along the rim from the tip, as a ruler along it shows', () => {
    const along = (cm: number): OnPaper[] =>
      templateOf(frame, [{ ...shoulders, sides: 1, startCm: 0, endCm: cm } as Placement], parts).pieces[0]
        ?.line ?? [];
    const toStart = along(shoulders.startCm);
    const first = template.pieces[0]?.line[0];
    expect(toStart.at(-1)?.x).toBeCloseTo(first?.x ?? 0, 6);
    expect(lengthOf(toStart)).toBeCloseTo(10 * shoulders.startCm, 0);
  });

  it('lays one across the tip once, and leaves out what lies in the handle', () => {
    const across = template.pieces.filter(({ placementId }) => placementId === 'tip');
    expect(across.map(({ side }) => side)).toEqual(['across']);
    expect(across[0]?.line[0]?.x).toBeLessThan(template.widthMm / 2);
    expect(across[0]?.line.at(-1)?.x).toBeGreaterThan(template.widthMm / 2);
    expect(template.pieces.some(({ placementId }) => placementId === 'butt')).toBe(false);
  });

  it('is cut into sheets that overlap and cover all of it', () => {
    const sheet = { widthMm: 190, heightMm: 261 };
    const tiles = tilesOf(template, sheet);
    expect(tiles).toHaveLength(4);
    expect((tiles.at(-1)?.x ?? 0) + sheet.widthMm).toBeGreaterThanOrEqual(template.widthMm);
    expect((tiles.at(-1)?.y ?? 0) + sheet.heightMm).toBeGreaterThanOrEqual(template.heightMm);
    expect((tiles[0]?.x ?? 0) + sheet.widthMm - (tiles[1]?.x ?? 0)).toBe(OVERLAP_MM);
    expect(tilesOf({ widthMm: 180, heightMm: 200 }, sheet)).toHaveLength(1);
  });
});
