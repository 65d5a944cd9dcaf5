/** What of a player says with whom they are alike. */
export interface Describing {
  age?: number | undefined;
  /** 1 to 7, beginner to touring. */
  level?: number | undefined;
  /** How they play, in their own words. */
  style?: string | undefined;
  /** What they put first in a frame. */
  putsFirst?: string | undefined;
}

/** Ages and levels that play alike (conventions): who grows, who is grown, and from fifty on. */
const AGES = [
  [18, 'growing'],
  [50, 'adult'],
  [Infinity, 'fifty'],
] as const;
const LEVELS = [
  [2, 'new'],
  [4, 'club'],
  [Infinity, 'strong'],
] as const;
const STYLES: readonly (readonly [RegExp, string])[] = [
  [/\bnet\b|serve.and.volley|volley/i, 'net'],
  [/base\s*line|topspin|back of the court|deep/i, 'back'],
  [/all.?(court|round)/i, 'all-round'],
];
const classOf = <T extends string>(
  value: number | undefined,
  classes: readonly (readonly [number, T])[],
  isBelow: (value: number, end: number) => boolean,
): T | 'unknown' =>
  value === undefined ? 'unknown' : (classes.find(([end]) => isBelow(value, end))?.[1] ?? 'unknown');

/** A kind of player: alike in age, level and style. */
export interface PlayerKind {
  age: (typeof AGES)[number][1] | 'unknown';
  level: (typeof LEVELS)[number][1] | 'unknown';
  style: string;
}
/**
 * What kind of player somebody is. Style is read from its words; where they name none it is what the player puts first.
 * @example kindOfPlayer({ age: 34, level: 5, style: 'baseline' }) // { age: 'adult', level: 'strong', style: 'back' }
 */
export const kindOfPlayer = ({ age, level, style = '', putsFirst }: Describing): PlayerKind => ({
  age: classOf(age, AGES, (value, end) => value < end),
  level: classOf(level, LEVELS, (value, end) => value <= end),
  style: STYLES.find(([words]) => words.test(style))?.[1] ?? putsFirst ?? 'unknown',
});
export const kindName = ({ age, level, style }: PlayerKind): string => [age, level, style].join(' ');
