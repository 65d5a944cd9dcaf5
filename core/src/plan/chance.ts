import { isInside, type Aim } from '../aim';
import { SPEC_KEYS, type AxisSpecs, type SpecKey } from '../mass';
import { normalBelow, normalBox, type SpecUncertainty } from '../measure';
import type { Frame } from '../frame';
import { changeOutcome, type Change } from './change';
import {
  ERROR_KINDS,
  errorSources,
  instrumentErrors,
  specErrors,
  spreadOf,
  type Care,
  type ErrorKind,
  type SpecError,
} from './errors';
import { settleAim, type Aimed } from './settle';

export interface Chance {
  /** Probability that a check finds all specs inside their tolerances, 0 to 1. */
  chance: number;
  /** Standard uncertainty of each spec, from all errors. */
  spread: SpecUncertainty;
  /** The spec that fails most often by itself; undefined where none is aimed at. */
  narrowest: SpecKey | undefined;
  /** Shares of that spec's variance, adding to 1; those that have none are left out. Largest first. */
  contributions: { what: ErrorKind; share: number }[];
}

/**
 * The chance that a build passes its check: the joint probability that every spec of the aim lies within its tolerance, from independent errors that each
 * may touch several specs (normal, to first order; multivariate normal box, see {@link normalBox}).
 * @param specs as planned @param errors of the build and of the instruments that check
 * @example chanceOf(aim, plan.specs, errors).chance // 0.97
 */
export function chanceOf(aim: Aim, specs: AxisSpecs, errors: readonly SpecError[]): Chance {
  const spread = spreadOf(errors);
  const aimed = SPEC_KEYS.flatMap((key) => {
    const target = aim[key];
    const value = specs[key];
    if (!target || target.priority === 'free') return [];
    return [{ key, target, off: value === undefined ? Number.NaN : value - target.value }];
  });
  const alone = aimed.map(({ key, target, off }) => {
    const u = spread[key];
    if (Number.isNaN(off)) return 0;
    if (u === 0) return isInside(target, target.value + off) ? 1 : 0;
    return normalBelow((target.tolerance - off) / u) - normalBelow((-target.tolerance - off) / u);
  });
  const worst = alone.indexOf(Math.min(...alone));
  const narrowest = aimed[worst]?.key;
  // A spec that no error touches is inside or it is not.
  const moving = aimed.filter(({ key }) => spread[key] > 0);
  // What is aimed at and not known is not inside.
  const settled = aimed.every(({ key, off }, i) => !Number.isNaN(off) && (spread[key] > 0 || alone[i] === 1));
  const chance = settled
    ? normalBox(
        errors.map(({ of }) => moving.map(({ key }) => of[key])),
        moving.map(({ target, off }) => -target.tolerance - off),
        moving.map(({ target, off }) => target.tolerance - off),
      )
    : 0;
  const variance = narrowest ? spread[narrowest] ** 2 : 0;
  const contributions = ERROR_KINDS.flatMap((what) => {
    if (!narrowest || variance === 0) return [];
    const share = errors.reduce((sum, e) => sum + (e.what === what ? e.of[narrowest] ** 2 : 0), 0) / variance;
    return share > 0 ? [{ what, share }] : [];
  });
  return {
    chance: Math.min(1, Math.max(0, chance)),
    spread,
    narrowest,
    contributions: contributions.toSorted((a, b) => b.share - a.share),
  };
}

/**
 * The chance that what a change makes of a frame passes its check: the errors of the build and those of the instruments that check.
 * @param after specs as planned @param instruments standard uncertainties; the sport's typical ones if left out
 */
export const chanceToPass = (
  { sport }: Frame,
  aim: Aim,
  after: AxisSpecs,
  build: readonly SpecError[],
  instruments: SpecUncertainty = sport.typicalReading,
): Chance => chanceOf(aim, after, [...build, ...instrumentErrors(instruments)]);

/**
 * The same from the change itself.
 * @throws Fault for impossible specs or aims
 * @example chanceOfBuild({ shape, specs, target }, { ...NO_CHANGE, placements }).chance // 0.97
 */
export function chanceOfBuild(
  aimed: Aimed,
  change: Change,
  { care, instruments }: { care?: Care; instruments?: SpecUncertainty | undefined } = {},
): Chance {
  const { frame, before } = settleAim(aimed);
  const after = changeOutcome(frame, before, {}, change).specs;
  const build = specErrors(after, errorSources(frame, {}, change, care));
  return chanceToPass(frame, aimed.target, after, build, instruments);
}
