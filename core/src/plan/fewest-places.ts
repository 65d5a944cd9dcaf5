import { excessOfSteps } from './problem';
import { leastPriced, relax, type Relaxed } from './relaxation';
import { allowed, type Found, type SearchState } from './search-state';
import type { TableColumn } from './table';

const MASS_EPS = 1e-9;

/** Whether some choice of at most `most` places has no more than those steps of excess; the best such choice is kept. */
export function fewestPlaces(state: SearchState, steps: number, root: Relaxed, most: number): boolean {
  const limit = excessOfSteps(steps);
  const none = state.judge(new Int32Array(state.all.length).fill(-1));
  if (none.excess <= limit) {
    state.keep(none);
    return true;
  }
  const { table } = state;
  const rootLeast = state.all.map((place) => leastPriced(table, place, root.prices));
  let rootBase = 0;
  for (let i = 0; i < table.rows; i++) rootBase += (root.prices[i] as number) * (table.base[i] as number);
  const places = Math.min(most, state.all.length);
  for (let size = 1; size <= places; size++) {
    let found: Found | undefined;
    const visit = (from: number, set: number[], bound: number): void => {
      if (set.length === size) {
        if (bound > limit) return;
        const relaxed = relax(table, table.base, set);
        if (relaxed.bound > limit) return;
        found = lightest(state, set, limit, relaxed.prices, found);
        return;
      }
      for (let place = from; place <= state.all.length - (size - set.length); place++) {
        visit(place + 1, [...set, place], bound + (rootLeast[place] as number));
      }
    };
    visit(0, [], rootBase);
    if (found) {
      state.keep(found);
      return true;
    }
  }
  return false;
}

/** The lightest choice that uses each place of a set and keeps the limit, if it beats what was found so far. */
function lightest(
  state: SearchState,
  set: number[],
  limit: number,
  prices: Float64Array,
  best: Found | undefined,
): Found | undefined {
  const { table } = state;
  const R = table.rows;
  const order = set.map((place) => table.columns[place] as TableColumn);
  // What the columns after each depth can still take off a row, and what mass they add at least.
  const after = order.map((_, depth) => {
    const rest = order.slice(depth + 1);
    const rows = new Float64Array(R);
    for (let i = 0; i < R; i++) rows[i] = rest.reduce((sum, c) => sum + (c.least[i] as number), 0);
    return {
      rows,
      mass: rest.reduce((sum, c) => sum + Math.min(...c.mass), 0),
      priced: set.slice(depth + 1).reduce((sum, place) => sum + leastPriced(table, place, prices), 0),
    };
  });
  const most = state.rowLimits(limit);
  const options = new Int32Array(state.all.length).fill(-1);
  const g = table.base.slice();
  let result = best;

  const walk = (depth: number, mass: number): void => {
    const place = set[depth] as number;
    const column = order[depth] as TableColumn;
    const rest = after[depth] as (typeof after)[number];
    const last = depth === order.length - 1;
    const [from, to] = allowed(column, R, g, rest.rows, most);
    for (let j = from; j <= to; j++) {
      state.count(1);
      const total = mass + (column.mass[j] as number);
      if (result && total + rest.mass > result.mass + MASS_EPS) {
        if (column.ascending) break;
        continue;
      }
      state.addTo(g, place, j, 1);
      let deeper = !last;
      if (last) {
        if (state.excessAt(g) <= limit) {
          const offAim = state.offAim(g);
          if (!result || total < result.mass - MASS_EPS || offAim < result.offAim) {
            options[place] = j;
            result = state.judge(options);
          }
        }
      } else {
        let bound = rest.priced;
        for (let i = 0; i < R; i++) bound += (prices[i] as number) * (g[i] as number);
        deeper = bound <= limit;
      }
      if (deeper) {
        options[place] = j;
        walk(depth + 1, total);
      }
      state.addTo(g, place, j, -1);
      options[place] = -1;
    }
  };
  walk(0, 0);
  return result;
}
