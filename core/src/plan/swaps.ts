import { dressChange, signedParts } from '../dress';
import type { Frame } from '../frame';
import { NOTHING, add, total, type MassSums } from '../mass';
import { partNamed, partRule, placementSums, spanCmOf, type Part, type Placement } from '../part';
import type { Dress } from '../sport';
import { dressAfter, type Removal, type Swap } from './change';
import { changePieces } from './edit';
import type { ZoneColumn } from './options';

/** Something that can be changed on the frame, in one of several ways. Each way counts as one place. */
export interface Offer {
  ways: { change: { swap: Swap } | { removal: Removal }; sums: MassSums }[];
}

/**
 * What can come off or be changed in a dress: an overgrip off or on, the base grip for another.
 * @example swapOffers(frame, { baseGrip: 'synthetic', overgrips: 1 }).length // 2
 */
export function swapOffers(frame: Frame, dress: Dress): Offer[] {
  const overgrips = dress.overgrips ?? 0;
  const grip = dress.baseGrip ?? 'none';
  const way = (swap: Swap): Offer['ways'][number] => ({
    change: { swap },
    sums: total(signedParts(dressChange(frame, dress, dressAfter(dress, [swap]))).map((p) => p.sums)),
  });
  const knows = (what: keyof Dress): boolean => frame.sport.dress.components.includes(what);
  const wraps: Swap[] = [
    ...(overgrips > 0 ? [{ what: 'overgrips' as const, to: overgrips - 1 }] : []),
    { what: 'overgrips', to: overgrips + 1 },
  ];
  const grips: Swap[] = (['leather', 'synthetic'] as const)
    .filter((to) => to !== grip)
    .map((to) => ({ what: 'baseGrip', to }));
  return [
    ...(knows('overgrips') ? [{ ways: wraps.map(way) }] : []),
    ...(knows('baseGrip') ? [{ ways: grips.map(way) }] : []),
  ];
}

/** Weight that is there already and can be shortened piece by piece, or taken off whole. */
export function removalOffers(frame: Frame, there: readonly Placement[], parts: readonly Part[]): Offer[] {
  return there.map((placement): Offer => {
    const part = partNamed(parts, placement.partId);
    const before = placementSums(frame, placement, part);
    const ways: Offer['ways'] = [];
    let left = part && shorter(frame, placement, part);
    while (left) {
      ways.push({
        change: { removal: { of: placement, left } },
        sums: add(placementSums(frame, left, part), before, -1),
      });
      left = part && shorter(frame, left, part);
    }
    ways.push({ change: { removal: { of: placement } }, sums: add(NOTHING, before, -1) });
    return { ways };
  });
}

/** One piece less of something, where its kind comes in pieces that are shorter. */
function shorter(frame: Frame, placement: Placement, part: Part): Placement | undefined {
  return partRule(part).lie === 'point' && spanCmOf(placement) > 0
    ? undefined
    : changePieces(frame, placement, part, -1);
}

/** An offer as a column of the plan. */
export const offerColumn = ({ ways }: Offer): ZoneColumn => ({
  zone: undefined,
  linear: false,
  lines: ways.map((_, j) => ({ from: j, to: j + 1 })),
  options: ways.map(({ change, sums }) => ({ ...change, sums, massG: sums.massG })),
});
