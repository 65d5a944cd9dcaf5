import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { stringMass, stringSums } from '../dress';
import { Fault } from '../fault';
import {
  areaIntegrals,
  arcMoments,
  atAngle,
  halfWidthAt,
  outlineArea,
  pointAtArc,
  settleFrame,
  type OutlinePoint,
} from '.';

/** Half an ellipse of half-axes a and b, as points along one side. */
const ellipsePoints = (a: number, b: number, count = 25): OutlinePoint[] =>
  Array.from({ length: count }, (_, i) => {
    const angle = (Math.PI * i) / (count - 1);
    return [a * (1 - Math.cos(angle)), i === 0 || i === count - 1 ? 0 : b * Math.sin(angle)];
  });
const own = (a: number, b: number, hoopCm: number, count?: number) =>
  settleFrame({ sport: 'tennis', lengthCm: 68.58, outline: { points: ellipsePoints(a, b, count), hoopCm } });

describe('a frame with its own outline', () => {
  it('that is an ellipse has the area, the widths, the arcs and the moments of one (handbook)', () => {
    const [a, b] = [17.6, 13.9];
    const { head } = own(a, b, 1.1);
    const c = 68.58 - a;
    expect(outlineArea(head) / (Math.PI * a * b)).toBeCloseTo(1, 3);
    const { xx, yy } = areaIntegrals(head);
    expect(yy / ((Math.PI * a * b ** 3) / 4)).toBeCloseTo(1, 2);
    expect(xx / (Math.PI * a * b * (c * c + (a * a) / 4))).toBeCloseTo(1, 3);
    // Ramanujan 1914: the perimeter of an ellipse.
    const h = ((a - b) / (a + b)) ** 2;
    expect(head.sideCm / ((Math.PI / 2) * (a + b) * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h))))).toBeCloseTo(
      1,
      3,
    );
    for (const x of [-12, -4, 0, 7, 15])
      expect(Math.abs(halfWidthAt(head, c + x) - b * Math.sqrt(1 - (x / a) ** 2))).toBeLessThan(0.03);
    for (const clock of [1, 3, 5]) {
      const angle = (Math.PI * clock) / 6;
      const p = atAngle(head, angle);
      expect(Math.abs(Math.hypot((p.xCm - c) / a, p.yCm / b) - 1)).toBeLessThan(0.002);
      expect(pointAtArc(head, p.arcCm()).yCm).toBeCloseTo(p.yCm, 9);
    }
    const strip = arcMoments(head, -3, 3);
    expect(strip.x / 6).toBeCloseTo(68.58 - 0.2, 0);
  });

  it('has its bed in parallel within the hoop, after Steiner: A − l d + π d²', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 14, max: 19, noNaN: true }),
        fc.double({ min: 0.6, max: 0.95, noNaN: true }),
        fc.double({ min: 0.4, max: 1.4, noNaN: true }),
        (a, flat, d) => {
          const { head, bed, hoopCm } = own(a, a * flat, d);
          const within = outlineArea(head) - 2 * head.sideCm * d + Math.PI * d * d;
          expect(outlineArea(bed) / within).toBeCloseTo(1, 2);
          expect(hoopCm).toBe(d);
          expect(bed.alongCm).toBeCloseTo(head.alongCm - d, 6);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('goes before what is said of the head, and moves with the length', () => {
    const points = ellipsePoints(17, 13);
    const shape = { sport: 'tennis', lengthCm: 68, headAreaCm2: 900, outline: { points } } as const;
    const frame = settleFrame(shape);
    expect(frame.head.acrossCm).toBeCloseTo(13, 2);
    expect(settleFrame({ ...shape, lengthCm: 69 }).head.centreXCm - frame.head.centreXCm).toBeCloseTo(1, 9);
    // The hoop that is usual in the sport, where none was seen.
    expect(frame.hoopCm).toBe(1.1);
    expect(frame.rim.acrossCm).toBeCloseTo(13 - 0.55, 2);
  });

  it('is strung as the ellipse that it is', () => {
    const job = { mains: 16, crosses: 19, gaugeMm: 1.25, material: 'nylon' } as const;
    const plain = settleFrame({ sport: 'tennis', lengthCm: 68.58, headLengthCm: 33, headWidthCm: 25 });
    const same = own(33 / 2 + 1.1, 25 / 2 + 1.1, 1.1);
    expect(stringMass(same, job).massG / stringMass(plain, job).massG).toBeCloseTo(1, 2);
    const [one, other] = [stringSums(same, job), stringSums(plain, job)];
    expect(one.twistGCm2 / other.twistGCm2).toBeCloseTo(1, 1);
  });

  it('stands on the handle where the sport’s faces do', () => {
    const points: OutlinePoint[] = [
      [0, 0],
      [0, 4],
      [0.5, 7],
      [3, 9.5],
      [10, 10],
      [20, 10],
      [25, 9],
      [26.8, 6],
      [27, 3],
      [27, 0],
    ];
    const frame = settleFrame({
      sport: 'pickleball',
      lengthCm: 40.6,
      handleLengthCm: 16,
      outline: { points },
    });
    expect(frame.handleLengthCm).toBeCloseTo(13.6, 9);
    expect(frame.bed.centreXCm - frame.bed.alongCm).toBeCloseTo(13.6, 6);
    expect(frame.bed.acrossCm).toBeCloseTo(frame.head.acrossCm - 0.4, 1);
  });

  it.each([
    [
      'too few points',
      [
        [0, 0],
        [1, 2],
        [2, 0],
      ],
    ],
    ['a tip beside the axis', [[0, 1], ...ellipsePoints(17, 13).slice(1)]],
    ['a bottom beside the axis', [...ellipsePoints(17, 13).slice(0, -1), [34, 2]]],
    ['a side that turns back', ellipsePoints(17, 13).toSpliced(8, 1, [2, 12])],
    ['a side that crosses the axis', ellipsePoints(17, 13).toSpliced(8, 1, [8.5, -1])],
  ] as [string, OutlinePoint[]][])('is no head with %s', (_, points) => {
    const refused = () => settleFrame({ sport: 'tennis', lengthCm: 68, outline: { points } });
    expect(refused).toThrow(Fault);
    expect(refused).toThrow('outline-not-a-head');
  });
  it('has no hoop as wide as half of the head, and no head as long as the frame', () => {
    expect(() => own(17, 13, 6.6)).toThrow('outline-hoop-too-wide');
    const points = ellipsePoints(30, 13);
    expect(() => settleFrame({ sport: 'tennis', lengthCm: 68, outline: { points } })).toThrow(
      'head-too-large',
    );
  });
});
