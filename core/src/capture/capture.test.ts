import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { settleFrame, zoneAlong, type FrameShape } from '../frame';
import { predict } from '../mass';
import { airTwisting, edgeOnCorrection, parted, pendulum, seededNormals, twistByThreads } from '../measure';
import { sameDress, type Dress } from '../dress';
import { SPORTS, sportData } from '../sport';
import {
  estimateOf,
  estimateSwing,
  estimatedOf,
  instrumentsShown,
  judge,
  settleCapture,
  specsOfCapture,
  surestPivot,
  timesRead,
  type Judgement,
  type JudgedMeasurement,
  type Reading,
  quantitiesOf,
  measurementOf,
  typedReading,
  type Quantity,
} from '.';

const TYPICAL_READING = SPORTS.tennis.typicalReading;

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

describe('judged at once', () => {
  const bare: Dress = {};
  const strung: Dress = { strings: true, baseGrip: 'synthetic' };
  const now = (specs: JudgedMeasurement['specs'], dress = bare): JudgedMeasurement => ({
    specs,
    uncertainty: TYPICAL_READING,
    dress,
  });
  const nominal = {
    specs: { massG: 305, balanceCm: 32, swingWeight: 290 },
    tolerance: { massG: 7, balanceCm: 0.5, swingWeight: 5 },
    dress: bare,
  };
  const kinds = (found: Judgement[]): string[] => found.map((j) => j.kind);

  it('finds nothing wrong with a frame as the maker states it', () => {
    expect(judge(shape, now({ massG: 307, balanceCm: 32.1, swingWeight: 291 }), { nominal })).toEqual([]);
  });

  it('sees 10 g at the tip of a frame as work done before, and says where', () => {
    const { specs } = predict(shape, nominal.specs, [{ massG: 10, at: { clock: 12 } }]);
    const found = judge(shape, now(specs), { nominal });
    const before = found.find((j) => j.kind === 'customised-before');
    expect(before).toMatchObject({ massG: 10 });
    expect(before?.kind === 'customised-before' && zoneAlong(frame, before.xCm)).toBe('tip');
    expect(kinds(found)).toContain('outside-tolerance');
  });

  it('sees too light a frame as a wrong label, and a moved balance as not what the paint says', () => {
    expect(kinds(judge(shape, now({ massG: 290 }), { nominal }))).toEqual([
      'outside-tolerance',
      'wrong-label',
    ]);
    const moved = judge(shape, now({ massG: 305, balanceCm: 33.5 }), { nominal });
    expect(kinds(moved)).toEqual(['outside-tolerance', 'not-the-paint']);
  });

  it('brings the maker’s statement to the dress of the measurement first', () => {
    expect(kinds(judge(shape, now({ massG: 305 + 16 + 15 }, strung), { nominal }))).toEqual([]);
    expect(kinds(judge(shape, now({ massG: 305 }, strung), { nominal }))).toContain('outside-tolerance');
  });

  it('knows what physics forbids, and what no usual frame is', () => {
    const forbidden = judge(shape, now({ massG: 320, balanceCm: 32, swingWeight: 150 }), {});
    const least = (320 * (32 - 10.16) ** 2) / 1000;
    expect(forbidden).toEqual([{ kind: 'impossible-swing', least: expect.closeTo(least, 6) }]);
    const odd = { massG: 320, balanceCm: 32, swingWeight: 420, twistWeight: 40 };
    expect(kinds(judge(shape, now(odd), {}))).toEqual(['unusual-swing', 'unusual-twist']);
    const guessed = { ...now(odd), estimated: ['swingWeight', 'twistWeight'] };
    expect(judge(shape, guessed, {})).toEqual([]);
  });

  it('holds the size against the published rules (ITF Rules of Tennis, rule 4: 73.7 cm)', () => {
    expect(kinds(judge({ ...shape, lengthCm: 74.5 }, now({}), {}))).toEqual(['over-rule-limit']);
  });

  it('finds what was put on since, how much and where, at any place that shows (property)', () => {
    const last = {
      specs: { massG: 320, balanceCm: 32, swingWeight: 316, axisCm: 10.16 },
      uncertainty: { massG: 0.1, balanceCm: 0.02, swingWeight: 0.3, twistWeight: 0.3 },
      takenAt: '2026-10-01T10:00:00.000Z',
    };
    const small = { ...now({}), uncertainty: last.uncertainty };
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 20 }),
        fc.double({ min: 1, max: 68, noNaN: true }),
        (massG, xCm) => {
          const { specs } = predict(shape, last.specs, [{ massG, at: { xCm, yCm: 0 } }]);
          const [found] = judge(shape, { ...small, specs }, { last });
          expect(found).toMatchObject({ kind: 'added-since', since: last.takenAt });
          if (found?.kind !== 'added-since') return;
          expect(found.massG).toBeCloseTo(massG, 6);
          expect(found.xCm ?? -1).toBeCloseTo(xCm, 4);
        },
      ),
    );
    const same = judge(shape, { ...small, specs: last.specs }, { last });
    expect(kinds(same)).toEqual(['same-as-last']);
    const moved = judge(shape, { ...small, specs: { ...last.specs, balanceCm: 32.4 } }, { last });
    expect(moved).toEqual([{ kind: 'moved-since', specs: ['balanceCm'], since: last.takenAt }]);
  });

  it('knows the same dress however it is written', () => {
    expect(sameDress({}, { strings: false, baseGrip: 'none', overgrips: 0, dampener: false })).toBe(true);
    expect(sameDress(strung, { ...strung, overgrips: 1 })).toBe(false);
  });

  it('takes noise for a change no more often than chance does', () => {
    const normal = seededNormals(404);
    const truth = { massG: 327, balanceCm: 32.2, swingWeight: 320, twistWeight: 13.6, axisCm: 10.16 };
    const read = () => ({
      massG: truth.massG + TYPICAL_READING.massG * normal(),
      balanceCm: truth.balanceCm + TYPICAL_READING.balanceCm * normal(),
      swingWeight: truth.swingWeight + TYPICAL_READING.swingWeight * normal(),
      axisCm: truth.axisCm,
    });
    const rounds = 500;
    let alarms = 0;
    for (let i = 0; i < rounds; i++) {
      const last = { specs: read(), uncertainty: TYPICAL_READING, takenAt: '2026-10-01T10:00:00.000Z' };
      if (kinds(judge(shape, now(read()), { last }))[0] !== 'same-as-last') alarms++;
    }
    // Three specs, each beyond twice its standard uncertainty in 4.6 % of cases: 13 % in all, and 4 % of sampling.
    expect(alarms / rounds).toBeLessThan(0.17);
    expect(alarms).toBeGreaterThan(0);
  });

  it('says nothing of what it does not know', () => {
    expect(judge(shape, now({}), { nominal })).toEqual([]);
    expect(judge(shape, now({ massG: 306 }), { nominal: { ...nominal, specs: {} } })).toEqual([]);
    expect(kinds(judge(shape, now({ massG: 320 }), { nominal: { ...nominal, tolerance: {} } }))).toEqual([]);
  });

  it.each(Object.values(SPORTS).map((sport) => [sport.sport, sport] as const))(
    'finds the usual %s frame usual, and half its inertia not',
    (sport, { usual, lengthCm, axisCm }) => {
      const own = { sport, lengthCm };
      expect(judge(own, now(usual), {})).toEqual([]);
      const middle = (usual.massG * (usual.balanceCm - axisCm) ** 2) / 1000;
      const half = { ...usual, swingWeight: middle + (usual.swingWeight - middle) / 2 };
      expect(kinds(judge(own, now(half), {}))).toEqual(['unusual-swing']);
    },
  );
});

describe('where something lies along the frame', () => {
  it.each([
    ['tennis', 68, 'tip'],
    ['tennis', 3, 'butt'],
    ['tennis', 52, 'sides'],
    ['padel', 1, 'butt'],
    ['pickleball', 40.6, 'tip'],
    ['badminton', 67, 'tip'],
  ] as const)('%s at %f cm is the %s', (sport, xCm, zone) => {
    expect(zoneAlong(settleFrame({ sport, lengthCm: SPORTS[sport].lengthCm }), xCm)).toBe(zone);
  });
});

it('the surest pivot leaves no more uncertainty than any other that the pendulum is timed from, and waits for weight and balance', () => {
  const { massG, balanceCm } = frame.sport.usual;
  const best = surestPivot(frame, { massG, balanceCm }, 20);
  const recoil =
    estimateSwing(frame, massG, balanceCm).value - (massG * (balanceCm - frame.sport.axisCm) ** 2) / 1000;
  for (const pivotCm of [0, 3, 8, 15, 45, 60]) {
    const arm = Math.abs(balanceCm - pivotCm);
    // The physical pendulum (handbook): T = 2π √(I / (M g d)).
    const seconds =
      20 * 2 * Math.PI * Math.sqrt((recoil * 1000 + massG * arm ** 2) / (massG * 980.665 * arm));
    const timing = { massG, balanceCm, pivotCm, swings: 20, seconds, axisCm: frame.sport.axisCm };
    expect(best?.uncertainty).toBeLessThanOrEqual(pendulum(timing).uncertainty + 1e-9);
  }
  expect(surestPivot(frame, { massG }, 20)).toBeUndefined();
  expect(surestPivot(frame, { massG, balanceCm }, 0)).toBeUndefined();
});

describe('the instruments of a capture that is not whole yet', () => {
  it('are as its readings show one reading, and typical of what is not read', () => {
    const found = settleCapture(
      frame,
      [327, 327.1, 326.9].map((v) => reading('massG', v)),
    );
    expect(timesRead(found)).toEqual({ massG: 3, balanceCm: 0, swingWeight: 0, twistWeight: 0 });
    const { check, taken } = instrumentsShown(frame, found, false);
    expect(check.massG.random).toBeCloseTo(0.3, 9);
    expect(check.massG.common).toBeCloseTo(0.2, 9);
    expect(Math.hypot(check.balanceCm.random, check.balanceCm.common)).toBeCloseTo(
      TYPICAL_READING.balanceCm,
      9,
    );
    // How often the start is read can still be chosen.
    expect(taken).toBeUndefined();
  });

  it('scatter as both swing weights do together where the twist weight is to be read edge-on: a difference of two (JCGM 100:2008, 5.1.2)', () => {
    const found = settleCapture(frame, [reading('swingWeight', 320, { random: 0.4 })]);
    const edgeOn = instrumentsShown(frame, found, true);
    expect(edgeOn.check.twistWeight.random).toBeCloseTo(Math.hypot(0.4, 0.4), 9);
    expect(edgeOn.edgeOn).toBe(true);
    expect(instrumentsShown(frame, found, false).check.twistWeight.random).toBeLessThan(0.4);
  });
});
