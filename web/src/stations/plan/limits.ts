import type { SportData, ZoneName } from '@kevro/core';

/** What a fitter says about how much goes where, g. */
export interface Limits {
  caps: Partial<Record<ZoneName, number>>;
  /** Room left in each zone for the last correction. */
  roomG: number;
}
export const NO_LIMITS: Limits = { caps: {}, roomG: 0 };

/** The caps that a plan keeps; undefined where nothing was said. */
export function capsOf(
  { zones }: SportData,
  { caps, roomG }: Limits,
): Partial<Record<ZoneName, number>> | undefined {
  if (roomG === 0 && Object.keys(caps).length === 0) return undefined;
  return Object.fromEntries(zones.map(({ name, capG }) => [name, Math.max(0, (caps[name] ?? capG) - roomG)]));
}
