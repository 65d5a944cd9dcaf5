import { Fault, type Problem } from '../fault';
import { G_CM2_PER_KG_CM2, STANDARD_GRAVITY } from '../units';
import { propagate } from './propagate';

export interface TwistResult {
  twistWeight: number;
  /** Standard uncertainty, kg·cm². */
  uncertainty: number;
}

/** Standard uncertainty of one reading of a swing-weight machine, kg·cm² (from memory). */
const READING_UNCERTAINTY = 1;

const mean = (values: readonly number[]): number => values.reduce((sum, v) => sum + v, 0) / values.length;

/**
 * Twist weight of a flat body: edge-on minus face-on swing weight about the same axis, since the inertia normal to the face is S + T (perpendicular axes).
 * The uncertainty of the difference of means is u √(1/n + 1/m): ±1.4 for single readings of ±1.
 * @param faceOn, edgeOn readings, kg·cm², at least one of each
 * @throws Fault `missing-readings`, `twist-weight-impossible`
 * @example twistFromReadings([320], [333.6]).twistWeight // 13.6
 */
export function twistFromReadings(
  faceOn: readonly number[],
  edgeOn: readonly number[],
  readingUncertainty = READING_UNCERTAINTY,
): TwistResult {
  const problems: Problem[] = [];
  if (faceOn.length === 0) problems.push({ code: 'missing-readings', path: 'faceOn' });
  if (edgeOn.length === 0) problems.push({ code: 'missing-readings', path: 'edgeOn' });
  if (problems.length > 0) throw new Fault(...problems);
  const twistWeight = mean(edgeOn) - mean(faceOn);
  if (!(twistWeight > 0)) throw new Fault({ code: 'twist-weight-impossible', path: 'edgeOn' });
  return {
    twistWeight,
    uncertainty: readingUncertainty * Math.sqrt(1 / faceOn.length + 1 / edgeOn.length),
  };
}

/** A frame hung by two threads, long axis upright, timed while it twists. */
export interface TwoThreads {
  massG: number;
  threadCm: number;
  separationCm: number;
  swings: number;
  seconds: number;
  uncertainty?: { massG?: number; threadCm?: number; separationCm?: number; seconds?: number };
}

const THREADS_UNCERTAINTY = { massG: 0.5, threadCm: 0.2, separationCm: 0.05, seconds: 0.15 };

/**
 * Twist weight by two threads: T = M g D² T0² / (16 π² h) / 1000, threads parallel, length h, D apart.
 * Source: bifilar pendulum (handbook mechanics), small angles.
 * @throws Fault `not-positive`
 * @example twistByThreads({ massG: 320, threadCm: 100, separationCm: 15, swings: 20, seconds: 55 }).twistWeight
 */
export function twistByThreads(threads: TwoThreads): TwistResult {
  const keys = ['massG', 'threadCm', 'separationCm', 'swings', 'seconds'] as const;
  const problems = keys
    .filter((key) => !(threads[key] > 0))
    .map((path): Problem => ({ code: 'not-positive', path }));
  if (problems.length > 0) throw new Fault(...problems);
  const { massG, threadCm, separationCm, swings, seconds } = threads;
  const twist = ([m, h, d, s]: number[]): number =>
    ((m as number) * STANDARD_GRAVITY * (d as number) ** 2 * ((s as number) / swings) ** 2) /
    (16 * Math.PI ** 2 * (h as number)) /
    G_CM2_PER_KG_CM2;
  const u = { ...THREADS_UNCERTAINTY, ...threads.uncertainty };
  return {
    twistWeight: twist([massG, threadCm, separationCm, seconds]),
    uncertainty: propagate(twist, [
      { value: massG, u: u.massG },
      { value: threadCm, u: u.threadCm },
      { value: separationCm, u: u.separationCm },
      { value: seconds, u: u.seconds },
    ]),
  };
}
