import { noticeableStep } from '../compare';
import { recoilWeight, type AxisSpecs, type SpecKey } from '../mass';
import { dataOf, type AnySport } from '../sport';
import { targetOf, type Aim } from './aim';

export type MeaningOf = 'swing' | 'weight' | 'balance' | 'twist' | 'recoil';
/** What an aim means for a hand: how much of it, and how many noticeable steps that is. */
export interface Meaning {
  of: MeaningOf;
  /** A share for swing and recoil weight, else the difference in the spec's own unit. */
  change: number;
  steps: number;
}

/** Less than this is not felt, in steps. */
const FELT = 0.2;

/**
 * What an aim means beside the frame as it is: harder or easier to swing, as a share of the swing weight; heavier in the hand; further from the hand; steadier
 * off centre (twist weight) and against heavy balls (recoil weight). What is not felt, or free, is left out.
 * @example aimMeaning('tennis', own, { swingWeight: { value: 332.8, tolerance: 1 } })[0] // { of: 'swing', change: 0.04, steps: 1.6 }
 */
export function aimMeaning(sport: AnySport, own: AxisSpecs, aim: Aim): Meaning[] {
  const { noticeable } = dataOf(sport);
  const asked = (key: SpecKey): number | undefined => targetOf(aim, key)?.value;
  const steps = (key: SpecKey, change: number): number =>
    change / noticeableStep(noticeable, key, own.swingWeight);
  const meanings: Meaning[] = [];
  const say = (of: MeaningOf, key: SpecKey, share: boolean): void => {
    const to = asked(key);
    const from = own[key];
    if (to === undefined || from === undefined) return;
    meanings.push({ of, change: share ? to / from - 1 : to - from, steps: steps(key, to - from) });
  };
  say('swing', 'swingWeight', true);
  say('weight', 'massG', false);
  say('balance', 'balanceCm', false);
  say('twist', 'twistWeight', false);
  const [massG, balanceCm, swingWeight] = [asked('massG'), asked('balanceCm'), asked('swingWeight')];
  if (massG !== undefined && balanceCm !== undefined && swingWeight !== undefined) {
    const before = recoilWeight(own);
    const after = recoilWeight({ massG, balanceCm, swingWeight, axisCm: own.axisCm });
    // As many steps as the same share of the swing weight.
    meanings.push({
      of: 'recoil',
      change: after / before - 1,
      steps: (after / before - 1) / noticeable.swingWeightShare,
    });
  }
  return meanings.filter(({ steps: felt }) => Math.abs(felt) >= FELT);
}
