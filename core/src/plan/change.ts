import { dressChange, signedParts, type UncertainDressPart } from '../dress';
import type { Frame } from '../frame';
import { NOTHING, add, joinParts, type AxisSpecs, type Joined, type Outcome } from '../mass';
import { partNamed, placementSums, type Part, type Placement } from '../part';
import type { BaseGrip, Dress } from '../sport';

/** A part of the dress that is changed for another; new strings count with what they weigh, the usual where that is not known. */
export type Swap =
  | { what: 'overgrips'; to: number }
  | { what: 'baseGrip'; to: BaseGrip }
  | { what: 'dampener'; to: boolean }
  | { what: 'strings'; to: true | { massG: number } };

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
