import { SPECS, specName, type FrameShape, type SpecKey } from '@kevro/core';
import type { LearnedOfPlayer } from '@kevro/contract';
import { counted } from './counted';
import { inTension, type TensionUnit } from './strings';

export type LearnedTold = LearnedOfPlayer['told'][number];
/** How numbers are said where they are shown. */
export interface Saying {
  shape: FrameShape;
  show: (key: SpecKey, value: number, shape: FrameShape) => string;
  unit: (key: SpecKey) => string;
  tension: TensionUnit;
}
export const isSpec = (what: LearnedTold['what']): what is SpecKey => what in SPECS;

/** «312 to 322 kg·cm² swing weight», «softer strings» */
function whatWords({ what, says, happiest: { from, to } }: LearnedTold, saying: Saying): string {
  if (what === 'softness') return `with ${says === 'more' ? 'softer' : 'stiffer'} strings`;
  if (what === 'tension')
    return `with strings at ${inTension(from, saying.tension)} to ${inTension(to, saying.tension)} ${saying.tension}`;
  const { shape, show, unit } = saying;
  return `at ${show(what, from, shape)} to ${show(what, to, shape)} ${unit(what)} ${specName(what)}`;
}
/** On whom it rests. @example restsOn({ sessions: 41, players: 11 }) // '41 sessions of 11 players' */
export const restsOn = ({ sessions, players }: Pick<LearnedTold, 'sessions' | 'players'>): string =>
  `${counted(sessions, 'session', 'sessions')} of ${counted(players, 'player', 'players')}`;

/** What was learned, in a sentence: «Players like this one were happiest at 312 to 322 kg·cm² swing weight: 41 sessions of 11 players.» */
export const learnedWords = (one: LearnedTold, saying: Saying): string =>
  `${one.of === 'kind' ? 'Players like this one' : 'Players of this shop'} were happiest ${whatWords(one, saying)}: ${restsOn(one)}.`;

/** Where common practice says something else; empty where the two meet. */
export function otherwiseWords(
  one: LearnedTold,
  band: readonly [number, number] | undefined,
  saying: Saying,
): string {
  if (!isSpec(one.what) || !band) return '';
  const [from, to] = band;
  if (one.happiest.from <= to && one.happiest.to >= from) return '';
  const { shape, show, unit } = saying;
  const value = (end: number): string => show(one.what as SpecKey, end, shape);
  const ends: [number, string][] = [
    [from, `${value(from)} at the least`],
    [to, `${value(to)} at the most`],
  ];
  const known = ends.filter(([end]) => Number.isFinite(end));
  const said = known.length === ends.length ? `${value(from)} to ${value(to)}` : (known[0]?.[1] ?? '');
  return `The guide says otherwise: ${said} ${unit(one.what)}.`;
}
