import {
  SPECS,
  isGrowing,
  type Guard,
  type GuardedPlayer,
  type PaddleShape,
  type ShapeReason,
  type Sport,
} from '@kevro/core';
import { limitSentence } from './errors';
import type { Player } from './records/player';

/** How old a player is in a year, where the year of birth is known. */
export const ageIn = (year: number, { birthYear }: Pick<Player, 'birthYear'>): number | undefined =>
  birthYear === null ? undefined : year - birthYear;

/** Whether a player may still be growing in a year; one whose year of birth is not known counts as grown. */
export const growingIn = (year: number, { birthYear }: Pick<Player, 'birthYear'>): boolean =>
  birthYear !== null && isGrowing(birthYear, year);

/** What of a player can speak against an aim in a sport: the page and the API ask the same. */
export const guardedPlayer = (player: Player, sport: Sport, year: number): GuardedPlayer => ({
  age: ageIn(year, player),
  ceilingSwingWeight: player.ceilings[sport],
  soreArm: player.bothers.includes('sore-arm'),
});

const plain = (value: number, digits = 1): string => String(Number(value.toFixed(digits)));

/** What a guard says: what is asked for, where it stands, and what to expect. The API and the page both say these words. @param name whom it is about */
export function guardSentence(
  { code, value, limit, over = 0, spec, rule }: Guard,
  name = 'this player',
): string {
  switch (code) {
    case 'over-ceiling':
      return `${plain(value - limit)} kg·cm² above the ceiling of ${name} (${plain(limit)}). Expect late contact and a tired arm.`;
    case 'junior-class':
      return `${plain(value, 0)} g unstrung is ${over === 1 ? 'one class' : `${over} classes`} heavier than suits the age (${plain(limit, 0)} g). A growing arm comes first: stay lighter, or go part of the way.`;
    case 'sore-arm':
      return `The arm is sore, and the ${SPECS.swingWeight.name} would rise by ${plain(value - limit)} kg·cm². Lower the load instead. If pain persists, see a physician or physiotherapist.`;
    case 'large-jump':
      return `${plain(over)} noticeable steps of ${SPECS.swingWeight.name} at once: more than two are hard to take in. Go there in two rounds.`;
    case 'rule-limit':
      return rule ? limitSentence(rule) : 'The frame is over a limit of size that the rules set.';
    case 'out-of-reach': {
      const unit = spec ? ` ${SPECS[spec].unit}` : '';
      return `Weight in the zones cannot bring this frame there: the nearest is ${plain(limit, spec === 'balanceCm' ? 2 : 1)}${unit} instead of ${plain(value, spec === 'balanceCm' ? 2 : 1)}.`;
    }
  }
}

const BECAUSE: Record<ShapeReason['because'], string> = {
  hands: 'quick hands',
  power: 'power',
  forgiveness: 'forgiveness',
  reach: 'reach',
  'mis-hits-tip': 'hits toward the tip',
  'mis-hits-sides': 'hits toward the sides',
  'other-racket-sport': 'a swing from another racket sport',
  new: 'a beginner',
};
const IS: Record<ShapeReason['is'], string> = {
  longer: 'longer than the standard shape',
  shorter: 'shorter than the standard shape',
  wider: 'wider than the standard shape',
  usual: 'the standard shape, which costs nothing anywhere',
};
/** Why a shape of paddle suits, in a sentence. */
export const shapeSentence = ({ because, is }: ShapeReason): string =>
  `For ${BECAUSE[because]}: it is ${IS[is]}.`;

export const SHAPE_NAMES: Record<PaddleShape, string> = {
  standard: 'standard',
  hybrid: 'hybrid',
  elongated: 'elongated',
  'extra-long': 'extra long',
  wide: 'wide',
};
