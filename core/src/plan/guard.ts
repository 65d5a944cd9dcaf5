import { TOLERANCE_SLACK, targetOf, timesOff, type Aim } from '../aim';
import type { KnownSpecs } from '../spec';
import { SPEC_KEYS, type SpecKey } from '../mass';
import { normalQuantile, type SpecUncertainty } from '../measure';
import { WANTED_CHANCE } from './enough';

/** At least so much of a tolerance stays for the plan. */
export const LEAST_SHARE = 0.5;

/**
 * Standard uncertainties that are kept free on either side, so that all specs that are aimed at pass together as often as wanted even where each lies at the end of
 * what the plan may use (guard bands, JCGM 106:2012, 8.3.3).
 * @example guardFactor(0.9, 4) // 1.94
 */
export const guardFactor = (wanted: number, specs: number): number =>
  normalQuantile(Math.min(1 - 1e-6, Math.max(0.5, wanted)) ** (1 / Math.max(1, specs)));

/**
 * The share of each tolerance that a plan may use so that its check still passes as often as wanted: the tolerance less what the errors of build and readings
 * take, but at least half of it stays.
 * @param spread standard uncertainties of what the check reads
 * @example guardShares(aim, { massG: 0.2, … }).massG // 0.744 for a tolerance of 1 g and nothing else aimed at
 */
export function guardShares(
  aim: Aim,
  spread: SpecUncertainty,
  wanted = WANTED_CHANCE,
): Record<SpecKey, number> {
  const shares = { massG: 1, balanceCm: 1, swingWeight: 1, twistWeight: 1 };
  const aimed = SPEC_KEYS.flatMap((key) => {
    const target = targetOf(aim, key);
    return target ? [{ key, tolerance: target.tolerance }] : [];
  });
  const factor = guardFactor(wanted, aimed.length);
  for (const { key, tolerance } of aimed) {
    shares[key] = Math.max(LEAST_SHARE, 1 - (factor * spread[key]) / tolerance);
  }
  return shares;
}

/** Whether specs lie within those shares of their tolerances. */
export const withinShares = (aim: Aim, specs: KnownSpecs, shares: Record<SpecKey, number>): boolean =>
  SPEC_KEYS.every((key) => {
    const target = targetOf(aim, key);
    const value = specs[key];
    if (!target) return true;
    return value !== undefined && timesOff(target, value) <= shares[key] + TOLERANCE_SLACK;
  });
