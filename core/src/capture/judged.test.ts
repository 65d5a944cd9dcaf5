import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { settleFrame, zoneAlong, type FrameShape } from '../frame';
import { predict } from '../mass';
import { pendulum, seededNormals } from '../measure';
import { sameDress, type Dress } from '../dress';
import { SPORTS } from '../sport';
import {
  estimateSwing,
  instrumentsShown,
  judge,
  settleCapture,
  surestPivot,
  timesRead,
  type Judgement,
  type JudgedMeasurement,
  type Reading,
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
