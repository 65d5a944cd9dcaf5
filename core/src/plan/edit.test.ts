import { describe, expect, it } from 'vitest';
import { placeOf, settleFrame } from '../frame';
import { middleOf, spanCmOf, zoneOf, type Placement } from '../part';
import { laidAt, middleOfZone, putty, tape } from '../../test/parts';
import { changePieces, dragTo, nudge } from '.';

const frame = settleFrame({ sport: 'tennis', lengthCm: 68.58 });
const sides = laidAt(frame, 'sides', tape, 2 * 6 * 0.265, 6);
const butt = laidAt(frame, 'butt', putty, 3.2, 2);
const throat = laidAt(frame, 'throat', tape, 1.59, 3);
const along = (p: Placement): number => middleOf(frame, p).alongCm;
const xOf = (p: Placement): number => middleOf(frame, p).xCm;

describe('by hand', () => {
  it('moves along the hoop, 5 mm of arc nearer the tip, and back', () => {
    const moved = nudge(frame, sides, 0.5);
    expect(along(moved)).toBeCloseTo(along(sides) - 0.5, 9);
    expect(along(nudge(frame, moved, -0.5))).toBeCloseTo(along(sides), 9);
  });

  it('moves in the handle and on the limb, and stops at their ends', () => {
    expect(xOf(nudge(frame, butt, 0.5))).toBeCloseTo(2, 9);
    expect(xOf(nudge(frame, butt, -9))).toBe(1);
    expect(xOf(nudge(frame, butt, 99))).toBe(19);
    expect(middleOf(frame, nudge(frame, throat, -99)).alongCm).toBeCloseTo(1.5, 9);
    expect(middleOf(frame, nudge(frame, throat, 2)).yCm).toBeGreaterThan(middleOf(frame, throat).yCm);
  });

  it('never lets a pair cross the tip and leaves a strip across the tip alone', () => {
    expect(along(nudge(frame, sides, 99))).toBeCloseTo(3, 9);
    const tip = laidAt(frame, 'tip', tape, 2.12, 8);
    expect(nudge(frame, tip, -2)).toEqual(tip);
    expect(dragTo(frame, tip, { xCm: 50, yCm: 12 })).toEqual(tip);
  });

  it('drags to the nearest place on the same part of the frame, either side, and is called by where it lies then', () => {
    const shoulders = placeOf(frame, { zone: 'shoulders' });
    expect(zoneOf(frame, sides)).toBe('sides');
    for (const side of [1, -1]) {
      const moved = dragTo(frame, sides, { xCm: shoulders.xCm, yCm: side * shoulders.yCm });
      expect(along(moved)).toBeCloseTo(middleOfZone(frame, 'shoulders'), 6);
      expect(zoneOf(frame, moved)).toBe('shoulders');
      expect(moved.id).toBe(sides.id);
    }
    const inHandle = dragTo(frame, butt, { xCm: 12, yCm: 30 });
    expect(xOf(inHandle)).toBeCloseTo(12, 9);
    expect([zoneOf(frame, butt), zoneOf(frame, inHandle)]).toEqual(['butt', 'handleTop']);
  });

  it('adds and takes away whole pieces until none is left', () => {
    const longer = changePieces(frame, sides, tape, 1);
    expect(longer && spanCmOf(longer)).toBeCloseTo(6.5, 9);
    expect(longer?.massG).toBeCloseTo(2 * 6.5 * 0.265, 9);
    const less = changePieces(frame, laidAt(frame, 'butt', putty, 3, 3 / 1.6), putty, -1);
    expect(less?.massG).toBeCloseTo(2.5, 9);
    expect(less && spanCmOf(less)).toBeCloseTo(2.5 / 1.6, 9);
    expect(changePieces(frame, laidAt(frame, 'butt', putty, 0.5, 0.5 / 1.6), putty, -1)).toBeUndefined();
    expect(changePieces(frame, laidAt(frame, 'sides', tape, 0.265, 0.5), tape, -1)).toBeUndefined();
  });

  it('leaves a screw in its slot', () => {
    const padel = settleFrame({ sport: 'padel', lengthCm: 45.5 });
    const screw = laidAt(padel, 'slotSides', { id: 's', kind: 'insert', name: 'screw', massG: 2 }, 4, 0);
    expect(screw).toMatchObject({ path: 'slot', slot: 2, sides: 2 });
    expect(nudge(padel, screw, 1)).toEqual(screw);
    expect(zoneOf(padel, screw)).toBe('slotSides');
  });
});
