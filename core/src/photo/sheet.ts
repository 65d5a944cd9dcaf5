import { MAD_TO_SIGMA, median, tukeyWeight } from '../measure';
import { axisThrough, type Corners, type Spot2 } from './projection';
import { isAtEdge, islands } from './squares';

/** A photo as a browser gives it: width × height times red, green, blue and how solid it is, row by row. */
export interface Photo {
  width: number;
  height: number;
  data: Uint8Array | Uint8ClampedArray;
}

/** ISO 216 and ANSI Y14.1, cm: the longer side first. */
export const SHEETS = { A4: [29.7, 21], Letter: [27.94, 21.59] } as const;
export type SheetName = keyof typeof SHEETS;

/** White paper is bright in each of its colours: the least of them. */
export const leastOf = (data: Photo['data'], p: number): number =>
  Math.min(data[4 * p] ?? 0, data[4 * p + 1] ?? 0, data[4 * p + 2] ?? 0);

/** The sheet is looked for in a picture this wide. */
const COARSE = 360;
interface Coarse {
  width: number;
  height: number;
  by: number;
  light: Uint8Array;
}
function coarseOf({ width, height, data }: Photo): Coarse {
  const by = Math.max(1, Math.ceil(Math.max(width, height) / COARSE));
  const [w, h] = [Math.floor(width / by), Math.floor(height / by)];
  const light = new Uint8Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let sum = 0;
      for (let j = 0; j < by; j++)
        for (let i = 0; i < by; i++) sum += leastOf(data, (y * by + j) * width + x * by + i);
      light[y * w + x] = sum / (by * by);
    }
  return { width: w, height: h, by, light };
}

const turn = (a: Spot2, b: Spot2, c: Spot2): number => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
/** The corners of what lies around points (Andrew's monotone chain). */
function hullOf(points: readonly Spot2[]): Spot2[] {
  const sorted = points.toSorted((a, b) => a.x - b.x || a.y - b.y);
  const half = (all: readonly Spot2[]): Spot2[] => {
    const found: Spot2[] = [];
    for (const p of all) {
      while (found.length >= 2 && turn(found.at(-2) as Spot2, found.at(-1) as Spot2, p) <= 0) found.pop();
      found.push(p);
    }
    return found.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.toReversed())];
}
export const areaOf = (points: readonly Spot2[]): number =>
  Math.abs(
    points.reduce((sum, p, i) => {
      const q = points[(i + 1) % points.length] as Spot2;
      return sum + p.x * q.y - q.x * p.y;
    }, 0),
  ) / 2;

/** The four of a hull's corners between which most of it lies. */
function fourOf(hull: readonly Spot2[]): Corners | undefined {
  if (hull.length < 4) return undefined;
  const far = (a: Spot2): Spot2 =>
    hull.reduce((best, p) =>
      Math.hypot(p.x - a.x, p.y - a.y) > Math.hypot(best.x - a.x, best.y - a.y) ? p : best,
    );
  const c = far(hull[0] as Spot2);
  const a = far(c);
  const off = (from: Spot2, to: Spot2, sign: 1 | -1): Spot2 =>
    hull.reduce((best, p) => (sign * turn(from, to, p) > sign * turn(from, to, best) ? p : best));
  let found = [a, off(a, c, -1), c, off(a, c, 1)];
  for (let round = 0; round < 4; round++)
    found = found.map((_, i) => {
      const [before, after] = [found[(i + 3) % 4] as Spot2, found[(i + 1) % 4] as Spot2];
      const opposite = found[(i + 2) % 4] as Spot2;
      return off(before, after, turn(before, after, opposite) > 0 ? -1 : 1);
    });
  return found as unknown as Corners;
}

/** The sheet fills its four corners; what is round or has a handle does not. */
const FILLS = [0.93, 1.06] as const;
/** Of the picture it takes at least and at most. */
const OF_PICTURE = [0.008, 0.5] as const;
const LEAST_SIDE = 10;
const LIGHTEST = 250;
const DARKEST = 80;
const STEP = 10;
const smaller = (places: readonly number[], { width }: Coarse): Spot2[] =>
  places.map((p) => ({ x: (p % width) + 0.5, y: Math.floor(p / width) + 0.5 }));

function roughCorners(coarse: Coarse): Corners | undefined {
  const { width, light, by } = coarse;
  let best: { corners: Corners; fill: number } | undefined;
  for (let level = LIGHTEST; level >= DARKEST; level -= STEP) {
    const marked = light.map((value) => (value > level ? 1 : 0));
    for (const places of islands(marked, width).slice(0, 4)) {
      const share = places.length / light.length;
      if (share < OF_PICTURE[0] || share > OF_PICTURE[1]) continue;
      if (places.some((p) => isAtEdge(p, width, light.length))) continue;
      const corners = fourOf(hullOf(smaller(places, coarse)));
      if (!corners) continue;
      const sides = corners.map((p, i) => {
        const q = corners[(i + 1) % 4] as Spot2;
        return Math.hypot(q.x - p.x, q.y - p.y);
      });
      // Corners stand in the middle of their elements: half an element of each side is not counted.
      const inside = places.length - sides.reduce((sum, side) => sum + side, 0) / 2;
      const fill = inside / areaOf(corners);
      if (fill < FILLS[0] || fill > FILLS[1] || Math.min(...sides) < LEAST_SIDE) continue;
      const off = Math.abs(fill - 1);
      if (!best || off < Math.abs(best.fill - 1)) best = { corners, fill };
    }
  }
  return best?.corners.map(({ x, y }) => ({ x: x * by, y: y * by })) as unknown as Corners | undefined;
}

/** The light between picture elements, by the four around it; the middle of an element is at its half. */
export function lightAt({ width, height, data }: Photo, x: number, y: number, channel?: number): number {
  const [u, v] = [
    Math.min(width - 1.001, Math.max(0, x - 0.5)),
    Math.min(height - 1.001, Math.max(0, y - 0.5)),
  ];
  const [i, j] = [Math.floor(u), Math.floor(v)];
  const [a, b] = [u - i, v - j];
  const at = (p: number): number =>
    channel === undefined ? leastOf(data, p) : (data[4 * p + channel] as number);
  const p = j * width + i;
  return (1 - b) * ((1 - a) * at(p) + a * at(p + 1)) + b * ((1 - a) * at(p + width) + a * at(p + width + 1));
}

interface Line {
  /** A point of it, and its direction. */
  x: number;
  y: number;
  dx: number;
  dy: number;
  /** How far its points lie from it, as a standard deviation, and how many they are. */
  sd: number;
  count: number;
}
/** No edge is seen to scatter less, picture elements. */
const LEAST_SD = 0.03;
/** A line through points; those far from it count less each time (Tukey's biweight). */
function lineThrough(points: readonly Spot2[]): Line {
  let weights = points.map(() => 1);
  let found: Line = { x: 0, y: 0, dx: 1, dy: 0, sd: Infinity, count: 0 };
  for (let round = 0; round < 8; round++) {
    const all = weights.reduce((sum, w) => sum + w, 0);
    const x = points.reduce((sum, p, i) => sum + (weights[i] ?? 0) * p.x, 0) / all;
    const y = points.reduce((sum, p, i) => sum + (weights[i] ?? 0) * p.y, 0) / all;
    const [dx, dy] = axisThrough(points, { x, y }, weights);
    const off = points.map((p) => (p.y - y) * dx - (p.x - x) * dy);
    const sd = Math.max(LEAST_SD, MAD_TO_SIGMA * median(off.map(Math.abs)));
    weights = off.map((d) => tukeyWeight(d, sd));
    found = { x, y, dx, dy, sd, count: weights.filter((w) => w > 0).length };
  }
  return found;
}
function crossing(a: Line, b: Line): Spot2 {
  const det = a.dx * b.dy - a.dy * b.dx;
  const t = ((b.x - a.x) * b.dy - (b.y - a.y) * b.dx) / det;
  return { x: a.x + t * a.dx, y: a.y + t * a.dy };
}

/**
 * Where along a row of values the greatest step is, between its places; undefined where there is none to speak of. The middle of all that changes near it, which no
 * grid of picture elements pulls to itself.
 */
function steepest(values: readonly number[], least: number): number | undefined {
  let [best, at] = [least, -1];
  const steps = values.slice(1).map((value, i) => value - (values[i] ?? 0));
  steps.forEach((step, i) => {
    if (Math.abs(step) > best) [best, at] = [Math.abs(step), i];
  });
  if (at < 0) return undefined;
  const sign = Math.sign(steps[at] ?? 0);
  let [sum, moment] = [0, 0];
  for (let i = Math.max(0, at - AROUND_STEP); i <= Math.min(steps.length - 1, at + AROUND_STEP); i++) {
    const step = sign * (steps[i] ?? 0);
    sum += step;
    moment += step * (i + 0.5);
  }
  return sum > 0 ? moment / sum : undefined;
}
const AROUND_STEP = 3;

export interface SheetSeen {
  corners: Corners;
  /** Standard uncertainty of a corner's place, picture elements. */
  cornerSd: number;
}
const LOOKS = 240;
const LEAST_STEP = 6;

/** The sheet’s corners to a fraction of a picture element: each of its edges is looked at in many places, and a line laid through them. */
function fine(photo: Photo, rough: Corners): SheetSeen {
  const by = Math.max(photo.width, photo.height) / COARSE;
  const reach = Math.max(4, Math.ceil(2.2 * by));
  const lines = rough.map((p, i) => {
    const q = rough[(i + 1) % 4] as Spot2;
    const long = Math.hypot(q.x - p.x, q.y - p.y);
    const [dx, dy] = [(q.x - p.x) / long, (q.y - p.y) / long];
    const points: Spot2[] = [];
    for (let k = 0; k < LOOKS; k++) {
      const along = long * (0.06 + (0.88 * k) / (LOOKS - 1));
      const [x, y] = [p.x + along * dx, p.y + along * dy];
      const values = Array.from({ length: 2 * reach + 1 }, (_, n) =>
        lightAt(photo, x - (n - reach) * dy, y + (n - reach) * dx),
      );
      const at = steepest(values, LEAST_STEP);
      if (at !== undefined) points.push({ x: x - (at - reach) * dy, y: y + (at - reach) * dx });
    }
    return points.length > LOOKS / 4 ? lineThrough(points) : undefined;
  });
  // An edge that cannot be seen to a fraction stays where it was roughly.
  if (lines.some((line) => line === undefined)) return { corners: rough, cornerSd: by };
  const all = lines as Line[];
  const corners = all.map((line, i) => crossing(all[(i + 3) % 4] as Line, line)) as unknown as Corners;
  const moved = corners.some(
    (c, i) => Math.hypot(c.x - (rough[i]?.x ?? 0), c.y - (rough[i]?.y ?? 0)) > 4 * by,
  );
  if (moved) return { corners: rough, cornerSd: by };
  // At its ends a line of n points is known four times as badly as a mean of them, by variance.
  const cornerSd = Math.max(...all.map(({ sd, count }) => (2 * sd) / Math.sqrt(Math.max(1, count)))) + 0.05;
  return { corners, cornerSd };
}

/** The sheet of white paper in a photo, wherever it lies whole in it; undefined where there is none. */
export function findSheet(photo: Photo): SheetSeen | undefined {
  const rough = roughCorners(coarseOf(photo));
  return rough && fine(photo, rough);
}
