import { stepDistance } from '../compare';
import { placeOf, settleFrame, type FrameShape } from '../frame';
import {
  add,
  additionSums,
  requireSpecs,
  shiftAxis,
  specsOf,
  sumsOf,
  swingAbout,
  withAxis,
  type Specs,
} from '../mass';
import { relax } from './relaxation';
import type { Table } from './table';

export interface Reach {
  id: string;
  /** Whether every spec can be brought within one noticeable step. */
  reachable: boolean;
  addedG: number;
  /** Distance that is left, in noticeable steps. */
  distanceSteps: number;
}

/** A gram costs little beside a step: grams only decide among ways that come equally near. */
const STEPS_PER_G = 1e-4;
const REACHED_EPS = 1e-6;

/**
 * How close a frame can get to each of many setups: the continuous optimum over all zones, with a tolerance of one noticeable step a spec,
 * then the least mass. What is on the frame stays on it. Specs that one side does not know are left out.
 * @param specs of the frame @param setups in the same dress; each may state its own axis
 * @throws Fault for impossible specs, with the setup's place in the list
 * @example reach(shape, specs, [{ id: 'a', specs: heavier }])[0].reachable // true
 */
export function reach(
  shape: FrameShape,
  specs: Specs,
  setups: readonly { id: string; specs: Specs }[],
): Reach[] {
  const frame = settleFrame(shape);
  const own = requireSpecs(withAxis(specs, frame.sport.axisCm), frame.lengthCm);
  const base = sumsOf(own);
  const zones = frame.sport.zones.map((zone) => {
    const place = placeOf(frame, { zone: zone.name });
    return {
      massG: zone.capG,
      sums: additionSums(frame, { massG: zone.capG, at: { xCm: place.xCm, yCm: place.yCm } }),
    };
  });
  const { noticeable } = frame.sport;
  const swingStep = noticeable.swingWeightShare * own.swingWeight;

  // The table is made once and filled anew for each setup: only the balance row's coefficients and the start change.
  const twist = own.twistWeight !== undefined;
  const table: Table = {
    rows: twist ? 8 : 6,
    base: new Float64Array(twist ? 8 : 6),
    weight: new Float64Array(twist ? 8 : 6).fill(1),
    hard: new Uint8Array(twist ? 8 : 6),
    columns: zones.map(({ massG }, index) => ({
      index,
      count: 1,
      g: new Float64Array(twist ? 8 : 6),
      mass: Float64Array.of(massG),
      ascending: true,
      trend: new Int8Array(twist ? 8 : 6),
      least: new Float64Array(twist ? 8 : 6),
      linear: true,
    })),
  };
  const all = zones.map((_, place) => place);
  const set = (g: Float64Array, row: number, change: number, room: number): void => {
    g[2 * row] = change - room;
    g[2 * row + 1] = -change - room;
  };

  return setups.map(({ id, specs: given }, n) => {
    const target = shiftAxis(
      requireSpecs(withAxis(given, frame.sport.axisCm), frame.lengthCm * 2, `setups.${n}.specs`),
      own.axisCm,
    );
    const perMoment = 1 / (noticeable.balanceCm * target.massG);
    zones.forEach(({ massG, sums }, place) => {
      const { g } = table.columns[place] as Table['columns'][number];
      set(g, 0, massG / noticeable.massG, 0);
      set(g, 1, (sums.firstGCm - target.balanceCm * sums.massG) * perMoment, massG / target.massG);
      set(g, 2, swingAbout(sums, own.axisCm) / swingStep, 0);
      if (twist) set(g, 3, sums.twistGCm2 / 1000 / noticeable.twistWeight, 0);
    });
    set(table.base, 0, (own.massG - target.massG) / noticeable.massG, 1);
    set(
      table.base,
      1,
      (base.firstGCm - target.balanceCm * base.massG) * perMoment,
      base.massG / target.massG,
    );
    set(table.base, 2, (own.swingWeight - target.swingWeight) / swingStep, 1);
    if (twist) {
      const off = target.twistWeight === undefined ? 0 : (own.twistWeight as number) - target.twistWeight;
      set(table.base, 3, off / noticeable.twistWeight, 1);
      table.weight[6] = table.weight[7] = target.twistWeight === undefined ? 0 : 1;
    }
    const { shares } = relax(table, table.base, all, STEPS_PER_G);
    let sums = base;
    zones.forEach((zone, place) => {
      sums = add(sums, zone.sums, shares[place]?.[0] ?? 0);
    });
    const reached = specsOf(sums, own.axisCm, twist);
    const { distanceSteps, steps } = stepDistance(reached, target, frame.sport, own.swingWeight);
    const worst = Math.max(...Object.values(steps).map(Math.abs));
    return { id, reachable: worst <= 1 + REACHED_EPS, addedG: sums.massG - base.massG, distanceSteps };
  });
}
