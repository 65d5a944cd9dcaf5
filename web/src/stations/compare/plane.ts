import {
  CM_PER_INCH,
  G_PER_OUNCE,
  balanceOfSwing,
  balanceFromPoints,
  becomes,
  pointsHeadLight,
  recoilWeight,
  type AxisSpecs,
  type Frame,
  type OnPlane,
} from '@kevro/core';
import type { Way } from '../../parts/typed';

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
  const massUnit = way.mass === 'oz' ? G_PER_OUNCE : 1;
  const inches = way.balance === 'in' ? CM_PER_INCH : 1;
  const points = way.balance === 'points';
  return {
    points,
    mass: { write: (g: number): number => g / massUnit, read: (shown: number): number => shown * massUnit },
    balance: {
      write: (cm: number): number => (points ? pointsHeadLight(cm, lengthCm) : cm / inches),
      read: (shown: number): number => (points ? balanceFromPoints(shown, lengthCm) : shown * inches),
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

const padded = (values: readonly number[], share: number, least: number): [number, number] => {
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const pad = Math.max(least, share * (high - low));
  return [low - pad, high + pad];
};

/** What of the plane is shown: the frame, the setups and the near part of what the frame can become. */
export function extent(own: OnPlane, others: readonly OnPlane[]): Brush {
  const all = [own, ...others];
  return {
    massG: padded(
      all.map((p) => p.massG),
      0.06,
      6,
    ),
    balanceCm: padded(
      all.map((p) => p.balanceCm),
      0.06,
      0.4,
    ),
  };
}

/** Between lines of equal swing weight, kg·cm². */
const LINES_APART = 10;
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
  const first = Math.ceil(swingAt(light, low) / LINES_APART) * LINES_APART;
  const lines: SwingLine[] = [];
  for (let swingWeight = first; swingWeight <= swingAt(heavy, high); swingWeight += LINES_APART) {
    const points = Array.from({ length: POINTS_A_LINE + 1 }, (_, i): OnPlane => {
      const massG = light + ((heavy - light) * i) / POINTS_A_LINE;
      return { massG, balanceCm: balanceOfSwing(swingWeight, recoil, massG, own.axisCm) ?? Number.NaN };
    }).filter(({ balanceCm }) => balanceCm >= low && balanceCm <= high);
    // A scrap in a corner has no room for its number.
    if (points.length > POINTS_A_LINE / 4) lines.push({ swingWeight, points });
  }
  return lines;
}

/** What the frame can become, closed. */
export function region(frame: Frame, own: OnPlane): OnPlane[] {
  const outline = becomes(frame, own);
  return [...outline, own];
}
