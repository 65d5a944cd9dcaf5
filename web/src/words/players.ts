import type { BUILDS, HANDS, LOOK_AGAIN_WHYS, PUTS_FIRST, Player } from '@kevro/contract';
import { ALL_SPORTS, capital, type Bother } from '@kevro/core';
import { SPORT_NAMES } from '.';

export const SPORT_ITEMS = ALL_SPORTS.map((value) => ({
  value,
  title: SPORT_NAMES[value],
}));
/** The same as buttons. */
export const SPORT_CHOICES = SPORT_ITEMS.map(({ value, title }) => ({ value, title: capital(title) }));

/** One scale for all sports. */
export const LEVEL_WORDS = [
  'new to it',
  'learning, short rallies',
  'rallies, social play',
  'club player',
  'strong club player',
  'regional competition',
  'national and above',
] as const;

export const BUILD_WORDS: Record<(typeof BUILDS)[number], string> = {
  slight: 'slight',
  medium: 'medium',
  strong: 'strong',
};
export const HAND_WORDS: Record<(typeof HANDS)[number], string> = {
  right: 'right-handed',
  left: 'left-handed',
  both: 'both hands',
};
export const FIRST_WORDS: Record<(typeof PUTS_FIRST)[number], string> = {
  control: 'control',
  power: 'power',
  comfort: 'comfort',
  stability: 'stability',
  'hand-speed': 'speed of the hand',
  reach: 'reach',
};
export const BOTHER_WORDS: Record<Bother, string> = {
  twisting: 'twists in the hand',
  late: 'late on the ball',
  'pushed-around': 'gets pushed around',
  'sore-arm': 'sore arm',
  tired: 'tires',
  long: 'balls go long',
  short: 'balls fall short',
  'mis-hits-tip': 'mis-hits toward the tip',
  'mis-hits-side': 'mis-hits to the side',
  'no-bite': 'the ball gets no bite',
  breaks: 'strings break too soon',
};
export const LOOK_AGAIN_WORDS: Record<(typeof LOOK_AGAIN_WHYS)[number], string> = {
  growing: 'still growing',
  programme: 'after a programme',
  asked: 'asked for',
};
/** What bothers a player; that an arm is sore is private and left out where others may read it. */
export const botherWords = ({ bothers, botherNote }: Player, withPrivate: boolean): string =>
  [...bothers.filter((b) => withPrivate || b !== 'sore-arm').map((b) => BOTHER_WORDS[b]), botherNote]
    .filter(Boolean)
    .join('; ');

/** What a player carries, sport by sport: «340», or «padel 160, tennis 330». */
export function ceilingWords({ ceilings, sports }: Pick<Player, 'ceilings' | 'sports'>): string {
  const known = ALL_SPORTS.filter((sport) => ceilings[sport] !== undefined);
  if (known.length === 0) return '—';
  const alone = known.length === 1 && sports.length === 1;
  return known.map((sport) => `${alone ? '' : `${SPORT_NAMES[sport]} `}${ceilings[sport]}`).join(', ');
}

export const items = <K extends string>(words: Record<K, string>): { value: K; title: string }[] =>
  (Object.keys(words) as K[]).map((value) => ({ value, title: words[value] }));
