import { describe, expect, it } from 'vitest';
import type { Fault } from '../fault';
import { settleFrame } from '../frame';
import { SPORTS } from '../sport';
import { twistByThreads, twistFromReadings, airTwisting, edgeOnCorrection, threadsCorrection } from '.';

const g = 980.665;
const codes = (run: () => unknown): string[] => {
  try {
    run();
    return [];
  } catch (fault) {
    return (fault as Fault).problems.map((p) => `${p.code} ${p.path}`);
  }
};

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
