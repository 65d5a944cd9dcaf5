import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Fault } from '../fault';
import { settleFrame } from '../frame';
import { SPORTS } from '../sport';
import {
  RODS,
  ROD_UNCERTAINTY,
  calibrate,
  corrected,
  correctionUncertainty,
  pendulum,
  propagate,
  repeats,
  seededNormals,
  smallSwingPeriod,
  twistByThreads,
  twistFromReadings,
  PENDULUM_UNCERTAINTY,
  bestPivot,
  dyingSwingPeriod,
  airTwisting,
  edgeOnCorrection,
  threadsCorrection,
} from '.';

const g = 980.665;
const codes = (run: () => unknown): string[] => {
  try {
    run();
    return [];
  } catch (fault) {
    return (fault as Fault).problems.map((p) => `${p.code} ${p.path}`);
  }
};

/** Period of a pendulum of any amplitude: 4/ω₀ · K(sin θ/2) by the arithmetic–geometric mean (Abramowitz & Stegun 17.6). */
function exactPeriod(smallPeriod: number, amplitude: number): number {
  let [a, b] = [1, Math.cos(amplitude / 2)];
  for (let i = 0; i < 20; i++) [a, b] = [(a + b) / 2, Math.sqrt(a * b)];
  return smallPeriod / a;
}

describe('pendulum', () => {
  it('gives a uniform rod its handbook inertia: hung at its end, T = 2π √(2l/3g)', () => {
    const [m, l] = [300, 60];
    const period = 2 * Math.PI * Math.sqrt((2 * l) / (3 * g));
    const rod = pendulum({
      massG: m,
      balanceCm: l / 2,
      pivotCm: 0,
      swings: 10,
      seconds: 10 * period,
      axisCm: 0,
    });
    expect(rod.swingWeight).toBeCloseTo((m * l * l) / 3000, 9);
    expect(rod.recoilWeight).toBeCloseTo((m * l * l) / 12_000, 9);
  });

  it('finds the swing weight that made the period, for any frame, pivot and amplitude', () => {
    const real = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(real, real, real, real, (a, b, c, d) => {
        const massG = 250 + 120 * a;
        const balanceCm = 29 + 6 * b;
        const recoil = 120 + 80 * c;
        const pivotCm = 8 * d;
        const amplitude = 0.5 * d;
        const inertia = recoil * 1000 + massG * (balanceCm - pivotCm) ** 2;
        const small = 2 * Math.PI * Math.sqrt(inertia / (massG * g * (balanceCm - pivotCm)));
        const timing = {
          massG,
          balanceCm,
          pivotCm,
          swings: 20,
          seconds: 20 * exactPeriod(small, amplitude),
          amplitudeDeg: (amplitude * 180) / Math.PI,
          axisCm: 10.16,
        };
        const truth = recoil + (massG * (balanceCm - 10.16) ** 2) / 1000;
        expect(Math.abs(pendulum(timing).swingWeight - truth)).toBeLessThan(0.02);
      }),
    );
  });

  it('corrects large swings as the exact period does, to 1 in 10,000 up to 45°', () => {
    for (const degrees of [5, 15, 30, 45]) {
      const amplitude = (degrees * Math.PI) / 180;
      expect(Math.abs(smallSwingPeriod(exactPeriod(1.4, amplitude), amplitude) / 1.4 - 1)).toBeLessThan(1e-4);
    }
  });

  it('states an uncertainty that Monte Carlo confirms (JCGM 101:2008)', () => {
    const timing = { massG: 325, balanceCm: 32.2, pivotCm: 1, swings: 20, seconds: 26.9, axisCm: 10.16 };
    const { uncertainty } = pendulum(timing);
    const normal = seededNormals(7);
    const draws = Array.from(
      { length: 20_000 },
      () =>
        pendulum({
          ...timing,
          massG: timing.massG + PENDULUM_UNCERTAINTY.massG * normal(),
          balanceCm: timing.balanceCm + PENDULUM_UNCERTAINTY.balanceCm * normal(),
          pivotCm: timing.pivotCm + PENDULUM_UNCERTAINTY.pivotCm * normal(),
          seconds: timing.seconds + PENDULUM_UNCERTAINTY.seconds * normal(),
        }).swingWeight,
    );
    const mean = draws.reduce((s, v) => s + v, 0) / draws.length;
    const spread = Math.sqrt(draws.reduce((s, v) => s + (v - mean) ** 2, 0) / (draws.length - 1));
    expect(uncertainty / spread).toBeGreaterThan(0.97);
    expect(uncertainty / spread).toBeLessThan(1.03);
  });

  it('follows a swing that dies away: from 15° to half in 20 swings it is true to a tenth, where the first amplitude alone is 1.9 off', () => {
    const [massG, balanceCm, pivotCm, recoil, swings] = [320, 32.5, 1, 160, 20] as const;
    const inertia = recoil * 1000 + massG * (balanceCm - pivotCm) ** 2;
    const small = 2 * Math.PI * Math.sqrt(inertia / (massG * g * (balanceCm - pivotCm)));
    let seconds = 0;
    for (let swing = 0; swing < swings; swing++) {
      // The amplitude in the middle of each swing.
      const amplitude = ((15 * Math.PI) / 180) * 0.5 ** ((swing + 0.5) / swings);
      seconds += exactPeriod(small, amplitude);
    }
    const truth = recoil + (massG * (balanceCm - 10.16) ** 2) / 1000;
    const timing = { massG, balanceCm, pivotCm, swings, seconds, axisCm: 10.16, amplitudeDeg: 15 };
    expect(Math.abs(pendulum({ ...timing, endAmplitudeDeg: 7.5 }).swingWeight - truth)).toBeLessThan(0.1);
    expect(Math.abs(pendulum(timing).swingWeight - truth)).toBeGreaterThan(1.5);
    expect(dyingSwingPeriod(2, 0.2, 0.2)).toBeCloseTo(smallSwingPeriod(2, 0.2), 12);
  });

  it('knows the pivot that measures best: no other leaves less', () => {
    const own = { massG: 320, balanceCm: 32.5, recoilWeight: 160, lengthCm: 68.58, axisCm: 10.16 };
    const best = bestPivot(own, 20);
    for (const pivotCm of [0, 4, 9, 20, 50, 66]) {
      const arm = Math.abs(own.balanceCm - pivotCm);
      const inertia = own.recoilWeight * 1000 + own.massG * arm * arm;
      const seconds = 20 * 2 * Math.PI * Math.sqrt(inertia / (own.massG * g * arm));
      const { uncertainty, swingWeight } = pendulum({ ...own, pivotCm, swings: 20, seconds });
      expect(swingWeight).toBeCloseTo(160 + (320 * (32.5 - 10.16) ** 2) / 1000, 6);
      expect(best.uncertainty).toBeLessThanOrEqual(uncertainty + 1e-9);
    }
    expect(Math.abs(best.pivotCm - own.balanceCm)).toBeGreaterThan(3);
  });

  it('refuses swings over 60° and swings that grow', () => {
    const good = { massG: 325, balanceCm: 32.2, pivotCm: 1, swings: 20, seconds: 27, axisCm: 10.16 };
    expect(codes(() => pendulum({ ...good, amplitudeDeg: 61 }))).toEqual([
      'amplitude-out-of-range amplitudeDeg',
    ]);
    expect(codes(() => pendulum({ ...good, amplitudeDeg: 10, endAmplitudeDeg: 12 }))).toEqual([
      'amplitude-out-of-range endAmplitudeDeg',
    ]);
    expect(codes(() => pendulum({ ...good, amplitudeDeg: 60, endAmplitudeDeg: 30 }))).toEqual([]);
  });

  it('refuses what cannot be', () => {
    const good = { massG: 325, balanceCm: 32.2, pivotCm: 1, swings: 20, seconds: 27, axisCm: 10.16 };
    expect(codes(() => pendulum({ ...good, massG: -1, seconds: 0 }))).toEqual([
      'mass-negative massG',
      'not-positive seconds',
    ]);
    expect(codes(() => pendulum({ ...good, pivotCm: 32.2 }))).toEqual(['pendulum-at-balance pivotCm']);
    expect(codes(() => pendulum({ ...good, seconds: 10 }))).toEqual(['pendulum-impossible seconds']);
    expect(codes(() => pendulum({ ...good, amplitudeDeg: 120 }))).toEqual([
      'amplitude-out-of-range amplitudeDeg',
    ]);
  });
});

describe('twist weight', () => {
  it('is edge-on minus face-on, ±1.4 for single readings of ±1', () => {
    expect(twistFromReadings([320], [333.6], 1).twistWeight).toBeCloseTo(13.6, 9);
    expect(twistFromReadings([320], [333.6], 1).uncertainty).toBeCloseTo(Math.SQRT2, 9);
    expect(twistFromReadings([320, 321, 319, 320], [333, 334, 335, 334], 1).uncertainty).toBeCloseTo(
      Math.SQRT1_2,
      9,
    );
    expect(codes(() => twistFromReadings([], []))).toEqual([
      'missing-readings faceOn',
      'missing-readings edgeOn',
    ]);
    expect(codes(() => twistFromReadings([330], [320]))).toEqual(['twist-weight-impossible edgeOn']);
  });

  it('by two threads gives a bar its handbook m l²/12', () => {
    // A bar of length l hung level by threads D apart: T = 2π √(4 h I / (m g D²)).
    const [m, l, h, D] = [400, 30, 120, 20];
    const inertia = (m * l * l) / 12;
    const period = 2 * Math.PI * Math.sqrt((4 * h * inertia) / (m * g * D * D));
    const found = twistByThreads({
      massG: m,
      threadCm: h,
      separationCm: D,
      swings: 15,
      seconds: 15 * period,
    });
    expect(found.twistWeight).toBeCloseTo(inertia / 1000, 9);
    expect(found.uncertainty).toBeGreaterThan(0);
    expect(
      codes(() => twistByThreads({ massG: m, threadCm: 0, separationCm: D, swings: 15, seconds: 20 })),
    ).toEqual(['not-positive threadCm']);
  });
});

describe('two threads twisted wide', () => {
  it('agrees with the motion itself, integrated in small steps', () => {
    const [massG, h, D, inertia] = [320, 120, 15, 14_000];
    for (const degrees of [10, 30, 50]) {
      // I φ'' = −dU/dφ with the height that threads of length h, D apart, lift the weight by; velocity Verlet for a quarter of the period.
      const push = (phi: number): number =>
        (-massG * g * ((D * D) / 4) * Math.sin(phi)) /
        Math.sqrt(h * h - ((D * D) / 2) * (1 - Math.cos(phi))) /
        inertia;
      let [phi, speed, time] = [(degrees * Math.PI) / 180, 0, 0];
      const dt = 1e-4;
      while (phi > 0) {
        const half = speed + (push(phi) * dt) / 2;
        phi += half * dt;
        speed = half + (push(phi) * dt) / 2;
        time += dt;
      }
      const threads = {
        massG,
        threadCm: h,
        separationCm: D,
        swings: 10,
        seconds: 40 * time,
        amplitudeDeg: degrees,
      };
      expect(twistByThreads(threads).twistWeight / (inertia / 1000)).toBeCloseTo(1, 2);
    }
    expect(
      codes(() =>
        twistByThreads({ massG, threadCm: h, separationCm: D, swings: 1, seconds: 2, amplitudeDeg: 70 }),
      ),
    ).toEqual(['amplitude-out-of-range amplitudeDeg']);
  });
});

describe('edge-on less face-on of a frame that is no flat plate in still air', () => {
  it('adds twice ∫z²: of a box m c²/12 each (handbook)', () => {
    const tennis = settleFrame({ sport: 'tennis', lengthCm: 68.58 });
    const { depth, air, add } = edgeOnCorrection(tennis, 320, 10.16);
    expect(depth).toBeCloseTo((2 * 320 * SPORTS.tennis.depthCm ** 2) / 1000, 9);
    // Strings let the air through.
    expect(air).toBe(0);
    expect(twistFromReadings([320], [333.6], 1, { add, uncertainty: 0 }).twistWeight).toBeCloseTo(
      13.6 + depth,
      9,
    );
  });

  it('adds the air that a solid face moves: about 4 of a paddle’s 6.5, and says that it is uncertain (estimate)', () => {
    const paddle = settleFrame({ sport: 'pickleball', lengthCm: 40.64 });
    const { air, uncertainty } = edgeOnCorrection(paddle, 228, 5);
    expect(air).toBeGreaterThan(3);
    expect(air).toBeLessThan(7);
    expect(uncertainty).toBeGreaterThan(0.8);
    // A rectangle of width w: π ρ (w/2)² ∫ (x − a)² dx (handbook), its rounded corners apart.
    const [from, to] = [
      paddle.bed.centreXCm - paddle.bed.alongCm - 5,
      paddle.bed.centreXCm + paddle.bed.alongCm - 5,
    ];
    const plate = (Math.PI * 1.225e-3 * paddle.bed.acrossCm ** 2 * (to ** 3 - from ** 3)) / 3 / 1000;
    expect(air / plate).toBeGreaterThan(0.85);
    expect(air / plate).toBeLessThan(1);
  });
});

describe('the air that a solid face turns with, hung by two threads', () => {
  it('is π ρ a⁴/8 a cm of length of a flat plate (added moment of inertia, handbook), and less at rounded corners', () => {
    const paddle = settleFrame({ sport: 'pickleball', lengthCm: 40.64 });
    const { acrossCm: a, alongCm } = paddle.head;
    const plate = ((Math.PI / 8) * 1.225e-3 * a ** 4 * 2 * alongCm) / 1000;
    const air = airTwisting(paddle);
    expect(air / plate).toBeGreaterThan(0.8);
    expect(air / plate).toBeLessThan(1);
    // Strings let it through.
    expect(threadsCorrection(settleFrame({ sport: 'tennis', lengthCm: 68.58 })).uncertainty).toBe(0);
  });

  it('of an ellipse it is the integral in closed form', () => {
    // Two half-ellipses of a padel face, half width b and half length l: ∫ a⁴ dx = 16/15 b⁴ l.
    const { head } = settleFrame({ sport: 'padel', lengthCm: 45.5 });
    const closed = ((Math.PI / 8) * 1.225e-3 * (16 / 15) * head.acrossCm ** 4 * head.alongCm) / 1000;
    const air = airTwisting(settleFrame({ sport: 'padel', lengthCm: 45.5 }));
    expect(air / closed).toBeGreaterThan(0.97);
    expect(air / closed).toBeLessThan(1.03);
  });
});

describe('calibration', () => {
  const rods = (slope: number, offset: number, bump = 0) =>
    [100, 200, 300].map((trueValue, i) => ({
      trueValue,
      read: slope * trueValue + offset + (i === 1 ? bump : 0),
    }));

  it('finds a line and undoes it', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.975, max: 1.025, noNaN: true }),
        fc.double({ min: -5, max: 5, noNaN: true }),
        (slope, offset) => {
          const line = calibrate(rods(slope, offset));
          expect(line.refused).toBeUndefined();
          expect(line.slope).toBeCloseTo(slope, 9);
          expect(corrected(line, slope * 251 + offset)).toBeCloseTo(251, 7);
        },
      ),
    );
  });

  it('refuses a rod still off by over 1, a slope outside 0.97 to 1.03, and fewer than two rods', () => {
    expect(calibrate(rods(1, 0, 1.4)).refused).toBeUndefined();
    expect(calibrate(rods(1, 0, 2)).refused).toBe('rod-off');
    expect(calibrate(rods(1.04, 0)).refused).toBe('slope-off');
    expect(codes(() => calibrate([{ trueValue: 100, read: 100 }]))).toEqual(['too-few-rods rods']);
    expect(
      codes(() =>
        calibrate([
          { trueValue: 100, read: 100 },
          { trueValue: 100, read: 101 },
        ]),
      ),
    ).toEqual(['too-few-rods rods']);
  });
});

describe('what a calibration leaves uncertain (JCGM 100:2008, H.3)', () => {
  it('is what Monte Carlo finds of corrected readings, inside and beyond the rods', () => {
    const normal = seededNormals(33);
    const rodReading = 0.5;
    for (const at of [100, 200, 320]) {
      const stated = correctionUncertainty(RODS, rodReading, at);
      const errors = Array.from({ length: 20_000 }, () => {
        const read = RODS.map((trueValue) => ({
          trueValue,
          read: 1.01 * (trueValue + ROD_UNCERTAINTY * normal()) + 2 + rodReading * normal(),
        }));
        return corrected(calibrate(read), 1.01 * at + 2) - at;
      });
      const spread = Math.sqrt(errors.reduce((s, e) => s + e * e, 0) / errors.length);
      expect(stated.value / spread).toBeGreaterThan(0.96);
      expect(stated.value / spread).toBeLessThan(1.04);
    }
    const { value, scale } = correctionUncertainty(RODS, rodReading, 200);
    expect(correctionUncertainty(RODS, rodReading, 300).value).toBeCloseTo(Math.hypot(value, scale * 100), 9);
  });
});

describe('repeated readings', () => {
  it('average, and the uncertainty falls with the root of their number', () => {
    expect(repeats([320, 321, 319], 0.8).mean).toBe(320);
    expect(repeats([320, 320, 320, 320], 0.8).uncertainty).toBeCloseTo(0.4, 9);
  });

  it('cover 95 % with twice their uncertainty, whether the instrument is as good as it says or half as good', () => {
    for (const truly of [1, 2]) {
      for (const n of [3, 4, 6]) {
        const normal = seededNormals(100 * truly + n);
        let covered = 0;
        const RUNS = 4000;
        for (let run = 0; run < RUNS; run++) {
          const { mean, uncertainty } = repeats(
            Array.from({ length: n }, () => truly * normal()),
            1,
          );
          if (Math.abs(mean) <= 2 * uncertainty) covered++;
        }
        expect(covered / RUNS).toBeGreaterThan(truly === 1 ? 0.94 : 0.83);
        expect(covered / RUNS).toBeLessThan(0.995);
      }
    }
    // Student's t of 2 degrees of freedom (Abramowitz & Stegun, table 26.10).
    expect(repeats([300, 320, 340], 0.1).uncertainty).toBeCloseTo((4.303 / 2) * (20 / Math.sqrt(3)), 3);
  });

  it('find a reading 8σ off among three, but for the rarest draws', () => {
    const normal = seededNormals(5);
    const RUNS = 2000;
    let found = 0;
    for (let run = 0; run < RUNS; run++) {
      if (repeats([normal(), normal(), 8 + normal()], 1).outliers.includes(2)) found++;
    }
    expect(found / RUNS).toBeGreaterThan(0.995);
  });

  it('points out an outlier and leaves it to the fitter to set it aside', () => {
    const values = [320.1, 319.8, 327, 320.3];
    const seen = repeats(values, 0.8);
    expect(seen.outliers).toEqual([2]);
    expect(seen.mean).toBeCloseTo(321.8, 9);
    expect(repeats(values, 0.8, [2]).mean).toBeCloseTo(320.0667, 3);
    expect(repeats([320, 330], 0.8).outliers).toEqual([]);
    expect(codes(() => repeats([320], 0.8, [0]))).toEqual(['missing-readings values']);
  });
});

it('propagation adds independent inputs in squares', () => {
  expect(
    propagate(
      ([a, b]) => (a ?? 0) + (b ?? 0),
      [
        { value: 1, u: 3 },
        { value: 2, u: 4 },
      ],
    ),
  ).toBeCloseTo(5, 9);
});
