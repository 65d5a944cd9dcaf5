import { Fault } from '../fault';

/** A rod of known value and what the machine reads for it, kg·cm². */
export interface RodReading {
  trueValue: number;
  read: number;
}

export interface Calibration {
  /** read = slope · true + offset. */
  slope: number;
  offset: number;
  /** What is left at each rod after correction, in the order given, kg·cm². */
  residuals: number[];
  /** Why the machine is refused; undefined where it may be used. */
  refused?: 'rod-off' | 'slope-off';
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

/** A reading corrected by the inverse of the line. */
export const corrected = ({ slope, offset }: Pick<Calibration, 'slope' | 'offset'>, read: number): number =>
  (read - offset) / slope;
