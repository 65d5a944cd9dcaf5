import { Fault } from '../fault';

export interface Repeats {
  /** Mean of what is kept. */
  mean: number;
  /** Standard uncertainty of the mean: of type A from the spread with Student's t, not below the instrument's own over √n. */
  uncertainty: number;
  /** Places in the list that look like outliers; they are pointed out, and left out of the mean only where `setAside` names them. */
  outliers: number[];
}

/** The middle one of some numbers, or the mean of the two in the middle. @example median([3, 1, 2, 10]) // 2.5 */
export const median = (values: readonly number[]): number => {
  const sorted = values.toSorted((a, b) => a - b);
  const middle = sorted.length >> 1;
  const upper = sorted[middle] ?? Number.NaN;
  return sorted.length % 2 === 1 ? upper : ((sorted[middle - 1] ?? Number.NaN) + upper) / 2;
};

/** Modified z-score over which a reading is pointed out (Iglewicz & Hoaglin 1993; from memory). */
const OUTLYING = 3.5;
/** The standard deviation of normal numbers by the median of how far they are off it. */
export const MAD_TO_SIGMA = 1.4826;
/** Tukey's biweight gives what is further off than so many scatters no weight at all (from memory). */
export const TUKEY_BEYOND = 4.685;
/** What something counts that is so far off: less and less, and nothing from `reach` on. @example tukeyWithin(1, 2) // 0.5625 */
export const tukeyWithin = (off: number, reach: number): number =>
  Math.abs(off) < reach ? (1 - (off / reach) ** 2) ** 2 : 0;
/** The same by how much all scatter. */
export const tukeyWeight = (off: number, scatter: number): number => tukeyWithin(off, TUKEY_BEYOND * scatter);
/** Of fewer readings the spread says less about one of them than the instrument does: one that lies far off would hide itself. */
const ENOUGH = 5;

/** Student's t for 95 % by degrees of freedom from 1 (Abramowitz & Stegun, table 26.10). */
const T95 = [12.706, 4.303, 3.182, 2.776, 2.571, 2.447, 2.365, 2.306, 2.262, 2.228] as const;
/** Two readings alone say next to nothing of their spread; the instrument behind them counts for a degree of freedom more. */
const LEAST_FREEDOM = 2;
/** Of two readings the spread counts only where it is clearly more than the instrument says: beyond 95 % of χ² with one degree of freedom (table 26.8). */
const CLEARLY = Math.sqrt(3.841);
/** From three readings on it counts where it is more by a sixth: half of all honest instruments show a little more than they are. */
const MORE = 7 / 6;

/**
 * By what a spread of few readings is widened so that twice the uncertainty still covers 95 %: half of Student's t (JCGM 100:2008, G.3).
 * @param n readings, 2 or more
 * @example studentFactor(3) // 2.15
 */
export const studentFactor = (n: number): number => (T95[Math.max(LEAST_FREEDOM, n - 1) - 1] ?? 2) / 2;

/**
 * Scatter of one reading: what the instrument says, and where the readings show more, their own spread with Student's t (JCGM 100:2008, 4.2 and G.3).
 * @param spread standard deviation of the readings @param instrument standard uncertainty of one @param n degrees of freedom of the spread, plus 1
 * @example scatterOf(1.2, 0.8, 3) // 2.58
 */
export const scatterOf = (spread: number, instrument: number, n: number): number =>
  spread > (n === 2 ? CLEARLY : MORE) * instrument ? studentFactor(n) * spread : instrument;

/**
 * Repeated readings of one spec: mean, uncertainty, and what looks like an outlier (more than 3.5 robust standard deviations from the median,
 * the deviation taken as no smaller than the instrument's own; of fewer than five readings as the instrument's own).
 * @param values at least one @param instrument standard uncertainty of one reading @param setAside places the fitter has set aside
 * @throws Fault `missing-readings`
 * @example repeats([320.1, 319.8, 327], 0.8).outliers // [2]
 */
export function repeats(
  values: readonly number[],
  instrument: number,
  setAside: readonly number[] = [],
): Repeats {
  const kept = values.filter((_, i) => !setAside.includes(i));
  if (kept.length === 0) throw new Fault({ code: 'missing-readings', path: 'values' });
  const mean = kept.reduce((sum, v) => sum + v, 0) / kept.length;
  const n = kept.length;
  const spread = n > 1 ? Math.sqrt(kept.reduce((sum, v) => sum + (v - mean) ** 2, 0) / (n - 1)) : 0;
  const middle = median(values);
  const robust = MAD_TO_SIGMA * median(values.map((v) => Math.abs(v - middle)));
  const sigma = values.length < ENOUGH && instrument > 0 ? instrument : Math.max(robust, instrument);
  return {
    mean,
    uncertainty: scatterOf(spread, instrument, n) / Math.sqrt(n),
    outliers:
      values.length < 3 ? [] : values.flatMap((v, i) => (Math.abs(v - middle) > OUTLYING * sigma ? [i] : [])),
  };
}
