import { isInside, type Aim } from '../aim';
import { settleFrame, type FrameShape } from '../frame';
import { SPEC_KEYS, sumsOf, swingAbout, type AxisSpecs, type SpecKey } from '../mass';
import { seededNormals, type SpecUncertainty } from '../measure';
import { partNamed, partRule, placementSums, DENSITY_SHARE, type Part, type Placement } from '../part';
import { PLACING_CM } from './change';

export interface SimulatedBuilds {
  /** Share of builds that come out inside the aim. */
  passes: number;
  mean: Record<SpecKey, number>;
  /** Standard deviation over all builds. */
  spread: Record<SpecKey, number>;
}

/**
 * What comes out when a plan is built many times (JCGM 101:2008): readings, densities and places vary by their standard uncertainties.
 * @param count builds, 1 or more @param seed the same seed gives the same answer
 * @example simulateBuilds(shape, before, readings, placements, parts, aim, 10_000, 1).passes // 0.86
 */
export function simulateBuilds(
  shape: FrameShape,
  before: AxisSpecs,
  readings: SpecUncertainty,
  placements: readonly Placement[],
  made: readonly Part[],
  aim: Aim,
  count: number,
  seed: number,
): SimulatedBuilds {
  const frame = settleFrame(shape);
  const start = sumsOf(before);
  const parts = placements.map((p) => {
    const part = partNamed(made, p.partId);
    const sums = placementSums(frame, p, part);
    return {
      massShare: part ? partRule(part).massUncertaintyG(part, p.massG) / p.massG : DENSITY_SHARE,
      ...sums,
      swing: swingAbout(sums, before.axisCm),
      reachCm: Math.sqrt(Math.max(0, sums.twistGCm2 / sums.massG)),
    };
  });
  const normal = seededNormals(seed);
  const limits = SPEC_KEYS.map((key) => {
    const target = aim[key];
    return target && target.priority !== 'free' ? target : undefined;
  });
  const sum = new Float64Array(4);
  const squares = new Float64Array(4);
  const value = new Float64Array(4);
  const centre = [before.massG, before.balanceCm, before.swingWeight, before.twistWeight ?? 0];
  let inside = 0;
  for (let n = 0; n < count; n++) {
    let massG = start.massG + readings.massG * normal();
    let firstGCm = massG * (before.balanceCm + readings.balanceCm * normal());
    let swing = before.swingWeight + readings.swingWeight * normal();
    let twist = (before.twistWeight ?? 0) + readings.twistWeight * normal();
    for (const part of parts) {
      const share = 1 + part.massShare * normal();
      const dx = PLACING_CM * normal();
      const m = share * part.massG;
      massG += m;
      firstGCm += share * part.firstGCm + m * dx;
      swing +=
        share * part.swing + (2 * dx * (share * part.firstGCm - before.axisCm * m) + m * dx * dx) / 1000;
      const dy = part.reachCm > 0 ? PLACING_CM * normal() : 0;
      twist += (share * part.twistGCm2 + 2 * m * part.reachCm * dy + m * dy * dy) / 1000;
    }
    value[0] = massG;
    value[1] = firstGCm / massG;
    value[2] = swing;
    value[3] = twist;
    let all = true;
    for (let i = 0; i < 4; i++) {
      const v = value[i] as number;
      const limit = limits[i];
      if (limit && !isInside(limit, v)) all = false;
      const off = v - (centre[i] as number);
      sum[i] = (sum[i] as number) + off;
      squares[i] = (squares[i] as number) + off * off;
    }
    if (all) inside++;
  }
  const mean = {} as Record<SpecKey, number>;
  const spread = {} as Record<SpecKey, number>;
  SPEC_KEYS.forEach((key, i) => {
    const average = (sum[i] as number) / count;
    mean[key] = (centre[i] as number) + average;
    spread[key] = Math.sqrt(Math.max(0, (squares[i] as number) / count - average * average));
  });
  return { passes: inside / count, mean, spread };
}
