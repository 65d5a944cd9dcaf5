import type { Noted } from '../play';
import type { Stringing } from '../sport';

/** When a bed is due for new strings: a shop's rule. */
export interface StringRule {
  /** After so many days; undefined: as often a year as the player plays a week (common practice). */
  days?: number | undefined;
  /** After so many hours of play; undefined: hours do not count. */
  hours?: number | undefined;
  /** When two sessions in a row say so. */
  felt: boolean;
}
export const STRING_DUE = ['days', 'hours', 'felt'] as const;
export type StringDue = (typeof STRING_DUE)[number];

/** The rule of a sport, and what a shop says otherwise. @example ruleOf({ hours: 20 }, { days: 60 }) // { days: 60, hours: 20, felt: true } */
export const ruleOf = (sport: Pick<Stringing, 'hours'>, shop: Partial<StringRule> = {}): StringRule => ({
  hours: sport.hours,
  felt: true,
  ...shop,
});

/** A bed as far as it is known. */
export interface BedUse {
  days: number;
  hours: number;
  /** The last sessions with it, the last first. */
  felt: readonly Pick<Noted, 'depth' | 'spin'>[];
  sessionsAWeek?: number | undefined;
}
const DAYS_A_YEAR = 365;
/** Where nobody said how often it is played: three times a year (common practice). */
const TIMES_A_YEAR = 3;
const IN_A_ROW = 2;

/** Days after which a rule asks for new strings. @example daysOf({ felt: true }, 2) // 182.5 */
export const daysOf = ({ days }: StringRule, sessionsAWeek = TIMES_A_YEAR): number =>
  days ?? DAYS_A_YEAR / Math.max(1, sessionsAWeek);

/** Strings that went dead let balls go long, and take less spin. */
const isDead = ({ depth, spin }: BedUse['felt'][number]): boolean => depth === 'long' || spin === 'less';

/**
 * Why a bed is due for new strings; empty where it is not.
 * @example stringsDue({ days: 200, hours: 4, felt: [], sessionsAWeek: 2 }, { felt: true }) // ['days']
 */
export function stringsDue({ days, hours, felt, sessionsAWeek }: BedUse, rule: StringRule): StringDue[] {
  const because: StringDue[] = [];
  if (days >= daysOf(rule, sessionsAWeek)) because.push('days');
  if (rule.hours !== undefined && hours >= rule.hours) because.push('hours');
  const last = felt.slice(0, IN_A_ROW);
  if (rule.felt && last.length === IN_A_ROW && last.every(isDead)) because.push('felt');
  return because;
}
