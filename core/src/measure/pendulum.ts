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
  /** Half the whole angle of the swing, at the start; small if left out. */
  amplitudeDeg?: number | undefined;
  /** The same at the end of the timing; as at the start if left out. */
  endAmplitudeDeg?: number | undefined;
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

/** A swing this wide leaves the series, and shakes the pivot, degrees. */
export const WIDEST_DEG = 60;

/**
 * The period of small swings from the mean period of swings that die away from one amplitude to another. Friction takes the same share with every swing, so the
 * mean of θ² is (θ₁² − θ₂²)/(2 ln θ₁/θ₂), and of θ⁴ (θ₁⁴ − θ₂⁴)/(4 ln θ₁/θ₂) (integral of the exponential decay).
 * @param fromRad, toRad amplitudes at the start and at the end of the timing, 0 or more
 * @example dyingSwingPeriod(2, 0.26, 0.13) // 1.9949…
 */
export function dyingSwingPeriod(period: number, fromRad: number, toRad: number): number {
  if (!(toRad > 0) || Math.abs(fromRad - toRad) < 1e-9) return smallSwingPeriod(period, fromRad);
  const died = Math.log(fromRad / toRad);
  const square = (fromRad ** 2 - toRad ** 2) / (2 * died);
  const fourth = (fromRad ** 4 - toRad ** 4) / (4 * died);
  return period / (1 + square / 16 + (11 * fourth) / 3072);
}

const RAD = Math.PI / 180;

/** The small period of a timing, and what is wrong with its amplitudes. */
export function timedPeriod(
  {
    amplitudeDeg = 0,
    endAmplitudeDeg = amplitudeDeg,
  }: Pick<PendulumTiming, 'amplitudeDeg' | 'endAmplitudeDeg'>,
  period: number,
): number {
  return dyingSwingPeriod(period, amplitudeDeg * RAD, endAmplitudeDeg * RAD);
}

export function amplitudeProblems({
  amplitudeDeg = 0,
  endAmplitudeDeg = amplitudeDeg,
}: Pick<PendulumTiming, 'amplitudeDeg' | 'endAmplitudeDeg'>): Problem[] {
  if (!(amplitudeDeg >= 0 && amplitudeDeg <= WIDEST_DEG))
    return [{ code: 'amplitude-out-of-range', path: 'amplitudeDeg' }];
  return endAmplitudeDeg >= 0 && endAmplitudeDeg <= amplitudeDeg
    ? []
    : [{ code: 'amplitude-out-of-range', path: 'endAmplitudeDeg' }];
}

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
 * Swings wider than 60° are refused, and those that grow.
 * @throws Fault `not-positive`, `amplitude-out-of-range`, `pendulum-at-balance`, `pendulum-impossible` (recoil weight not positive)
 * @example pendulum({ massG: 320, balanceCm: 32, pivotCm: 1, swings: 20, seconds: 28, axisCm: 10.16 }).swingWeight
 */
export function pendulum(timing: PendulumTiming): PendulumResult {
  const { massG, balanceCm, pivotCm, swings, seconds, axisCm } = timing;
  const problems: Problem[] = [];
  if (!(massG > 0)) problems.push({ code: 'mass-negative', path: 'massG' });
  for (const key of ['balanceCm', 'swings', 'seconds'] as const) {
    if (!(timing[key] > 0)) problems.push({ code: 'not-positive', path: key });
  }
  problems.push(...amplitudeProblems(timing));
  if (Math.abs(balanceCm - pivotCm) < 0.5) problems.push({ code: 'pendulum-at-balance', path: 'pivotCm' });
  if (problems.length > 0) throw new Fault(...problems);

  const result = ([m, b, p, s]: number[]): [number, number] =>
    inertias(m as number, b as number, p as number, timedPeriod(timing, (s as number) / swings), axisCm);
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

/** A frame to be swung, with what its recoil weight is thought to be. */
export interface Swingable {
  massG: number;
  balanceCm: number;
  recoilWeight: number;
  lengthCm: number;
  axisCm: number;
}

/** Every so many cm a pivot is tried. */
const PIVOT_STEP_CM = 0.5;
const NEAR_BALANCE_CM = 3;

/**
 * The pivot from which a frame's swing weight comes out surest, with the uncertainty that it leaves: near the balance the swing is slow and small errors of its place
 * count much, far from it the moved axis does.
 * @param swings that are counted @param uncertainty of the timing, standard uncertainties
 * @example bestPivot({ massG: 320, balanceCm: 32.5, recoilWeight: 160, lengthCm: 68.58, axisCm: 10.16 }, 20).pivotCm
 */
export function bestPivot(
  { massG, balanceCm, recoilWeight, lengthCm, axisCm }: Swingable,
  swings: number,
  uncertainty: PendulumTiming['uncertainty'] = {},
): { pivotCm: number; uncertainty: number } {
  let best = { pivotCm: 0, uncertainty: Infinity };
  for (let pivotCm = 0; pivotCm <= lengthCm; pivotCm += PIVOT_STEP_CM) {
    const arm = Math.abs(balanceCm - pivotCm);
    if (arm < NEAR_BALANCE_CM) continue;
    const inertia = recoilWeight * G_CM2_PER_KG_CM2 + massG * arm * arm;
    const period = 2 * Math.PI * Math.sqrt(inertia / (massG * STANDARD_GRAVITY * arm));
    const timing = { massG, balanceCm, pivotCm, swings, seconds: swings * period, axisCm, uncertainty };
    const found = pendulum(timing).uncertainty;
    if (found < best.uncertainty) best = { pivotCm, uncertainty: found };
  }
  return best;
}
