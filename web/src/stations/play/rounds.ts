import { partUnit } from '../../words/part-weight';
import { measuredIn, newStrings, settleFrame, type AxisSpecs } from '@kevro/core';
import {
  stringStepWords,
  zoneChangeWords,
  type Carried,
  type FrameRecord,
  type RoundView,
} from '@kevro/contract';
import { changedZones } from './what-changed';

/** What the frame carried in a round: once it is signed off what was built, before that what it began with. */
export const carriedIn = (round: RoundView): Carried | null =>
  round.signOffs.at(-1)?.onFrame ?? round.onFrame;

/** What was done with the strings in a round that was built, in words; empty where nothing was. */
function restrungIn({ signOffs, plans, state }: RoundView): string {
  const plan = signOffs.length > 0 ? plans.find(({ id }) => id === state.planId) : undefined;
  const strings = plan && newStrings(plan.swaps);
  if (!strings) return '';
  const { step, unit } = strings.job ?? {};
  return step ? stringStepWords(step, unit) : 'new strings';
}

export interface PlayedWith {
  round: RoundView;
  /** What was changed in it, in words: «2 g onto the tip»; of the first round «as found». */
  words: string;
  specs: AxisSpecs | undefined;
}

/** Rounds as a player knows them: by what was changed. */
export function playedWith(frame: FrameRecord, rounds: readonly RoundView[]): PlayedWith[] {
  const settled = settleFrame(frame.shape);
  return rounds.map((round) => {
    const built = round.signOffs.at(-1)?.onFrame;
    const change = built && round.onFrame ? changedZones(settled, round.onFrame, built) : undefined;
    const words = [change ? zoneChangeWords(change, partUnit()) : '', restrungIn(round)]
      .filter(Boolean)
      .join(', ');
    const none = change ? 'no weight changed' : 'as found';
    return { round, words: words || none, specs: measuredIn(round)?.specs };
  });
}
