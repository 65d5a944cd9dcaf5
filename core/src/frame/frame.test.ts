import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Fault } from '../fault';
import { ALL_SPORTS, SPORTS } from '../sport';
import {
  atAngle,
  brokenLimits,
  clockOf,
  contains,
  rimLine,
  ellipse,
  outlineArea,
  placeOf,
  pointAtArc,
  polygon,
  roundedRectangle,
  settleFrame,
  tangentAtArc,
  type FrameShape,
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
    expect(outlineArea(frame.bed)).toBeCloseTo(HUNDRED_SQUARE_INCHES, 9);
    expect(frame.head.centreXCm + frame.head.alongCm).toBeCloseTo(68.58, 12);
    expect(frame.bed.alongCm / frame.bed.acrossCm).toBeCloseTo(4 / 3, 12);
  });

  it('takes length and width, or one of them with the area', () => {
    const both = settleFrame({ sport: 'tennis', lengthCm: 68.58, headLengthCm: 34, headWidthCm: 26 }).bed;
    expect([both.alongCm, both.acrossCm]).toEqual([17, 13]);
    for (const given of [{ headLengthCm: 34 }, { headWidthCm: 25 }]) {
      const one = settleFrame({ sport: 'tennis', lengthCm: 68.58, headAreaCm2: 650, ...given }).bed;
      expect(outlineArea(one)).toBeCloseTo(650, 9);
    }
  });

  it.each([
    [5, 5],
    [16.5, 12.4],
    [20, 4],
  ])('of half-axes %f and %f has the perimeter of the handbook', (alongCm, acrossCm) => {
    expect(2 * ellipse(50, alongCm, acrossCm).sideCm).toBeCloseTo(perimeterByMean(alongCm, acrossCm), 8);
  });
});

describe('places', () => {
  it('reads clock hours as polar angles from the middle of the head', () => {
    const { centreXCm, alongCm, acrossCm } = frame.rim;
    // On the middle of the hoop, beside the strings.
    expect(placeOf(frame, { clock: 12 }).xCm).toBeCloseTo(68.58 - SPORTS.tennis.hoop.widthCm / 2, 9);
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
    const side = atAngle(frame.rim, Math.PI / 2);
    expect(placeOf(frame, side).on).toBe('rim');
    // The outer edge and the bed's side are on it too.
    expect(placeOf(frame, { xCm: 68.58 }).on).toBe('rim');
    expect(placeOf(frame, { xCm: frame.bed.centreXCm, yCm: frame.bed.acrossCm }).on).toBe('rim');
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
  });
});

const SHAPES: FrameShape[] = [
  { sport: 'tennis', lengthCm: 68.58 },
  { sport: 'badminton', lengthCm: 67.5 },
  ...['standard', 'hybrid', 'elongated', 'extra-long', 'wide'].map((shape, i): FrameShape => ({
    sport: 'pickleball',
    lengthCm: ([16, 16.25, 16.5, 17, 15.75][i] ?? 0) * 2.54,
    shape,
  })),
  ...['round', 'teardrop', 'diamond'].map((shape): FrameShape => ({ sport: 'padel', lengthCm: 45.5, shape })),
];

describe.each(SHAPES.map((shape) => [`${shape.sport} ${shape.shape ?? ''}`, shape] as const))(
  'the outline of %s',
  (_, shape) => {
    const { head, lengthCm } = settleFrame(shape);

    it('reaches from the tip at the length to its bottom, closed and the same on both sides', () => {
      expect(pointAtArc(head, 0)).toMatchObject({ xCm: lengthCm });
      expect(pointAtArc(head, head.sideCm).xCm).toBeCloseTo(lengthCm - 2 * head.alongCm, 9);
      for (const s of [1, 7, 20]) {
        const [a, b] = [pointAtArc(head, s), pointAtArc(head, -s)];
        expect(a.xCm).toBeCloseTo(b.xCm, 9);
        expect(a.yCm).toBeCloseTo(-b.yCm, 9);
      }
    });

    it('gives the arc length of the point at an arc length, and its tangent by difference', () => {
      fc.assert(
        fc.property(fc.double({ min: 0.05, max: head.sideCm - 0.05, noNaN: true }), (s) => {
          const p = pointAtArc(head, s);
          const back = atAngle(head, Math.atan2(p.yCm, p.xCm - head.centreXCm));
          expect(back.arcCm()).toBeCloseTo(s, 6);
          const h = 1e-5;
          const [a, b] = [pointAtArc(head, s - h), pointAtArc(head, s + h)];
          const tangent = tangentAtArc(head, s);
          expect(tangent.xCm).toBeCloseTo((b.xCm - a.xCm) / (2 * h), 3);
          expect(tangent.yCm).toBeCloseTo((b.yCm - a.yCm) / (2 * h), 3);
        }),
        { numRuns: 40 },
      );
    });

    it('has the area of its polygon (shoelace formula) and contains what lies inside', () => {
      const points = polygon(head, 4000);
      const shoelace = points.reduce((sum, p, i) => {
        const q = points[(i + 1) % points.length] ?? p;
        return sum + p.xCm * q.yCm - q.xCm * p.yCm;
      }, 0);
      expect(outlineArea(head) / (shoelace / 2)).toBeCloseTo(1, 4);
      expect(contains(head, { xCm: head.centreXCm, yCm: 0.9 * head.acrossCm })).toBe(true);
      expect(contains(head, { xCm: head.centreXCm, yCm: 1.02 * head.acrossCm })).toBe(false);
      expect(contains(head, { xCm: lengthCm + 0.1, yCm: 0 })).toBe(false);
    });

    it('keeps the published limits', () => {
      expect(brokenLimits(shape)).toEqual([]);
    });
  },
);

describe('a rounded rectangle', () => {
  it('has the perimeter and area of the handbook: sides plus a circle of the corners', () => {
    const r = roundedRectangle(10, 40, 10, 4);
    expect(2 * r.sideCm).toBeCloseTo(2 * (30 + 20) - 8 * 4 + 2 * Math.PI * 4, 9);
    expect(outlineArea(r)).toBeCloseTo(30 * 20 - (4 - Math.PI) * 16, 9);
  });
});

describe('the published limits', () => {
  it.each<[string, FrameShape, string, number]>([
    ['tennis length', { sport: 'tennis', lengthCm: 74 }, 'length', 73.7],
    [
      'tennis face',
      { sport: 'tennis', lengthCm: 73, headLengthCm: 39.5, headWidthCm: 26 },
      'face-length',
      39.4,
    ],
    ['badminton length', { sport: 'badminton', lengthCm: 68.2 }, 'length', 68],
    ['padel width', { sport: 'padel', lengthCm: 45.5, headWidthCm: 26.1 }, 'width', 26],
    ['pickleball length', { sport: 'pickleball', lengthCm: 43.5, headWidthCm: 17 }, 'length', 43.18],
    ['pickleball sum', { sport: 'pickleball', lengthCm: 42, headWidthCm: 19.5 }, 'length-plus-width', 60.96],
  ])('%s', (_, shape, of, mostCm) => {
    const broken = brokenLimits(shape);
    expect(broken.map((b) => b.of)).toContain(of);
    expect(broken.find((b) => b.of === of)?.mostCm).toBeCloseTo(mostCm, 9);
    for (const b of broken) expect(b.valueCm).toBeGreaterThan(b.mostCm);
  });
});

describe('two outlines a head', () => {
  it.each(ALL_SPORTS)(
    '%s: the bed lies inside the hoop by its width all round, and the hoop’s tip at the frame’s length',
    (sport) => {
      const { lengthCm, hoop, family } = SPORTS[sport];
      const { bed, head, rim } = settleFrame({ sport, lengthCm });
      expect(head.centreXCm + head.alongCm).toBeCloseTo(lengthCm, 9);
      expect(head.acrossCm - bed.acrossCm).toBeCloseTo(hoop.widthCm, 9);
      expect(head.centreXCm + head.alongCm - bed.centreXCm - bed.alongCm).toBeCloseTo(hoop.widthCm, 9);
      // A paddle's face begins at its handle.
      const below = bed.centreXCm - bed.alongCm - (head.centreXCm - head.alongCm);
      expect(below).toBeCloseTo(family.kind === 'rectangle' ? 0 : hoop.widthCm, 9);
      expect(rim.acrossCm).toBeGreaterThan(bed.acrossCm);
      expect(rim.acrossCm).toBeLessThanOrEqual(head.acrossCm);
      for (let angle = 0; angle <= Math.PI; angle += 0.2)
        expect(contains(head, atAngle(bed, angle))).toBe(true);
    },
  );

  it('says where on the hoop a line lies', () => {
    expect(rimLine(frame, 'inside')).toBe(frame.bed);
    expect(rimLine(frame, 'bumper')).toBe(frame.head);
    expect(rimLine(frame, 'edge')).toBe(frame.head);
    expect(rimLine(frame)).toBe(frame.rim);
    expect(rimLine(frame, 'beside').acrossCm).toBeCloseTo((frame.bed.acrossCm + frame.head.acrossCm) / 2, 9);
    const paddle = settleFrame({ sport: 'padel', lengthCm: 45.5 });
    expect(rimLine(paddle)).toBe(paddle.rim);
    expect(rimLine(paddle, 'beside')).toBe(paddle.bed);
  });
});
