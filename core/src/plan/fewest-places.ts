import { LineSearch, mostLines } from './lines';
import { leastPriced, priceOf, pricedOptions, type Relaxed } from './relaxation';
import { SearchState, type Limits, type Wanted } from './search-state';
import type { TableColumn } from './table';

const MASS_EPS = 1e-9;
/** More lines than this at once are searched option by option. */
const MOST_LINES = 4;
const ANY_NEAR = 1e9;
/** Smaller sets are searched as quickly as they are bounded by a relaxation of their own. */
const RELAXED_FROM = 3;

interface PlaceSet {
  set: number[];
  prices: Float64Array;
}

/**
 * The fewest places with which a choice stays within limits; among choices of so many the nearest to the aim, then the lightest. It is kept in the state.
 * @param most places at the most @returns whether there is one
 */
export function fewestPlaces(state: SearchState, limits: Limits, root: Relaxed, most: number): boolean {
  if (state.nothing.tied && state.nothing.must <= limits.must && state.nothing.want <= limits.want) {
    state.best = state.nothing;
    return true;
  }
  const { table } = state;
  const threshold = SearchState.weighted(limits);
  const rootLeast = state.all.map((place) => leastPriced(table, place, root.prices));
  const rootBase = priceOf(table, table.base, 0, root.prices);
  const places = Math.min(most, state.all.length);
  for (let size = 1; size <= places; size++) {
    const sets: PlaceSet[] = [];
    const visit = (from: number, set: number[], bound: number): void => {
      if (set.length === size) {
        if (bound > threshold) return;
        if (size < RELAXED_FROM) {
          sets.push({ set, prices: root.prices });
          return;
        }
        const relaxed = state.relax(state.weight, table.base, 0, set);
        if (relaxed.bound <= threshold) sets.push({ set, prices: relaxed.prices });
        return;
      }
      for (let place = from; place <= state.all.length - (size - set.length); place++) {
        visit(place + 1, [...set, place], bound + (rootLeast[place] as number));
      }
    };
    visit(0, [], rootBase);
    if (bestOfSets(state, sets, limits)) return true;
  }
  return false;
}

/** Among the sets of one size: the nearest to the aim, then the lightest of those. */
function bestOfSets(state: SearchState, sets: readonly PlaceSet[], limits: Limits): boolean {
  let found = false;
  let wanted: Wanted = { limits, near: ANY_NEAR, massG: Infinity };
  const search = (next: (near: number, massG: number) => Wanted): void => {
    const take = (options: Int32Array): Wanted => {
      const judged = state.judge(options);
      const fits =
        judged.tied &&
        judged.must <= limits.must &&
        judged.want <= limits.want &&
        judged.nearSteps <= wanted.near &&
        judged.addedG <= wanted.massG;
      if (!fits) return wanted;
      state.best = judged;
      found = true;
      wanted = next(judged.nearSteps, judged.addedG);
      return wanted;
    };
    for (const { set, prices } of sets) {
      if (wanted.near < 0) return;
      if (mostLines(state.table, set) <= MOST_LINES) new LineSearch(state, wanted, take).run(set);
      else optionByOption(state, set, () => wanted, prices, take);
    }
  };
  // First ever nearer to the aim, then ever lighter.
  search((near) => ({ limits, near: near - 1, massG: Infinity }));
  if (!found) return false;
  const { nearSteps, addedG } = state.best;
  wanted = { limits, near: nearSteps, massG: addedG - MASS_EPS };
  search((near, massG) => ({ limits, near, massG: massG - MASS_EPS }));
  return true;
}

/** Sets of many lines: each option in turn, with the prices of the set's own relaxation as bounds. */
function optionByOption(
  state: SearchState,
  set: readonly number[],
  wanted: () => Wanted,
  prices: Float64Array,
  take: (options: Int32Array) => Wanted,
): void {
  const { table } = state;
  const { rows } = table;
  const order = set
    .map((place) => ({ place, column: table.columns[place] as TableColumn }))
    .sort((a, b) => a.column.count - b.column.count);
  const threshold = SearchState.weighted(wanted().limits);
  const priced = order.map(({ place }) => pricedOptions(table, place, prices));
  // What the columns after each depth can still do: least and most of every row, least price, least mass.
  const rest = order.map((_, depth) => {
    const later = order.slice(depth + 1);
    const low = new Float64Array(rows);
    const high = new Float64Array(rows);
    for (const { column } of later) {
      for (let i = 0; i < rows; i++) {
        let [least, most] = [Infinity, -Infinity];
        for (let j = 0; j < column.count; j++) {
          const r = column.r[j * rows + i] as number;
          if (r < least) least = r;
          if (r > most) most = r;
        }
        low[i] = (low[i] as number) + least;
        high[i] = (high[i] as number) + most;
      }
    }
    return {
      low,
      high,
      priced: later.reduce((sum, { place }) => sum + leastPriced(table, place, prices), 0),
      mass: later.reduce((sum, { column }) => sum + column.lightest, 0),
    };
  });
  const heaviest = order.reduce((sum, { column }) => sum + Math.max(0, column.heaviest), 0);
  const options = new Int32Array(state.all.length).fill(-1);
  const r = table.base.slice();

  const fits = (low: Float64Array, high: Float64Array, now: Wanted): boolean => {
    for (let i = 0; i < rows; i++) {
      const window = state.window(i, now, heaviest) + 1e-9;
      if ((r[i] as number) + (low[i] as number) > window || (r[i] as number) + (high[i] as number) < -window)
        return false;
    }
    return true;
  };
  const walk = (depth: number, massG: number, price: number): void => {
    const { place, column } = order[depth] as (typeof order)[number];
    const after = rest[depth] as (typeof rest)[number];
    const prices = priced[depth] as Float64Array;
    const last = depth === order.length - 1;
    for (let j = 0; j < column.count; j++) {
      state.count(1);
      const now = wanted();
      const total = massG + (column.mass[j] as number);
      const bound = price + (prices[j] as number);
      if (total + after.mass > now.massG || bound + after.priced > threshold) continue;
      for (let i = 0; i < rows; i++) r[i] = (r[i] as number) + (column.r[j * rows + i] as number);
      options[place] = j;
      if (fits(after.low, after.high, now)) {
        if (last) take(options);
        else walk(depth + 1, total, bound);
      }
      for (let i = 0; i < rows; i++) r[i] = (r[i] as number) - (column.r[j * rows + i] as number);
      options[place] = -1;
    }
  };
  walk(0, 0, priceOf(table, table.base, 0, prices));
}
