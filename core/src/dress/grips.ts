import type { SportData } from '../sport';

/** A handle: a frame's, or a sport's usual one. */
type Handle = Pick<SportData, 'handleLengthCm' | 'handleRadiusCm'>;

/** What is wound around a handle. */
export type WoundGrip = 'synthetic' | 'leather' | 'overgrip';

interface Strip {
  widthCm: number;
  /** How far each turn lies on the one before, cm: a base grip's edges lie side by side. */
  overlapCm: number;
  /** Thickness where one turn lies, as wound: a stretched overgrip is about half as thick as on its reel, cm. */
  thicknessCm: number;
}

/** Width, overlap and thickness of usual strips (from memory; an overgrip as wound makes about half a handle size, common practice). */
const STRIPS: Record<WoundGrip, Strip> = {
  synthetic: { widthCm: 2.5, overlapCm: 0, thicknessCm: 0.16 },
  leather: { widthCm: 2.5, overlapCm: 0, thicknessCm: 0.14 },
  overgrip: { widthCm: 2.5, overlapCm: 0.3, thicknessCm: 0.022 },
};

/** One handle size is an eighth of an inch of circumference. */
const SIZE_CM = 0.3175;

export interface Winding {
  /** Turns of the strip, the square one at the butt among them. */
  turns: number;
  /** Strip that they take, cm. */
  stripCm: number;
  /** Handle sizes (eighths of an inch of circumference) that it adds, or takes away where it comes off. */
  sizes: number;
}

/**
 * How a grip is wound over a handle: one turn square at the butt, then a helix that climbs by the strip's width less its overlap with each turn;
 * a turn is √((2πr)² + pitch²) long (the helix, handbook). The circumference grows by 2πt for each layer that lies over one another on the average.
 * An overgrip lies over a base grip.
 * @example windingOf(settleFrame({ sport: 'tennis', lengthCm: 68.58 }), 'overgrip').sizes // about 0.5
 */
export function windingOf({ handleLengthCm, handleRadiusCm }: Handle, grip: WoundGrip): Winding {
  const { widthCm, overlapCm, thicknessCm } = STRIPS[grip];
  const pitchCm = widthCm - overlapCm;
  const layers = widthCm / pitchCm;
  const below = grip === 'overgrip' ? STRIPS.synthetic.thicknessCm : 0;
  const around = 2 * Math.PI * (handleRadiusCm + below + thicknessCm / 2);
  const climbing = handleLengthCm / pitchCm;
  return {
    turns: 1 + climbing,
    stripCm: around + climbing * Math.hypot(around, pitchCm),
    sizes: (2 * Math.PI * thicknessCm * layers) / SIZE_CM,
  };
}

/**
 * How much more of a grip a handle takes than that of the sport's usual frame: its typical mass is a mass a turn, and grows with the turns and how long each is.
 * @example gripShare(settleFrame({ sport: 'tennis', lengthCm: 68.58 }), 'overgrip') // 1
 */
export const gripShare = (frame: Handle & { sport: SportData }, grip: WoundGrip): number =>
  windingOf(frame, grip).stripCm / windingOf(frame.sport, grip).stripCm;
