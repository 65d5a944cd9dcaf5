import { TOLERANCE_SLACK, timesOff, type Aim } from '../aim';
import type { KnownSpecs } from '../spec';
import { SPEC_KEYS, type SpecKey } from '../mass';
import type { SpecUncertainty } from '../measure';
import type { Shares } from './problem';

/** Standard uncertainties of the build that are kept free: 95 % of builds stay inside on one side (JCGM 106:2012, 8.3.3, guard bands). */
export const GUARD_FACTOR = 1.64;
/** At least so much of a tolerance stays for the plan. */
export const LEAST_SHARE = 0.5;

/**
 * The share of each tolerance that a plan may use so that its build still ends inside: tolerance less 1.64 standard uncertainties of what the build adds,
 * but at least half.
 * @param build standard uncertainties that the build adds, without the instruments that check
 * @example guardShares(aim, { massG: 0.2, … }).massG // 0.672 for a tolerance of 1 g
 */
export function guardShares(aim: Aim, build: SpecUncertainty): Record<SpecKey, number> {
  const shares = { massG: 1, balanceCm: 1, swingWeight: 1, twistWeight: 1 };
  for (const key of SPEC_KEYS) {
    const tolerance = aim[key]?.tolerance;
    if (tolerance !== undefined)
      shares[key] = Math.max(LEAST_SHARE, 1 - (GUARD_FACTOR * build[key]) / tolerance);
  }
  return shares;
}

/** Whether shares that were used are kept in hand: none is wider than it must be. */
export const sharesHold = (used: Shares, needed: Record<SpecKey, number>): boolean =>
  SPEC_KEYS.every((key) => (used[key] ?? 1) <= needed[key] + 1e-9);

/** Whether specs lie within those shares of their tolerances. */
export const withinShares = (aim: Aim, specs: KnownSpecs, shares: Record<SpecKey, number>): boolean =>
  SPEC_KEYS.every((key) => {
    const target = aim[key];
    const value = specs[key];
    if (!target || target.priority === 'free') return true;
    return value !== undefined && timesOff(target, value) <= shares[key] + TOLERANCE_SLACK;
  });
