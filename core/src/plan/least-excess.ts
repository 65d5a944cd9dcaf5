import { EXCESS_EPS, excessOfSteps } from './problem';
import { LineSearch, mostLines } from './lines';
import { leastPriced, priceOf, priced, pricedOptions, type Relaxed } from './relaxation';
import { SearchState, type Found, type Limits, type Wanted } from './search-state';
import type { TableColumn } from './table';

/** A node prices its columns: that costs as much as judging about so many choices. */
const NODE_COST = 20;

/** What is to be brought down: steps of an excess; and what a choice must keep meanwhile. */
export interface Excess {
  weight: Float64Array;
  steps: (found: Found) => number;
  /** The most that a choice of so many steps may lie outside. */
  limits: (steps: number) => Limits;
  /** The most that the weighted excess of such a choice may be. */
  weighted: (steps: number) => number;
  keeps: (found: Found) => boolean;
}

/** What must be kept is brought down first, whatever becomes of what is wanted. */
export const mustExcess = (state: SearchState): Excess => ({
  weight: state.weights(1, 0),
  steps: (found) => found.mustSteps,
  limits: (steps) => ({ must: excessOfSteps(steps), want: Infinity }),
  weighted: excessOfSteps,
  keeps: () => true,
});

/** Then what is wanted, with what must be kept as near as it can be. */
export function wantExcess(state: SearchState, kept: number): Excess {
  const limits = (steps: number): Limits => ({ must: excessOfSteps(kept), want: excessOfSteps(steps) });
  return {
    weight: state.weight,
    steps: (found) => found.wantSteps,
    limits,
    weighted: (steps) => SearchState.weighted(limits(steps)),
    keeps: (found) => found.mustSteps <= kept,
  };
}

/** The least steps that a weighted excess leaves possible. */
function leastSteps(goal: Excess, bound: number): number {
  // The weighted excess of n steps is that of none and n hundredths more.
  return Math.max(0, Math.ceil((bound - goal.weighted(0)) / (goal.weighted(1) - goal.weighted(0)) - 1e-9));
}

/** Finds a choice of the least excess; the best is kept in the state. @throws OUT_OF_WORK where it could not be proven, the best found being kept */
export function leastExcess(state: SearchState, goal: Excess, root: Relaxed): void {
  const better = (found: Found): boolean =>
    found.tied &&
    goal.keeps(found) &&
    (!goal.keeps(state.best) || goal.steps(found) < goal.steps(state.best));
  const least = leastSteps(goal, root.bound);
  rounded(state, root, better);
  if (goal.steps(state.best) > least) pairByPair(state, goal, better, least);
  if (goal.steps(state.best) > least) branch(state, goal, root, better);
}

/** A first answer: the relaxation, rounded to the nearest options. */
function rounded(state: SearchState, root: Relaxed, better: (found: Found) => boolean): void {
  const options = new Int32Array(state.all.length).fill(-1);
  root.shares.forEach((shares, place) => {
    const column = state.table.columns[place] as TableColumn;
    const most = shares.indexOf(Math.max(...shares));
    const share = shares[most] as number;
    if (!(share > 0)) return;
    const line = column.lines.find(({ from, to }) => most >= from && most < to);
    if (!line) {
      if (share > 0.5) options[place] = most;
      return;
    }
    const massG = shares.reduce((sum, s, j) => sum + s * (column.mass[j] as number), 0);
    let off = massG;
    for (let option = line.from; option < line.to; option++) {
      const away = Math.abs((column.mass[option] as number) - massG);
      if (away < off) [options[place], off] = [option, away];
    }
  });
  const found = state.judge(options);
  if (better(found)) state.best = found;
}

/** Every two places are chosen anew with the others as they are, until nothing gets better. */
function pairByPair(
  state: SearchState,
  goal: Excess,
  better: (found: Found) => boolean,
  least: number,
): void {
  const pairs = state.all.flatMap((a) => state.all.filter((b) => b > a).map((b) => [a, b] as const));
  for (let moved = true; moved;) {
    moved = false;
    for (const [a, b] of pairs) {
      for (const set of [[a, b], [a], [b], []]) {
        if (goal.steps(state.best) <= least) return;
        const beside = state.best.options.slice();
        beside[a] = beside[b] = -1;
        const wanted = (): Wanted => ({
          limits: goal.limits(goal.steps(state.best) - 1),
          near: Infinity,
          massG: Infinity,
        });
        let now = wanted();
        const take = (options: Int32Array): Wanted => {
          const found = state.judge(options);
          if (better(found)) {
            state.best = found;
            moved = true;
            now = wanted();
          }
          return now;
        };
        if (mostLines(state.table, set) === 2 || set.length < 2)
          new LineSearch(state, now, take).run(set, beside);
      }
    }
  }
}

/** Branch and bound on the prices of the relaxation. */
function branch(state: SearchState, goal: Excess, root: Relaxed, better: (found: Found) => boolean): void {
  const { table } = state;
  const toBeat = (): number => goal.weighted(goal.steps(state.best) - 1) + EXCESS_EPS;
  // Columns whose options differ most in price are settled first: few of their options survive.
  const spreads = state.all.map((place) => {
    const values = pricedOptions(table, place, root.prices);
    return values.reduce((high, v) => Math.max(high, v), 0) - values.reduce((low, v) => Math.min(low, v), 0);
  });
  const order = state.all.toSorted((a, b) => (spreads[b] as number) - (spreads[a] as number));
  const options = new Int32Array(state.all.length).fill(-1);

  const descend = (depth: number, r: Float64Array, massG: number, prices: Float64Array): void => {
    state.count(NODE_COST);
    const open = order.slice(depth);
    if (priced(table, r, massG, open, prices) > toBeat()) return;
    let ours = prices;
    // Few columns are left: a relaxation of their own is cheap and its prices fit better.
    if (depth > 0 && open.length >= 2 && open.length <= 5) {
      const relaxed = state.relax(goal.weight, r, massG, open);
      if (relaxed.bound > toBeat()) return;
      ours = relaxed.prices;
    }
    const place = open[0] as number;
    const column = table.columns[place] as TableColumn;
    const later = open.slice(1);
    const base =
      priceOf(table, r, massG, ours) +
      later.reduce((sum, p) => sum + Math.min(0, leastPriced(table, p, ours)), 0);
    const values = pricedOptions(table, place, ours);
    const limit = toBeat();
    const children: { option: number; bound: number }[] = base <= limit ? [{ option: -1, bound: base }] : [];
    for (let option = 0; option < column.count; option++) {
      const bound = base + (values[option] as number);
      if (bound <= limit) children.push({ option, bound });
    }
    state.count((column.count * table.rows) / 8 + 4 * children.length);
    children.sort((a, b) => a.bound - b.bound);
    for (const { option, bound } of children) {
      if (bound > toBeat()) break;
      options[place] = option;
      if (later.length === 0) {
        state.count(NODE_COST);
        const found = state.judge(options);
        if (better(found)) state.best = found;
        continue;
      }
      const next = r.slice();
      if (option >= 0)
        for (let i = 0; i < table.rows; i++)
          next[i] = (next[i] as number) + (column.r[option * table.rows + i] as number);
      descend(depth + 1, next, massG + (option < 0 ? 0 : (column.mass[option] as number)), ours);
    }
    options[place] = -1;
  };
  descend(0, table.base.slice(), 0, root.prices);
}
