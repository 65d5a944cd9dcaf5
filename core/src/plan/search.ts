import { fewestPlaces } from './fewest-places';
import { leastExcess } from './least-excess';
import { EXCESS_EPS, excessSteps, type PlanProblem } from './problem';
import { relax } from './relaxation';
import { SearchState } from './search-state';
import { tableOf } from './table';

/** The option chosen in each column of the problem, undefined where the zone stays empty. */
export type Choice = (number | undefined)[];

/** Sets of up to this many places are tried before anything is proven about all of them: nearly every plan is found there. */
const USUAL_PLACES = 4;

/**
 * An exact search made for this problem: few rows, a dozen columns, few options each.
 * First the least excess (branch and bound on the prices of the continuous relaxation), then, sets of places by size, the first size at
 * which that excess can be had; among those the least mass, then the nearest to the aim.
 */
function search(state: SearchState): void {
  const { table, all } = state;
  const root = relax(table, table.base, all);
  if (root.bound <= EXCESS_EPS && fewestPlaces(state, 0, root, Math.min(USUAL_PLACES, all.length))) return;
  leastExcess(state, root);
  fewestPlaces(state, excessSteps(state.best.excess), root, all.length);
}

/**
 * The proven optimum of a plan: least weighted excess over the tolerances, in hundredths of one; then fewest places; then least mass; then nearest to the aim.
 * @throws Fault `plan-not-proven` where the search would take too long
 * @example searchPlan(planProblem(request, 'free')) // [undefined, 8, …]: option 8 in the second zone
 */
export function searchPlan(problem: PlanProblem): Choice {
  const table = tableOf(problem);
  // No zone takes a whole piece: nothing can be put on.
  if (table.columns.length === 0) return problem.columns.map(() => undefined);
  const state = new SearchState(table, problem.rows.length);
  search(state);
  const { options } = state.best;
  const choice: Choice = problem.columns.map(() => undefined);
  table.columns.forEach(({ index }, place) => {
    const option = options[place] as number;
    if (option >= 0) choice[index] = option;
  });
  return choice;
}
