import type { OutlinePoint } from '../frame';
import { median } from '../measure';

/** Heads are nearly ellipses: the power of their lower half scatters by this about two (from memory). Edges scatter, and so many beside one another err alike. */
const POWER_SD = 0.1;
const EDGE_SD_CM = 0.03;
const ALIKE = 4;
/** A point of one side: how far from the butt, and how far from the long axis, cm. */
export type Half = [along: number, half: number];
/**
 * The lower head, hidden where the throat meets it: half of a superellipse (Lamé) from where it is widest to its bottom, as full as what is still seen of it.
 */
export function closedBy(side: readonly Half[], bottom: number): Half[] {
  const [widestAlong, widest] = widestOf(side);
  const below = side.filter(([along]) => along < widestAlong - 1);
  const at = (along: number, power: number): number =>
    widest * (1 - Math.min(1, (widestAlong - along) / (widestAlong - bottom)) ** power) ** (1 / power);
  let [power, least] = [2, Infinity];
  for (let p = 1.6; p <= 3; p += 0.02) {
    const off = below.reduce((sum, [along, half]) => sum + ((half - at(along, p)) / EDGE_SD_CM) ** 2, 0);
    const cost = off / ALIKE + ((p - 2) / POWER_SD) ** 2;
    if (cost < least) [power, least] = [p, cost];
  }
  const last = side.at(-1) as Half;
  const scale = last[1] / Math.max(1e-6, at(last[0], power));
  const found: Half[] = [];
  for (let k = 1; k <= 40; k++) {
    // Close together toward the bottom, where it turns across.
    const along = bottom + (last[0] - bottom) * (1 - Math.sin((Math.PI / 2) * (k / 40)));
    // What is left of a difference where it takes over fades toward the bottom.
    const share = (along - bottom) / (last[0] - bottom);
    found.push([along, at(along, power) * (1 + (scale - 1) * share)]);
  }
  return found;
}
/** Where it is widest, by a parabola through what is nearly as wide. */
function widestOf(side: readonly Half[]): Half {
  const top = Math.max(...side.map(([, half]) => half));
  const near = side.filter(([, half]) => half > 0.93 * top);
  const [mx, n] = [near.reduce((sum, [x]) => sum + x, 0) / near.length, near.length];
  const [s2, s3, s4] = [2, 3, 4].map((power) => near.reduce((sum, [x]) => sum + (x - mx) ** power, 0)) as [
    number,
    number,
    number,
  ];
  const my = near.reduce((sum, [, y]) => sum + y, 0) / n;
  const [t1, t2] = [1, 2].map((power) =>
    near.reduce((sum, [x, y]) => sum + (y - my) * (x - mx) ** power, 0),
  ) as [number, number];
  const v = s4 - (s2 * s2) / n;
  const det = s2 * v - s3 * s3;
  const [b, c] = [(t1 * v - t2 * s3) / det, (s2 * t2 - s3 * t1) / det];
  const at = mx - b / (2 * c);
  const isWithin = c < 0 && Math.abs(at - mx) < 6;
  return isWithin ? [at, top] : [mx, top];
}

/** Without what goes back toward the tip: an edge of something else. */
export function downward(side: readonly Half[]): Half[] {
  const found: Half[] = [];
  for (const at of side) if (at[0] <= (found.at(-1)?.[0] ?? Infinity) + 0.05) found.push(at);
  return found;
}
/** An outline is stored as so many points a side. */
const POINTS = 25;
/** Evenly along a side, its ends on the long axis. */
export function evenly(side: readonly Half[], tip: number): OutlinePoint[] {
  const lengths = [0];
  side.slice(1).forEach(([a, h], i) => {
    const [b, g] = side[i] as Half;
    lengths.push((lengths[i] ?? 0) + Math.hypot(a - b, h - g));
  });
  const all = lengths.at(-1) ?? 0;
  let k = 0;
  return Array.from({ length: POINTS }, (_, i): OutlinePoint => {
    const at = (all * i) / (POINTS - 1);
    while (k < lengths.length - 2 && (lengths[k + 1] ?? 0) < at) k++;
    const [from, to] = [side[k] as Half, side[k + 1] as Half];
    const share = (at - (lengths[k] ?? 0)) / Math.max(1e-9, (lengths[k + 1] ?? 0) - (lengths[k] ?? 0));
    const isEnd = i === 0 || i === POINTS - 1;
    const [along, half] = [from[0] + share * (to[0] - from[0]), from[1] + share * (to[1] - from[1])];
    const rounded = (cm: number): number => Math.round(1000 * cm) / 1000;
    return [Math.max(0, rounded(tip - along)), isEnd ? 0 : Math.max(0.001, rounded(half))];
  });
}

/** Where one edge stands out from those beside it, another was taken for it: a stripe, or a mark of the table. */
const STRAY_CM = 0.08;
export const withoutStrays = (radii: readonly number[]): number[] =>
  radii.map((radius, i) => {
    const beside = [-2, -1, 0, 1, 2].map((k) => radii[Math.abs(i + k)] ?? radius);
    const middle = median(beside);
    return Math.abs(radius - middle) > STRAY_CM && i > 1 && i < radii.length - 2 ? middle : radius;
  });
/** How much of it is kept of each place beside its neighbours: noise of single edges goes, corners stay. */
export function smoothed(radii: readonly number[]): number[] {
  // Savitzky and Golay 1964: a parabola through five.
  const weights = [-3, 12, 17, 12, -3];
  const at = (i: number): number => radii[i < 0 ? -i : Math.min(radii.length - 1, i)] ?? 0;
  return radii.map((radius, i) =>
    i > radii.length - 3 ? radius : weights.reduce((sum, w, k) => sum + w * at(i + k - 2), 0) / 35,
  );
}
