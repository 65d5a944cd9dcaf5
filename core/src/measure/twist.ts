import { Fault, type Problem } from '../fault';
import type { Frame } from '../frame';
import { G_CM2_PER_KG_CM2, STANDARD_GRAVITY, meanOf } from '../units';
import { airFaceOn, airTwisting } from './air';
import { amplitudeProblems, timedPeriod } from './pendulum';
import { propagate } from './propagate';

export interface TwistResult {
  twistWeight: number;
  /** Standard uncertainty, kg·cm². */
  uncertainty: number;
}

/** Standard uncertainty of one reading of a swing-weight machine, kg·cm² (from memory). */
const READING_UNCERTAINTY = 1;

/** A flat plate in still air needs no correction. */
const FLAT = { add: 0, uncertainty: 0 };

/**
 * Twist weight of a flat body: edge-on minus face-on swing weight about the same axis, since the inertia normal to the face is S + T (perpendicular axes).
 * The uncertainty of the difference of means is u √(1/n + 1/m): ±1.4 for single readings of ±1.
 * @param faceOn, edgeOn readings, kg·cm², at least one of each @param correction for depth and air, see {@link edgeOnCorrection}; none if left out
 * @throws Fault `missing-readings`, `twist-weight-impossible`
 * @example twistFromReadings([320], [333.6]).twistWeight // 13.6
 */
export function twistFromReadings(
  faceOn: readonly number[],
  edgeOn: readonly number[],
  readingUncertainty = READING_UNCERTAINTY,
  correction: Pick<EdgeOnCorrection, 'add' | 'uncertainty'> = FLAT,
): TwistResult {
  const problems: Problem[] = [];
  if (faceOn.length === 0) problems.push({ code: 'missing-readings', path: 'faceOn' });
  if (edgeOn.length === 0) problems.push({ code: 'missing-readings', path: 'edgeOn' });
  if (problems.length > 0) throw new Fault(...problems);
  const twistWeight = meanOf(edgeOn) - meanOf(faceOn) + correction.add;
  if (!(twistWeight > 0)) throw new Fault({ code: 'twist-weight-impossible', path: 'edgeOn' });
  return {
    twistWeight,
    uncertainty: Math.hypot(
      readingUncertainty * Math.sqrt(1 / faceOn.length + 1 / edgeOn.length),
      correction.uncertainty,
    ),
  };
}

/** A frame hung by two threads, long axis upright, timed while it twists. */
export interface TwoThreads {
  massG: number;
  threadCm: number;
  separationCm: number;
  swings: number;
  seconds: number;
  /** How far it is twisted out at the start and at the end; small if left out. */
  amplitudeDeg?: number | undefined;
  endAmplitudeDeg?: number | undefined;
  uncertainty?: { massG?: number; threadCm?: number; separationCm?: number; seconds?: number };
}

const THREADS_UNCERTAINTY = { massG: 0.5, threadCm: 0.2, separationCm: 0.05, seconds: 0.15 };

/**
 * Twist weight by two threads: T = M g D² T0² / (16 π² h) / 1000, threads parallel, length h, D apart.
 * Source: bifilar pendulum (handbook mechanics); wide twists as a pendulum's wide swings, since the weight rises by (D²/4h)(1 − cos φ) on long threads.
 * Refused over 60°.
 * @throws Fault `not-positive`
 * @example twistByThreads({ massG: 320, threadCm: 100, separationCm: 15, swings: 20, seconds: 55 }).twistWeight
 */
export function twistByThreads(threads: TwoThreads): TwistResult {
  const keys = ['massG', 'threadCm', 'separationCm', 'swings', 'seconds'] as const;
  const problems = keys
    .filter((key) => !(threads[key] > 0))
    .map((path): Problem => ({ code: 'not-positive', path }));
  problems.push(...amplitudeProblems(threads));
  if (problems.length > 0) throw new Fault(...problems);
  const { massG, threadCm, separationCm, swings, seconds } = threads;
  const twist = ([m, h, d, s]: number[]): number =>
    ((m as number) *
      STANDARD_GRAVITY *
      (d as number) ** 2 *
      timedPeriod(threads, (s as number) / swings) ** 2) /
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

/** What a frame's depth and the air it moves take off edge-on minus face-on, kg·cm². */
export interface EdgeOnCorrection {
  /** To be added to the difference of the readings. */
  add: number;
  /** Standard uncertainty of it. */
  uncertainty: number;
  /** Of which the depth of the frame, and the air that a solid face moves. */
  depth: number;
  air: number;
}

/** How uncertain either part is, as shares: layups differ, and air near a bench does not flow as round a plate in the open (from memory). */
export const DEPTH_SHARE = 0.2;
export const AIR_SHARE = 0.2;

/**
 * What must be added to edge-on minus face-on to come to the twist weight of a frame that is no flat plate in still air. A frame is deep: edge-on ∫(x² + y²) dm less face-on ∫(x² + z²) dm
 * is T − 2 ∫ z² dm. And a solid face that swings face-on moves air ({@link airFaceOn}); edge-on it moves hardly any.
 * @param massG of the frame @param axisCm of the readings
 * @example edgeOnCorrection(settleFrame({ sport: 'pickleball', lengthCm: 40.64 }), 228, 5).air // about 4
 */
export function edgeOnCorrection(frame: Frame, massG: number, axisCm: number): EdgeOnCorrection {
  const { depthCm } = frame.sport;
  const depth = (2 * massG * depthCm ** 2) / G_CM2_PER_KG_CM2;
  const air = airFaceOn(frame, axisCm);
  return { add: depth + air, uncertainty: Math.hypot(DEPTH_SHARE * depth, AIR_SHARE * air), depth, air };
}

/**
 * What must be added to a twist weight by two threads: a solid face turns some air with it, which is no part of the frame ({@link airTwisting}).
 * @example threadsCorrection(settleFrame({ sport: 'padel', lengthCm: 45.5 })).add // about -0.19
 */
export function threadsCorrection(frame: Frame): Pick<EdgeOnCorrection, 'add' | 'uncertainty'> {
  const air = airTwisting(frame);
  return { add: -air, uncertainty: AIR_SHARE * air };
}
