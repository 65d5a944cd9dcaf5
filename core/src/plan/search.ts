import { fewestPlaces } from './fewest-places';
import { leastExcess, mustExcess, wantExcess } from './least-excess';
import { EXCESS_EPS, scoreOf, type PlanProblem, type Score } from './problem';
import { relax, type Relaxed } from './relaxation';
import { OUT_OF_WORK, SearchState, limitsOf } from './search-state';
import { MUST, WANT, tableOf, type Table } from './table';

/** The option chosen in each column of the problem, undefined where the zone stays empty. */
export type Choice = (number | undefined)[];

export interface HowFar {
  /** Choices that may be judged. */
  work?: number | undefined;
  /** The problem as numbers, where it was made before. */
  table?: Table;
  /** Only a choice with nothing outside is wanted; where there is none, how far it must be outside does not matter. */
  insideOnly?: boolean;
}

export interface Searched {
  choice: Choice;
  score: Score;
  /** Whether nothing better exists. */
  proven: boolean;
  /** Tolerances outside, all specs together, that no choice can be below. */
  bound: number;
}

/** Sets of up to this many places are tried before anything is proven about all of them: nearly every plan is found there. */
const USUAL_PLACES = 3;
/** Work that one plan may take, in choices judged: less than half a second. Beyond it the best found comes with a bound, never a guess. */
const MOST_WORK = 2_000_000;
/** Shares of the work that are kept for what comes after the usual places, and for the fewest places after the least excess. */
const FOR_MORE = 0.6;
const FOR_PLACES = 0.4;

/** Does some work; what it found stays where the work runs out. @returns whether it came to its end */
function tried(work: () => void): boolean {
  try {
    work();
    return true;
  } catch (stop) {
    if (stop !== OUT_OF_WORK) throw stop;
    return false;
  }
}

/**
 * An exact search made for this problem: few rows, a dozen columns. First the least that must be kept outside, then the least of what is wanted (pairs of
 * places chosen anew, then branch and bound on the prices of the continuous relaxation); then, sets of places by size, the first size at which that can
 * be had, and among those the nearest to the aim and the lightest.
 * @returns whether nothing better exists
 */
function search(state: SearchState, root: Relaxed, insideOnly: boolean): boolean {
  const { table, all } = state;
  if (root.bound <= EXCESS_EPS) {
    const later = state.spare(FOR_MORE);
    let found = false;
    const most = insideOnly ? all.length : Math.min(USUAL_PLACES, all.length);
    const ended = tried(() => (found = fewestPlaces(state, limitsOf(0, 0), root, most)));
    later.back();
    if (found) return ended;
  }
  if (insideOnly) return false;
  const later = state.spare(FOR_PLACES);
  const kinds = new Set(table.kind);
  let proven = true;
  if (kinds.has(MUST)) {
    const must = mustExcess(state);
    proven = tried(() => leastExcess(state, must, state.relax(must.weight, table.base, 0, all)));
  }
  if (kinds.has(WANT)) {
    const want = wantExcess(state, state.best.mustSteps);
    proven = tried(() => leastExcess(state, want, root)) && proven;
  }
  later.back();
  const { mustSteps, wantSteps } = state.best;
  return tried(() => fewestPlaces(state, limitsOf(mustSteps, wantSteps), root, all.length)) && proven;
}

/**
 * The proven optimum of a plan in the order of {@link Score}: least outside what may be used of the tolerances, in hundredths of one, first of what must be
 * kept and then of what is wanted; fewest places; nearest to the aim, in tenths of a tolerance; least mass.
 * @returns the best found, whether it is proven, and what no choice can be below
 * @example searchPlan(planProblem(request, 'free')).choice // [undefined, 8, …]: option 8 in the second zone
 */
export function searchPlan(problem: PlanProblem, how: HowFar = {}): Searched {
  const { work = MOST_WORK, table = tableOf(problem), insideOnly = false } = how;
  const none: Choice = problem.columns.map(() => undefined);
  // No zone takes a whole piece: nothing can be put on.
  if (table.columns.length === 0) {
    const score = scoreOf(problem, none);
    return { choice: none, score, proven: true, bound: 0 };
  }
  const state = new SearchState(table, work);
  const root = relax(table, state.weight, table.base, 0, state.all);
  const proven = search(state, root, insideOnly);
  const choice = none.slice();
  table.columns.forEach(({ index }, place) => {
    const option = state.best.options[place] as number;
    if (option >= 0) choice[index] = option;
  });
  const score = scoreOf(problem, choice);
  const outside = state.best.must + state.best.want;
  if (proven) return { choice, score, proven, bound: outside };
  const least = relax(table, state.weights(1, 1), table.base, 0, state.all).bound;
  return { choice, score, proven, bound: Math.min(outside, Math.max(0, least)) };
}
