import { settleFrame, type Frame } from '../frame';
import { estimateTwist } from '../impact';
import { G_CM2_PER_KG_CM2 } from '../units';
import { recoilWeight } from '../mass';

/** How far an estimated recoil weight may be off, as a standard uncertainty: frames of one weight and balance differ in layup (from memory). */
const RECOIL_SHARE = 0.06;

/** Recoil weight over M L² of the sport's usual frame: a pure number that changes little from frame to frame. */
export function usualRecoilShare({ sport }: Pick<Frame, 'sport'>): number {
  const { usual, axisCm } = sport;
  const { lengthCm } = settleFrame({ sport: sport.sport, lengthCm: sport.lengthCm });
  return (recoilWeight({ ...usual, axisCm }) * G_CM2_PER_KG_CM2) / (usual.massG * lengthCm ** 2);
}

/**
 * A swing weight guessed from weight, balance and length: S ≈ k M L² + M (B − a)²/1000, k as in the sport's usual frame. An estimate must be shown as one.
 * @returns kg·cm² about the sport's axis, with its standard uncertainty
 * @example estimateSwing(settleFrame({ sport: 'tennis', lengthCm: 68.58 }), 320, 32.5).value // 320, the usual frame itself
 */
export function estimateSwing(
  frame: Frame,
  massG: number,
  balanceCm: number,
): { value: number; uncertainty: number } {
  const recoil = (usualRecoilShare(frame) * massG * frame.lengthCm ** 2) / G_CM2_PER_KG_CM2;
  const moved = (massG * (balanceCm - frame.sport.axisCm) ** 2) / G_CM2_PER_KG_CM2;
  return { value: recoil + moved, uncertainty: RECOIL_SHARE * recoil };
}

/** The estimate of a quantity from what else is known of the frame; undefined where it takes more than is there. */
export function estimateOf(
  frame: Frame,
  quantity: 'swingWeight' | 'twistWeight',
  known: { massG?: number; balanceCm?: number },
): { value: number; uncertainty: number } | undefined {
  const { massG, balanceCm } = known;
  if (massG === undefined) return undefined;
  if (quantity === 'twistWeight') {
    const { twistWeight, uncertainty } = estimateTwist(frame, massG);
    return { value: twistWeight, uncertainty };
  }
  return balanceCm === undefined ? undefined : estimateSwing(frame, massG, balanceCm);
}
