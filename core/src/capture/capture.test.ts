import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { settleFrame, type FrameShape } from '../frame';
import { airTwisting, edgeOnCorrection, parted, pendulum, twistByThreads } from '../measure';
import { SPORTS, sportData } from '../sport';
import {
  estimateOf,
  estimateSwing,
  estimatedOf,
  settleCapture,
  specsOfCapture,
  type Reading,
  quantitiesOf,
  measurementOf,
  typedReading,
  type Quantity,
} from '.';

const shape: FrameShape = { sport: 'tennis', lengthCm: 68.58 };
const frame = settleFrame(shape);
let n = 0;
const reading = (quantity: Reading['quantity'], value: number, more: Partial<Reading> = {}): Reading => ({
  id: `r${++n}`,
  quantity,
  means: 'instrument',
  value,
  random: 0.3,
  common: 0.2,
  source: 'a',
  setAside: false,
  ...more,
});

describe('repeats and sources', () => {
  it('average within a source: u² = random²/n + common² (JCGM 100:2008, 4.2 and 5.1)', () => {
    const four = [327, 327.2, 326.8, 327].map((v) => reading('massG', v));
    const { value, uncertainty, count } = settleCapture(frame, four).settled.massG ?? {
      value: 0,
      uncertainty: 0,
      count: 0,
    };
    expect(value).toBeCloseTo(327, 9);
    expect(uncertainty).toBeCloseTo(Math.hypot(0.3 / 2, 0.2), 9);
    expect(count).toBe(4);
  });

  it('join two sources by 1/u², and are less sure where the sources disagree', () => {
    const agree = settleCapture(frame, [
      reading('massG', 327),
      reading('massG', 327, { source: 'b', random: 0.9 }),
    ]);
    const [a, b] = [Math.hypot(0.3, 0.2), Math.hypot(0.9, 0.2)];
    expect(agree.settled.massG?.uncertainty).toBeCloseTo(1 / Math.sqrt(1 / a ** 2 + 1 / b ** 2), 9);
    const apart = settleCapture(frame, [reading('massG', 327), reading('massG', 332, { source: 'b' })]);
    expect(apart.settled.massG?.value).toBeCloseTo(329.5, 9);
    expect(apart.settled.massG?.uncertainty).toBeCloseTo(2.5, 6);
  });

  it('point out an outlier, and leave it out once it is set aside', () => {
    const all = [320, 320.3, 319.8, 327].map((v) => reading('swingWeight', v));
    const seen = settleCapture(frame, all);
    expect(seen.outliers).toEqual([all[3]?.id]);
    expect(seen.settled.swingWeight?.value).toBeCloseTo(321.775, 9);
    const without = settleCapture(
      frame,
      all.map((r, i) => ({ ...r, setAside: i === 3 })),
    );
    expect(without.settled.swingWeight?.value).toBeCloseTo(320.0333, 3);
    expect(without.settled.swingWeight?.count).toBe(3);
  });

  it('never depend on the order of the readings', () => {
    const one = fc.record({
      value: fc.double({ min: 300, max: 340, noNaN: true }),
      source: fc.constantFrom('a', 'b', 'c'),
      setAside: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(one, { minLength: 1, maxLength: 8 }), (rows) => {
        const readings = rows.map((row) => reading('massG', row.value, row));
        const there = settleCapture(frame, readings).settled.massG;
        const back = settleCapture(frame, readings.toReversed()).settled.massG;
        expect(back?.value ?? 0).toBeCloseTo(there?.value ?? 0, 8);
        expect(back?.uncertainty ?? 0).toBeCloseTo(there?.uncertainty ?? 0, 8);
      }),
    );
  });
});

describe('readings that lean on others', () => {
  const known = [reading('massG', 325), reading('balanceCm', 32.2, { random: 0.05, common: 0.03 })];

  it('work a pendulum and two threads out with the capture’s own weight and balance', () => {
    const timing = { pivotCm: 1, swings: 20, seconds: 26.9, amplitudeDeg: 10, endAmplitudeDeg: 6 };
    const threads = { threadCm: 120, separationCm: 20, swings: 15, seconds: 15.6, amplitudeDeg: 20 };
    const swing = reading('swingWeight', 0, { means: 'pendulum', timing, random: 0.15, source: 'pendulum' });
    const twist = reading('twistWeight', 0, {
      means: 'threads',
      timing: threads,
      random: 0.15,
      source: 'threads',
    });
    const waits = settleCapture(frame, [swing, twist]);
    expect(waits.settled).toEqual({});
    expect(Object.values(waits.waiting)).toEqual(['needs-weight-and-balance', 'needs-weight-and-balance']);
    const { settled } = settleCapture(frame, [swing, twist, ...known]);
    const alone = pendulum({ ...timing, massG: 325, balanceCm: 32.2, axisCm: 10.16 });
    expect(settled.swingWeight?.value).toBeCloseTo(alone.swingWeight, 9);
    expect(settled.twistWeight?.value).toBeCloseTo(twistByThreads({ ...threads, massG: 325 }).twistWeight, 9);
  });

  it('take face-on from edge-on, at the same machine: what both share cancels', () => {
    const machine = { source: 'm', common: 2, scale: 0.004, random: 0.5 };
    const face = reading('swingWeight', 320, machine);
    const edge = reading('twistWeight', 333.6, { ...machine, means: 'edge-on' });
    expect(settleCapture(frame, [edge]).waiting[edge.id]).toBe('needs-face-on');
    const twist = settleCapture(frame, [face, edge]).settled.twistWeight;
    // A frame is deep: edge-on less face-on lacks 2 ∫ z² dm, of a usual weight while none is read.
    const depth = (2 * frame.sport.usual.massG * 0.8 ** 2) / 1000;
    expect(twist?.value).toBeCloseTo(13.6 + depth, 9);
    expect(twist?.uncertainty).toBeCloseTo(Math.hypot(0.5, 0.5, 0.004 * 13.6, 0.2 * depth), 6);
    const light = settleCapture(frame, [reading('massG', 290), face, edge]).settled.twistWeight;
    expect(light?.value).toBeCloseTo(13.6 + (2 * 290 * 0.8 ** 2) / 1000, 9);
    const other = settleCapture(frame, [face, { ...edge, source: 'other' }]).settled.twistWeight;
    expect(other?.uncertainty).toBeCloseTo(Math.hypot(0.5, 0.5, 2, 2, 0.2 * depth), 6);
  });

  it('refuse edge-on less face-on of a light paddle only where what is left with depth and air cannot be', () => {
    const paddle = settleFrame({ sport: 'pickleball', lengthCm: 40.64 });
    const { add } = edgeOnCorrection(paddle, 228, paddle.sport.axisCm);
    const machine = { source: 'm', common: 2, scale: 0.004, random: 0.5 };
    const of = (edgeOn: number) => {
      const edge = reading('twistWeight', edgeOn, { ...machine, means: 'edge-on' });
      const found = settleCapture(paddle, [
        reading('massG', 228),
        reading('balanceCm', 23.5),
        reading('swingWeight', 115, machine),
        edge,
      ]);
      return { value: found.settled.twistWeight?.value, waits: found.waiting[edge.id] };
    };
    // Edge-on it may read less than face-on: the air that it moves face-on is more than what its twist weight adds.
    expect(of(114.5).value).toBeCloseTo(add - 0.5, 9);
    expect(of(115 - add - 0.1)).toEqual({ value: undefined, waits: 'twist-weight-impossible' });
  });

  it('take from two threads the air that a paddle turns with', () => {
    const padel = settleFrame({ sport: 'padel', lengthCm: 45.5 });
    const timing = { threadCm: 100, separationCm: 15, swings: 20, seconds: 55 };
    const hung = reading('twistWeight', 0, { means: 'threads', timing, random: 0.15 });
    const { settled } = settleCapture(padel, [reading('massG', 365), reading('balanceCm', 26), hung]);
    const withAir = twistByThreads({ ...timing, massG: 365 }).twistWeight;
    expect(settled.twistWeight?.value).toBeCloseTo(withAir - airTwisting(padel), 9);
  });

  it('move a swing weight read about another axis by the parallel-axes theorem', () => {
    const read = reading('swingWeight', 339, { axisCm: 10 });
    const { settled } = settleCapture(frame, [read, ...known]);
    const byHand = 339 + (325 * ((32.2 - 10.16) ** 2 - (32.2 - 10) ** 2)) / 1000;
    expect(settled.swingWeight?.value).toBeCloseTo(byHand, 9);
  });

  it('count an estimate only where nothing else stands, and say so', () => {
    const guess = reading('swingWeight', 318, { means: 'estimate', random: 9, source: 'estimate' });
    const alone = settleCapture(frame, [...known, guess]);
    expect(estimatedOf(alone)).toEqual(['swingWeight']);
    expect(specsOfCapture(frame, alone)?.swingWeight).toBe(318);
    const both = settleCapture(frame, [...known, guess, reading('swingWeight', 326)]);
    expect(both.settled.swingWeight?.value).toBe(326);
    expect(estimatedOf(both)).toEqual([]);
  });

  it('make no specs that cannot be', () => {
    expect(specsOfCapture(frame, settleCapture(frame, known))).toBeUndefined();
    const low = settleCapture(frame, [...known, reading('swingWeight', 150)]);
    expect(specsOfCapture(frame, low)).toBeUndefined();
  });
});

describe('a rating', () => {
  it('is stored with what it is uncertain by, and what weight changes is as it was', () => {
    const read = (quantity: Quantity, value: number): Reading => ({
      ...typedReading(frame.sport, quantity, value),
      id: `${quantity} ${value}`,
      setAside: false,
    });
    const four = [read('massG', 327), read('balanceCm', 32.2), read('swingWeight', 320)];
    const plain = measurementOf(frame, four);
    const rated = measurementOf(frame, [...four, read('stiffness', 62.9), read('stiffness', 63.1)]);
    expect(rated.specs).toEqual({ ...plain.specs, stiffness: 63 });
    expect(plain.parts.stiffness).toBeUndefined();
    // JCGM 100:2008, 4.2: the scatter of a mean falls with the root of how many were read, what they share stays.
    const { random = NaN, common = NaN } = rated.parts.stiffness ?? {};
    const [once] = [parted(frame.sport.typicalReading.stiffness ?? NaN)];
    expect(random).toBeCloseTo(once.random / Math.SQRT2, 9);
    expect(common).toBeCloseTo(once.common, 9);
  });
  it('is asked for only in a sport that knows it', () => {
    expect(quantitiesOf(sportData('tennis'))).toContain('stiffness');
    expect(quantitiesOf(sportData('padel'))).not.toContain('stiffness');
  });
});

describe('estimates', () => {
  it.each(Object.values(SPORTS).map((sport) => [sport.sport, sport] as const))(
    'of the usual %s frame give its own numbers',
    (sport, { usual, lengthCm, axisCm }) => {
      const own = settleFrame({ sport, lengthCm });
      const guess = estimateSwing(own, usual.massG, usual.balanceCm);
      expect(guess.value).toBeCloseTo(usual.swingWeight, 6);
      expect(guess.uncertainty).toBeGreaterThan(0.01 * usual.swingWeight);
      expect(estimateOf(own, 'twistWeight', usual)?.value).toBeGreaterThan(0);
      expect(estimateOf(own, 'swingWeight', { massG: usual.massG })).toBeUndefined();
      expect(axisCm).toBeLessThan(usual.balanceCm);
    },
  );
});
