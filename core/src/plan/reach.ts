import { noticeableStep, stepDistance } from '../compare';
import type { FaultCode } from '../fault';
import { placeOf, settleFrame, type FrameShape } from '../frame';
import {
  SPEC_KEYS,
  additionSums,
  linearSpec,
  requireSpecs,
  setupProblem,
  shiftKnown,
  specsOf,
  sumsOf,
  withAxis,
  type AxisSpecs,
  type MassSums,
  type SpecKey,
  type Specs,
} from '../mass';
import type { KnownSpecs } from '../spec';
import { withOwn, type OwnNumbers, type SportData } from '../sport';
import { BoundedSquares } from './bounded-squares';
import { mix } from './relaxation';
import { WANT, type Table } from './table';

export interface Reach {
  id: string;
  /** Whether every spec that the setup knows can be brought within one noticeable step. */
  reachable: boolean;
  /** The least grams to be within a step of every spec; where that cannot be, the grams of the nearest that can be. */
  addedG: number;
  /** The least distance that there can be, in noticeable steps; undefined for a setup that cannot be. */
  distanceSteps?: number;
  /** Specs that are not known on both sides, and do not count. */
  unknown: SpecKey[];
  /** What is wrong with a setup that cannot be. */
  impossible?: FaultCode;
}

/** A gram costs little beside a step: grams only decide among ways that stay within the steps. */
const STEPS_PER_G = 1e-4;
const REACHED_EPS = 1e-6;
/** A balance is a ratio: its row is scaled by the mass that came out before. */
const BALANCE_ROUNDS = 4;
const SAME_MASS = 1e-4;

interface ZoneLoad {
  massG: number;
  sums: MassSums;
}

class Reacher {
  private readonly all: number[];
  private readonly tables: Table[] = [];
  private readonly spaces: { squares: BoundedSquares; a: Float64Array; b: Float64Array; x: Float64Array }[] =
    [];

  constructor(
    private readonly own: AxisSpecs,
    private readonly base: MassSums,
    private readonly zones: readonly ZoneLoad[],
    private readonly sport: SportData,
  ) {
    this.all = zones.map((_, k) => k);
  }

  /** Sums of the frame with shares of each zone's cap put on. */
  private with(shares: ArrayLike<number>): MassSums {
    const sums = { ...this.base };
    for (let k = 0; k < this.zones.length; k++) {
      const share = shares[k] as number;
      if (!(share > 0)) continue;
      const load = (this.zones[k] as ZoneLoad).sums;
      sums.massG += share * load.massG;
      sums.firstGCm += share * load.firstGCm;
      sums.secondGCm2 += share * load.secondGCm2;
      sums.twistGCm2 += share * load.twistGCm2;
    }
    return sums;
  }

  /** One noticeable step of a row; a balance's is that of its moment at a mass. */
  private step(key: SpecKey, massG: number): number {
    const step = noticeableStep(this.sport.noticeable, key, this.own.swingWeight);
    return key === 'balanceCm' ? step * massG : step;
  }

  private gap(key: SpecKey, target: number, step: number): number {
    const { base, own } = this;
    const aim: Record<SpecKey, number> = {
      massG: target - own.massG,
      balanceCm: target * base.massG - base.firstGCm,
      swingWeight: target - own.swingWeight,
      twistWeight: target - (own.twistWeight ?? 0),
    };
    return aim[key] / step;
  }

  /** Shares that come nearest: the least sum of squared steps. */
  nearest(keys: readonly SpecKey[], target: KnownSpecs): Float64Array {
    const n = this.zones.length;
    const { squares, a, b, x } = (this.spaces[keys.length] ??= {
      squares: new BoundedSquares(keys.length, n),
      a: new Float64Array(keys.length * n),
      b: new Float64Array(keys.length),
      x: new Float64Array(n),
    });
    x.fill(0);
    let massG = target.massG ?? this.own.massG;
    for (let round = 0; round < BALANCE_ROUNDS; round++) {
      keys.forEach((key, i) => {
        // Only the balance's row changes with the mass.
        if (round > 0 && key !== 'balanceCm') return;
        const to = target[key] as number;
        const step = this.step(key, massG);
        for (let k = 0; k < n; k++)
          a[i * n + k] = linearSpec(key, (this.zones[k] as ZoneLoad).sums, to, this.own.axisCm) / step;
        b[i] = this.gap(key, to, step);
      });
      squares.solve(a, b, x);
      const came = this.with(x).massG;
      if (!keys.includes('balanceCm') || Math.abs(came - massG) < SAME_MASS * massG) break;
      massG = came;
    }
    return x;
  }

  /** The least grams with every row within a step; undefined where that cannot be. */
  lightest(keys: readonly SpecKey[], target: KnownSpecs): number | undefined {
    const { zones, own } = this;
    const scale = target.massG ?? own.massG;
    const table = this.tableOf(keys.length);
    keys.forEach((key, i) => {
      const to = target[key] as number;
      const step = this.step(key, scale);
      table.base[i] = -this.gap(key, to, step);
      // A balance may be a step off at the mass that comes out.
      const ratio = key === 'balanceCm';
      table.room[i] = ratio ? own.massG / scale : 1;
      table.roomPerG[i] = ratio ? 1 / scale : 0;
      for (let k = 0; k < zones.length; k++) {
        const { r } = table.columns[k] as Table['columns'][number];
        r[i] = linearSpec(key, (zones[k] as ZoneLoad).sums, to, own.axisCm) / step;
      }
    });
    const { shares } = mix(table, table.share, table.base, 0, this.all, STEPS_PER_G);
    const sums = this.with(shares.map((share) => share[0] as number));
    const { steps: left } = this.distance(sums, target);
    for (const key of keys) if (Math.abs(left[key] as number) > 1 + REACHED_EPS) return undefined;
    return sums.massG - own.massG;
  }

  /** One table for each number of rows, filled anew for each setup. */
  private tableOf(rows: number): Table {
    return (this.tables[rows] ??= {
      rows,
      base: new Float64Array(rows),
      room: new Float64Array(rows),
      roomPerG: new Float64Array(rows),
      share: new Float64Array(rows).fill(1),
      kind: new Uint8Array(rows).fill(WANT),
      columns: this.zones.map(({ massG }, index) => ({
        index,
        count: 1,
        r: new Float64Array(rows),
        mass: Float64Array.of(massG),
        lines: [],
        single: true,
        lightest: massG,
        heaviest: massG,
      })),
    });
  }

  distance(sums: MassSums, target: KnownSpecs) {
    const reached = specsOf(sums, this.own.axisCm, this.own.twistWeight !== undefined);
    return stepDistance(reached, target, this.sport, this.own.swingWeight);
  }

  private keysOf(target: KnownSpecs): SpecKey[] {
    return SPEC_KEYS.filter((key) => target[key] !== undefined && this.own[key] !== undefined);
  }

  closest(target: KnownSpecs): { specs: KnownSpecs; distanceSteps: number; addedG: number } | undefined {
    const keys = this.keysOf(target);
    if (keys.length === 0) return undefined;
    const sums = this.with(this.nearest(keys, target));
    const { distanceSteps } = this.distance(sums, target);
    const { axisCm: _, ...specs } = specsOf(sums, this.own.axisCm, this.own.twistWeight !== undefined);
    return { specs, distanceSteps, addedG: sums.massG - this.own.massG };
  }

  reach(id: string, setup: KnownSpecs & { axisCm?: number }, mostCm: number): Reach {
    const problem = setupProblem(setup, this.sport, mostCm);
    if (problem) return { id, reachable: false, addedG: 0, unknown: [], impossible: problem };
    const target = shiftKnown(setup, this.own.axisCm, this.sport.axisCm);
    const keys = this.keysOf(target);
    const unknown = SPEC_KEYS.filter((key) => !keys.includes(key));
    const nearest = this.with(this.nearest(keys, target));
    const { distanceSteps } = this.distance(nearest, target);
    // All within a step is at most the root of so many steps away.
    const hopeless = distanceSteps > Math.sqrt(keys.length) + REACHED_EPS;
    const lightest = hopeless ? undefined : this.lightest(keys, target);
    return {
      id,
      reachable: lightest !== undefined,
      addedG: lightest ?? nearest.massG - this.own.massG,
      distanceSteps,
      unknown,
    };
  }
}

function reacherOf(shape: FrameShape, specs: Specs, shop?: OwnNumbers) {
  const frame = settleFrame(shape);
  const own = requireSpecs(withAxis(specs, frame.sport.axisCm), frame.lengthCm);
  const zones = frame.sport.zones.map((zone): ZoneLoad => {
    const { xCm, yCm } = placeOf(frame, { zone: zone.name });
    return { massG: zone.capG, sums: additionSums(frame, { massG: zone.capG, at: { xCm, yCm } }) };
  });
  return { frame, reacher: new Reacher(own, sumsOf(own), zones, withOwn(frame.sport, shop)) };
}

/**
 * The specs nearest to wanted ones that a frame can be given, about the frame's own axis, with how far they are and what they weigh.
 * @returns undefined where nothing is wanted that the frame's own is known of
 * @example closestReach(shape, specs, { massG: 330 })?.specs.massG // 330
 */
export function closestReach(
  shape: FrameShape,
  specs: Specs,
  wanted: KnownSpecs,
): { specs: KnownSpecs; distanceSteps: number; addedG: number } | undefined {
  return reacherOf(shape, specs).reacher.closest(wanted);
}

/**
 * How close a frame can get to each of many setups, over all zones and what each takes (continuous; what is on the frame stays on it): the least distance
 * that there can be, by bounded least squares; and, apart from it, the least grams with every spec within one noticeable step, a linear programme.
 * Specs that one side does not know do not count and are named; a setup that cannot be is answered with what is wrong and fails no other.
 * @param specs of the frame @param setups in the same dress, with what is known of each; each may state its own axis @param own the shop's noticeable steps
 * @throws Fault for impossible specs of the frame
 * @example reach(shape, specs, [{ id: 'a', specs: heavier }])[0].reachable // true
 */
export function reach(
  shape: FrameShape,
  specs: Specs,
  setups: readonly { id: string; specs: KnownSpecs & { axisCm?: number } }[],
  own?: OwnNumbers,
): Reach[] {
  const { frame, reacher } = reacherOf(shape, specs, own);
  return setups.map(({ id, specs: given }) => reacher.reach(id, given, frame.lengthCm * 2));
}
