import { dressChange, signedParts, type Dress } from '../dress';
import type { Frame } from '../frame';
import { NOTHING, add, additionSums, total, type MassSums } from '../mass';
import type { Materials } from './material';
import type { ZoneColumn, ZoneOption } from './options';
import { changePieces } from './edit';
import { asAddition, placementPlace, type Placement } from './placement';

/** Something that can be changed on the frame, in one of several ways. Each way counts as one place. */
export interface Swap {
  name: string;
  ways: { name: string; sums: MassSums }[];
}

const way = (frame: Frame, name: string, from: Dress, to: Dress): Swap['ways'][number] => ({
  name,
  sums: total(signedParts(dressChange(frame, from, to)).map((part) => part.sums)),
});

/**
 * What can come off or be changed in a dress: an overgrip off or on, the base grip for another.
 * @example dressSwaps(frame, { baseGrip: 'synthetic', overgrips: 1 }).map((s) => s.name) // ['overgrip', 'base grip']
 */
export function dressSwaps(frame: Frame, dress: Dress): Swap[] {
  const overgrips = dress.overgrips ?? 0;
  const grip = dress.baseGrip ?? 'none';
  const change = (name: string, to: Partial<Dress>): Swap['ways'][number] =>
    way(frame, name, dress, { ...dress, ...to });
  return [
    {
      name: 'overgrip',
      ways: [
        ...(overgrips > 0 ? [change('one overgrip off', { overgrips: overgrips - 1 })] : []),
        change('one overgrip on', { overgrips: overgrips + 1 }),
      ],
    },
    {
      name: 'base grip',
      ways: [
        ...(grip === 'leather' ? [] : [change('leather base grip', { baseGrip: 'leather' as const })]),
        ...(grip === 'synthetic' ? [] : [change('synthetic base grip', { baseGrip: 'synthetic' as const })]),
      ],
    },
  ];
}

/** Weight that is there already and can be shortened piece by piece, or taken off whole. */
export function removalSwaps(frame: Frame, there: readonly Placement[], materials: Materials): Swap[] {
  return there.map((placement) => {
    const before = additionSums(frame, asAddition(placement));
    const ways: Swap['ways'] = [];
    const onAxis = placementPlace(frame, placement).on === 'handle';
    let left: Placement | undefined = placement;
    while (left) {
      left = changePieces(frame, left, materials, -1);
      const after: MassSums = left ? additionSums(frame, asAddition(left)) : NOTHING;
      const rest = left
        ? onAxis
          ? `${left.massG.toFixed(1)} g left`
          : `${(left.spanCm ?? 0).toFixed(1)} cm left`
        : 'off';
      ways.push({ name: `${placement.zone}: ${rest}`, sums: add(after, before, -1) });
    }
    return { name: placement.zone, ways };
  });
}

/** A swap as a column of the plan. */
export const swapColumn = ({ ways }: Swap): ZoneColumn => ({
  zone: undefined,
  xCm: 0,
  yCm: 0,
  mirrored: false,
  linear: false,
  options: ways.map(({ name, sums }): ZoneOption => ({
    name,
    sums,
    massG: sums.massG,
    pieces: 1,
    layers: 1,
  })),
});
