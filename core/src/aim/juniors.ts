import { sportData, type Sport } from '../sport';

/** Below this age a player counts as growing. */
export const GROWN = 18;

/** A growing player goes half of the way to another frame: they will move up later (common practice). */
export const HALF_THE_WAY = 0.5;

/** Whether a player may still be growing in a year. @example isGrowing(2012, 2026) // true */
export const isGrowing = (birthYear: number, year: number): boolean => year - birthYear < GROWN;

/**
 * How many classes too heavy an unstrung weight is for a junior's age: one is a warning, two a strong one. 0 in sports that have no such classes.
 * @example classesOver('tennis', 13, 300) // 1
 */
export function classesOver(sport: Sport, age: number, unstrungG: number): number {
  const classes = sportData(sport).juniorClasses;
  const own = classes.findIndex((c) => age < c.underAge);
  if (own < 0) return 0;
  const far = (i: number): number => Math.abs((classes[i]?.unstrungG ?? 0) - unstrungG);
  const nearest = classes.reduce((best, _, i) => (far(i) < far(best) ? i : best), 0);
  return Math.max(0, nearest - own);
}

/** The unstrung weight that suits a junior's age, g; undefined in sports that have no such classes. @example juniorClass('tennis', 13) // 280 */
export const juniorClass = (sport: Sport, age: number): number | undefined =>
  sportData(sport).juniorClasses.find(({ underAge }) => age < underAge)?.unstrungG;
