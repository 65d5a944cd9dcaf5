import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  drawnPhoto,
  holedFrame,
  paddle,
  shaftFrame,
  strungFrame,
  type DrawnFrame,
  type DrawnPhoto,
} from '../../test/drawn-photo';
import type { Sport } from '../sport';
import { curvesOn, figuresOf, markedOf, movedTo, readPhoto, steppedOut, type OutlineRead } from '.';

// The frames are drawn from formulas (ellipse, rectangle with round corners, egg), and seen by a camera of their own in space.

const read = (sport: Sport, frame: DrawnFrame, more: Partial<DrawnPhoto> = {}): OutlineRead => {
  const found = readPhoto(drawnPhoto({ frame, ...more }), { sport, thicknessCm: frame.thicknessCm });
  if ('trouble' in found) throw new Error(found.trouble);
  return found;
};
/** mm, mm and percent; and whether they keep what the outline says of itself, at three standard uncertainties. */
function offBy(sport: Sport, frame: DrawnFrame, found: OutlineRead) {
  const { length, width, headLength, whole, bed } = figuresOf(found, sport);
  const face = Number.isNaN(frame.bedCm2) ? whole : bed;
  const faceCm2 = Number.isNaN(frame.bedCm2) ? frame.wholeCm2 : frame.bedCm2;
  const pairs = [
    [length, frame.lengthCm],
    [width, frame.widthCm],
    [headLength, frame.headLengthCm],
    [face, faceCm2],
  ] as const;
  return {
    lengthMm: 10 * Math.abs(length.value - frame.lengthCm),
    widthMm: 10 * Math.abs(width.value - frame.widthCm),
    headMm: 10 * Math.abs(headLength.value - frame.headLengthCm),
    facePercent: 100 * Math.abs(face.value / faceCm2 - 1),
    isWithin: pairs.every(([{ value, uncertainty }, is]) => Math.abs(value - is) < 3 * uncertainty),
  };
}

describe('an outline from a photo', () => {
  const tilted = (towardDeg: number, more: Partial<DrawnPhoto> = {}): Partial<DrawnPhoto> => ({
    tiltDeg: 25,
    towardDeg,
    heightCm: 95,
    ...more,
  });
  const cases: [string, Sport, DrawnFrame, Partial<DrawnPhoto>][] = [
    [
      'strung, from straight above, another lens than the usual',
      'tennis',
      strungFrame(),
      { focal35Mm: 28, heightCm: 105 },
    ],
    ['strung, 25° from the butt, in a strong shade', 'tennis', strungFrame(), tilted(0, { shade: 0.45 })],
    [
      'strung and light, 25° from one side, beside Letter',
      'tennis',
      strungFrame([225, 225, 230]),
      tilted(90, { sheet: [27.94, 21.59] }),
    ],
    [
      'strung and longer in the head, 25° askew',
      'tennis',
      strungFrame(undefined, { a: 18.3, b: 13.2 }),
      tilted(225, { frameTurnDeg: -8 }),
    ],
    [
      'a white face with a dark edge on a dark table, 25° from the tip',
      'pickleball',
      paddle([240, 240, 240]),
      tilted(180, { table: [96, 110, 96] }),
    ],
    ['with holes, 25° askew', 'padel', holedFrame(), tilted(315, { focal35Mm: 24, heightCm: 90 })],
    ['on a shaft, 25° from the other side', 'badminton', shaftFrame(), tilted(270, { shade: 0.4 })],
  ];
  it.each(cases)(
    '%s: length within 1 mm, widest within 1.5 mm, face within 1 %%',
    (_, sport, frame, more) => {
      const found = read(sport, frame, more);
      const off = offBy(sport, frame, found);
      expect(off.lengthMm).toBeLessThan(1);
      expect(off.widthMm).toBeLessThan(1.5);
      expect(off.headMm).toBeLessThan(1.5);
      expect(off.facePercent).toBeLessThan(1);
      expect(off.isWithin).toBe(true);
      expect(found.bottomSeen).toBe(true);
      expect(found.taken.sheet).toBe(more.sheet ? 'Letter' : 'A4');
      expect(Math.abs(found.tiltDeg - (more.tiltDeg ?? 0))).toBeLessThan(1);
      // An elliptical head is one all round, where the throat hides it too.
      if (!Number.isNaN(frame.hoopCm)) {
        const [a, b] = [frame.headLengthCm / 2, frame.widthCm / 2];
        const off = found.points.map(
          ([fromTip, half]) => b * Math.abs(Math.hypot(1 - fromTip / a, half / b) - 1),
        );
        expect(10 * Math.max(...off)).toBeLessThan(1.5);
        const nearBottom = found.points.at(-2) ?? [0, 0];
        expect(nearBottom[1]).toBeGreaterThan(1);
        expect(frame.headLengthCm - nearBottom[0]).toBeLessThan(0.3);
      }
      if (!Number.isNaN(frame.hoopCm))
        expect(Math.abs((found.hoopCm ?? 0) - frame.hoopCm)).toBeLessThan(0.06);
    },
  );

  it('is scaled to a length that was measured otherwise, which makes the rest more certain', () => {
    const frame = strungFrame();
    const found = read('tennis', frame, tilted(90));
    const alone = figuresOf(found, 'tennis');
    const known = figuresOf(found, 'tennis', 68.6);
    expect(known.length.value).toBe(68.6);
    expect(known.width.value / alone.width.value).toBeCloseTo(68.6 / alone.length.value, 3);
    expect(known.bed.uncertainty).toBeLessThan(0.7 * alone.bed.uncertainty);
  });

  it('is corrected by its points: both sides move alike, the ends stay on the axis, and nobody passes a neighbour', () => {
    const found = read('badminton', shaftFrame());
    const { sides, tip } = markedOf(found);
    const [left] = sides;
    const at = left[8];
    if (!at) throw new Error('no point');
    // To where it is: nothing moves.
    expect(movedTo(found, 8, at).points[8]?.[1]).toBeCloseTo(found.points[8]?.[1] ?? 0, 6);
    const wider = steppedOut(found, 8, 0.5);
    const [before, after] = [found, wider].map((on) => curvesOn(on, 'badminton').outer);
    expect(before?.length).toBe(after?.length);
    const grown = figuresOf(wider, 'badminton').whole.value - figuresOf(found, 'badminton').whole.value;
    // Half a centimetre at the middle of two intervals on each of both sides: a triangle each.
    const every = 75.3 / 2 / 24;
    expect(grown / (2 * every * 0.5)).toBeGreaterThan(0.8);
    expect(grown / (2 * every * 0.5)).toBeLessThan(1.2);
    const longer = steppedOut(steppedOut(found, 0, 0.3), 'butt', 0.2);
    expect(longer.lengthCm - found.lengthCm).toBeCloseTo(0.5, 6);
    expect((longer.points.at(-1)?.[0] ?? 0) - (found.points.at(-1)?.[0] ?? 0)).toBeCloseTo(0.3, 6);
    fc.assert(
      fc.property(
        fc.nat(24),
        fc.double({ min: -300, max: 300, noNaN: true }),
        fc.double({ min: -300, max: 300, noNaN: true }),
        (hold, dx, dy) => {
          const moved = movedTo(found, hold, { x: tip.x + dx, y: tip.y + dy });
          expect(() => figuresOf(moved, 'badminton')).not.toThrow();
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('a photo that cannot be trusted is refused', () => {
  const small = { width: 800, height: 600 };
  const trouble = (sport: Sport, frame: DrawnFrame, more: Partial<DrawnPhoto>): string => {
    const found = readPhoto(drawnPhoto({ frame, ...small, ...more }), {
      sport,
      thicknessCm: frame.thicknessCm,
    });
    return 'trouble' in found ? found.trouble : 'read';
  };
  it.each([
    ['without a sheet', { sheet: null }, 'photo-no-sheet'],
    ['with a sheet of another size', { sheet: [21, 21] as const }, 'photo-other-sheet'],
    ['with the frame over the sheet', { sheetAt: [-24, 3] as [number, number] }, 'photo-over-sheet'],
    ['with the tip cut off', { lookAt: [-30, 0] as [number, number] }, 'photo-cut-off'],
    [
      'of a frame that hardly differs from the table',
      { table: [40, 48, 94] as const, grain: 1 },
      'photo-no-frame',
    ],
    ['from far away', { heightCm: 150 }, 'photo-too-small'],
  ])('%s', (_, more, expected) => {
    expect(trouble('tennis', strungFrame(), more as Partial<DrawnPhoto>)).toBe(expected);
  });
  it('or with nothing on the table but a sheet', () => {
    const nothing = { ...strungFrame(), at: () => undefined };
    expect(trouble('tennis', nothing, {})).toBe('photo-no-frame');
  });
  it('and no bytes make it fail otherwise', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 8, max: 120 }),
        fc.integer({ min: 8, max: 120 }),
        fc.nat(),
        (width, height, seed) => {
          const data = Uint8Array.from(
            { length: 4 * width * height },
            (_, i) => ((i * 2654435761 + seed * 40503) >>> 13) % 256,
          );
          expect(readPhoto({ width, height, data }, { sport: 'padel', thicknessCm: 3.8 })).toHaveProperty(
            'trouble',
          );
        },
      ),
      { numRuns: 40 },
    );
  });
});
