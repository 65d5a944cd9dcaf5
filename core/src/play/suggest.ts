import { isSore, isTired, isTwisting, type Noted } from './felt';
import type { Programme } from './programme';

/** What is known of a player and of how a frame played last. */
export interface ForSuggestion {
  last?: Noted | undefined;
  /** There are strings in the frame: they are changed before its weight. */
  strung?: boolean | undefined;
  growing: boolean;
  soreArm: boolean;
  ceilingKnown: boolean;
}

/** What strings answer before weight does: balls that land long or short, less spin, an arm that tires and nothing else. */
const isOfStrings = (last: Noted): boolean =>
  isTired(last)
    ? last.arm === 'tired' && !isTired({ ...last, arm: 'fine' })
    : last.depth === 'long' || last.depth === 'short' || last.spin === 'less';

/**
 * The programme that suits what was felt last, to be shown first; the fitter decides. A sore arm comes before all else, then what strings answer, then what was too much, then what twists, then a
 * ceiling that nobody knows yet; growing players go half-way (common practice).
 * @example suggestProgramme({ growing: false, soreArm: false, ceilingKnown: false }) // 'find-ceiling'
 */
export function suggestProgramme({ last, growing, soreArm, ceilingKnown, strung }: ForSuggestion): Programme {
  if (soreArm || (last && isSore(last))) return 'after-sore-arm';
  if (strung && last && isOfStrings(last)) return 'strings-first';
  if (last && isTired(last)) return 'trim-evenly';
  if (last && isTwisting(last)) return 'settle-face';
  if (last?.firmVolleys === 'no') return 'quiet-handle';
  if (growing) return 'half-way';
  return ceilingKnown ? 'climb' : 'find-ceiling';
}
