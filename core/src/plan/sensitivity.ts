import { halfWidthAt, settleFrame, type FrameShape } from '../frame';
import {
  SPEC_KEYS,
  add,
  point,
  recoilWeight,
  requireSpecs,
  specsOf,
  sumsOf,
  withAxis,
  type SpecKey,
  type Specs,
} from '../mass';

/** What some grams at one length of the frame change. */
export type SensitivityPoint = { xCm: number; recoilWeight: number } & Record<SpecKey, number>;

/**
 * What some grams do to each spec along the frame, at every cm from butt to tip: on the long axis, or on the head as a pair on the hoop. M' = M + m,
 * B' = (M B + m x)/M', ΔS = m (x − a)²/1000, ΔT = m y²/1000 (parallel axes).
 * @param massG 1 if left out @returns changes, not values
 * @throws Fault for impossible specs
 * @example sensitivity(shape, specs)[0].swingWeight // 0.103: a gram at the butt, 10.16 cm behind the axis
 */
export function sensitivity(shape: FrameShape, specs: Specs, massG = 1): SensitivityPoint[] {
  const frame = settleFrame(shape);
  const before = requireSpecs(withAxis(specs, frame.sport.axisCm), frame.lengthCm);
  const base = sumsOf(before);
  const recoil = recoilWeight(before);
  const lengths = Array.from({ length: Math.floor(frame.lengthCm) + 1 }, (_, i) => i);
  if ((lengths.at(-1) ?? 0) < frame.lengthCm) lengths.push(frame.lengthCm);
  return lengths.map((xCm) => {
    const after = specsOf(add(base, point(massG, xCm, halfWidthAt(frame.rim, xCm))), before.axisCm, true);
    const change = { xCm, recoilWeight: recoilWeight(after) - recoil } as SensitivityPoint;
    for (const key of SPEC_KEYS) change[key] = (after[key] ?? 0) - (before[key] ?? 0);
    return change;
  });
}
