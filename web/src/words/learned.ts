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
const isSpec = (what: LearnedTold['what']): what is SpecKey => what in SPECS;

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
  const said = Number.isFinite(to)
    ? Number.isFinite(from) && from > 0
      ? `${show(one.what, from, shape)} to ${show(one.what, to, shape)}`
      : `${show(one.what, to, shape)} at the most`
    : `${show(one.what, from, shape)} at the least`;
  return `The guide says otherwise: ${said} ${unit(one.what)}.`;
}
