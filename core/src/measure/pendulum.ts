import { Fault, type Problem } from '../fault';
import { G_CM2_PER_KG_CM2, STANDARD_GRAVITY } from '../units';
import { propagate } from './propagate';

/** A frame timed while it swings about a pivot, pivot axis parallel to y. */
export interface PendulumTiming {
  massG: number;
  balanceCm: number;
  /** Where it hangs, cm from the butt. */
  pivotCm: number;
  /** Full swings, there and back. */
  swings: number;
  seconds: number;
  /** Half the whole angle of the swing; small if left out. */
  amplitudeDeg?: number;
  /** Axis of the swing weight, cm from the butt. */
  axisCm: number;
  uncertainty?: { massG?: number; balanceCm?: number; pivotCm?: number; seconds?: number };
}

export interface PendulumResult {
  swingWeight: number;
  recoilWeight: number;
  /** Standard uncertainty of the swing weight, kg·cm². */
  uncertainty: number;
}

/** What a kitchen scale, a ruler and a thumb on a stopwatch are good for (from memory). */
export const PENDULUM_UNCERTAINTY = { massG: 0.5, balanceCm: 0.1, pivotCm: 0.05, seconds: 0.15 };

/**
 * The period of small swings from that of large ones: T0 = T / (1 + θ²/16 + 11 θ⁴/3072), θ the amplitude in radians (handbook pendulum series).
 * @example smallSwingPeriod(2, 0) // 2
 */
export const smallSwingPeriod = (period: number, amplitudeRad: number): number =>
  period / (1 + amplitudeRad ** 2 / 16 + (11 * amplitudeRad ** 4) / 3072);

function inertias(
  massG: number,
  balanceCm: number,
  pivotCm: number,
  period0: number,
  axisCm: number,
): [number, number] {
  const d = balanceCm - pivotCm;
  const aboutPivot = (massG * STANDARD_GRAVITY * Math.abs(d) * period0 ** 2) / (4 * Math.PI ** 2);
  const recoil = (aboutPivot - massG * d * d) / G_CM2_PER_KG_CM2;
  return [recoil + (massG * (balanceCm - axisCm) ** 2) / G_CM2_PER_KG_CM2, recoil];
}

/**
 * Swing weight by pendulum: I = M g d T0² / (4π²) about the pivot, d from pivot to balance; R = (I − M d²)/1000; S(a) = R + M (B − a)²/1000.
 * Source: physical pendulum (handbook mechanics); g = 980.665 cm/s² (standard gravity, exact).
 * @throws Fault `not-positive`, `pendulum-at-balance`, `pendulum-impossible` (recoil weight not positive)
 * @example pendulum({ massG: 320, balanceCm: 32, pivotCm: 1, swings: 20, seconds: 28, axisCm: 10.16 }).swingWeight
 */
export function pendulum(timing: PendulumTiming): PendulumResult {
  const { massG, balanceCm, pivotCm, swings, seconds, amplitudeDeg = 0, axisCm } = timing;
  const problems: Problem[] = [];
  if (!(massG > 0)) problems.push({ code: 'mass-negative', path: 'massG' });
  for (const key of ['balanceCm', 'swings', 'seconds'] as const) {
    if (!(timing[key] > 0)) problems.push({ code: 'not-positive', path: key });
  }
  if (!(amplitudeDeg >= 0 && amplitudeDeg <= 90))
    problems.push({ code: 'amplitude-out-of-range', path: 'amplitudeDeg' });
  if (Math.abs(balanceCm - pivotCm) < 0.5) problems.push({ code: 'pendulum-at-balance', path: 'pivotCm' });
  if (problems.length > 0) throw new Fault(...problems);

  const amplitude = (amplitudeDeg * Math.PI) / 180;
  const result = ([m, b, p, s]: number[]): [number, number] =>
    inertias(
      m as number,
      b as number,
      p as number,
      smallSwingPeriod((s as number) / swings, amplitude),
      axisCm,
    );
  const [swingWeight, recoilWeight] = result([massG, balanceCm, pivotCm, seconds]);
  if (!(recoilWeight > 0) || !Number.isFinite(swingWeight))
    throw new Fault({ code: 'pendulum-impossible', path: 'seconds' });
  const u = { ...PENDULUM_UNCERTAINTY, ...timing.uncertainty };
  return {
    swingWeight,
    recoilWeight,
    uncertainty: propagate(
      (values) => result(values)[0],
      [
        { value: massG, u: u.massG },
        { value: balanceCm, u: u.balanceCm },
        { value: pivotCm, u: u.pivotCm },
        { value: seconds, u: u.seconds },
      ],
    ),
  };
}
