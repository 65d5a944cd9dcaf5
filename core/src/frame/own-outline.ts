import type { Problem } from '../fault';
import { alongPoints, type Outline } from './outline';
import type { Point } from './segment';

/** A point of a head's outer edge: how far below the tip, and how far from the long axis; cm. */
export type OutlinePoint = readonly [fromTipCm: number, halfWidthCm: number];

/** The outline of one frame's own head, where its maker's numbers are not enough. Both sides are taken to be alike. */
export interface OwnOutline {
  /** Along one side of the outer edge, from the tip to the bottom of the head. */
  points: readonly OutlinePoint[];
  /** How wide the hoop is seen from above, cm; as is usual in the sport if left out. */
  hoopCm?: number | undefined;
}

export const OUTLINE_POINTS = { fewest: 6, most: 60 } as const;
/** Both ends lie on the long axis, this nearly, cm. */
const ON_AXIS_CM = 0.05;
/** How far an outline may go back toward the tip on its way to the bottom: a flat tip that is measured wavers, cm. */
const WAVERS_CM = 0.3;

/**
 * What is wrong with an outline that somebody sends: too few points, ends beside the long axis, a side that crosses it, or one that turns back.
 * @example outlineProblems({ points: [[0, 0], [0.1, 2]] }, 'shape.outline') // [{ code: 'outline-not-a-head', path: 'shape.outline.points' }]
 */
export function outlineProblems({ points, hoopCm }: OwnOutline, path: string): Problem[] {
  const { fewest, most } = OUTLINE_POINTS;
  const problems: Problem[] = [];
  const [first, last] = [points[0], points.at(-1)];
  const between = points.slice(1, -1);
  const isHead =
    points.length >= fewest &&
    points.length <= most &&
    Math.abs(first?.[0] ?? 1) <= ON_AXIS_CM &&
    Math.abs(first?.[1] ?? 1) <= ON_AXIS_CM &&
    Math.abs(last?.[1] ?? 1) <= ON_AXIS_CM &&
    between.every(([, half]) => half > 0) &&
    points.every(([fromTip], i) => i === 0 || fromTip >= (points[i - 1]?.[0] ?? 0) - WAVERS_CM);
  if (!isHead) problems.push({ code: 'outline-not-a-head', path: `${path}.points` });
  const widest = Math.max(0, ...points.map(([, half]) => half));
  // A hoop as wide as this leaves hardly any bed.
  if (hoopCm !== undefined && !(hoopCm > 0 && hoopCm < widest / 2))
    problems.push({ code: 'outline-hoop-too-wide', path: `${path}.hoopCm` });
  return problems;
}

/** Straight lines between two points of an outline: so many stay within a tenth of a millimetre of the curve. */
const LINES_BETWEEN = 4;

/** The points with the other side's beside their ends, so that the curve crosses the long axis at right angles. */
const withMirrored = (points: readonly Point[]): Point[] => {
  const mirrored = ({ xCm, yCm }: Point): Point => ({ xCm, yCm: -yCm });
  return [points[1], ...points, points.at(-2)].map((p, i, all) =>
    i === 0 || i === all.length - 1 ? mirrored(p as Point) : (p as Point),
  );
};

/** A curve through points that leaves out no bend and makes none (centripetal Catmull–Rom; Yuksel, Schaefer and Keyser 2011), as a close row of points. */
function curveThrough(points: readonly Point[]): Point[] {
  const all = withMirrored(points);
  const found: Point[] = [];
  const time = (a: Point, b: Point): number =>
    Math.max(1e-6, Math.sqrt(Math.hypot(b.xCm - a.xCm, b.yCm - a.yCm)));
  const between = (a: Point, b: Point, share: number): Point => ({
    xCm: a.xCm + share * (b.xCm - a.xCm),
    yCm: a.yCm + share * (b.yCm - a.yCm),
  });
  for (let i = 1; i < all.length - 2; i++) {
    const [p0, p1, p2, p3] = all.slice(i - 1, i + 3) as [Point, Point, Point, Point];
    const t1 = time(p0, p1);
    const t2 = t1 + time(p1, p2);
    const t3 = t2 + time(p2, p3);
    for (let k = 0; k < LINES_BETWEEN; k++) {
      const t = t1 + ((t2 - t1) * k) / LINES_BETWEEN;
      const a1 = between(p0, p1, t / t1);
      const a2 = between(p1, p2, (t - t1) / (t2 - t1));
      const a3 = between(p2, p3, (t - t2) / (t3 - t2));
      const b1 = between(a1, a2, t / t2);
      const b2 = between(a2, a3, (t - t1) / (t3 - t1));
      found.push(between(b1, b2, (t - t1) / (t2 - t1)));
    }
  }
  found.push(points.at(-1) as Point);
  return found;
}

/** Points moved inward along the normals of their curve. @param standsOnHandle its bottom stays where the handle begins */
function movedIn(points: readonly Point[], byCm: number, standsOnHandle: boolean): Point[] {
  const all = withMirrored(points);
  return points.map(({ xCm, yCm }, i) => {
    const [before, after] = [all[i] as Point, all[i + 2] as Point];
    const [dx, dy] = [after.xCm - before.xCm, after.yCm - before.yCm];
    const size = Math.max(1e-9, Math.hypot(dx, dy));
    const toTip = standsOnHandle ? Math.max(0, dy / size) : dy / size;
    const isEnd = i === 0 || i === points.length - 1;
    // Outward is to the left of the way from the tip to the bottom.
    return { xCm: xCm - byCm * toTip, yCm: isEnd ? 0 : Math.max(0, yCm + (byCm * dx) / size) };
  });
}

/**
 * An own outline on a frame, or the line in parallel so far inside it.
 * @param tipXCm where its tip lies @param inwardCm 0 is the outer edge
 * @example ownOutline({ points }, 68.58, 1.1, false).acrossCm // half the width of the bed
 */
export function ownOutline(
  { points }: OwnOutline,
  tipXCm: number,
  inwardCm: number,
  standsOnHandle: boolean,
): Outline {
  const edge = points.map(([fromTip, yCm]): Point => ({ xCm: tipXCm - fromTip, yCm }));
  const inner = inwardCm > 0 ? movedIn(edge, inwardCm, standsOnHandle) : edge;
  return alongPoints(curveThrough(inner));
}
