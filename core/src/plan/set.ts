import { Fault } from '../fault';
import { settleFrame, placeOf, type FrameShape } from '../frame';
import {
  add,
  additionSums,
  requireSpecs,
  specsOf,
  sumsOf,
  withAxis,
  type AxisSpecs,
  type MassSums,
  type Specs,
} from '../mass';
import { minimise } from './simplex';

/** Frames of a set, all of one sport. */
export interface SetFrame {
  shape: FrameShape;
  specs: Specs;
}

export interface CommonAim {
  /** Specs that every frame of the set can reach. */
  specs: AxisSpecs;
  /** What each frame then carries, g, in the order given. */
  loadsG: number[];
  /** Whether all of them reach it exactly with what their zones take. */
  reachable: boolean;
}

/** Apart from the heaviest load, a gram anywhere costs this much of one there. */
const ANY_GRAM = 1e-3;
/** A step of distance left costs more than any load. */
const PER_STEP = 1e4;

const ROWS = ['massG', 'firstGCm', 'secondGCm2', 'twistGCm2'] as const;

/**
 * One aim for two to six frames that all can reach, with the least mass on the heaviest load (continuous; each frame is then planned in whole
 * pieces). Every frame's sums plus what is put on must equal those of the first frame plus what is put on there; a linear programme.
 * @throws Fault `set-size`, or what is wrong with a frame's specs; twist weight counts only where all of them know theirs
 * @example commonAim([{ shape, specs: light }, { shape, specs: heavy }]).loadsG // [3.4…, 0]
 */
export function commonAim(frames: readonly SetFrame[]): CommonAim {
  if (frames.length < 2 || frames.length > 6) throw new Fault({ code: 'set-size', path: 'frames' });
  const settled = frames.map(({ shape, specs }, i) => {
    const frame = settleFrame(shape);
    const own = requireSpecs(withAxis(specs, frame.sport.axisCm), frame.lengthCm, `frames.${i}.specs`);
    const zones = frame.sport.zones.map((zone) => {
      const { xCm, yCm } = placeOf(frame, { zone: zone.name });
      return { capG: zone.capG, perG: additionSums(frame, { massG: 1, at: { xCm, yCm } }) };
    });
    return { own, base: sumsOf(own), zones, noticeable: frame.sport.noticeable };
  });
  const twist = settled.every(({ own }) => own.twistWeight !== undefined);
  const keys = twist ? ROWS : ROWS.slice(0, 3);
  const first = settled[0] as (typeof settled)[number];
  const { massG, swingWeight, axisCm } = first.own;
  const { noticeable } = first;
  // A noticeable step in each of the sums, so that what is left over is counted alike.
  const step: Record<(typeof ROWS)[number], number> = {
    massG: noticeable.massG,
    firstGCm: noticeable.balanceCm * massG,
    secondGCm2: noticeable.swingWeightShare * swingWeight * 1000,
    twistGCm2: noticeable.twistWeight * 1000,
  };

  const grams = settled.flatMap(({ zones }, f) => zones.map((zone) => ({ f, ...zone })));
  const equalities = (settled.length - 1) * keys.length;
  const rows = equalities + grams.length + settled.length;
  // Columns: grams, the heaviest load, over and under of each equality, slacks of caps and loads, right-hand side.
  const load = grams.length;
  const over = load + 1;
  const slack = over + 2 * equalities;
  const width = slack + grams.length + settled.length + 1;
  const t = new Float64Array((rows + 1) * width);
  const basis = new Int32Array(rows);
  const cost = new Float64Array(width);
  cost.fill(ANY_GRAM, 0, grams.length);
  cost[load] = 1;
  cost.fill(PER_STEP, over, slack);

  let row = 0;
  for (let f = 1; f < settled.length; f++) {
    for (const key of keys) {
      const gap = (first.base[key] - (settled[f] as typeof first).base[key]) / step[key];
      const sign = gap < 0 ? -1 : 1;
      grams.forEach((g, n) => {
        const of = g.f === f ? 1 : g.f === 0 ? -1 : 0;
        t[row * width + n] = (sign * of * g.perG[key]) / step[key];
      });
      const pair = over + 2 * row;
      t[row * width + pair] = sign;
      t[row * width + pair + 1] = -sign;
      t[row * width + width - 1] = Math.abs(gap);
      basis[row] = sign > 0 ? pair : pair + 1;
      row++;
    }
  }
  grams.forEach((g, n) => {
    t[row * width + n] = 1;
    t[row * width + slack + n] = 1;
    t[row * width + width - 1] = g.capG;
    basis[row++] = slack + n;
  });
  settled.forEach((_, f) => {
    grams.forEach((g, n) => {
      if (g.f === f) t[row * width + n] = 1;
    });
    t[row * width + load] = -1;
    t[row * width + slack + grams.length + f] = 1;
    basis[row++] = slack + grams.length + f;
  });
  t.set(cost, rows * width);
  basis.forEach((column, i) => {
    const price = cost[column] as number;
    if (price === 0) return;
    for (let c = 0; c < width; c++)
      t[rows * width + c] = (t[rows * width + c] as number) - price * (t[i * width + c] as number);
  });
  minimise(t, basis, width, 2000);

  const value = new Float64Array(width);
  basis.forEach((column, i) => (value[column] = t[i * width + width - 1] as number));
  const loadsG = settled.map(() => 0);
  let sums: MassSums = first.base;
  grams.forEach(({ f, perG }, n) => {
    const m = value[n] as number;
    loadsG[f] = (loadsG[f] as number) + m;
    if (f === 0) sums = add(sums, perG, m);
  });
  const left = value.subarray(over, slack).reduce((sum, v) => sum + v, 0);
  return { specs: specsOf(sums, axisCm, twist), loadsG, reachable: left < 1e-6 };
}
