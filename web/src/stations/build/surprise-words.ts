import {
  specName,
  zoneOf,
  type Cause,
  type Change,
  type Frame,
  type Part,
  type SpecKey,
  type Surprise,
} from '@kevro/core';
import { ZONE_NAMES } from '../../words';

/** «swing weight 4.2 kg·cm² more than expected». @param say an amount with its unit */
export const offWords = ({ off }: Surprise, say: (key: SpecKey, amount: number) => string): string =>
  off
    .map(({ spec, by }) => `${specName(spec)} ${say(spec, Math.abs(by))} ${by > 0 ? 'more' : 'less'}`)
    .join(', ');

const INSTRUMENTS: Record<SpecKey, string> = {
  massG: 'The scale: set it to zero, weigh something of known weight.',
  balanceCm: 'The balance board: is its stop where the ruler begins?',
  swingWeight: 'The machine: is it calibrated, and the butt against its stop?',
  twistWeight: 'The machine: was it read edge-on and face-on alike?',
};

/** What to look at, in a sentence. */
export function causeWords(
  cause: Cause,
  { placements, parts }: Change,
  frame: Frame,
  shop: readonly Part[],
): string {
  const at = (id: string): string => {
    const placement = placements.find((p) => p.id === id);
    return placement ? ZONE_NAMES[zoneOf(frame, placement)].toLowerCase() : 'this place';
  };
  switch (cause.kind) {
    case 'left-out':
      return `Nothing at the ${at(cause.placementId)}: is that piece on?`;
    case 'twice':
      return `Twice at the ${at(cause.placementId)}: did that piece go on two times?`;
    case 'one-side':
      return `One side only at the ${at(cause.placementId)}: is its twin on?`;
    case 'other-end':
      return `The ${at(cause.placementId)}, measured from the throat instead of the tip?`;
    case 'other-part': {
      const other = [...parts, ...shop].find(({ id }) => id === cause.partId);
      return `The ${at(cause.placementId)} cut from another roll, such as ${other?.name ?? 'another'}?`;
    }
    case 'not-taken-off':
      return 'What was to come off may still be on.';
    case 'instrument':
      return INSTRUMENTS[cause.spec];
  }
}
