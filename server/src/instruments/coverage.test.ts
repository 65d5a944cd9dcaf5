import { describe, expect, it } from 'vitest';
import {
  AIR_SHARE,
  DEPTH_SHARE,
  PENDULUM_UNCERTAINTY,
  RODS,
  STANDARD_GRAVITY,
  airTwisting,
  estimateSwing,
  edgeOnCorrection,
  estimateTwist,
  calibrateReads,
  readingByHand,
  readingByInstrument,
  settleCapture,
  settleFrame,
  seededNormals,
  seededUniforms,
  sportData,
  type AxisSpecs,
  type Frame,
  type Quantity,
  type Reading,
  ALL_SPORTS,
  type Sport,
} from '@kevro/core';
import { KINDS, type CalibrationRecord, type DataSheet, type InstrumentKind } from '@kevro/contract';
import type { Truth } from './driver';
import { StandInModel } from './stand-in';

const SHEETS: Record<InstrumentKind, DataSheet> = {
  scale: {
    repeatability: 0.1,
    accuracy: 0.15,
    resolution: 0.1,
    driftPerHour: 0.01,
    warmUpMinutes: 5,
    axisCm: null,
  },
  board: {
    repeatability: 0.03,
    accuracy: 0.04,
    resolution: 0.05,
    driftPerHour: 0,
    warmUpMinutes: 0,
    axisCm: null,
  },
  machine: {
    repeatability: 0.4,
    accuracy: 3,
    resolution: 0.1,
    driftPerHour: 0.03,
    warmUpMinutes: 10,
    axisCm: null,
  },
};
const HOUR = 3_600_000;
const START = Date.parse('2026-11-23T08:00:00.000Z');
/** Frames of each sport, for each number of readings. */
const FRAMES = 250;
const MOST_TIMES = 6;
const iso = (ms: number): string => new Date(ms).toISOString();

/** A frame whose true specs are known: spread about the usual ones of its sport as frames are. */
function known(sport: Sport, normal: () => number): { frame: Frame; truth: Exclude<Truth, { rod: number }> } {
  const frame = settleFrame({ sport, lengthCm: sportData(sport).lengthCm });
  const { usual, axisCm } = frame.sport;
  const massG = usual.massG * (1 + 0.03 * normal());
  const balanceCm = usual.balanceCm * (1 + 0.02 * normal());
  const guess = estimateSwing(frame, massG, balanceCm);
  const twist = estimateTwist(frame, massG);
  const specs: AxisSpecs & { twistWeight: number } = {
    massG,
    balanceCm,
    swingWeight: guess.value + guess.uncertainty * normal(),
    twistWeight: twist.twistWeight + twist.uncertainty * normal(),
    axisCm,
  };
  const layup = { deeper: DEPTH_SHARE * normal(), airier: AIR_SHARE * normal() };
  return { frame, truth: { specs, leftRightG: normal(), frame, layup } };
}

type Method = (of: {
  frame: Frame;
  truth: Exclude<Truth, { rod: number }>;
  seed: number;
  normal: () => number;
  /** How often each is read. */
  times: number;
}) => Omit<Reading, 'id' | 'setAside'>[];

const repeat = <T>(times: number, one: () => T): T[] => Array.from({ length: times }, one);
const byHand = (frame: Frame, body: object, so: Reading[] = []) => {
  const reading = readingByHand(frame, body as Parameters<typeof readingByHand>[1], settleCapture(frame, so));
  if (!reading) throw new Error('no reading');
  return reading;
};

const instrument =
  (
    kind: InstrumentKind,
    quantities: Quantity[],
    how: { rods?: boolean; axisCm?: number; warm?: boolean; scatters?: number } = {},
  ): Method =>
  ({ truth, seed, times }) => {
    const sheet = { ...SHEETS[kind], axisCm: how.axisCm ?? null };
    const { scatters = 1 } = how;
    const model = new StandInModel(kind, { ...sheet, repeatability: scatters * sheet.repeatability }, seed);
    const uniform = seededUniforms(seed);
    const raw = (
      of: Truth,
      what: Parameters<StandInModel['value']>[1],
      at: number,
      onFor: number,
    ): number => {
      const values = Array.from({ length: KINDS[kind].valuesAReading }, () =>
        model.value(of, what, at, onFor),
      );
      return values.reduce((s, v) => s + v, 0) / values.length;
    };
    const warm = 24 * HOUR;
    let calibration: CalibrationRecord | undefined;
    if (how.rods) {
      const rods = RODS.map((rod) => ({
        trueValue: rod,
        reads: [1, 2, 3].map(() => raw({ rod }, { rod }, START, warm)),
      }));
      const { refused = null, ...found } = calibrateReads(rods);
      if (refused) return [];
      calibration = { id: 'c', instrumentId: 'i', takenAt: iso(START), rods, refused, ...found };
    }
    const at = START + 60 * HOUR * uniform();
    const onFor = how.warm === false ? 60_000 : warm;
    const left = 1 - onFor / (sheet.warmUpMinutes * 60_000);
    const coldError = how.warm === false ? 3 * sheet.repeatability * Math.exp(-4 * (1 - left)) : 0;
    return quantities.flatMap((quantity) =>
      repeat(times, () =>
        readingByInstrument({
          source: 'i',
          sheet,
          calibrates: KINDS[kind].calibrates,
          calibration,
          quantity,
          raw: [raw(truth, { quantity }, at, onFor)],
          takenAt: iso(at),
          coldError,
        }),
      ),
    );
  };

/** Typed by a fitter whose own instruments are as good as is usual: a part of the error stays, a part changes from reading to reading. */
const typed =
  (quantities: Quantity[]): Method =>
  ({ frame, truth, normal, times }) => {
    const stays = normal();
    return quantities.flatMap((quantity) => {
      const u = quantity === 'leftRightG' ? 0.3 : (frame.sport.typicalReading[quantity] ?? 0);
      const value = quantity === 'leftRightG' ? truth.leftRightG : truth.specs[quantity];
      return repeat(times, () =>
        byHand(frame, { means: 'typed', quantity, value: (value ?? 0) + u * (0.8 * stays + 0.6 * normal()) }),
      );
    });
  };

const typedBoth: Method = (of) => {
  const { frame, truth, normal, times } = of;
  const stays = 0.8 * frame.sport.typicalReading.swingWeight * normal();
  const about = (value: number) => value + stays + 0.6 * frame.sport.typicalReading.swingWeight * normal();
  const { massG, axisCm, swingWeight, twistWeight } = truth.specs;
  const { depth, air } = edgeOnCorrection(frame, massG, axisCm);
  const off = depth * (1 + truth.layup.deeper) + air * (1 + truth.layup.airier);
  const read = (means: string, quantity: string, value: number) => byHand(frame, { means, quantity, value });
  return repeat(times, () => [
    read('typed', 'swingWeight', about(swingWeight)),
    read('edge-on', 'twistWeight', about(swingWeight + twistWeight - off)),
  ]).flat();
};

const G = STANDARD_GRAVITY;
const pendulum: Method = (of) => {
  const { frame, truth, normal, times } = of;
  const { massG, balanceCm, swingWeight, axisCm } = truth.specs;
  const pivotCm = 1;
  const arm = balanceCm - (pivotCm + PENDULUM_UNCERTAINTY.pivotCm * normal());
  const inertia = swingWeight * 1000 - massG * (balanceCm - axisCm) ** 2 + massG * arm ** 2;
  const period = 2 * Math.PI * Math.sqrt(inertia / (massG * G * arm));
  const swings = 20;
  const timing = () => ({
    pivotCm,
    swings,
    seconds: swings * period + PENDULUM_UNCERTAINTY.seconds * normal(),
    amplitudeDeg: 0,
  });
  const once = () => byHand(frame, { means: 'pendulum', quantity: 'swingWeight', timing: timing() });
  return [...typed(['massG', 'balanceCm'])(of), ...repeat(times, once)];
};

const threads: Method = (of) => {
  const { frame, truth, normal, times } = of;
  const { massG, twistWeight } = truth.specs;
  const [threadCm, separationCm] = [120, 15];
  const [h, d] = [threadCm + 0.2 * normal(), separationCm + 0.05 * normal()];
  const turning = twistWeight + airTwisting(frame) * (1 + truth.layup.airier);
  const period = 2 * Math.PI * Math.sqrt((4 * h * turning * 1000) / (massG * G * d * d));
  const timing = () => ({ threadCm, separationCm, swings: 15, seconds: 15 * period + 0.15 * normal() });
  const once = () => byHand(frame, { means: 'threads', quantity: 'twistWeight', timing: timing() });
  return [...typed(['massG'])(of), ...repeat(times, once)];
};

const estimate: Method = ({ frame, truth }) => {
  const exact = (quantity: 'massG' | 'balanceCm'): Reading => ({
    ...byHand(frame, { means: 'typed', quantity, value: truth.specs[quantity] }),
    id: quantity,
    setAside: false,
  });
  const so = [exact('massG'), exact('balanceCm')];
  return (['swingWeight', 'twistWeight'] as const).map((quantity) =>
    byHand(frame, { means: 'estimate', quantity }, so),
  );
};

const METHODS: [string, Method, Quantity[]][] = [
  ['a scale', instrument('scale', ['massG']), ['massG']],
  ['a scale still cold', instrument('scale', ['massG'], { warm: false }), ['massG']],
  ['a balance board', instrument('board', ['balanceCm']), ['balanceCm']],
  [
    'a calibrated machine',
    instrument('machine', ['swingWeight', 'twistWeight', 'leftRightG'], { rods: true }),
    ['swingWeight', 'twistWeight', 'leftRightG'],
  ],
  ['a machine never calibrated', instrument('machine', ['swingWeight']), ['swingWeight']],
  [
    'a machine that turns about another axis',
    (of) => [
      ...instrument('machine', ['swingWeight', 'twistWeight'], {
        rods: true,
        axisCm: of.frame.sport.axisCm + 0.5,
      })(of),
      ...instrument('scale', ['massG'])(of),
      ...instrument('board', ['balanceCm'])(of),
    ],
    ['swingWeight', 'twistWeight'],
  ],
  [
    'typing',
    typed(['massG', 'balanceCm', 'swingWeight', 'twistWeight', 'leftRightG']),
    ['massG', 'balanceCm', 'swingWeight', 'twistWeight', 'leftRightG'],
  ],
  ['typed edge-on minus face-on', typedBoth, ['swingWeight', 'twistWeight']],
  ['a pendulum', pendulum, ['swingWeight']],
  ['two threads', threads, ['twistWeight']],
  ['an estimate', estimate, ['swingWeight', 'twistWeight']],
];

/** Whether a method read what it should have. */
interface Tried {
  sport: Sport;
  times: number;
  quantity: Quantity;
  inside: boolean;
}
function tryOut(name: string, method: Method, quantities: Quantity[], least = 1): Tried[] {
  const seed = [...name].reduce((h, c) => Math.imul(h, 31) + c.charCodeAt(0), 17);
  const normal = seededNormals(seed);
  const tried: Tried[] = [];
  let round = 0;
  for (const sport of ALL_SPORTS)
    for (let times = least; times <= MOST_TIMES; times++)
      for (let counted = 0; counted < FRAMES;) {
        const { frame, truth } = known(sport, normal);
        const readings = method({ frame, truth, seed: seed + 977 * ++round, normal, times });
        // A machine that its calibration refuses measures nothing.
        if (readings.length === 0) continue;
        counted++;
        const { settled } = settleCapture(
          frame,
          readings.map((r, i) => ({ ...r, id: `${i}`, setAside: false })),
        );
        for (const quantity of quantities) {
          const found = settled[quantity];
          // What cannot be is not stated.
          if (!found) continue;
          const value = quantity === 'leftRightG' ? truth.leftRightG : truth.specs[quantity];
          const far = Math.abs(found.value - (value ?? Number.NaN));
          tried.push({ sport, times, quantity, inside: far <= 2 * found.uncertainty });
        }
      }
  return tried;
}
/** Shares of those inside, by what they are told apart by. */
function shares(tried: readonly Tried[], by: (one: Tried) => string): Map<string, number> {
  const groups = new Map<string, boolean[]>();
  for (const one of tried) {
    const all = groups.get(by(one)) ?? [];
    all.push(one.inside);
    groups.set(by(one), all);
  }
  return new Map([...groups].map(([key, all]) => [key, all.filter(Boolean).length / all.length]));
}
/** A thousand cases and more: half a point is chance. */
const CHANCE = 0.005;
const outsideBand = (found: Map<string, number>): string[] =>
  [...found].flatMap(([key, share]) =>
    share >= 0.93 - CHANCE && share <= 0.98 + CHANCE ? [] : [`${key}: ${share.toFixed(3)}`],
  );

describe('the stated 95 % interval (JCGM 100:2008, coverage factor 2) holds the true value in 93 to 98 of 100 cases', () => {
  it.each(METHODS)('of %s, in each sport, and read once to six times', (name, method, quantities) => {
    const tried = tryOut(name, method, quantities);
    expect(outsideBand(shares(tried, (one) => `${one.quantity} in ${one.sport}`))).toEqual([]);
    expect(outsideBand(shares(tried, (one) => `${one.quantity} read ${one.times} times`))).toEqual([]);
  });

  it.each([1.5, 2, 3])(
    'of a machine that scatters %s times as much as its sheet says, from three readings on',
    (scatters) => {
      const method = instrument('machine', ['swingWeight'], { rods: true, scatters });
      const tried = tryOut(`scatters ${scatters}`, method, ['swingWeight'], 3);
      expect(outsideBand(shares(tried, (one) => `read ${one.times} times`))).toEqual([]);
    },
  );
});
