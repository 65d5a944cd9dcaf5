import { shortWeight } from './part-weight';
import { jobWords } from './strings';
import {
  specName,
  worstMiss,
  zoneOf,
  type Aim,
  type Frame,
  type KnownSpecs,
  type Placement,
  type Removal,
  type SpecKey,
  type SportData,
  type Swap,
} from '@kevro/core';
import { BASE_GRIP_NAMES, ZONE_NAMES } from '.';

/** «one overgrip», «leather base grip»: what a swap leads to. */
export function swapWords(swap: Swap): string {
  switch (swap.what) {
    case 'overgrips':
      return swap.to === 0 ? 'no overgrip' : swap.to === 1 ? '1 overgrip' : `${swap.to} overgrips`;
    case 'baseGrip':
      return swap.to === 'none' ? BASE_GRIP_NAMES.none : `${BASE_GRIP_NAMES[swap.to]} base grip`;
    case 'dampener':
      return swap.to ? 'dampener on' : 'dampener off';
    case 'strings':
      return [
        'new strings',
        ...(swap.job ? [jobWords(swap.job)] : []),
        ...(swap.to === true ? [] : [shortWeight(swap.to.massG)]),
      ]
        .filter(Boolean)
        .join(', ');
  }
}

/** «handle: off», «sides: down to 2.1 g» */
export function removalWords({ of, left }: Removal, frame: Frame): string {
  const zone = ZONE_NAMES[zoneOf(frame, of)].toLowerCase();
  return left ? `${zone} down to ${shortWeight(left.massG)}` : `${zone} ${shortWeight(of.massG)} off`;
}

/** «shoulders 4.5 g, butt 6 g, no overgrip»: all that a plan does. */
export function doingWords(
  {
    placements,
    swaps,
    removals,
  }: { placements: readonly Placement[]; swaps: readonly Swap[]; removals: readonly Removal[] },
  frame: Frame,
): string {
  const words = [
    ...placements.map((p) => `${ZONE_NAMES[zoneOf(frame, p)].toLowerCase()} ${shortWeight(p.massG)}`),
    ...swaps.map(swapWords),
    ...removals.map((removal) => removalWords(removal, frame)),
  ];
  return words.length === 0 ? 'nothing to put on' : words.join(', ');
}

/**
 * «swing weight 9 kg·cm² short»: the spec that misses most for a hand; empty where all are inside.
 * @param say an amount of a spec as the fitter reads it, with its unit @param hand the frame's swing weight
 */
export function missWords(
  aim: Aim,
  deviation: KnownSpecs,
  say: (key: SpecKey, amount: number) => string,
  { sport, hand }: { sport: SportData; hand: number },
): string {
  const worst = worstMiss(aim, deviation, sport, hand);
  if (!worst) return '';
  return `${specName(worst.key)} ${say(worst.key, Math.abs(worst.off))} ${worst.off > 0 ? 'over' : 'short'}`;
}

/** Why a plan may not get there: everything chosen goes to one end of the frame. */
export const ONLY_WORDS = {
  hoop: 'Tape only: nothing chosen fills the handle.',
  handle: 'Handle only: nothing chosen goes on the hoop.',
} as const;
