import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Fault } from '../fault';
import {
  pendulum,
  seededNormals,
  smallSwingPeriod,
  PENDULUM_UNCERTAINTY,
  bestPivot,
  dyingSwingPeriod,
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
