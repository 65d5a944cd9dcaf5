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
