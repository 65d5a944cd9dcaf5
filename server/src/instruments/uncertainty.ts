import {
  PENDULUM_UNCERTAINTY,
  corrected,
  correctionUncertainty,
  estimateOf,
  typedReading,
  type Frame,
  type Quantity,
  type Reading,
  type SettledCapture,
} from '@kevro/core';
import type { CalibrationRecord, DataSheet, InstrumentKind, ReadBodyOf } from '@kevro/contract';

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
/** A drift follows the day: after this many hours it has gone as far as it goes. */
const DRIFT_HOURS = 8;

export type ReadingValue = Omit<Reading, 'id' | 'setAside'> & { raw?: number };

/** A typed or timed reading, or an estimate, with what it is uncertain by; undefined where an estimate lacks what it needs. */
export function readingByHand(
  frame: Frame,
  body: ReadBodyOf<'addReading'>,
  { settled }: SettledCapture,
): ReadingValue | undefined {
  const { means, quantity } = body;
  if (means === 'pendulum' || means === 'threads') {
    const { timing } = body;
    return { means, quantity, timing, random: PENDULUM_UNCERTAINTY.seconds, common: 0, source: means };
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
  return typedReading(quantity, body.value, means);
}

export interface InstrumentReading {
  id: string;
  kind: InstrumentKind;
  sheet: DataSheet;
  /** The calibration that counts; a refused one is not given. */
  calibration: CalibrationRecord | undefined;
  quantity: Quantity;
  /** The mean of the raw values. */
  raw: number;
  takenAt: string;
  /** How far it still is from warm, in its own unit. */
  coldError: number;
}

/** A reading of an instrument, corrected by its calibration, with what it is uncertain by. */
export function readingByInstrument(r: InstrumentReading): ReadingValue {
  const { quantity, raw, sheet, calibration } = r;
  const means = quantity === 'twistWeight' ? 'edge-on' : 'instrument';
  const base = { quantity, means, raw, source: r.id } as const;
  if (quantity === 'leftRightG') return { ...base, value: raw, ...LEFT_RIGHT };
  const random = Math.hypot(sheet.repeatability, sheet.resolution / Math.sqrt(12));
  const axis = r.kind === 'machine' && sheet.axisCm !== null ? { axisCm: sheet.axisCm } : {};
  const driftOver = (hours: number): number => sheet.driftPerHour * Math.min(hours, DRIFT_HOURS);
  if (!calibration || r.kind !== 'machine') {
    const common = Math.hypot(sheet.accuracy, driftOver(DRIFT_HOURS) * Math.SQRT1_2, r.coldError);
    const scale = r.kind === 'machine' ? { scale: sheet.accuracy / 300 } : {};
    return { ...base, ...axis, value: raw, random, common, ...scale };
  }
  const value = corrected(calibration, raw);
  const fewest = Math.min(...calibration.rods.map((rod) => rod.reads.length));
  const left = correctionUncertainty(
    calibration.rods.map((rod) => rod.trueValue),
    random / Math.sqrt(fewest),
    value,
  );
  const hours = (Date.parse(r.takenAt) - Date.parse(calibration.takenAt)) / HOUR_MS;
  const common = Math.hypot(left.value, driftOver(hours), r.coldError);
  return { ...base, ...axis, value, random, common, scale: left.scale };
}
