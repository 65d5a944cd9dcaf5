import type { Frame } from '../frame';
import type { AxisSpecs } from '../mass';
import type { SpecKey } from '../spec';
import type { SportData } from '../sport';
import { NO_CHANGE, changeOutcome, type Change } from './change';
import { WANTED_CHANCE, enoughReadings, judgeable, type ToCheck } from './enough';
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

/**
 * How often to read each spec of a frame before anything is aimed at: so often that a usual build to the tolerances that an aim begins with passes as often as
 * wanted.
 * @param before as far as it is known, or the sport's usual frame
 * @example readingsToStart(frame, before, instruments).twistWeight // 2
 */
export function readingsToStart(
  frame: Frame,
  before: AxisSpecs,
  instruments: Instruments,
  wanted = WANTED_CHANCE,
): Record<SpecKey, number> {
  const build = usualBuild(frame, before, instruments);
  const tolerances = startingTolerances(frame, before, instruments);
  const aim = Object.fromEntries(
    Object.entries(tolerances).map(([key, { tolerance }]) => [
      key,
      { value: build.after[key as SpecKey] ?? 0, tolerance },
    ]),
  );
  const whole = { ...build, aim, after: { twistWeight: 0, ...build.after } };
  const { readings } = enoughReadings(whole, wanted, BENCH_READINGS);
  return bySpec((key) => readings[key].start);
}
