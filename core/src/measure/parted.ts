import { ratingsBy, type RatingKey, bySpec, type SpecKey } from '../spec';
import type { SpecUncertainty } from './uncertainty';

/**
 * A standard uncertainty in its two parts: the scatter of readings, which averages away, and what all readings of one instrument in one state share
 * (its calibration line, its scale, where its axis is), which stays.
 */
export interface Parted {
  random: number;
  common: number;
}
export type SpecParted = Record<SpecKey, Parted> & Partial<Record<RatingKey, Parted>>;

/** The parts of an uncertainty where nothing else is known, as shares of it (from memory). */
export const USUAL_PARTS: Parted = { random: 0.6, common: 0.8 };
/** An estimate is wrong the same way each time it is made. */
export const ESTIMATE_PARTS: Parted = { random: 0, common: 1 };
/** How far an instrument drifts between the start and the check, as a share of its uncertainty (from memory). */
export const DRIFT_SHARE = 0.2;

/** Splits an uncertainty by shares whose squares add to 1. @example parted(1, USUAL_PARTS) // { random: 0.6, common: 0.8 } */
export const parted = (uncertainty: number, shares: Parted = USUAL_PARTS): Parted => ({
  random: shares.random * uncertainty,
  common: shares.common * uncertainty,
});

/** An uncertainty of every spec in the usual parts. @example usualParts(sport.typicalReading).massG // { random: 0.18, common: 0.24 } */
export const usualParts = (uncertainty: SpecUncertainty): SpecParted =>
  bySpec((key) => parted(uncertainty[key]));

/** Both parts together: u² = random² + common² (JCGM 100:2008, 5.1.2). @example wholeOf({ random: 0.6, common: 0.8 }) // 1 */
export const wholeOf = ({ random, common }: Parted): number => Math.hypot(random, common);

/** The same of every spec. */
export const wholesOf = (parts: SpecParted): SpecUncertainty => ({
  ...bySpec((key) => wholeOf(parts[key])),
  ...ratingsBy((key) => parts[key] && wholeOf(parts[key])),
});

/**
 * Of the mean of n readings where one has these parts, by u² = random²/n + common² (JCGM 100:2008, 4.2.3 and 5.2.4). With n below 1 the way back, from a mean of
 * 1/n readings to one.
 * @example partedMean({ random: 0.6, common: 0.8 }, 4) // { random: 0.3, common: 0.8 }
 */
export const partedMean = ({ random, common }: Parted, n: number): Parted => ({
  random: random / Math.sqrt(n),
  common,
});

/** How far each spec drifts between the start and the check, by what one reading is uncertain by. */
export const usualDrift = (parts: SpecParted): SpecUncertainty =>
  bySpec((key) => DRIFT_SHARE * wholeOf(parts[key]));
