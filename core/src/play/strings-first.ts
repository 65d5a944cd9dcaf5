import { Fault } from '../fault';
import { SOFTER, type StringStep } from '../part';
import { dataOf } from '../sport';
import { isTired } from './felt';
import { programmeTraits, type Played, type Proposal } from './programme';
import type { Ground } from './ground';

type Found = Omit<Proposal, 'specs'>;

/** After so many sessions of which nobody said where balls landed it ends: there is nothing to go by. */
const MOST_UNSAID = 3;
/** Sessions since the last change of strings. */
const sessionsSince = (history: readonly Played[]): number => {
  const last = history.findLastIndex(({ strings }) => strings);
  return history.slice(Math.max(0, last)).filter(({ session }) => session).length;
};

/** A change of tension taken back; of another kind of change there is nothing to take back. */
export const loosened = (step: StringStep | undefined): StringStep | undefined =>
  step?.change === 'tighter' ? { change: 'looser', byKg: step.byKg } : undefined;

/** The last change of strings that was done. */
export const lastStrings = (history: readonly Played[]): StringStep | undefined =>
  history.findLast(({ strings }) => strings)?.strings;

/**
 * Strings before weight: one change a session, until balls land where they should. Tighter where they fly long, and new ones first where those that are in are due; looser where
 * they fall short; looser, then softer for an arm that tires; thinner where they do not bite (common practice). Half a step back where it went too far.
 * @throws Fault in a sport without strings
 */
export function stringsFirst({
  history,
  felt,
  sport,
  bed = {},
}: Pick<Ground, 'history' | 'felt' | 'sport' | 'bed'>): Found {
  const { stringing } = dataOf(sport);
  if (!stringing) throw new Fault({ code: 'no-strings', path: 'programme' });
  const done = history.flatMap(({ strings }) => strings ?? []);
  const last = done.at(-1);
  const has = (change: StringStep['change']): boolean => done.some((step) => step.change === change);
  const [byKg] = stringing.stepKg;
  const end = (reason: Found['reason'], strings?: StringStep): Found => ({
    state: 'done',
    change: [],
    ...(strings ? { strings } : {}),
    reason,
  });
  const enough = end('weight-next');
  const go = (reason: Found['reason'], strings: StringStep): Found => {
    const [least, most] = stringing.tensionKg;
    const becomes =
      (bed.mainsKg ?? (least + most) / 2) + (strings.change === 'looser' ? -1 : 1) * (strings.byKg ?? 0);
    const isPossible = strings.byKg === undefined || (becomes >= least && becomes <= most);
    return isPossible && done.length < programmeTraits('strings-first').mostSteps
      ? { state: 'go-on', change: [], strings, reason }
      : enough;
  };
  /** Past the middle: half of the last step back, and that is it. */
  const halfBack = (change: 'tighter' | 'looser', of: StringStep): Found =>
    end('too-far', { change, byKg: (of.byKg ?? byKg) / 2 });

  if (isTired(felt)) {
    const back = loosened(last);
    if (back) return end('arm-tires', back);
    if (felt.arm !== 'tired') return end('tired-as-found');
    if (!has('looser')) return go('arm-tires', { change: 'looser', byKg });
    const softer = bed.mainsKind && SOFTER[bed.mainsKind];
    const isSoftest = bed.mainsKind !== undefined && softer === undefined;
    return isSoftest || has('softer')
      ? enough
      : go('arm-tires', { change: 'softer', ...(softer ? { to: softer } : {}) });
  }
  if (felt.depth === 'long') {
    if (bed.isDue && !has('newer')) return go('dead-strings', { change: 'newer' });
    return last?.change === 'looser'
      ? halfBack('tighter', last)
      : go('flies-long', { change: 'tighter', byKg });
  }
  if (felt.depth === 'short')
    return last?.change === 'tighter'
      ? halfBack('looser', last)
      : go('falls-short', { change: 'looser', byKg });
  if (felt.spin === 'less') return has('thinner') ? enough : go('no-bite', { change: 'thinner' });
  if (felt.depth === undefined)
    return sessionsSince(history) < MOST_UNSAID
      ? { state: 'go-on', change: [], reason: 'say-depth' }
      : end('depth-not-said');
  return end('strings-suit');
}
