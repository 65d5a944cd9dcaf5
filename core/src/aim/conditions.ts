import { dataOf, type AnySport } from '../sport';
import { targetOf, type Aim } from './aim';

export const CONDITIONS = ['hot-fast', 'cold-slow'] as const;
export type Conditions = (typeof CONDITIONS)[number];

/** How far weight goes for them, in noticeable steps of balance: small enough that it is the same frame (common practice; the size is a convention). */
const SHIFT_STEPS = 0.5;

/**
 * An aim for where it is played: hot and fast, the ball flies by itself and weight goes toward the hand, for control; cold and slow, it goes toward the tip, for
 * power. The balance moves by half a noticeable step, the rest stays.
 * @returns the aim as it was where no balance is aimed at
 * @example aimForConditions('tennis', { balanceCm: { value: 32.5, tolerance: 0.15 } }, 'hot-fast').balanceCm?.value // 32.35
 */
export function aimForConditions(sport: AnySport, aim: Aim, conditions: Conditions): Aim {
  const balanceCm = targetOf(aim, 'balanceCm');
  if (!balanceCm) return aim;
  const data = dataOf(sport);
  const by = SHIFT_STEPS * data.noticeable.balanceCm * (conditions === 'hot-fast' ? -1 : 1);
  // Finer than an aim is usually written: half a step is less than two of those.
  const value = Number((balanceCm.value + by).toFixed(data.decimals.balanceCm + 1));
  return { ...aim, balanceCm: { ...balanceCm, value } };
}
