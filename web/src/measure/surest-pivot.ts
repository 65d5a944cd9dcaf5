import { bestPivot, estimateSwing, recoilWeight, type Frame, type KnownSpecs } from '@kevro/core';

/** Where a frame is hung best, and the standard uncertainty of the swing weight that comes of it. */
export interface Pivot {
  pivotCm: number;
  uncertainty: number;
}

/** Where to hang a frame for so many swings, once its weight and balance are read: its recoil weight need only be roughly known. */
export function surestPivot(
  frame: Frame,
  { massG, balanceCm }: KnownSpecs,
  swings: number | undefined,
): Pivot | undefined {
  if (massG === undefined || balanceCm === undefined || !swings || !(swings > 0)) return undefined;
  const { axisCm } = frame.sport;
  const swingWeight = estimateSwing(frame, massG, balanceCm).value;
  const recoil = recoilWeight({ massG, balanceCm, swingWeight, axisCm });
  return bestPivot({ massG, balanceCm, recoilWeight: recoil, lengthCm: frame.lengthCm, axisCm }, swings);
}
