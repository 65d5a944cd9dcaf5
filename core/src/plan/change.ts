import { dressChange, signedParts, type UncertainDressPart } from '../dress';
import type { Frame } from '../frame';
import { NOTHING, add, joinParts, type AxisSpecs, type Joined, type Outcome } from '../mass';
import { partNamed, placementSums, type Part, type Placement, type StringingJob } from '../part';
import { ratingsOf } from '../spec';
import type { BaseGrip, Dress } from '../sport';

/** A part of the dress that is changed for another; new strings count with what they weigh, the usual where that is not known. */
export type Swap =
  | { what: 'overgrips'; to: number }
  | { what: 'baseGrip'; to: BaseGrip }
  | { what: 'dampener'; to: boolean }
  | { what: 'strings'; to: true | { massG: number }; job?: StringingJob | undefined };

/** The new strings of a change; undefined where those that are in stay. @example newStrings([{ what: 'strings', to: true }])?.to // true */
export const newStrings = (swaps: readonly Swap[]): Extract<Swap, { what: 'strings' }> | undefined =>
  swaps.find((swap) => swap.what === 'strings');

/** A change with a swap in place of any other of the same part; without one the part stays as it is. @example withSwap(change, 'overgrips', { what: 'overgrips', to: 2 }) */
export const withSwap = <C extends Pick<Change, 'swaps'>>(
  change: C,
  what: Swap['what'],
  swap: Swap | undefined,
): C => ({
  ...change,
  swaps: [...change.swaps.filter((one) => one.what !== what), ...(swap ? [swap] : [])],
});

/** Weight that is on the frame and comes off, whole or down to what is left. */
export interface Removal {
  of: Placement;
  left?: Placement | undefined;
}

/** All that a plan does to a frame, with the parts that its placements are made of. */
export interface Change {
  placements: readonly Placement[];
  swaps: readonly Swap[];
  removals: readonly Removal[];
  parts: readonly Part[];
}

export const NO_CHANGE: Change = { placements: [], swaps: [], removals: [], parts: [] };

/** A dress after swaps. @example dressAfter({ overgrips: 1 }, [{ what: 'overgrips', to: 0 }]) // { overgrips: 0 } */
export const dressAfter = (dress: Dress, swaps: readonly Swap[]): Dress =>
  swaps.reduce<Dress>((now, { what, to }) => ({ ...now, [what]: to }), dress);

/**
 * What has to be changed of a dress so that it becomes another. Strings that are in stay in: new ones go in only where there are none.
 * @example swapsTo({ overgrips: 1 }, { overgrips: 2, strings: true }) // [{ what: 'overgrips', to: 2 }, { what: 'strings', to: true }]
 */
export function swapsTo(now: Dress, then: Dress): Swap[] {
  const swaps: Swap[] = [];
  const said = ({ overgrips = 0, baseGrip = 'none', dampener = false }: Dress) => ({
    overgrips,
    baseGrip,
    dampener,
  });
  const from = said(now);
  const to = said(then);
  if (from.overgrips !== to.overgrips) swaps.push({ what: 'overgrips', to: to.overgrips });
  if (from.baseGrip !== to.baseGrip) swaps.push({ what: 'baseGrip', to: to.baseGrip });
  if (from.dampener !== to.dampener) swaps.push({ what: 'dampener', to: to.dampener });
  if (!now.strings && then.strings) swaps.push({ what: 'strings', to: then.strings });
  return swaps;
}

/** What is on a frame after a change: what stayed of what was there, and what was put on. */
export function placementsAfter(there: readonly Placement[], change: Change): Placement[] {
  const stays = there.flatMap((placement) => {
    const removal = change.removals.find(({ of }) => of.id === placement.id);
    if (!removal) return [placement];
    return removal.left ? [removal.left] : [];
  });
  return [...stays, ...change.placements];
}

/** One thing that a change does, as a term of its sums. */
export type ChangeTerm =
  | { kind: 'placement'; placement: Placement; part: Part | undefined }
  | { kind: 'removal'; removal: Removal; part: Part | undefined }
  | { kind: 'dress'; part: UncertainDressPart };

function terms(frame: Frame, dress: Dress, change: Change): Joined<ChangeTerm>[] {
  const part = (placement: Placement): Part | undefined => partNamed(change.parts, placement.partId);
  const removed = change.removals.map((removal): Joined<ChangeTerm> => {
    const { of, left } = removal;
    const there = placementSums(frame, of, part(of));
    const stays = left ? placementSums(frame, left, part(left)) : NOTHING;
    return { of: { kind: 'removal', removal, part: part(of) }, sums: add(stays, there, -1) };
  });
  const changed = signedParts(dressChange(frame, dress, dressAfter(dress, change.swaps)));
  const swapped = changed.map((one): Joined<ChangeTerm> => ({
    of: { kind: 'dress', part: one },
    sums: one.sums,
  }));
  const placed = change.placements.map((placement): Joined<ChangeTerm> => ({
    of: { kind: 'placement', placement, part: part(placement) },
    sums: placementSums(frame, placement, part(placement)),
  }));
  return [...removed, ...swapped, ...placed];
}

/** An outcome of whole specs. */
export type ChangeOutcome = Outcome<ChangeTerm> & { specs: AxisSpecs };

/**
 * What a change makes of a frame, with the terms that gave it.
 * @param before specs of the frame in `dress`
 * @example changeOutcome(frame, before, dress, { ...NO_CHANGE, placements, parts }).specs.massG
 */
export function changeOutcome(frame: Frame, before: AxisSpecs, dress: Dress, change: Change): ChangeOutcome {
  // Whole specs stay whole.
  return joinParts(before, terms(frame, dress, change), before.axisCm) as ChangeOutcome;
}

/**
 * What a frame measures once it is dressed as it shall be when it is done.
 * @param finish as it shall be; as it is now where nobody said
 * @example asFinished(frame, specs, { strings: true }, { strings: true, overgrips: 1 }).specs.massG // specs.massG + 5.5
 */
export function asFinished(
  frame: Frame,
  specs: AxisSpecs,
  dress: Dress,
  finish: Dress | null | undefined,
): { specs: AxisSpecs; dress: Dress } {
  const swaps = finish ? swapsTo(dress, finish) : [];
  if (swaps.length === 0) return { specs, dress };
  const after = changeOutcome(frame, specs, dress, { ...NO_CHANGE, swaps }).specs;
  return { specs: { ...after, ...ratingsOf(specs) }, dress: dressAfter(dress, swaps) };
}
