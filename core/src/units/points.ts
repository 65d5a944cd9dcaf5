import { CM_PER_POINT } from './constants';

/**
 * Points head-light of a balance: (L/2 − B) / 0.3175. Negative is head-heavy.
 * @param balanceCm balance from the butt, cm, 0 to lengthCm
 * @param lengthCm the frame's own length, cm
 * Source: common practice; one point is 1/8 in from the middle of the frame's length.
 * @example pointsHeadLight(32.385, 68.58) // 6
 */
export const pointsHeadLight = (balanceCm: number, lengthCm: number): number =>
  (lengthCm / 2 - balanceCm) / CM_PER_POINT;

/**
 * The inverse of {@link pointsHeadLight}: balance in cm from the butt.
 * @example balanceFromPoints(6, 68.58) // 32.385
 */
export const balanceFromPoints = (points: number, lengthCm: number): number =>
  lengthCm / 2 - points * CM_PER_POINT;
