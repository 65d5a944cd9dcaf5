import { isSore, isTired, isTwisting, type Felt } from './felt';
import type { Programme } from './programme';

/** What is known of a player and of how a frame played last. */
export interface ForSuggestion {
  last?: Felt | undefined;
  growing: boolean;
  soreArm: boolean;
  ceilingKnown: boolean;
}

/**
 * The programme that suits what was felt last, to be shown first; the fitter decides. A sore arm comes before all else, then what was too much, then what twists, then a
 * ceiling that nobody knows yet; growing players go half-way (common practice).
 * @example suggestProgramme({ growing: false, soreArm: false, ceilingKnown: false }) // 'find-ceiling'
 */
export function suggestProgramme({ last, growing, soreArm, ceilingKnown }: ForSuggestion): Programme {
  if (soreArm || (last && isSore(last))) return 'after-sore-arm';
  if (last && isTired(last)) return 'trim-evenly';
  if (last && isTwisting(last)) return 'settle-face';
  if (last?.firmVolleys === 'no') return 'quiet-handle';
  if (growing) return 'half-way';
  return ceilingKnown ? 'climb' : 'find-ceiling';
}
