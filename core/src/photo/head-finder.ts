import type { SportData } from '../sport';
import { seenAt, type Seen, type Spot2 } from './projection';
import { islands, lightAt, type Photo } from './sheet';
import { differs, type Table } from './table';

/** Where the frame lies on the table: its butt, and the way to its tip. */
export interface Axis {
  buttX: number;
  buttY: number;
  /** Of length one, toward the tip. */
  dx: number;
  dy: number;
}
export const placeOn = ({ buttX, buttY, dx, dy }: Axis, along: number, across: number): Spot2 => ({
  x: buttX + along * dx - across * dy,
  y: buttY + along * dy + across * dx,
});
export const alongOf = ({ buttX, buttY, dx, dy }: Axis, { x, y }: Spot2): [along: number, across: number] => [
  (x - buttX) * dx + (y - buttY) * dy,
  (y - buttY) * dx - (x - buttX) * dy,
];

export type PhotoTrouble =
  | 'photo-no-sheet'
  | 'photo-other-sheet'
  | 'photo-no-frame'
  | 'photo-cut-off'
  | 'photo-over-sheet'
  | 'photo-too-slanted'
  | 'photo-too-small';

/** The frame as the squares show it: all that lies within its outer edge, and what of that is seen to be the frame. */
export interface Silhouette {
  table: Table;
  filled: Uint8Array;
  axis: Axis;
  lengthCm: number;
}

/** What lies this near together is one thing, squares: a thin hoop may have gaps where it shines. */
const JOINED = 2;
function grown(marked: Uint8Array, width: number, by: number): Uint8Array {
  let now = marked;
  for (let round = 0; round < by; round++) {
    const next = now.slice();
    for (let p = 0; p < now.length; p++)
      if (now[p]) {
        if (p % width > 0) next[p - 1] = 1;
        if (p % width < width - 1) next[p + 1] = 1;
        if (p >= width) next[p - width] = 1;
        if (p < now.length - width) next[p + width] = 1;
      }
    now = next;
  }
  return now;
}
const shrunk = (marked: Uint8Array, width: number, by: number): Uint8Array =>
  grown(
    marked.map((value) => 1 - value),
    width,
    by,
  ).map((value) => 1 - value);

/** All that no way from outside leads to. */
function filledOf(marked: Uint8Array, width: number): Uint8Array {
  const height = marked.length / width;
  const outside = new Uint8Array(marked.length);
  const places: number[] = [];
  const reach = (p: number): void => {
    if (!marked[p] && !outside[p]) {
      outside[p] = 1;
      places.push(p);
    }
  };
  for (let p = 0; p < marked.length; p++) {
    const [x, y] = [p % width, Math.floor(p / width)];
    if (x === 0 || y === 0 || x === width - 1 || y === height - 1) reach(p);
  }
  for (const p of places) {
    if (p % width > 0) reach(p - 1);
    if (p % width < width - 1) reach(p + 1);
    if (p >= width) reach(p - width);
    if (p < marked.length - width) reach(p + width);
  }
  return outside.map((value) => 1 - value);
}

/** Frames are so much longer or shorter than any of the sport. */
const LONGER = 1.12;

/** The frame on the table, which end is which, and where its long axis lies. */
export function silhouetteOf(table: Table, sport: SportData): Silhouette | { trouble: PhotoTrouble } {
  const { width, cellCm, fromX, fromY, lies, beyond, onSheet } = table;
  const joined = shrunk(grown(lies, width, JOINED), width, JOINED);
  const [largest] = islands(joined, width);
  if (!largest || largest.length * cellCm ** 2 < 40) return { trouble: 'photo-no-frame' };
  const only = new Uint8Array(lies.length);
  for (const p of largest) only[p] = 1;
  const filled = filledOf(only, width);
  const places: number[] = [];
  for (let p = 0; p < filled.length; p++) if (filled[p]) places.push(p);
  const isAtEdge = places.some(
    (p) =>
      beyond[p - 1] ||
      beyond[p + 1] ||
      beyond[p - width] ||
      beyond[p + width] ||
      p < width ||
      p >= filled.length - width ||
      p % width === 0 ||
      p % width === width - 1,
  );
  const at = (p: number): Spot2 => ({
    x: fromX + ((p % width) + 0.5) * cellCm,
    y: fromY + (Math.floor(p / width) + 0.5) * cellCm,
  });
  let [mx, my] = [0, 0];
  for (const p of places) {
    const { x, y } = at(p);
    mx += x / places.length;
    my += y / places.length;
  }
  let [xx, xy, yy] = [0, 0, 0];
  for (const p of places) {
    const { x, y } = at(p);
    xx += (x - mx) ** 2;
    xy += (x - mx) * (y - my);
    yy += (y - my) ** 2;
  }
  const angle = 0.5 * Math.atan2(2 * xy, xx - yy);
  const middle: Axis = { buttX: mx, buttY: my, dx: Math.cos(angle), dy: Math.sin(angle) };
  const alongs = places.map((p) => alongOf(middle, at(p)));
  const [low, high] = alongs.reduce(
    ([l, h], [a]) => [Math.min(l, a), Math.max(h, a)],
    [Infinity, -Infinity],
  ) as [number, number];
  const lengthCm = high - low;
  const [shortest, longest] = sport.plausible.lengthCm;
  const isOverSheet = largest.some(
    (p) => onSheet[p - 1] || onSheet[p + 1] || onSheet[p - width] || onSheet[p + width],
  );
  if (isOverSheet) return { trouble: 'photo-over-sheet' };
  if (isAtEdge) return { trouble: 'photo-cut-off' };
  if (lengthCm < shortest / LONGER || lengthCm > longest * LONGER) return { trouble: 'photo-no-frame' };
  // The handle's end is the narrower one.
  const near = (end: number): number => alongs.filter(([a]) => Math.abs(a - end) < 0.3 * lengthCm).length;
  const isTurned = near(low) > near(high);
  const sign = isTurned ? -1 : 1;
  const butt = isTurned ? high : low;
  const axis: Axis = {
    buttX: mx + butt * middle.dx,
    buttY: my + butt * middle.dy,
    dx: sign * middle.dx,
    dy: sign * middle.dy,
  };
  return { table, filled, axis, lengthCm };
}

/** Whether a place of the table lies in marked squares. */
export function isMarked(
  { width, height, fromX, fromY, cellCm }: Table,
  marked: Uint8Array,
  { x, y }: Spot2,
): boolean {
  const [i, j] = [Math.floor((x - fromX) / cellCm), Math.floor((y - fromY) / cellCm)];
  return i >= 0 && j >= 0 && i < width && j < height && marked[j * width + i] === 1;
}

/** How far to either side of where the squares end the edge is looked for, and in what steps, cm. */
const LOOKED_CM = 0.8;
const STEP_CM = 0.02;
/** Beside one another so many rows are taken together, this far apart, cm. */
const BESIDE = [-0.12, 0, 0.12];
/** An edge is at least such a step of colour, of 255; and this share of the sharpest one near it. */
const LEAST_SHARP = 14;
const LEAST_SHARE = 0.1;
/** So far within an edge its colour is looked at, cm. */
const WITHIN_CM = 0.15;

/**
 * The edge along a way outward, cm from its start, to a fraction of a picture element: the outermost where the table or its shade gives way to something else. Paint has
 * edges further in, and shade has some further out.
 * @param seen how the plane of the frame is seen
 */
export function edgeAlong(
  photo: Photo,
  seen: Seen,
  table: Table,
  from: Spot2,
  way: Spot2,
): number | undefined {
  const count = Math.round((2 * LOOKED_CM) / STEP_CM) + 1;
  const rows = [0, 1, 2].map(() => new Float64Array(count));
  for (const beside of BESIDE)
    for (let i = 0; i < count; i++) {
      const out = i * STEP_CM - LOOKED_CM;
      const at = seenAt(seen, {
        x: from.x + out * way.x - beside * way.y,
        y: from.y + out * way.y + beside * way.x,
      });
      rows.forEach((row, channel) => {
        row[i] = (row[i] ?? 0) + lightAt(photo, at.x, at.y, channel) / BESIDE.length;
      });
    }
  // A step over about two millimetres, weighed toward its middle.
  const steps = Float64Array.from({ length: count }, (_, i) => {
    const changes = rows.map((row) => {
      let change = 0;
      for (let k = 1; k <= 4; k++)
        change += (row[Math.min(count - 1, i + k)] ?? 0) - (row[Math.max(0, i - k)] ?? 0);
      return change / 4;
    });
    return Math.hypot(...changes);
  });
  const sharpest = Math.max(...steps);
  const least = Math.max(LEAST_SHARP, LEAST_SHARE * sharpest);
  if (sharpest < least) return undefined;
  let most: number | undefined;
  for (let i = count - 2; i > 0; i--) {
    const [l, m, r] = [steps[i - 1] ?? 0, steps[i] ?? 0, steps[i + 1] ?? 0];
    if (m < least || m < l || m < r) continue;
    const inner = Math.max(0, i - Math.round(WITHIN_CM / STEP_CM));
    const out = inner * STEP_CM - LOOKED_CM;
    const bare = table.ground(from.x + out * way.x, from.y + out * way.y);
    const isFrame = differs(
      rows.map((row) => row[inner] ?? 0),
      bare,
      table.scatter,
    );
    if (isFrame) return humpAt(steps, i) * STEP_CM - LOOKED_CM;
    if (m === sharpest) most = i;
  }
  // Paint that cannot be told from shade still has the sharpest edge.
  return most === undefined ? undefined : humpAt(steps, most) * STEP_CM - LOOKED_CM;
}

/** The middle of a whole hump, which noise moves less than its top. */
function humpAt(steps: Float64Array, top: number): number {
  const least = 0.6 * (steps[top] ?? 0);
  let [w, sum] = [0, 0];
  const take = (k: number): boolean => {
    const step = steps[k] ?? 0;
    if (step <= least || Math.abs(k - top) > 8) return false;
    w += step;
    sum += step * k;
    return true;
  };
  for (let k = top; k >= 0 && take(k); k--);
  for (let k = top + 1; k < steps.length && take(k); k++);
  return sum / w;
}
