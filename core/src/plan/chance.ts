import { isInside, targetOf, type Aim } from '../aim';
import { SPEC_KEYS, type AxisSpecs, type SpecKey } from '../mass';
import { normalBox, type SpecUncertainty } from '../measure';
import type { Frame } from '../frame';
import type { Dress } from '../sport';
import { changeOutcome, type Change } from './change';
import {
  ERROR_KINDS,
  errorSources,
  specErrors,
  spreadOf,
  type Care,
  type ErrorKind,
  type SpecError,
} from './errors';
import { enoughReadings, passesAlone, type ToCheck } from './enough';
import {
  everySpec,
  readErrors,
  readingErrors,
  startErrors,
  usualInstruments,
  withTaken,
  type Instruments,
  type Readings,
} from './instruments';
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
    const target = targetOf(aim, key);
    const value = specs[key];
    if (!target) return [];
    return [{ key, target, off: value === undefined ? Number.NaN : value - target.value }];
  });
  const alone = aimed.map(({ key, target, off }) => {
    if (Number.isNaN(off)) return 0;
    // What no error moves is judged as a reading is, rounding and all.
    if (spread[key] === 0) return isInside(target, target.value + off) ? 1 : 0;
    return passesAlone(target.tolerance, off, spread[key]);
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

/** The chance of a check, with the readings that it is for. */
export interface CheckChance extends Chance {
  /** Probability that the true values are inside, before any check: by what the start and the build leave uncertain. */
  truly: number;
  readings: Readings;
}

/**
 * The chance that a build passes its check, and that it is truly in tolerance: two numbers, since instruments that share their errors pass a frame that is off,
 * and a check that scatters fails one that is not.
 * @param readings how often each spec is read at start and check
 * @example chanceToPass({ aim, before, after, build, instruments }, everySpec(1)).chance // 0.86
 */
export function chanceToPass(
  { aim, before, after, build, instruments }: ToCheck,
  asked: Readings,
): CheckChance {
  const readings = withTaken(instruments, asked);
  const read = readErrors(readingErrors(before, after, instruments), readings);
  const start = startErrors(before, after, instruments.start, readings);
  return {
    ...chanceOf(aim, after, [...build, ...read]),
    truly: chanceOf(aim, after, [...build, ...start]).chance,
    readings,
  };
}

/** The same with as many readings as are enough. @example chanceWithEnough(check, 0.9).readings.twistWeight // { start: 2, check: 2 } */
export const chanceWithEnough = (check: ToCheck, wanted?: number): CheckChance =>
  chanceToPass(check, enoughReadings(check, wanted).readings);

/** A change to a frame in a dress, as what its check goes by beside the aim. */
export function buildOf(
  frame: Frame,
  before: AxisSpecs,
  dress: Dress,
  change: Change,
  instruments: Instruments,
  care?: Care,
): Omit<ToCheck, 'aim'> {
  const after = changeOutcome(frame, before, dress, change).specs;
  return { before, after, build: specErrors(after, errorSources(frame, dress, change, care)), instruments };
}

/**
 * The same from the change itself. Readings that are left out are one of each.
 * @throws Fault for impossible specs or aims
 * @example chanceOfBuild({ shape, specs, target }, { ...NO_CHANGE, placements }).chance // 0.97
 */
export function chanceOfBuild(
  aimed: Aimed,
  change: Change,
  {
    care,
    instruments,
    readings = everySpec(1),
  }: { care?: Care; instruments?: Instruments | undefined; readings?: Readings | undefined } = {},
): CheckChance {
  return chanceToPass(toCheck(aimed, change, { care, instruments }), readings);
}

/** A change as what its check goes by. @throws Fault for impossible specs or aims */
export function toCheck(
  aimed: Aimed,
  change: Change,
  { care, instruments }: { care?: Care | undefined; instruments?: Instruments | undefined } = {},
): ToCheck {
  const { frame, before } = settleAim(aimed);
  const own = instruments ?? usualInstruments(frame.sport);
  return { ...buildOf(frame, before, {}, change, own, care), aim: aimed.target };
}
