import { Fault } from '../fault';
import { settleFrame, type FrameShape } from '../frame';
import { G_CM2_PER_KG_CM2 } from '../units';
import { sumsOfAdditions, type Addition } from './addition';
import {
  derive,
  requireSpecs,
  specProblems,
  specsOf,
  sumsOf,
  withAxis,
  type AxisSpecs,
  type Specs,
} from './specs';
import { recoilWeight, type Derived } from './derived';
import { add, total } from './sums';

export interface Prediction {
  specs: AxisSpecs & Derived;
  delta: { massG: number; balanceCm: number; swingWeight: number; twistWeight: number; recoilWeight: number };
}

/**
 * What a frame becomes when weight is put on it or taken off.
 * M' = M + Σm; B' = (MB + Σmx)/M'; S' = S + Σ[m (x−a)² + i_y]/1000; T' = T + Σ[m y² + i_x]/1000 (parallel axes).
 * @param shape lengths in cm @param measured specs before: g, cm, kg·cm² @param additions in g and cm
 * @returns the specs after with what derives from them, and the change of each; twist weight stays out where it was not known, its change is given
 * @throws Fault for impossible specs, spots off the frame, or more taken off than is there
 * @example predict({ sport: 'tennis', lengthCm: 68.58 }, { massG: 336, balanceCm: 32.4, swingWeight: 339 },
 *   [{ massG: 4, at: { clock: 12 } }]).delta.swingWeight // 13.65…
 */
export function predict(shape: FrameShape, measured: Specs, additions: readonly Addition[]): Prediction {
  const frame = settleFrame(shape);
  const before = requireSpecs(withAxis(measured, frame.sport.axisCm), frame.lengthCm);
  const added = total(sumsOfAdditions(frame, additions));
  const sums = add(sumsOf(before), added);
  if (!(sums.massG > 0)) throw new Fault({ code: 'removal-too-large', path: 'additions' });
  const after = specsOf(sums, before.axisCm, before.twistWeight !== undefined);
  if (specProblems(after, frame.lengthCm).length > 0) {
    throw new Fault({ code: 'removal-too-large', path: 'additions' });
  }
  const derived = derive(after, frame.lengthCm);
  return {
    specs: { ...after, ...derived },
    delta: {
      massG: added.massG,
      balanceCm: after.balanceCm - before.balanceCm,
      swingWeight: after.swingWeight - before.swingWeight,
      twistWeight: added.twistGCm2 / G_CM2_PER_KG_CM2,
      recoilWeight: derived.recoilWeight - recoilWeight(before),
    },
  };
}
