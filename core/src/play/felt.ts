import { CONDITIONS } from '../aim';

/** How much energy was left at the end. */
export const ENERGY = ['plenty', 'enough', 'little', 'none'] as const;
export type Energy = (typeof ENERGY)[number];
export const OFTEN = ['no', 'sometimes', 'often'] as const;
export type Often = (typeof OFTEN)[number];
export const ARM = ['fine', 'tired', 'sore'] as const;
export type Arm = (typeof ARM)[number];

/** What a player felt in one session. */
export interface Felt {
  energyLeft: Energy;
  /** Contact that comes late. */
  late?: Often | undefined;
  /** The frame twists in the hand where the ball is met off centre. */
  twists?: Often | undefined;
  firmVolleys?: 'yes' | 'no' | undefined;
  arm: Arm;
  minutes?: number | undefined;
}

/** The arm hurts: nothing is added, whatever else was felt. */
export const isSore = ({ arm }: Felt): boolean => arm === 'sore';
/** More than the player carries: tired at the end, a tired arm, or late again and again (a ball in ten is too much: common practice). */
export const isTired = ({ energyLeft, arm, late }: Felt): boolean =>
  energyLeft === 'little' || energyLeft === 'none' || arm === 'tired' || late === 'often';
/** A little energy left is all there is to it: that may have been the day. */
export const isOnlyLittle = ({ energyLeft, arm, late }: Felt): boolean =>
  energyLeft === 'little' && arm === 'fine' && (late ?? 'no') === 'no';
export const isTwisting = ({ twists }: Felt): boolean => twists === 'sometimes' || twists === 'often';

/** What was played. */
export const PLAYED = ['rally', 'drills', 'lesson', 'match'] as const;
/** How it was played in: see {@link Conditions}. */
export const DAYS = ['usual', ...CONDITIONS] as const;
export type Day = (typeof DAYS)[number];
export const DEPTHS = ['short', 'good', 'long'] as const;
export const COMPARED = ['less', 'same', 'more'] as const;

/** All that is noted of a session. What no programme asks for is for the history, and for what works for a player. */
export interface Noted extends Felt {
  energyStart?: Energy | undefined;
  /** Where balls landed. */
  depth?: (typeof DEPTHS)[number] | undefined;
  /** Spin and serve beside what is usual with this player. */
  spin?: (typeof COMPARED)[number] | undefined;
  serve?: (typeof COMPARED)[number] | undefined;
  day?: Day | undefined;
}

const GOOD_OF: { [K in keyof Noted]?: Record<string, number> } = {
  energyLeft: { plenty: 1, enough: 1, little: -1, none: -1 },
  late: { no: 1, sometimes: 0, often: -1 },
  twists: { no: 1, sometimes: 0, often: -1 },
  firmVolleys: { yes: 1, no: -1 },
  arm: { fine: 1, tired: 0, sore: -1 },
  depth: { good: 1, short: -1, long: -1 },
  spin: { more: 1, same: 0, less: -1 },
  serve: { more: 1, same: 0, less: -1 },
};
const GOOD = Object.entries(GOOD_OF) as [keyof Noted, Record<string, number>][];

/**
 * How good a session was, −1 to 1: the mean of what was answered, each counted 1 where it is good, −1 where it is not, 0 between. What was not answered counts
 * nothing. A convention of Kevro, to be read as better or worse and no more.
 * @example noteOf({ energyLeft: 'plenty', late: 'no', arm: 'fine' }) // 1
 */
export function noteOf(session: Noted): number {
  let [sum, answered] = [0, 0];
  for (const [what, worth] of GOOD) {
    const answer = session[what];
    if (answer === undefined) continue;
    sum += worth[String(answer)] ?? 0;
    answered++;
  }
  return sum / answered;
}
