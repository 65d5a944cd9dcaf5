import type { AxisSpecs } from '../mass';
import {
  partedMean,
  usualDrift,
  usualParts,
  wholeOf,
  type Parted,
  type SpecParted,
  type SpecUncertainty,
} from '../measure';
import { SPEC_KEYS, bySpec, type SpecKey } from '../spec';
import type { SportData } from '../sport';
import { pullOf, type SpecError } from './errors';

/** How often each spec is read at the start and at the check, 1 to 5. */
export type Readings = Record<SpecKey, { start: number; check: number }>;
/** More readings than this nobody takes. */
export const MOST_READINGS = 5;
/** So many a bench takes of each where one is not enough. */
export const BENCH_READINGS = 2;

/** With what a frame is measured before a build and after it. Parts are those of one reading. */
export interface Instruments {
  /** What each spec of the start was measured with; a spec that is left out is exact. */
  start: Partial<SpecParted>;
  check: SpecParted;
  /** Whether start and check have the same instrument and calibration: what both share cancels then, but for drift. */
  same: Record<SpecKey, boolean>;
  /** How far an instrument drifts from start to check, standard uncertainty. */
  drift: SpecUncertainty;
  /** How often the start was read, where it is measured already: that does not change any more. */
  taken?: Partial<Record<SpecKey, number>> | undefined;
  /** The twist weight is read edge-on less face-on: as often as it is read, the swing weight is. */
  edgeOn?: boolean | undefined;
}

/** Of every spec the same number of readings. @example everySpec(2).massG // { start: 2, check: 2 } */
export const everySpec = (times: number): Readings => bySpec(() => ({ start: times, check: times }));

/** The typical instruments of a sport in their usual parts, the same at start and check. */
export function usualInstruments({ typicalReading }: Pick<SportData, 'typicalReading'>): Instruments {
  const parts = usualParts(typicalReading);
  return { start: parts, check: parts, same: bySpec(() => true), drift: usualDrift(parts) };
}

/** A measurement, as far as it says how well a later one will be read. */
export interface MeasuredWith {
  /** Of the values as they are, after so many readings. */
  parts: SpecParted;
  counts: Partial<Record<SpecKey, number>>;
  /** Quantities that were estimated: the check has to measure them. */
  estimated: readonly string[];
  edgeOn?: boolean | undefined;
}

/** How a spec was read: by which means, how often, and by which instruments in which calibrations. */
export interface HowRead {
  means: readonly string[];
  count: number;
  instruments: readonly string[];
  calibrations: readonly string[];
}
type HowEach = Partial<Record<SpecKey, HowRead>>;

/** A stored measurement as it says how well a later one will be read. */
export const measuredWith = ({
  parts,
  estimated,
  how,
}: Pick<MeasuredWith, 'parts' | 'estimated'> & { how: HowEach }): MeasuredWith => ({
  parts,
  estimated,
  edgeOn: how.twistWeight?.means.includes('edge-on') ?? false,
  counts: Object.fromEntries(
    SPEC_KEYS.flatMap((key) => {
      const one = how[key];
      return one ? [[key, Math.min(MOST_READINGS, Math.max(1, one.count))]] : [];
    }),
  ),
});

const alike = (a: readonly string[], b: readonly string[]): boolean =>
  a.toSorted().join(' ') === b.toSorted().join(' ');

/** Which specs of two measurements were read by the same means, instrument and calibration; what nobody knows of either is not known to be the same. */
export const readBySame = (a: HowEach, b: HowEach): Record<SpecKey, boolean> =>
  bySpec((key) => {
    const [one, other] = [a[key], b[key]];
    return (
      one !== undefined &&
      other !== undefined &&
      alike(one.means, other.means) &&
      alike(one.instruments, other.instruments) &&
      alike(one.calibrations, other.calibrations)
    );
  });

/** An instrument as it is now: with the calibration that counts, if it has one. */
export interface InstrumentNow {
  id: string;
  retired: boolean;
  calibrationId: string | null;
}

/** Specs of a measurement whose instrument is gone by now, or has another calibration. */
export const renewedSince = (how: HowEach, now: readonly InstrumentNow[]): SpecKey[] =>
  SPEC_KEYS.filter((key) => {
    const read = how[key];
    return read?.instruments.some((id) => {
      const instrument = now.find((one) => one.id === id);
      if (!instrument || instrument.retired) return true;
      const { calibrationId } = instrument;
      return calibrationId !== null && !read.calibrations.includes(calibrationId);
    });
  });

/**
 * The instruments of a build that starts from a measurement: the check is read with what the start was read with.
 * @param renewed specs whose instrument or calibration is another by now
 * @example instrumentsAfter(sport, measurement).taken // { massG: 2, … }
 */
export function instrumentsAfter(
  { typicalReading }: Pick<SportData, 'typicalReading'>,
  { parts, counts, estimated, edgeOn = false }: MeasuredWith,
  renewed: readonly SpecKey[] = [],
): Instruments {
  const typical = usualParts(typicalReading);
  const taken = bySpec((key) => counts[key] ?? 1);
  const start = bySpec((key) => partedMean(parts[key], 1 / taken[key]));
  const one = edgeOn ? { ...start, twistWeight: oneEdgeOn(parts.twistWeight, taken) } : start;
  const check = bySpec((key) => (estimated.includes(key) ? typical[key] : one[key]));
  return {
    start,
    check,
    same: bySpec((key) => !estimated.includes(key) && !renewed.includes(key)),
    drift: usualDrift(check),
    taken,
    edgeOn,
  };
}

/** One reading edge-on less one face-on, from the difference of their means: its scatter is r √(1/n + 1/m). */
function oneEdgeOn(mean: Parted, { twistWeight, swingWeight }: Record<SpecKey, number>): Parted {
  return partedMean(mean, (1 / twistWeight + 1 / swingWeight) / 2);
}

/** The readings of a plan whose start is measured already: as often as it was read, and the check as often as asked. */
export const withTaken = ({ taken }: Instruments, readings: Readings): Readings =>
  taken
    ? bySpec((key) => ({ start: taken[key] ?? readings[key].start, check: readings[key].check }))
    : readings;

/** One error of reading, as what it does to each spec of the check when it is read once, and whether repeats of the start or of the check lessen it. */
export interface ReadingError {
  key: SpecKey;
  lessenedBy: 'start' | 'check' | undefined;
  of: Record<SpecKey, number>;
}

/**
 * What the instruments add to what a check reads: target − (error of the start) + (error of the check). The start's errors enter as the build moves them: the
 * balance follows the weight. With the same instrument and calibration what both share cancels, but for drift; otherwise both count.
 * @example readingErrors(before, after, usualInstruments(sport)).length
 */
export function readingErrors(before: AxisSpecs, after: AxisSpecs, instruments: Instruments): ReadingError[] {
  const moved = pullOf(before, after);
  const found: ReadingError[] = [];
  const put = (key: SpecKey, lessenedBy: ReadingError['lessenedBy'], of: Record<SpecKey, number>): void => {
    if (SPEC_KEYS.some((spec) => of[spec] !== 0)) found.push({ key, lessenedBy, of });
  };
  for (const key of SPEC_KEYS) {
    const start: Parted = instruments.start[key] ?? { random: 0, common: 0 };
    const check = instruments.check[key];
    const only = (u: number): Record<SpecKey, number> => bySpec((spec) => (spec === key ? u : 0));
    put(key, 'start', moved(key, start.random));
    put(key, 'check', only(check.random));
    if (instruments.same[key] && instruments.start[key]) {
      const both = moved(key, start.common);
      put(key, undefined, { ...both, [key]: both[key] - start.common });
      put(key, undefined, only(instruments.drift[key]));
    } else {
      put(key, undefined, moved(key, start.common));
      put(key, undefined, only(check.common));
    }
  }
  return found;
}

/** Those errors with so many readings, as the other errors of a check. */
export const readErrors = (errors: readonly ReadingError[], readings: Readings): SpecError[] =>
  errors.map(({ key, lessenedBy, of }) => {
    const by = lessenedBy ? 1 / Math.sqrt(readings[key][lessenedBy]) : 1;
    return { what: 'instruments', of: bySpec((spec) => of[spec] * by) };
  });

/** What the start leaves uncertain of the true values after a build: both its parts, since nothing cancels of the truth. */
export function startErrors(
  before: AxisSpecs,
  after: AxisSpecs,
  start: Partial<SpecParted>,
  readings: Readings,
): SpecError[] {
  const moved = pullOf(before, after);
  return SPEC_KEYS.flatMap((key): SpecError[] => {
    const parts = start[key];
    if (!parts) return [];
    const u = wholeOf(partedMean(parts, readings[key].start));
    return u > 0 ? [{ what: 'instruments', of: moved(key, u) }] : [];
  });
}
