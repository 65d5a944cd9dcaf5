import { complaintMoves, loadsArm, type Bother } from '../aim';
import { SOFTER, type StringChange } from '../part';
import type { SpecKey } from '../spec';
import { dataOf, type AnySport } from '../sport';
import type { StringKind } from './kinds';

export interface StringLever {
  lever: 'strings';
  change: StringChange;
  /** Of a change of tension, kg. */
  byKg?: readonly [number, number];
  /** What it is changed to, where the kind is. */
  to?: StringKind;
  costs: number;
}
export interface WeightLever {
  lever: 'weight';
  /** Which way each spec goes. */
  moves: { key: SpecKey; up: boolean }[];
  costs: number;
}
export type Lever = StringLever | WeightLever;

/** What is in the frame, as far as it is known. */
export interface BedNow {
  kind?: StringKind | undefined;
  /** Whether the strings are due for new ones. */
  isDue?: boolean | undefined;
  /** Whether the arm is sore or tires: then nothing loads it more, whatever else is complained of. */
  isTender?: boolean | undefined;
}

/** What a lever costs, the least first: another tension comes with the next strings, another kind or gauge is a new bed to get used to, weight is bench time (common practice). */
const COSTS = { newer: 0, tension: 1, kind: 2, gauge: 2, pattern: 4, weight: 3 } as const;
/**
 * What can be done about a complaint, what costs least first: strings beside weight. None in sports without strings.
 * Tighter by 1 to 1.5 kg where balls fly long, softer or looser for a sore arm (common practice; badminton's steps as the same share of its tension, from memory).
 * @example leversFor('tennis', 'long')[0] // { lever: 'strings', change: 'tighter', byKg: [1, 1.5], costs: 1 }
 */
export function leversFor(sport: AnySport, bother: Bother, bed: BedNow = {}): Lever[] {
  const data = dataOf(sport);
  const levers: Lever[] = [];
  const { stringing } = data;
  if (stringing) levers.push(...stringLevers(bother, bed, stringing.stepKg));
  const moves = complaintMoves(bother).filter(({ key, up }) => !(bed.isTender && up && loadsArm(key)));
  if (moves.length > 0) levers.push({ lever: 'weight', moves, costs: COSTS.weight });
  return levers.toSorted((a, b) => a.costs - b.costs);
}
function stringLevers(
  bother: Bother,
  { kind, isDue, isTender }: BedNow,
  stepKg: readonly [number, number],
): StringLever[] {
  const tension = (change: 'tighter' | 'looser'): StringLever => ({
    lever: 'strings',
    change,
    byKg: stepKg,
    costs: COSTS.tension,
  });
  const gauge = (change: 'thinner' | 'thicker'): StringLever => ({
    lever: 'strings',
    change,
    costs: COSTS.gauge,
  });
  const newer: StringLever[] = isDue ? [{ lever: 'strings', change: 'newer', costs: COSTS.newer }] : [];
  const to = kind && SOFTER[kind];
  // Of strings that nobody named, softer is said without a name.
  const softer: StringLever[] =
    kind && !to ? [] : [{ lever: 'strings', change: 'softer', ...(to ? { to } : {}), costs: COSTS.kind }];
  switch (bother) {
    case 'long':
      return isTender ? newer : [...newer, tension('tighter')];
    case 'short':
      return [tension('looser')];
    case 'sore-arm':
      return [...newer, tension('looser'), ...softer];
    case 'no-bite':
      return [...newer, gauge('thinner'), { lever: 'strings', change: 'opener', costs: COSTS.pattern }];
    case 'breaks':
      return [gauge('thicker'), tension('looser')];
    default:
      return [];
  }
}
