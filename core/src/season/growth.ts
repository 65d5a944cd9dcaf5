/** How fast players grow, cm a year, by age up to and with the first number (growth charts of boys and girls together, Tanner and Whitehouse 1976; from memory, ± 2 cm a year). */
const CM_A_YEAR: readonly (readonly [number, number])[] = [
  [8, 6],
  [10, 5.5],
  [11, 6],
  [12, 7],
  [14, 8],
  [15, 5],
  [16, 2.5],
  [17, 1.2],
];
/** What has to be grown before a frame is looked at again, cm: half a year at six a year (common practice). */
const TO_LOOK_AGAIN_CM = 3;
const DAYS_A_YEAR = 365;
/** No longer than this between two looks while somebody grows. */
const LONGEST_DAYS = 365;

/**
 * After how many days a growing player is to be looked at again, by expected growth; undefined for a grown one.
 * @param age years
 * @example growthDays(13) // 137: 3 cm at 8 cm a year
 */
export function growthDays(age: number): number | undefined {
  const speed = CM_A_YEAR.find(([upTo]) => age <= upTo)?.[1];
  return speed === undefined
    ? undefined
    : Math.min(LONGEST_DAYS, Math.round((TO_LOOK_AGAIN_CM / speed) * DAYS_A_YEAR));
}
