import { Fault } from '../fault';

export interface Repeats {
  /** Mean of what is kept. */
  mean: number;
  /** Standard uncertainty of the mean: of type A from the spread, not below the instrument's own over √n (JCGM 100:2008, 4.2 and 4.3). */
  uncertainty: number;
  /** Places in the list that look like outliers; they are pointed out, and left out of the mean only where `setAside` names them. */
  outliers: number[];
}

const median = (values: readonly number[]): number => {
  const sorted = values.toSorted((a, b) => a - b);
  const middle = sorted.length >> 1;
  const upper = sorted[middle] ?? Number.NaN;
  return sorted.length % 2 === 1 ? upper : ((sorted[middle - 1] ?? Number.NaN) + upper) / 2;
};

/** Modified z-score over which a reading is pointed out (Iglewicz & Hoaglin 1993; from memory). */
const OUTLYING = 3.5;
const MAD_TO_SIGMA = 1.4826;

/**
 * Repeated readings of one spec: mean, uncertainty, and what looks like an outlier (more than 3.5 robust standard deviations from the median,
 * the deviation taken as no smaller than the instrument's own).
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
  const sigma = Math.max(robust, instrument);
  return {
    mean,
    uncertainty: Math.max(spread, instrument) / Math.sqrt(n),
    outliers:
      values.length < 3 ? [] : values.flatMap((v, i) => (Math.abs(v - middle) > OUTLYING * sigma ? [i] : [])),
  };
}
