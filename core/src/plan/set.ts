import { noticeableStep } from '../compare';
import { Fault } from '../fault';
import type { SportData } from '../sport';
import { settleFrame, placeOf, type FrameShape } from '../frame';
import {
  SPEC_KEYS,
  add,
  additionSums,
  linearSpec,
  requireSpecs,
  specsOf,
  sumsOf,
  withAxis,
  type AxisSpecs,
  type MassSums,
  type SpecKey,
  type Specs,
} from '../mass';
import type { Aim } from '../aim';
import type { Plan } from './made-plan';
import { makePlans } from './plan';
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

/** A common balance is a ratio: its row is a moment about the balance that came out before. */
const BALANCE_ROUNDS = 3;

interface Settled {
  own: AxisSpecs;
  base: MassSums;
  zones: { capG: number; perG: MassSums }[];
  sport: SportData;
}

/**
 * One aim for two to six frames that all can reach, with the least mass on the heaviest load (continuous; each frame is then planned in whole
 * pieces). The specs that are to be common, of every frame's sums plus what is put on, must equal those of the first frame plus what is put on there; a
 * linear programme.
 * @param keys specs that are to be common; all that every frame knows if left out
 * @throws Fault `set-size`, or what is wrong with a frame's specs; twist weight counts only where all of them know theirs
 * @example commonAim([{ shape, specs: light }, { shape, specs: heavy }]).loadsG // [3.4…, 0]
 */
export function commonAim(frames: readonly SetFrame[], keys: readonly SpecKey[] = SPEC_KEYS): CommonAim {
  if (frames.length < 2 || frames.length > 6) throw new Fault({ code: 'set-size', path: 'frames' });
  const settled = frames.map(({ shape, specs }, i): Settled => {
    const frame = settleFrame(shape);
    const own = requireSpecs(withAxis(specs, frame.sport.axisCm), frame.lengthCm, `frames.${i}.specs`);
    const zones = frame.sport.zones.map((zone) => {
      const { xCm, yCm } = placeOf(frame, { zone: zone.name });
      return { capG: zone.capG, perG: additionSums(frame, { massG: 1, at: { xCm, yCm } }) };
    });
    return { own, base: sumsOf(own), zones, sport: frame.sport };
  });
  const twist = settled.every(({ own }) => own.twistWeight !== undefined);
  const common = SPEC_KEYS.filter((key) => keys.includes(key) && (key !== 'twistWeight' || twist));
  // With a common weight the moment about any balance says the same.
  const rounds = common.includes('balanceCm') && !common.includes('massG') ? BALANCE_ROUNDS : 1;
  let aboutCm = Math.max(...settled.map(({ own }) => own.balanceCm));
  let found = solved(settled, common, aboutCm, twist);
  for (let round = 1; round < rounds; round++) {
    aboutCm = found.specs.balanceCm;
    found = solved(settled, common, aboutCm, twist);
  }
  return found;
}

/** What must be equal for a spec to be common, in noticeable steps of it; of the balance its moment about one. */
function measureOf(key: SpecKey, { own, sport }: Settled, aboutCm: number): (sums: MassSums) => number {
  const step = noticeableStep(sport.noticeable, key, own.swingWeight);
  const scale = key === 'balanceCm' ? step * own.massG : step;
  return (sums) => linearSpec(key, sums, aboutCm, own.axisCm) / scale;
}

function solved(
  settled: readonly Settled[],
  keys: readonly SpecKey[],
  aboutCm: number,
  twist: boolean,
): CommonAim {
  const first = settled[0] as Settled;
  const { axisCm } = first.own;
  const measures = keys.map((key) => measureOf(key, first, aboutCm));

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
    for (const measure of measures) {
      const gap = measure(first.base) - measure((settled[f] as Settled).base);
      const sign = gap < 0 ? -1 : 1;
      grams.forEach((g, n) => {
        const of = g.f === f ? 1 : g.f === 0 ? -1 : 0;
        t[row * width + n] = sign * of * measure(g.perG);
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

export interface PlannedSet {
  /** The aim that all of them share. */
  target: Aim;
  frames: Plan[];
}

/**
 * A set brought to one aim in whole pieces: the common aim, rounded as a fitter of the sport writes it, with the sport's tolerances, and the free plan of
 * each frame to it.
 * @throws as {@link commonAim}
 * @example planSet([{ shape, specs: light }, { shape, specs: heavy }]).frames[0].addedG
 */
export function planSet(frames: readonly SetFrame[], keys: readonly SpecKey[] = SPEC_KEYS): PlannedSet {
  const { specs } = commonAim(frames, keys);
  const { aimStep, tolerance } = settleFrame((frames[0] as SetFrame).shape).sport;
  const target: Aim = {};
  for (const key of SPEC_KEYS) {
    const value = specs[key];
    if (value === undefined || !keys.includes(key)) continue;
    target[key] = {
      value: Number((Math.round(value / aimStep[key]) * aimStep[key]).toFixed(6)),
      tolerance: tolerance[key],
    };
  }
  return {
    target,
    frames: frames.map(
      ({ shape, specs: own }) => makePlans({ shape, specs: own, target, schools: ['free'] })[0] as Plan,
    ),
  };
}
