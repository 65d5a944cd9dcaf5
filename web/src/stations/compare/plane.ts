import {
  balanceOfSwing,
  balanceFromPoints,
  pointsHeadLight,
  recoilWeight,
  unitScale,
  type AxisSpecs,
  type OnPlane,
  type SportData,
} from '@kevro/core';
import type { Way } from '../../ui/typed';

/** A rectangle of the plane, g and cm: what was brushed. */
export interface Brush {
  massG: [number, number];
  balanceCm: [number, number];
}

/** Whether a point lies in a brush; what has no place on the plane lies in none. */
export const inBrush = (brush: Brush, { massG, balanceCm }: Partial<OnPlane>): boolean =>
  massG !== undefined &&
  balanceCm !== undefined &&
  massG >= brush.massG[0] &&
  massG <= brush.massG[1] &&
  balanceCm >= brush.balanceCm[0] &&
  balanceCm <= brush.balanceCm[1];

/** How the two axes are written the way the fitter thinks, and read back. Points count the other way: more of them is further from the tip. */
export function axes(way: Way, lengthCm: number) {
  const gPer = unitScale('mass', way.mass) ?? 1;
  const cmPer = unitScale('shift', way.balance) ?? 1;
  const points = way.balance === 'points';
  return {
    points,
    mass: { write: (g: number): number => g / gPer, read: (shown: number): number => shown * gPer },
    balance: {
      write: (cm: number): number => (points ? pointsHeadLight(cm, lengthCm) : cm / cmPer),
      read: (shown: number): number => (points ? balanceFromPoints(shown, lengthCm) : shown * cmPer),
    },
  };
}

/** Two shown ends as a range in g or cm, the smaller first. */
export function rangeOf(
  [a, b]: readonly [number, number],
  read: (shown: number) => number,
): [number, number] {
  const [x, y] = [read(a), read(b)];
  return x < y ? [x, y] : [y, x];
}

const padded = (values: readonly number[], least: number): [number, number] => {
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const pad = Math.max(least, 0.06 * (high - low));
  return [low - pad, high + pad];
};

/** What of the plane is shown: the frame and the setups, with two noticeable steps of the sport around them. */
export function extent({ noticeable }: SportData, own: OnPlane, others: readonly OnPlane[]): Brush {
  const all = [own, ...others];
  const spread = (key: keyof OnPlane): [number, number] =>
    padded(
      all.map((p) => p[key]),
      2 * noticeable[key],
    );
  return { massG: spread('massG'), balanceCm: spread('balanceCm') };
}

/** Lines of equal swing weight are so many at least, at round numbers. */
const LEAST_LINES = 5;
const ROUND = [50, 20, 10, 5, 2, 1, 0.5, 0.2, 0.1];
const POINTS_A_LINE = 24;

export interface SwingLine {
  swingWeight: number;
  points: OnPlane[];
}

/** Lines of equal swing weight for a frame's recoil weight, as far as they cross what is shown. */
export function swingLines(own: AxisSpecs, shown: Brush): SwingLine[] {
  const recoil = recoilWeight(own);
  const swingAt = (massG: number, balanceCm: number): number =>
    recoil + (massG * (balanceCm - own.axisCm) ** 2) / 1000;
  const [light, heavy] = shown.massG;
  const [low, high] = shown.balanceCm;
  const [least, most] = [swingAt(light, low), swingAt(heavy, high)];
  const apart = ROUND.find((step) => (most - least) / step >= LEAST_LINES) ?? 0.1;
  const lines: SwingLine[] = [];
  for (let n = Math.ceil(least / apart); n * apart <= most; n++) {
    const swingWeight = Number((n * apart).toFixed(1));
    const points = Array.from({ length: POINTS_A_LINE + 1 }, (_, i): OnPlane => {
      const massG = light + ((heavy - light) * i) / POINTS_A_LINE;
      return { massG, balanceCm: balanceOfSwing(swingWeight, recoil, massG, own.axisCm) ?? Number.NaN };
    }).filter(({ balanceCm }) => balanceCm >= low && balanceCm <= high);
    // A scrap in a corner has no room for its number.
    if (points.length > POINTS_A_LINE / 4) lines.push({ swingWeight, points });
  }
  return lines;
}

/** A point of the plane, px: x to the right, y down. */
interface Point {
  x: number;
  y: number;
}
/** One that has its name beside it. */
export interface Named extends Point {
  name: string;
}
/** Where a name may stand by its point, as the chart calls it, in the order that they are tried; how far across and down its middle is moved. */
const PLACES = [
  ['top center', 0, -1],
  ['bottom center', 0, 1],
  ['middle right', 1, 0],
  ['middle left', -1, 0],
  ['top right', 1, -1],
  ['bottom right', 1, 1],
  ['top left', -1, -1],
  ['bottom left', -1, 1],
] as const;
export type Place = (typeof PLACES)[number][0];
/** A ring, a point without a name and a line of text on the plane, px. */
const RING_PX = 9;
const POINT_PX = 5;
const LETTER_PX = 7;
const TEXT_PX = 16;

interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}
/** How much two boxes share, px². */
const shared = (a: Box, b: Box): number =>
  Math.max(0, Math.min(a.right, b.right) - Math.max(a.left, b.left)) *
  Math.max(0, Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top));
const boxAt = (x: number, y: number, wide: number, high: number): Box => ({
  left: x - wide / 2,
  right: x + wide / 2,
  top: y - high / 2,
  bottom: y + high / 2,
});

/**
 * Where each name stands so that it lies over no ring, no point and no other name; where there is no such place, where it covers the least.
 * @param around points without a name
 * @param within the size of the plane, px: a name that leaves it would be cut
 */
export function placesOf(
  named: readonly Named[],
  around: readonly Point[],
  within: { width: number; height: number },
): Place[] {
  const square = (r: number) => (p: Point) => boxAt(p.x, p.y, 2 * r, 2 * r);
  const taken = [...named.map(square(RING_PX)), ...around.map(square(POINT_PX))];
  return named.map(({ x, y, name }) => {
    const wide = name.length * LETTER_PX;
    const tried = PLACES.map(([place, across, down]) => {
      const box = boxAt(x + across * (RING_PX + wide / 2), y + down * (RING_PX + TEXT_PX / 2), wide, TEXT_PX);
      const whole = boxAt(within.width / 2, within.height / 2, within.width, within.height);
      const cut = wide * TEXT_PX - shared(box, whole);
      return { place, box, lost: cut + taken.reduce((sum, other) => sum + shared(box, other), 0) };
    });
    const best = tried.reduce((a, b) => (b.lost < a.lost ? b : a));
    taken.push(best.box);
    return best.place;
  });
}
