import type { LearnedChange } from '../alike';
import { complaintMoves, loadsArm, type Bother } from '../aim';
import { SOFTER, type StringChange, type StringKind } from '../part';
import type { SpecKey } from '../spec';
import { dataOf, type AnySport } from '../sport';

/** Whether players alike were better with such a change, or with its opposite. */
type LearnedOf = { learned?: 'suits' | 'against' };
export interface StringLever extends LearnedOf {
  lever: 'strings';
  change: StringChange;
  /** Of a change of tension, kg. */
  byKg?: readonly [number, number];
  /** What it is changed to, where the kind is. */
  to?: StringKind;
  costs: number;
}
export interface WeightLever extends LearnedOf {
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
  /** What sessions of players alike say of each change. */
  learned?: readonly Pick<LearnedChange, 'what' | 'says'>[] | undefined;
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
  return levers.map((lever) => withLearned(lever, bed.learned)).toSorted((a, b) => orderOf(a) - orderOf(b));
}
/** What suited players alike comes first, what did not last; within that what costs least. */
const ORDER = { suits: -10, against: 10 } as const;
const orderOf = ({ costs, learned }: Lever): number => costs + (learned ? ORDER[learned] : 0);

/** What a change of strings does, in the terms in which it is learned of. */
const LEARNED_AS: Partial<Record<StringChange, Pick<LearnedChange, 'what' | 'says'>>> = {
  tighter: { what: 'tension', says: 'more' },
  looser: { what: 'tension', says: 'less' },
  softer: { what: 'softness', says: 'more' },
};
function withLearned<L extends Lever>(lever: L, learned: BedNow['learned'] = []): L {
  const does =
    lever.lever === 'strings'
      ? [LEARNED_AS[lever.change]].flatMap((one) => one ?? [])
      : lever.moves.map(({ key, up }) => ({ what: key, says: up ? ('more' as const) : ('less' as const) }));
  const said = does.flatMap(({ what, says }) => {
    const one = learned.find((found) => found.what === what);
    return one ? [one.says === says] : [];
  });
  // Of a lever that does several things all that is known of has to agree.
  if (said.length === 0 || (said.includes(true) && said.includes(false))) return lever;
  return { ...lever, learned: said[0] ? 'suits' : 'against' };
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
