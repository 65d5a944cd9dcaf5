import {
  arc,
  crossings,
  lengthTo,
  line,
  momentsTo,
  overX,
  parameterAt,
  pointOn,
  tangentOn,
  type ArcMoments,
  type Point,
  type Segment,
} from './segment';

/**
 * The outline of a head or face, the same on both sides of the long axis. `segments` run along the side with positive y from the tip
 * to the bottom, where the axis is met again. Arc lengths count from the tip, positive on that side, negative on the other.
 */
export interface Outline {
  /** The middle from which clock hours are read. */
  centreXCm: number;
  /** Half the length along x and half the greatest width across y. */
  alongCm: number;
  acrossCm: number;
  segments: readonly Segment[];
  /** Arc length from the tip to the bottom on one side. */
  sideCm: number;
}

const outlineOf = (tipXCm: number, bottomXCm: number, acrossCm: number, segments: Segment[]): Outline => ({
  centreXCm: (tipXCm + bottomXCm) / 2,
  alongCm: (tipXCm - bottomXCm) / 2,
  acrossCm,
  segments,
  sideCm: segments.reduce((sum, s) => sum + s.lengthCm, 0),
});

/** An ellipse with half-axes along x and across y. @example ellipse(52, 16.5, 12.4).sideCm // half its perimeter */
export const ellipse = (centreXCm: number, alongCm: number, acrossCm: number): Outline =>
  outlineOf(centreXCm + alongCm, centreXCm - alongCm, acrossCm, [
    arc({ xCm: centreXCm, yCm: 0 }, alongCm, acrossCm, 0, Math.PI),
  ]);

/**
 * A rectangle with rounded corners. @param radiusCm of all four corners, at most half of either side
 * @example roundedRectangle(12.7, 40.64, 10.16, 4).acrossCm // 10.16
 */
export function roundedRectangle(
  bottomXCm: number,
  tipXCm: number,
  halfWidthCm: number,
  radiusCm: number,
): Outline {
  const r = Math.min(radiusCm, halfWidthCm, (tipXCm - bottomXCm) / 2);
  const inner = halfWidthCm - r;
  const at = (xCm: number, yCm: number): Point => ({ xCm, yCm });
  return outlineOf(
    tipXCm,
    bottomXCm,
    halfWidthCm,
    [
      line(at(tipXCm, 0), at(tipXCm, inner)),
      arc(at(tipXCm - r, inner), r, r, 0, Math.PI / 2),
      line(at(tipXCm - r, halfWidthCm), at(bottomXCm + r, halfWidthCm)),
      arc(at(bottomXCm + r, inner), r, r, Math.PI / 2, Math.PI),
      line(at(bottomXCm, inner), at(bottomXCm, 0)),
    ].filter((s) => s.lengthCm > 0),
  );
}

/**
 * A head of two half-ellipses that meet where it is widest: round where that is the middle, a teardrop or a diamond where it lies toward the tip.
 */
export function eggHead(bottomXCm: number, tipXCm: number, widestXCm: number, halfWidthCm: number): Outline {
  const middle = { xCm: widestXCm, yCm: 0 };
  return outlineOf(tipXCm, bottomXCm, halfWidthCm, [
    arc(middle, tipXCm - widestXCm, halfWidthCm, 0, Math.PI / 2),
    arc(middle, widestXCm - bottomXCm, halfWidthCm, Math.PI / 2, Math.PI),
  ]);
}

/** An outline of straight lines along points from the tip to the bottom, both on the long axis. */
export function alongPoints(points: readonly Point[]): Outline {
  const [tip, bottom] = [points[0] as Point, points.at(-1) as Point];
  return outlineOf(
    tip.xCm,
    bottom.xCm,
    Math.max(...points.map(({ yCm }) => yCm)),
    points.slice(1).flatMap((to, i) => {
      const segment = line(points[i] as Point, to);
      return segment.lengthCm > 0 ? [segment] : [];
    }),
  );
}

/** The segment at an arc length on the positive side, and the length left in it. Beyond either end the outline goes on along the other side. */
function locate(outline: Outline, arcCm: number): { segment: Segment; restCm: number; side: 1 | -1 } {
  const round = 2 * outline.sideCm;
  let s = arcCm % round;
  if (s > outline.sideCm) s -= round;
  if (s < -outline.sideCm) s += round;
  const side = s < 0 ? -1 : 1;
  let restCm = Math.abs(s);
  const { segments } = outline;
  for (const segment of segments) {
    if (restCm <= segment.lengthCm) return { segment, restCm, side };
    restCm -= segment.lengthCm;
  }
  const last = segments.at(-1) as Segment;
  return { segment: last, restCm: last.lengthCm, side };
}

/** The point at an arc length from the tip, cm. */
export function pointAtArc(outline: Outline, arcCm: number): Point {
  const { segment, restCm, side } = locate(outline, arcCm);
  const { xCm, yCm } = pointOn(segment, parameterAt(segment, restCm));
  return { xCm, yCm: side * yCm };
}

/** The unit tangent at an arc length, in the direction of growing arc length. */
export function tangentAtArc(outline: Outline, arcCm: number): Point {
  const { segment, restCm, side } = locate(outline, arcCm);
  const { xCm, yCm } = tangentOn(segment, parameterAt(segment, restCm));
  // On the other side the mirrored outline is run through backwards.
  return side === 1 ? { xCm, yCm } : { xCm: -xCm, yCm };
}

/** Where the ray from the middle at an angle (0 is the tip, positive toward positive y) meets a segment: its parameter, or undefined. */
function meet(segment: Segment, centreXCm: number, angle: number): number | undefined {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  // Points of the ray satisfy (x − centre) · s = y · c, on the side where the ray goes.
  if (segment.kind === 'line') {
    const off = (p: Point): number => (p.xCm - centreXCm) * s - p.yCm * c;
    const [a, b] = [off(segment.from), off(segment.to)];
    if (a === b) return undefined;
    const u = a / (a - b);
    if (u < -1e-12 || u > 1 + 1e-12) return undefined;
    return onRay(pointOn(segment, u), centreXCm, c, s) ? Math.min(1, Math.max(0, u)) : undefined;
  }
  // A cos t + B sin t = C
  const A = segment.alongCm * s;
  const B = -segment.acrossCm * c;
  const C = segment.centre.yCm * c - (segment.centre.xCm - centreXCm) * s;
  const size = Math.hypot(A, B);
  if (Math.abs(C) > size) return undefined;
  const base = Math.atan2(B, A);
  const open = Math.acos(Math.min(1, Math.max(-1, C / size)));
  for (const raw of [base + open, base - open]) {
    const t = raw - 2 * Math.PI * Math.floor((raw + 1e-9) / (2 * Math.PI));
    if (t < segment.t0 - 1e-9 || t > segment.t1 + 1e-9) continue;
    const clamped = Math.min(segment.t1, Math.max(segment.t0, t));
    if (onRay(pointOn(segment, clamped), centreXCm, c, s)) return clamped;
  }
  return undefined;
}
const onRay = (p: Point, centreXCm: number, c: number, s: number): boolean =>
  (p.xCm - centreXCm) * c + p.yCm * s > 0;

/** A place on the outline: the point, and how to get its arc length (computed only when it is asked for). */
export interface OnOutline extends Point {
  arcCm: () => number;
}

/**
 * The place at a polar angle from the middle of the head, radians: 0 is the tip, positive toward positive y.
 */
export function atAngle(outline: Outline, angle: number): OnOutline {
  const turned = Math.atan2(Math.sin(angle), Math.cos(angle));
  const side = turned < 0 ? -1 : 1;
  const up = Math.abs(turned);
  let passedCm = 0;
  for (const segment of outline.segments) {
    const parameter = meet(segment, outline.centreXCm, up);
    if (parameter !== undefined) {
      const { xCm, yCm } = pointOn(segment, parameter);
      const before = passedCm;
      return { xCm, yCm: side * yCm, arcCm: () => side * (before + lengthTo(segment, parameter)) };
    }
    passedCm += segment.lengthCm;
  }
  // Only rounding at the very bottom gets here.
  return { ...pointAtArc(outline, side * outline.sideCm), arcCm: () => side * outline.sideCm };
}

/** The polar angle of a clock hour: 12 is the tip, 3 has positive y. */
export const angleOfClock = (hour: number): number => (hour % 12) * (Math.PI / 6);

/** Moments from the tip along one side up to lengths that were asked about before: a plan asks about few of them, again and again. */
const upTo = new WeakMap<Outline, Map<number, ArcMoments>>();
const MOST_KEPT = 4000;

/** ∫ x ds, ∫ x² ds and ∫ y² ds from the tip along one side. */
function sideMoments(outline: Outline, toCm: number): ArcMoments {
  let known = upTo.get(outline);
  if (!known || known.size > MOST_KEPT) upTo.set(outline, (known = new Map<number, ArcMoments>()));
  const before = known.get(toCm);
  if (before) return before;
  const sums: ArcMoments = { x: 0, xx: 0, yy: 0 };
  let passedCm = 0;
  for (const segment of outline.segments) {
    if (toCm <= passedCm) break;
    const part = momentsTo(segment, Math.min(segment.lengthCm, toCm - passedCm));
    sums.x += part.x;
    sums.xx += part.xx;
    sums.yy += part.yy;
    passedCm += segment.lengthCm;
  }
  known.set(toCm, sums);
  return sums;
}

/**
 * ∫ x ds, ∫ x² ds and ∫ y² ds along the outline between two arc lengths from the tip. The two sides mirror each other, so the sign of y does not
 * matter, and past the bottom a strip goes on along the other side.
 */
export function arcMoments(outline: Outline, fromCm: number, toCm: number): ArcMoments {
  const sums: ArcMoments = { x: 0, xx: 0, yy: 0 };
  const { sideCm } = outline;
  const side = (from: number, to: number): void => {
    if (to <= from) return;
    const [a, b] = [sideMoments(outline, from), sideMoments(outline, to)];
    sums.x += b.x - a.x;
    sums.xx += b.xx - a.xx;
    sums.yy += b.yy - a.yy;
  };
  if (fromCm < 0) side(Math.max(0, -toCm), Math.min(sideCm, -fromCm));
  if (toCm > 0) side(Math.max(0, fromCm), Math.min(sideCm, toCm));
  if (toCm > sideCm) side(2 * sideCm - toCm, Math.min(sideCm, 2 * sideCm - fromCm));
  if (fromCm < -sideCm) side(2 * sideCm + fromCm, Math.min(sideCm, 2 * sideCm + toCm));
  return sums;
}

/** Area integrals of the whole outline: area, ∫x dA, ∫x² dA, ∫y² dA (Green's theorem on the boundary). */
export function areaIntegrals(outline: Outline): { area: number; x: number; xx: number; yy: number } {
  const both = (g: (x: number, y: number) => number): number =>
    -2 * outline.segments.reduce((sum, s) => sum + overX(s, g), 0);
  return {
    area: both((_, y) => y),
    x: both((x, y) => x * y),
    xx: both((x, y) => x * x * y),
    yy: both((_, y) => (y * y * y) / 3),
  };
}

export const outlineArea = (outline: Outline): number => areaIntegrals(outline).area;

/** The closed outline as points, from the tip round by the side with positive y. */
export function polygon(outline: Outline, count: number): Point[] {
  return Array.from({ length: count }, (_, i) => pointAtArc(outline, (2 * outline.sideCm * i) / count));
}

/** Whether a point lies inside or on the outline. */
export function contains(outline: Outline, p: Point): boolean {
  const dx = p.xCm - outline.centreXCm;
  const far = Math.hypot(dx, p.yCm);
  if (far < 1e-12) return true;
  const edge = atAngle(outline, Math.atan2(p.yCm, dx));
  return far <= Math.hypot(edge.xCm - outline.centreXCm, edge.yCm) + 1e-9;
}

/**
 * Half the width of an outline at an x, cm; 0 where it does not reach.
 * @example halfWidthAt(ellipse(52, 16.5, 12.4), 52) // 12.4
 */
export function halfWidthAt({ centreXCm, alongCm, segments }: Outline, xCm: number): number {
  if (Math.abs(xCm - centreXCm) >= alongCm) return 0;
  return Math.max(0, ...segments.flatMap((segment) => crossings(segment, 'xCm', xCm)).map(({ yCm }) => yCm));
}

/**
 * From where to where an outline reaches at a distance from the long axis, cm; nowhere beyond its sides.
 * @example lengthAt(ellipse(52, 16.5, 12.4), 0) // { from: 35.5, to: 68.5 }
 */
export function lengthAt(
  { acrossCm, centreXCm, segments }: Outline,
  yCm: number,
): { from: number; to: number } {
  const off = Math.abs(yCm);
  if (off >= acrossCm) return { from: centreXCm, to: centreXCm };
  const at = segments.flatMap((segment) => crossings(segment, 'yCm', off)).map(({ xCm }) => xCm);
  return { from: Math.min(...at), to: Math.max(...at) };
}
