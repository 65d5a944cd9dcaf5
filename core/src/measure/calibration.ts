import { Fault } from '../fault';

/** A rod of known value and what the machine reads for it, kg·cm². */
export interface RodReading {
  trueValue: number;
  read: number;
}

export const REFUSALS = ['rod-off', 'slope-off'] as const;
export type Refusal = (typeof REFUSALS)[number];

export interface Calibration {
  /** read = slope · true + offset. */
  slope: number;
  offset: number;
  /** What is left at each rod after correction, in the order given, kg·cm². */
  residuals: number[];
  /** Why the machine is refused; undefined where it may be used. */
  refused?: Refusal;
}

/** A rod may be off by this much after correction (common practice). */
export const ROD_TOLERANCE = 1;
export const SLOPE_RANGE = [0.97, 1.03] as const;

/**
 * The calibration of a swing-weight machine: least-squares line through (true, read). Refused where a rod is still off by over 1 after
 * correction, or the slope lies outside 0.97 to 1.03.
 * @param rods at least two rods of different value
 * @throws Fault `too-few-rods`
 * @example calibrate([{ trueValue: 100, read: 101 }, { trueValue: 300, read: 303 }]).slope // 1.01
 */
export function calibrate(rods: readonly RodReading[]): Calibration {
  const n = rods.length;
  const meanTrue = rods.reduce((sum, r) => sum + r.trueValue, 0) / n;
  const meanRead = rods.reduce((sum, r) => sum + r.read, 0) / n;
  const spread = rods.reduce((sum, r) => sum + (r.trueValue - meanTrue) ** 2, 0);
  if (n < 2 || !(spread > 0)) throw new Fault({ code: 'too-few-rods', path: 'rods' });
  const slope = rods.reduce((sum, r) => sum + (r.trueValue - meanTrue) * (r.read - meanRead), 0) / spread;
  const line = { slope, offset: meanRead - slope * meanTrue };
  const residuals = rods.map((r) => corrected(line, r.read) - r.trueValue);
  if (!(slope >= SLOPE_RANGE[0] && slope <= SLOPE_RANGE[1]))
    return { ...line, residuals, refused: 'slope-off' };
  if (residuals.some((r) => Math.abs(r) > ROD_TOLERANCE)) return { ...line, residuals, refused: 'rod-off' };
  return { ...line, residuals };
}

/** The calibration by rods that were each read several times: each counts with its mean. @throws Fault `too-few-rods` */
export const calibrateReads = (
  rods: readonly { trueValue: number; reads: readonly number[] }[],
): Calibration =>
  calibrate(
    rods.map(({ trueValue, reads }) => ({
      trueValue,
      read: reads.reduce((sum, v) => sum + v, 0) / reads.length,
    })),
  );

/** How a calibration stands. */
export const CALIBRATION_STATES = ['fresh', 'stale', 'never', 'refused', 'not-needed'] as const;
export type CalibrationState = (typeof CALIBRATION_STATES)[number];

const HOUR_MS = 3_600_000;

/** How the calibration of a machine that arrived last stands, by the hours that the shop lets one count. */
export function calibrationState(
  last: { takenAt: string; refused: string | null } | undefined,
  countsHours: number,
  now: string,
): CalibrationState {
  if (!last) return 'never';
  if (last.refused !== null) return 'refused';
  return Date.parse(now) - Date.parse(last.takenAt) > countsHours * HOUR_MS ? 'stale' : 'fresh';
}

/** A reading corrected by the inverse of the line. */
export const corrected = ({ slope, offset }: Pick<Calibration, 'slope' | 'offset'>, read: number): number =>
  (read - offset) / slope;

/** The rods a swing-weight machine is calibrated with, kg·cm² (common practice). */
export const RODS = [100, 200, 300] as const;
/** Standard uncertainty of a rod's own value, kg·cm² (from memory). */
export const ROD_UNCERTAINTY = 0.25;

/**
 * What a calibration leaves uncertain: of a corrected reading at a value, and of the scale. u(x) = u_r √(1/n + (x − x̄)²/Σ(x_i − x̄)²), u_r the standard
 * uncertainty of one rod's mean reading and of the rod itself. Source: the straight calibration line of JCGM 100:2008, H.3.
 * @param trueValues of the rods, kg·cm² @param rodReading standard uncertainty of one rod's mean reading @param at corrected value, kg·cm²
 * @example correctionUncertainty([100, 200, 300], 0.5, 200).value // 0.32
 */
export function correctionUncertainty(
  trueValues: readonly number[],
  rodReading: number,
  at: number,
): { value: number; scale: number } {
  const n = trueValues.length;
  const mean = trueValues.reduce((sum, v) => sum + v, 0) / n;
  const spread = trueValues.reduce((sum, v) => sum + (v - mean) ** 2, 0);
  const u = Math.hypot(rodReading, ROD_UNCERTAINTY);
  return { value: u * Math.sqrt(1 / n + (at - mean) ** 2 / spread), scale: u / Math.sqrt(spread) };
}
