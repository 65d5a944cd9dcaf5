import type { Frame } from '../frame';
import { recoilWeight } from '../mass';
import { bestPivot } from '../measure';
import type { KnownSpecs } from '../spec';
import { estimateSwing } from './estimate';

/**
 * Where to hang a frame for so many swings, once its weight and balance are read: see {@link bestPivot}. Its recoil weight need only be roughly known, and is estimated.
 * @returns cm from the butt, and the standard uncertainty of the swing weight that comes of it, kg·cm²; undefined while weight, balance or swings are not known
 * @example surestPivot(frame, { massG: 320, balanceCm: 32.5 }, 20)?.pivotCm
 */
export function surestPivot(
  frame: Frame,
  { massG, balanceCm }: KnownSpecs,
  swings: number | undefined,
): { pivotCm: number; uncertainty: number } | undefined {
  if (massG === undefined || balanceCm === undefined || !swings || !(swings > 0)) return undefined;
  const { axisCm } = frame.sport;
  const swingWeight = estimateSwing(frame, massG, balanceCm).value;
  const recoil = recoilWeight({ massG, balanceCm, swingWeight, axisCm });
  return bestPivot({ massG, balanceCm, recoilWeight: recoil, lengthCm: frame.lengthCm, axisCm }, swings);
}
