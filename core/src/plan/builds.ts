import { isInside, targetOf, type Aim } from '../aim';
import { settleFrame, type FrameShape } from '../frame';
import { SPEC_KEYS, swingAbout, type AxisSpecs, type SpecKey } from '../mass';
import { seededNormals, type SpecUncertainty } from '../measure';
import type { Part, Placement } from '../part';
import type { Dress } from '../sport';
import { NO_CHANGE, changeOutcome } from './change';
import { errorSources, type Care } from './errors';

export interface SimulatedBuilds {
  /** Share of builds that come out inside the aim. */
  passes: number;
  mean: Record<SpecKey, number>;
  /** Standard deviation over all builds. */
  spread: Record<SpecKey, number>;
}

/**
 * What comes out when a plan is built many times (JCGM 101:2008): each error of the one error model varies by its standard uncertainty, and the specs are
 * worked out anew from the sums, so that balance is the ratio that it is.
 * @param readings what the instruments leave uncertain, standard uncertainties @param count builds, 1 or more @param seed the same seed gives the same answer
 * @example simulateBuilds(shape, before, readings, placements, parts, aim, 10_000, 1).passes // 0.86
 */
export function simulateBuilds(
  shape: FrameShape,
  before: AxisSpecs,
  readings: SpecUncertainty,
  placements: readonly Placement[],
  parts: readonly Part[],
  aim: Aim,
  count: number,
  seed: number,
  care?: Care,
): SimulatedBuilds {
  const frame = settleFrame(shape);
  const dress: Dress = {};
  const change = { ...NO_CHANGE, placements, parts };
  const after = changeOutcome(frame, before, dress, change).specs;
  const { axisCm } = after;
  const sources = errorSources(frame, dress, change, care).map(({ sums }) => ({
    ...sums,
    swingWeight: swingAbout(sums, axisCm),
  }));
  const firstGCm = after.massG * after.balanceCm;
  const normal = seededNormals(seed);
  const limits = SPEC_KEYS.map((key) => targetOf(aim, key));
  const sum = new Float64Array(4);
  const squares = new Float64Array(4);
  const value = new Float64Array(4);
  const centre = [after.massG, after.balanceCm, after.swingWeight, after.twistWeight ?? 0];
  let inside = 0;
  for (let n = 0; n < count; n++) {
    let m = 0;
    let f = 0;
    let s = 0;
    let t = 0;
    for (const source of sources) {
      const z = normal();
      m += z * source.massG;
      f += z * source.firstGCm;
      s += z * source.swingWeight;
      t += z * source.twistGCm2;
    }
    value[0] = after.massG + m + readings.massG * normal();
    value[1] = (firstGCm + f) / (after.massG + m) + readings.balanceCm * normal();
    value[2] = after.swingWeight + s + readings.swingWeight * normal();
    value[3] = (after.twistWeight ?? 0) + t / 1000 + readings.twistWeight * normal();
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
