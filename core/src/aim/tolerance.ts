/** Slack for rounding in floating point when a value is judged against a tolerance, in tolerances. */
export const TOLERANCE_SLACK = 1e-6;

/** How far off a value is, in tolerances. @example timesOff({ value: 320, tolerance: 1.5 }, 323) // 2 */
export const timesOff = (target: { value: number; tolerance: number }, value: number): number =>
  Math.abs(value - target.value) / target.tolerance;

/** Whether a value lies within its tolerance: the one place that says so. @example isInside({ value: 320, tolerance: 1.5 }, 321.5) // true */
export const isInside = (target: { value: number; tolerance: number }, value: number): boolean =>
  timesOff(target, value) <= 1 + TOLERANCE_SLACK;
