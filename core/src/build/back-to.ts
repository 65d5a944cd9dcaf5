import type { Placement } from '../part';
import { swapsTo, type Removal, type Swap } from '../plan';
import type { Dress } from '../sport';

/** What is on a frame: its dress, and the weights on it. */
export interface OnFrame {
  dress: Dress;
  weights: readonly Placement[];
}

/** Pieces of one place, part and mass are the same, whatever they are called. */
const placeOf = (placement: Placement): string =>
  JSON.stringify(
    Object.entries(placement)
      .filter(([key]) => key !== 'id' && key !== 'what')
      .toSorted(([x], [y]) => (x < y ? -1 : 1)),
  );

/**
 * The way back from what is on a frame to what was on it: what is new comes off, what has gone is put on again, grips change back. What is the same stays
 * untouched.
 * @example backTo({ dress, weights: [a, b] }, { dress, weights: [a] }).removals // [{ of: b }]
 */
export function backTo(
  now: OnFrame,
  then: OnFrame,
): { placements: Placement[]; removals: Removal[]; swaps: Swap[] } {
  const left = [...then.weights];
  const removals: Removal[] = [];
  for (const placement of now.weights) {
    const at = left.findIndex((one) => placeOf(one) === placeOf(placement));
    if (at >= 0) left.splice(at, 1);
    else removals.push({ of: placement });
  }
  return {
    removals,
    placements: left.map((placement, i) => ({ ...placement, id: `b${i + 1}` })),
    // Strings that were there before are not put back: they have been played.
    swaps: swapsTo(now.dress, { ...then.dress, strings: now.dress.strings ?? false }),
  };
}
