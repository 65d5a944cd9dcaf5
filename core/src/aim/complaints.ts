import { noticeableStep } from '../compare';
import type { Specs } from '../mass';
import { SPEC_KEYS, type KnownSpecs, type SpecKey } from '../spec';
import { dataOf, type AnySport } from '../sport';
import { asWritten, partWay, type Aim } from './aim';

/** What bothers a player about the frame in hand. */
export const BOTHERS = [
  'twisting',
  'late',
  'pushed-around',
  'sore-arm',
  'tired',
  'long',
  'short',
  'mis-hits-tip',
  'mis-hits-side',
  'no-bite',
  'breaks',
] as const;
export type Bother = (typeof BOTHERS)[number];
/** Complaints that nobody has where there are no strings. */
export const OF_STRINGS: readonly Bother[] = ['no-bite', 'breaks'];

/**
 * In which direction each complaint moves the specs, in noticeable steps (common practice): what twists wants more about the long axis, what comes late less
 * about the hand, what is pushed around more of both; a sore or a tired arm wants less load, never more.
 */
export const COMPLAINT_STEPS: Record<Bother, KnownSpecs> = {
  twisting: { twistWeight: 1.5 },
  late: { swingWeight: -1, balanceCm: -0.5 },
  'pushed-around': { massG: 1, swingWeight: 1 },
  'sore-arm': { swingWeight: -1, massG: 0 },
  tired: { massG: -1, swingWeight: -1 },
  long: { swingWeight: -0.5 },
  short: { swingWeight: 1 },
  'mis-hits-tip': { balanceCm: 1, swingWeight: 0.5 },
  'mis-hits-side': { twistWeight: 1 },
  // Only strings answer these.
  'no-bite': {},
  breaks: {},
};
/** Whether an arm is sore or tires: then nothing is proposed that loads it more. */
export const isTender = (bothers: readonly Bother[]): boolean =>
  bothers.some((one) => one === 'sore-arm' || one === 'tired');
/** Whether more of a spec loads the arm. */
export const loadsArm = (key: SpecKey): boolean =>
  key === 'massG' || key === 'swingWeight' || key === 'balanceCm';
/** Which way a complaint moves the specs, as far as it does. @example complaintMoves('late')[0] // { key: 'balanceCm', up: false } */
export const complaintMoves = (bother: Bother): { key: SpecKey; up: boolean }[] =>
  SPEC_KEYS.flatMap((key) => {
    const step = COMPLAINT_STEPS[bother][key] ?? 0;
    return step === 0 ? [] : [{ key, up: step > 0 }];
  });

/** No spec moves further than this for complaints, whatever there are of them. */
const MOST_STEPS = 2;

/**
 * How far complaints together move each spec, in noticeable steps. With a sore or a tired arm nothing that loads it rises.
 * @example complaintSteps(['late', 'twisting']) // { balanceCm: -0.5, swingWeight: -1, twistWeight: 1.5 }
 */
export function complaintSteps(bothers: readonly Bother[]): KnownSpecs {
  const steps: KnownSpecs = {};
  const tender = isTender(bothers);
  for (const key of SPEC_KEYS) {
    const moves = bothers.flatMap((b) => COMPLAINT_STEPS[b][key] ?? []);
    if (moves.length === 0) continue;
    const sum = moves.reduce((all, one) => all + (tender && loadsArm(key) ? Math.min(0, one) : one), 0);
    steps[key] = Math.max(-MOST_STEPS, Math.min(MOST_STEPS, sum));
  }
  return steps;
}

/**
 * An aim from what bothers a player: the frame's own specs moved in the known directions; what no complaint is about stays free.
 * @example aimFromComplaints('tennis', own, ['late']).swingWeight?.value // 312 of 320
 */
export function aimFromComplaints(sport: AnySport, own: Specs, bothers: readonly Bother[]): Aim {
  const data = dataOf(sport);
  const steps = complaintSteps(bothers);
  const moved: KnownSpecs = {};
  for (const key of SPEC_KEYS) {
    const value = own[key];
    const by = steps[key];
    if (value === undefined || by === undefined) continue;
    moved[key] = value + by * noticeableStep(data.noticeable, key, own.swingWeight);
  }
  return partWay(data, own, asWritten(moved, data), 1);
}
