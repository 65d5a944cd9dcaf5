import type { ShapeLimit } from '../sport';
import { settleFrame, type FrameShape } from './shape';

/** A limit of the rules that a shape breaks: by how much, and where the limit is published. */
export interface BrokenLimit extends ShapeLimit {
  valueCm: number;
}

/** Slack for lengths converted from inches, cm. */
const SLACK_CM = 1e-6;

/**
 * The published limits on size that a shape breaks; empty when it keeps them all.
 * The width is that of the whole head, the face that of the bed.
 * @example brokenLimits({ sport: 'pickleball', lengthCm: 44 })[0].mostCm // 43.18
 */
export function brokenLimits(shape: FrameShape): BrokenLimit[] {
  const { head, bed, lengthCm, sport } = settleFrame(shape);
  const widthCm = 2 * head.acrossCm;
  const value: Record<ShapeLimit['of'], number> = {
    length: lengthCm,
    width: widthCm,
    'length-plus-width': lengthCm + widthCm,
    'face-length': 2 * bed.alongCm,
    'face-width': 2 * bed.acrossCm,
  };
  return sport.limits
    .map((limit) => ({ ...limit, valueCm: value[limit.of] }))
    .filter(({ valueCm, mostCm }) => valueCm > mostCm + SLACK_CM);
}
