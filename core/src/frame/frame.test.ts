import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Fault } from '../fault';
import {
  arcLength,
  clockOf,
  ellipseArea,
  parameterAtArc,
  placeOf,
  pointAt,
  settleFrame,
  type Ellipse,
} from '.';

const HUNDRED_SQUARE_INCHES = 645.16;
const frame = settleFrame({ sport: 'tennis', lengthCm: 68.58 });

/** Perimeter of an ellipse by the arithmetic–geometric mean (Abramowitz & Stegun 17.6 with 17.3.29). */
function perimeterByMean(p: number, q: number): number {
  let [a, b] = [1, Math.min(p, q) / Math.max(p, q)];
  let c = Math.sqrt(1 - b * b);
  let sum = (c * c) / 2;
  for (let power = 1; Math.abs(c) > 1e-16 && power < 64; power *= 2) {
    [a, b, c] = [(a + b) / 2, Math.sqrt(a * b), (a - b) / 2];
    sum += power * c * c;
  }
  return 4 * Math.max(p, q) * (Math.PI / (2 * a)) * (1 - sum);
}

describe('an elliptical head', () => {
  it('has the area that was asked for and its tip at the length', () => {
    expect(ellipseArea(frame.head)).toBeCloseTo(HUNDRED_SQUARE_INCHES, 9);
    expect(frame.head.centreXCm + frame.head.alongCm).toBeCloseTo(68.58, 12);
    expect(frame.head.alongCm / frame.head.acrossCm).toBeCloseTo(4 / 3, 12);
  });

  it('takes length and width, or one of them with the area', () => {
    const both = settleFrame({ sport: 'tennis', lengthCm: 68.58, headLengthCm: 34, headWidthCm: 26 }).head;
    expect([both.alongCm, both.acrossCm]).toEqual([17, 13]);
    for (const given of [{ headLengthCm: 34 }, { headWidthCm: 25 }]) {
      const one = settleFrame({ sport: 'tennis', lengthCm: 68.58, headAreaCm2: 650, ...given }).head;
      expect(ellipseArea(one)).toBeCloseTo(650, 9);
    }
  });

  it.each([
    [5, 5],
    [16.5, 12.4],
    [20, 4],
  ])('of half-axes %f and %f has the perimeter of the handbook', (alongCm, acrossCm) => {
    const e: Ellipse = { centreXCm: 50, alongCm, acrossCm };
    expect(arcLength(e, 2 * Math.PI)).toBeCloseTo(perimeterByMean(alongCm, acrossCm), 8);
  });

  it('finds the point at any arc length again', () => {
    fc.assert(
      fc.property(fc.double({ min: -40, max: 40, noNaN: true }), (arc) => {
        expect(arcLength(frame.head, parameterAtArc(frame.head, arc))).toBeCloseTo(arc, 9);
      }),
    );
  });
});

describe('places', () => {
  it('reads clock hours as polar angles from the middle of the head', () => {
    const { centreXCm, alongCm, acrossCm } = frame.head;
    expect(placeOf(frame, { clock: 12 }).xCm).toBeCloseTo(68.58, 9);
    expect(placeOf(frame, { clock: 6 }).xCm).toBeCloseTo(centreXCm - alongCm, 9);
    const three = placeOf(frame, { clock: 3 });
    expect(three.xCm).toBeCloseTo(centreXCm, 9);
    expect(three.yCm).toBeCloseTo(acrossCm, 9);
    const half = placeOf(frame, { clock: 1.5 });
    expect(Math.atan2(half.yCm, half.xCm - centreXCm)).toBeCloseTo(Math.PI / 4, 9);
    expect(placeOf(frame, { clock: 9 }).yCm).toBeCloseTo(-acrossCm, 9);
  });

  it('gives the same hour back', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 12, noNaN: true }), (clock) => {
        expect(clockOf(frame, placeOf(frame, { clock }))).toBeCloseTo(clock, 6);
      }),
    );
  });

  it('keeps points on the hoop on the hoop and refuses points off the frame', () => {
    const side = pointAt(frame.head, Math.PI / 2);
    expect(placeOf(frame, side).on).toBe('rim');
    expect(placeOf(frame, { xCm: 8 }).on).toBe('handle');
    expect(placeOf(frame, { xCm: 30, yCm: 4 }).on).toBe('free');
    for (const spot of [
      { xCm: -1 },
      { xCm: 70 },
      { xCm: 50, yCm: 20 },
      { clock: 13 },
      { clock: Number.NaN },
    ]) {
      expect(() => placeOf(frame, spot)).toThrow(Fault);
    }
  });

  it('refuses a head that does not fit and lengths that are not positive, naming each', () => {
    const faults = (shape: Parameters<typeof settleFrame>[0]): string[] => {
      try {
        settleFrame(shape);
        return [];
      } catch (fault) {
        return (fault as Fault).problems.map((p) => `${p.code} ${p.path}`);
      }
    };
    expect(faults({ sport: 'tennis', lengthCm: 40 })).toEqual(['head-too-large shape']);
    expect(faults({ sport: 'tennis', lengthCm: -1, headAreaCm2: 0 })).toEqual([
      'not-positive shape.lengthCm',
      'not-positive shape.headAreaCm2',
    ]);
    expect(faults({ sport: 'padel', lengthCm: 45.5 })).toEqual(['sport-not-computed shape.sport']);
  });
});
