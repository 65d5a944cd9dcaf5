import { isAimed, type Aim } from '../aim';
import { noticeableStep } from '../compare';
import type { Frame } from '../frame';
import type { AxisSpecs } from '../mass';
import { SPEC_KEYS, type SpecKey } from '../spec';
import type { SportData } from '../sport';
import { chanceToPass } from './chance';
import { NO_CHANGE, changeOutcome, type Change } from './change';
import { judgeable, type ToCheck } from './enough';
import { errorSources, specErrors } from './errors';
import { BENCH_READINGS, bySpec, everySpec, usualInstruments, type Instruments } from './instruments';
import { fromSpot } from './spot';

/** What a build usually puts on, in plain grams: the steps of the sport's programmes at tip, sides and handle. */
function usualChange(frame: Frame): Change {
  const { tipG, pairG, handleG } = frame.sport.programmeSteps;
  const lay = (zone: 'tip' | 'sides' | 'handle', massG: number) =>
    fromSpot(frame, { at: { zone }, massG }, { id: zone, partId: zone });
  return { ...NO_CHANGE, placements: [lay('tip', tipG), lay('sides', pairG), lay('handle', handleG)] };
}

/** A build of a frame as its check goes by it: a usual one where nothing is planned yet. */
export function usualBuild(
  frame: Frame,
  before: AxisSpecs,
  instruments: Instruments,
  change: Change = usualChange(frame),
): Omit<ToCheck, 'aim'> {
  const after = changeOutcome(frame, before, {}, change).specs;
  return { before, after, build: specErrors(after, errorSources(frame, {}, change)), instruments };
}

/** The next larger number of two digits, so that a tolerance reads well. @example roundUp(0.3093) // 0.31 */
function roundUp(value: number): number {
  const step = 10 ** (Math.floor(Math.log10(value)) - 1);
  return Number((Math.ceil(value / step - 1e-9) * step).toPrecision(2));
}

/** The tolerance that a spec of an aim begins with. */
export interface Tolerance {
  tolerance: number;
  /** The least that these instruments can judge with two readings each. */
  judgeable: number;
}

/**
 * The tolerances that an aim begins with: the sport's, or the shop's own, and where the instruments cannot judge that with two readings at start and check, the least
 * that they can.
 * @param change what is built, where that is known; a usual build if left out
 * @example startingTolerances(frame, before, instruments).twistWeight // { tolerance: 0.31, judgeable: 0.3093 }
 */
export function startingTolerances(
  frame: Frame,
  before: AxisSpecs,
  instruments: Instruments = usualInstruments(frame.sport),
  change?: Change,
): Record<SpecKey, Tolerance> {
  const least = judgeable(usualBuild(frame, before, instruments, change), everySpec(BENCH_READINGS));
  return bySpec((key) => {
    const own = frame.sport.tolerance[key];
    return { tolerance: least[key] > own ? roundUp(least[key]) : own, judgeable: least[key] };
  });
}

/** A tolerance of an aim that these instruments cannot judge, with the least that they can. */
export interface TooTight {
  spec: SpecKey;
  tolerance: number;
  judgeable: number;
}

/**
 * Tolerances that no five readings at start and check can judge: a check of a frame that is right would fail too often, or pass one that is not.
 * @example tooTight(frame, before, instruments, aim) // [{ spec: 'twistWeight', tolerance: 0.1, judgeable: 0.24 }]
 */
export function tooTight(frame: Frame, before: AxisSpecs, instruments: Instruments, aim: Aim): TooTight[] {
  const least = judgeable(usualBuild(frame, before, instruments));
  return SPEC_KEYS.flatMap((spec) => {
    const target = aim[spec];
    if (!isAimed(target) || target.tolerance >= least[spec]) return [];
    return [{ spec, tolerance: target.tolerance, judgeable: roundUp(least[spec]) }];
  });
}

/**
 * Specs of an aim that these instruments judge only to more than a hand notices, with two readings at start and check: there a check says little.
 * @example tooCoarse(frame, before, instruments, aim) // [{ spec: 'twistWeight', judgeable: 1.4 }] of a machine edge-on
 */
export function tooCoarse(
  frame: Frame,
  before: AxisSpecs,
  instruments: Instruments,
  aim: Aim,
): { spec: SpecKey; judgeable: number }[] {
  const least = judgeable(usualBuild(frame, before, instruments), everySpec(BENCH_READINGS));
  const step = (spec: SpecKey): number => noticeableStep(frame.sport.noticeable, spec, before.swingWeight);
  return SPEC_KEYS.flatMap((spec) =>
    isAimed(aim[spec]) && least[spec] > step(spec) ? [{ spec, judgeable: roundUp(least[spec]) }] : [],
  );
}

/** A sport with the tolerances that an aim begins with on this frame. @example judgedSport(frame, before, instruments).tolerance.twistWeight // 0.31 */
export function judgedSport(
  frame: Frame,
  before: AxisSpecs,
  instruments: Instruments,
  change?: Change,
): SportData {
  const found = startingTolerances(frame, before, instruments, change);
  return { ...frame.sport, tolerance: bySpec((key) => found[key].tolerance) };
}

/** A usual build that comes out as aimed, to the tolerances that an aim begins with. */
function usualCheck(frame: Frame, before: AxisSpecs, instruments: Instruments): ToCheck {
  const build = usualBuild(frame, before, instruments);
  const tolerances = startingTolerances(frame, before, instruments);
  const after = { ...build.after, twistWeight: build.after.twistWeight ?? frame.sport.usual.twistWeight };
  const aim: Aim = {};
  for (const key of SPEC_KEYS) aim[key] = { value: after[key], tolerance: tolerances[key].tolerance };
  return { ...build, aim, after };
}

/** Reading the start twice has to let so much less be judged, as a share: below, one reading is enough. */
const WORTH_TWICE = 0.9;

/**
 * How often to read each spec of a frame before anything is aimed at: twice where one reading cannot judge the tolerance that the shop works to, and two can judge
 * one that is clearly tighter.
 * @param before as far as it is known, or the sport's usual frame
 * @example readingsToStart(frame, before, instruments).twistWeight // 2
 */
export function readingsToStart(
  frame: Frame,
  before: AxisSpecs,
  instruments: Instruments,
): Record<SpecKey, number> {
  const build = usualBuild(frame, before, instruments);
  const at = (start: number) =>
    judgeable(
      build,
      bySpec(() => ({ start, check: BENCH_READINGS })),
    );
  const [once, twice] = [at(1), at(BENCH_READINGS)];
  const times = bySpec((key) =>
    once[key] > frame.sport.tolerance[key] && twice[key] < WORTH_TWICE * once[key] ? BENCH_READINGS : 1,
  );
  // Edge-on less face-on takes as many of the one as of the other.
  return instruments.edgeOn
    ? { ...times, swingWeight: Math.max(times.swingWeight, times.twistWeight) }
    : times;
}

/**
 * The chance that a usual build passes its check where the start was read so often, and the check twice.
 * @example chanceWithStart(frame, before, instruments, { massG: 1, … }) // 0.82
 */
export function chanceWithStart(
  frame: Frame,
  before: AxisSpecs,
  instruments: Instruments,
  times: Record<SpecKey, number>,
): number {
  const readings = bySpec((key) => ({ start: times[key], check: BENCH_READINGS }));
  return chanceToPass(usualCheck(frame, before, instruments), readings).chance;
}
