import { targetOf, type Aim } from '../aim';
import { noticeableStep } from '../compare';
import type { Frame } from '../frame';
import type { AxisSpecs } from '../mass';
import { bySpec, SPEC_KEYS, type SpecKey } from '../spec';
import type { SportData } from '../sport';
import { buildOf, chanceToPass } from './chance';
import { NO_CHANGE, type Change } from './change';
import { judgeable, type ToCheck } from './enough';
import { BENCH_READINGS, everySpec, type Instruments } from './instruments';
import { fromSpot } from './spot';

/** What a build usually puts on, in plain grams: the steps of the sport's programmes at tip, sides and handle. */
function usualChange(frame: Frame): Change {
  const { tipG, pairG, handleG } = frame.sport.programmeSteps;
  const lay = (zone: 'tip' | 'sides' | 'handle', massG: number) =>
    fromSpot(frame, { at: { zone }, massG }, { id: zone, partId: zone });
  return { ...NO_CHANGE, placements: [lay('tip', tipG), lay('sides', pairG), lay('handle', handleG)] };
}

/** A usual build of a frame, before anything is planned: what its check goes by. */
export const usualBuild = (frame: Frame, before: AxisSpecs, instruments: Instruments): Omit<ToCheck, 'aim'> =>
  buildOf(frame, before, {}, usualChange(frame), instruments);

/** The next larger number of two digits, so that a tolerance reads well. @example roundUp(0.3093) // 0.31 */
function roundUp(value: number): number {
  const step = 10 ** (Math.floor(Math.log10(value)) - 1);
  return Number((Math.ceil(value / step - 1e-9) * step).toPrecision(2));
}

/**
 * The tolerances that an aim begins with: the sport's, or the shop's own, and where the instruments cannot judge that with two readings at start and check, the least
 * that they can.
 * @param build what is built, where that is known; else {@link usualBuild}
 * @example startingTolerances(frame.sport, usualBuild(frame, before, instruments)).twistWeight // 0.31
 */
export function startingTolerances(
  { tolerance }: Pick<SportData, 'tolerance'>,
  build: Omit<ToCheck, 'aim'>,
): Record<SpecKey, number> {
  const least = judgeable(build, everySpec(BENCH_READINGS));
  return bySpec((key) => (least[key] > tolerance[key] ? roundUp(least[key]) : tolerance[key]));
}

/** A sport with the tolerances that an aim begins with. @example judgedSport(sport, build).tolerance.twistWeight // 0.31 */
export const judgedSport = (sport: SportData, build: Omit<ToCheck, 'aim'>): SportData => ({
  ...sport,
  tolerance: startingTolerances(sport, build),
});

/** A spec of an aim that these instruments judge badly, and to what they can. */
export interface HardToJudge {
  spec: SpecKey;
  /** `tight`: no five readings at start and check can judge its tolerance. `coarse`: two judge it only to more than a hand notices, so that a check says little. */
  because: 'tight' | 'coarse';
  tolerance: number;
  judgeable: number;
}

/**
 * What of an aim these instruments judge badly: a check of a frame that is right would fail too often, or pass one that is not.
 * @example hardToJudge(frame, before, instruments, aim) // [{ spec: 'twistWeight', because: 'tight', tolerance: 0.1, judgeable: 0.24 }]
 */
export function hardToJudge(
  frame: Frame,
  before: AxisSpecs,
  instruments: Instruments,
  aim: Aim,
): HardToJudge[] {
  const build = usualBuild(frame, before, instruments);
  const [most, usual] = [judgeable(build), judgeable(build, everySpec(BENCH_READINGS))];
  return SPEC_KEYS.flatMap((spec): HardToJudge[] => {
    const target = targetOf(aim, spec);
    if (!target) return [];
    const { tolerance } = target;
    if (tolerance < most[spec])
      return [{ spec, because: 'tight', tolerance, judgeable: roundUp(most[spec]) }];
    const step = noticeableStep(frame.sport.noticeable, spec, before.swingWeight);
    return usual[spec] > step
      ? [{ spec, because: 'coarse', tolerance, judgeable: roundUp(usual[spec]) }]
      : [];
  });
}

/** A usual build that comes out as aimed, to the tolerances that an aim begins with. */
function usualCheck(frame: Frame, before: AxisSpecs, instruments: Instruments): ToCheck {
  const build = usualBuild(frame, before, instruments);
  const tolerances = startingTolerances(frame.sport, build);
  const after = { ...build.after, twistWeight: build.after.twistWeight ?? frame.sport.usual.twistWeight };
  const aim: Aim = {};
  for (const key of SPEC_KEYS) aim[key] = { value: after[key], tolerance: tolerances[key] };
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
