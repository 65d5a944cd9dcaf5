import { median } from '../measure';
import { edgeAlong } from './edge';
import { seenAt, slopeThrough, type Seen, type Spot2 } from './projection';
import { lightAt, type Photo } from './sheet';
import { alongOf, isMarked, placeOn, type Axis, type Silhouette } from './silhouette';
import { CELL_CM } from './table';

/** Heads are looked at in so many directions on each side. */
const WAYS = 91;
export interface Pair {
  angle: number;
  left: Spot2;
  right: Spot2;
}
/** The head’s edge on both sides, in directions from its middle. */
export function pairsOf(photo: Photo, plane: Seen, seen: Silhouette, centre: number, upTo: number): Pair[] {
  const { table, filled, axis } = seen;
  const pairs: Pair[] = [];
  for (let i = 0; i < WAYS; i++) {
    const angle = (Math.PI * i) / (WAYS - 1);
    if (angle > upTo) break;
    const found = ([1, -1] as const).map((side): Spot2 | undefined => {
      const [along, across] = [Math.cos(angle), side * Math.sin(angle)];
      let far = 0;
      for (let r = 1; r < 30; r += CELL_CM / 2)
        if (isMarked(table, filled, placeOn(axis, centre + r * along, r * across))) far = r;
      const from = placeOn(axis, centre + far * along, far * across);
      const way = { x: along * axis.dx - across * axis.dy, y: along * axis.dy + across * axis.dx };
      const out = edgeAlong(photo, plane, table, from, way);
      return out === undefined ? undefined : { x: from.x + out * way.x, y: from.y + out * way.y };
    });
    if (found[0] && found[1]) pairs.push({ angle, left: found[0], right: found[1] });
  }
  return pairs;
}

/** The long axis through the middles between both sides. */
export function centred(axis: Axis, pairs: readonly Pair[]): Axis {
  const middles = pairs
    .filter(({ angle }) => angle > 0.4 && angle < Math.PI - 0.4)
    .map(({ left, right }) => {
      const [[a, b], [c, d]] = [alongOf(axis, left), alongOf(axis, right)];
      return [(a + c) / 2, (b + d) / 2] as const;
    });
  if (middles.length < 8) return axis;
  const { slope, at0: at } = slopeThrough(middles);
  const long = Math.hypot(1, slope);
  const { x, y } = placeOn(axis, 0, at);
  return {
    buttX: x,
    buttY: y,
    dx: (axis.dx - slope * axis.dy) / long,
    dy: (axis.dy + slope * axis.dx) / long,
  };
}

/** The end of the frame, seen along its axis. @param sign 1 is the tip, −1 the butt */
export function endOf(
  photo: Photo,
  plane: Seen,
  { table, filled, axis, lengthCm }: Silhouette,
  sign: 1 | -1,
): number {
  const found: number[] = [];
  for (const across of [-0.6, -0.3, 0, 0.3, 0.6]) {
    let far = sign > 0 ? 0.5 * lengthCm : 0.3 * lengthCm;
    for (let along = far; along > -5 && along < lengthCm + 5; along += (sign * CELL_CM) / 2)
      if (isMarked(table, filled, placeOn(axis, along, across))) far = along;
    const way = { x: sign * axis.dx, y: sign * axis.dy };
    const out = edgeAlong(photo, plane, table, placeOn(axis, far, across), way);
    if (out !== undefined) found.push(far + sign * out);
  }
  if (found.length === 0) return sign > 0 ? lengthCm : 0;
  return median(found);
}

/** How far in from the outer edge the hoop ends: where, all round together, its colour gives way to what is within. */
export function hoopSeen(
  photo: Photo,
  plane: Seen,
  seen: Silhouette,
  centre: number,
  pairs: readonly Pair[],
): number | undefined {
  const { table, axis } = seen;
  const step = 0.02;
  const reach = 2.6;
  const rows = Array.from({ length: Math.round(reach / step) }, () => 0);
  const middle = placeOn(axis, centre, 0);
  let count = 0;
  pairs.forEach((pair, n) => {
    const { angle } = pair;
    if (angle < 0.35 || angle > 1.9 || n === 0 || n === pairs.length - 1) return;
    for (const side of ['left', 'right'] as const) {
      const p = pair[side];
      // Inward along the normal of the edge itself, between its neighbours.
      const [before, after] = [pairs[n - 1]?.[side] ?? p, pairs[n + 1]?.[side] ?? p];
      const long = Math.hypot(after.x - before.x, after.y - before.y);
      let [nx, ny] = [(after.y - before.y) / long, -(after.x - before.x) / long];
      if ((middle.x - p.x) * nx + (middle.y - p.y) * ny < 0) [nx, ny] = [-nx, -ny];
      count++;
      rows.forEach((_, i) => {
        const [x, y] = [p.x + i * step * nx, p.y + i * step * ny];
        const bare = table.ground(x, y);
        const at = seenAt(plane, { x, y });
        const off = Math.hypot(...bare.map((value, c) => lightAt(photo, at.x, at.y, c) - value));
        rows[i] = (rows[i] ?? 0) + off;
      });
    }
  });
  if (count < 20) return undefined;
  // The steepest fall over about a millimetre and a half.
  const half = 4;
  let [best, fall] = [0, 0];
  for (let i = Math.round(0.3 / step); i < rows.length - half; i++) {
    const drop = ((rows[i - half] ?? 0) - (rows[i + half] ?? 0)) / count;
    if (drop > fall) [best, fall] = [i, drop];
  }
  return fall > 6 ? best * step : undefined;
}
