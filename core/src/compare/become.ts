import { pointOfSpot, type Frame } from '../frame';
import type { Specs } from '../mass';

/** A point of the plane of weight and balance. */
export interface OnPlane {
  massG: number;
  balanceCm: number;
}

/** How many points an edge of the region is drawn by: straight in weight and moment, it bends in weight and balance. */
const POINTS_AN_EDGE = 8;

/**
 * All weights and balances that a frame can be given by weight in its zones, none over its cap: the sums of the zones' parts of weight and moment (a zonotope),
 * whose edge goes through the zones from the butt to the tip and back. Weight lies at the middle of each zone; what could come off is not counted.
 * @returns the outline, beginning at the frame as it is; closed by its first point
 * @example becomes(frame, { massG: 320, balanceCm: 32.5 })[0] // { massG: 320, balanceCm: 32.5 }
 */
export function becomes(frame: Frame, { massG, balanceCm }: Pick<Specs, 'massG' | 'balanceCm'>): OnPlane[] {
  const zones = frame.sport.zones
    .map(({ name, capG }) => ({ massG: capG, xCm: pointOfSpot(frame, { zone: name }).xCm }))
    .toSorted((a, b) => a.xCm - b.xCm);
  const outline: OnPlane[] = [];
  let now = { massG, moment: massG * balanceCm };
  const go = (byG: number, xCm: number): void => {
    for (let i = 0; i < POINTS_AN_EDGE; i++) {
      const on = {
        massG: now.massG + (byG * i) / POINTS_AN_EDGE,
        moment: now.moment + (byG * xCm * i) / POINTS_AN_EDGE,
      };
      outline.push({ massG: on.massG, balanceCm: on.moment / on.massG });
    }
    now = { massG: now.massG + byG, moment: now.moment + byG * xCm };
  };
  for (const zone of zones) go(zone.massG, zone.xCm);
  for (const zone of zones) go(-zone.massG, zone.xCm);
  return outline;
}

/**
 * The balance at which a frame of a weight has a swing weight: B = a + √(1000 (S − R)/M), its recoil weight R the same (parallel axes).
 * @returns undefined where the swing weight is less than the recoil weight
 * @example balanceOfSwing(320, 160, 340, 10.16) // 34.39…
 */
export function balanceOfSwing(
  swingWeight: number,
  recoilWeight: number,
  massG: number,
  axisCm: number,
): number | undefined {
  const rest = swingWeight - recoilWeight;
  return rest >= 0 ? axisCm + Math.sqrt((1000 * rest) / massG) : undefined;
}
