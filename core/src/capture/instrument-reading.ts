import type { Frame } from '../frame';
import { PENDULUM_UNCERTAINTY, corrected, correctionUncertainty } from '../measure';
import { estimateOf } from './estimate';
import {
  typedReading,
  type PendulumSetting,
  type Quantity,
  type Reading,
  type ThreadsSetting,
} from './reading';
import type { SettledCapture } from './settle';

/** What an instrument is good for, in its own unit: g, cm or kg·cm². All are standard uncertainties. */
export interface DataSheet {
  /** Of one reading; repeats lessen it. */
  repeatability: number;
  /** What stays, until a calibration replaces it. */
  accuracy: number;
  resolution: number;
  driftPerHour: number;
  warmUpMinutes: number;
  /** Where a machine turns the frame, cm from the butt; null: at the sport's own axis. */
  axisCm: number | null;
}

/** Of a left/right difference read on a machine, g at the widest part of the head: what repeats lessen, and what not (from memory). */
export const LEFT_RIGHT = { random: 0.2, common: 0.15 };

/** After its warm-up time, e⁻⁴ (2 %) of an instrument's cold error is left. */
export const WARM_UP_FALLS = 4;
/** How far a cold instrument is off, in repeatabilities. */
export const COLD_ERROR = 3;

/** How far an instrument may still be off while it warms up, in its own unit; nothing once it is warm. */
export function coldError({ warmUpMinutes, repeatability }: DataSheet, warmInSeconds: number): number {
  if (!(warmUpMinutes > 0 && warmInSeconds > 0)) return 0;
  const passed = 1 - warmInSeconds / (60 * warmUpMinutes);
  return COLD_ERROR * repeatability * Math.exp(-WARM_UP_FALLS * passed);
}

const HOUR_MS = 3_600_000;
/**
 * A drift follows the day, and the sheet says how fast it is at the most: 1/√2 of that on the average (a sine's root mean square), and after this many hours as far
 * off as two moments of a day lie apart on the average (24/√2π).
 */
const DRIFT_HOURS = 5.4;
const driftOver = ({ driftPerHour }: DataSheet, hours: number): number =>
  driftPerHour * Math.min(hours, DRIFT_HOURS) * Math.SQRT1_2;
/** The swing weight at which a machine's accuracy is said, kg·cm² (from memory): half of it is its zero, half its scale, which errs less on lighter frames. */
const SAID_AT = 300;

/** How much the readings of rods scatter about their means, a standard deviation over all of them; nothing of rods read once. */
function rodScatter(rods: UsedCalibration['rods']): number {
  const freedom = rods.reduce((sum, { reads }) => sum + reads.length - 1, 0);
  const squares = rods.reduce((sum, { reads }) => {
    const mean = readingMean(reads);
    return sum + reads.reduce((of, read) => of + (read - mean) ** 2, 0);
  }, 0);
  return freedom > 1 ? Math.sqrt(squares / freedom) : 0;
}

/** The mean of what an instrument showed: of three swings, of a rod read several times. @example readingMean([320, 321, 322]) // 321 */
export const readingMean = (values: readonly number[]): number =>
  values.reduce((sum, v) => sum + v, 0) / values.length;

export type ReadingValue = Omit<Reading, 'id' | 'setAside'> & { raw?: number };

/** How uncertain the seconds of a film are, standard uncertainties, s: what another film would not share, and what it would. */
export interface FilmTiming {
  random: number;
  common: number;
}

/** A reading that no instrument sends. */
export type ByHand =
  | { means: 'typed' | 'edge-on'; quantity: Quantity; value: number; axisCm?: number | undefined }
  | { means: 'pendulum'; quantity: 'swingWeight'; timing: PendulumSetting }
  | { means: 'threads'; quantity: 'twistWeight'; timing: ThreadsSetting }
  | { means: 'filmed-swing'; quantity: 'swingWeight'; timing: PendulumSetting; film: FilmTiming }
  | { means: 'filmed-twist'; quantity: 'twistWeight'; timing: ThreadsSetting; film: FilmTiming }
  | { means: 'estimate'; quantity: 'swingWeight' | 'twistWeight' };

/** A typed or timed reading, or an estimate, with what it is uncertain by; undefined where an estimate lacks what it needs. */
export function readingByHand(
  frame: Frame,
  body: ByHand,
  { settled }: SettledCapture,
): ReadingValue | undefined {
  const { means, quantity } = body;
  if (means === 'pendulum' || means === 'threads') {
    const { timing } = body;
    return { means, quantity, timing, random: PENDULUM_UNCERTAINTY.seconds, common: 0, source: means };
  }
  if (means === 'filmed-swing' || means === 'filmed-twist') {
    const { timing, film } = body;
    return { means, quantity, timing, ...film, source: means };
  }
  if (means === 'estimate') {
    const known = {
      ...(settled.massG ? { massG: settled.massG.value } : {}),
      ...(settled.balanceCm ? { balanceCm: settled.balanceCm.value } : {}),
    };
    const estimate = estimateOf(frame, quantity, known);
    if (!estimate) return undefined;
    const { value, uncertainty } = estimate;
    return { means, quantity, value, random: 0, common: uncertainty, source: means };
  }
  return typedReading(frame.sport, quantity, body.value, means, body.axisCm);
}

/** A calibration as far as a reading is corrected by it. */
export interface UsedCalibration {
  takenAt: string;
  slope: number;
  offset: number;
  rods: readonly { trueValue: number; reads: readonly number[] }[];
}

export interface InstrumentReading {
  /** The instrument: readings of one share what repeats do not lessen. */
  source: string;
  sheet: DataSheet;
  /** Whether the instrument is one that is calibrated with rods. */
  calibrates: boolean;
  /** The calibration that counts; a refused one is not given. */
  calibration: UsedCalibration | undefined;
  quantity: Quantity;
  /** What it showed, one value or several swings. */
  raw: readonly number[];
  takenAt: string;
  /** How far it still is from warm, in its own unit. */
  coldError: number;
}

/** A reading of an instrument, corrected by its calibration, with what it is uncertain by. */
export function readingByInstrument(r: InstrumentReading): ReadingValue {
  const { quantity, sheet, calibration, source } = r;
  const raw = readingMean(r.raw);
  const means = quantity === 'twistWeight' ? 'edge-on' : 'instrument';
  const base = { quantity, means, raw, source } as const;
  if (quantity === 'leftRightG') return { ...base, value: raw, ...LEFT_RIGHT };
  const sheetSays = Math.hypot(sheet.repeatability, sheet.resolution / Math.sqrt(12));
  const axis = r.calibrates && sheet.axisCm !== null ? { axisCm: sheet.axisCm } : {};
  if (!calibration || !r.calibrates) {
    const drift = driftOver(sheet, DRIFT_HOURS) * Math.SQRT1_2;
    const half = sheet.accuracy * Math.SQRT1_2;
    const accuracy = r.calibrates ? Math.hypot(half, (half * raw) / SAID_AT) : sheet.accuracy;
    const common = Math.hypot(accuracy, drift, r.coldError);
    const scale = r.calibrates ? { scale: half / SAID_AT } : {};
    return { ...base, ...axis, value: raw, random: sheetSays, common, ...scale };
  }
  const value = corrected(calibration, raw);
  // A machine that scattered more on the rods than its sheet says scatters more on frames.
  const random = Math.max(sheetSays, rodScatter(calibration.rods));
  const fewest = Math.min(...calibration.rods.map((rod) => rod.reads.length));
  const left = correctionUncertainty(
    calibration.rods.map((rod) => rod.trueValue),
    random / Math.sqrt(fewest),
    value,
  );
  // A clock that was set back makes no drift negative.
  const hours = Math.max(0, (Date.parse(r.takenAt) - Date.parse(calibration.takenAt)) / HOUR_MS);
  const common = Math.hypot(left.value, driftOver(sheet, hours), r.coldError);
  return { ...base, ...axis, value, random, common, scale: left.scale };
}
