import { EXCESS_EPS, excessOfSteps, excessSteps } from './problem';
import { priced, relax, type Relaxed } from './relaxation';
import { allowed, type SearchState } from './search-state';
import type { TableColumn } from './table';

/** A node bounds every option of its columns anew: that costs as much as judging about so many choices. */
const NODE_COST = 20;

/** The order in which columns are settled, and what those after each can still take off each row. */
interface Path {
  order: number[];
  rest: Float64Array[];
}

/** Finds a choice of the least excess, in steps, by branch and bound on the prices of the continuous relaxation; the best is kept in the state. */
export function leastExcess(state: SearchState, root: Relaxed): void {
  start(state, root);
  // Columns whose options differ most in price are settled first: few of their options survive.
  const spread = (place: number): number => {
    const column = state.table.columns[place];
    if (!column) return 0;
    const R = state.table.rows;
    let high = 0;
    let low = 0;
    for (let j = 0; j < column.count; j++) {
      let value = 0;
      for (let i = 0; i < R; i++) value += (root.prices[i] as number) * (column.g[j * R + i] as number);
      high = Math.max(high, value);
      low = Math.min(low, value);
    }
    return high - low;
  };
  const order = [...state.all].sort((a, b) => spread(b) - spread(a));
  // What the columns after each depth can take off a row at most.
  const R = state.table.rows;
  const rest = order.map((_, depth) => {
    const rows = new Float64Array(R);
    for (const place of order.slice(depth + 1)) {
      const least = state.table.columns[place]?.least;
      for (let i = 0; i < R; i++) rows[i] = (rows[i] as number) + Math.min(0, least?.[i] ?? 0);
    }
    return rows;
  });
  const options = new Int32Array(state.all.length).fill(-1);
  descend(state, { order, rest }, 0, state.table.base.slice(), options, root.prices);
}

/** What a choice must come down to in order to be better: a step less than the best. */
function toBeat(state: SearchState): number {
  return excessOfSteps(excessSteps(state.best.excess) - 1);
}

/** A first good answer: the relaxation rounded, then one column after the other put to its best option. */
function start(state: SearchState, root: Relaxed): void {
  const options = new Int32Array(state.all.length).fill(-1);
  root.shares.forEach((shares, place) => {
    const column = state.table.columns[place];
    if (!column) return;
    let position = 0;
    shares.forEach((share, j) => (position += share * (j + 1)));
    options[place] = Math.min(column.count, Math.round(position)) - 1;
  });
  let current = state.judge(options);
  for (let better = true; better;) {
    better = false;
    for (const place of state.all) {
      for (let j = -1; j < (state.table.columns[place]?.count ?? 0); j++) {
        const next = current.options.slice();
        next[place] = j;
        const found = state.judge(next);
        if (found.excess < current.excess - EXCESS_EPS) {
          current = found;
          better = true;
        }
      }
    }
  }
  if (current.excess < state.best.excess) state.keep(current);
}

function descend(
  state: SearchState,
  path: Path,
  depth: number,
  g: Float64Array,
  options: Int32Array,
  prices: Float64Array,
): void {
  state.count(NODE_COST);
  const { table } = state;
  const open = path.order.slice(depth);
  if (priced(table, g, open, prices) > toBeat(state)) return;
  let ours = prices;
  // Few columns are left: a relaxation of their own is cheap and its prices fit better.
  if (depth > 0 && open.length >= 2 && open.length <= 5) {
    const relaxed = relax(table, g, open);
    if (relaxed.bound > toBeat(state)) return;
    ours = relaxed.prices;
  }
  const place = open[0] as number;
  const column = table.columns[place] as TableColumn;
  const rest = path.rest[depth] as Float64Array;
  const later = open.slice(1);
  const [from, to] = allowed(column, table.rows, g, rest, state.rowLimits(toBeat(state)));
  const children: { option: number; bound: number }[] = [];
  for (let option = from - 1; option <= to; option++) {
    // Before the first allowed option comes the empty place.
    const chosen = option < from ? -1 : option;
    if (chosen >= 0) state.addTo(g, place, chosen, 1);
    if (later.length === 0) {
      if (state.excessAt(g) <= toBeat(state)) {
        options[place] = chosen;
        state.keep(state.judge(options));
      }
    } else children.push({ option: chosen, bound: priced(table, g, later, ours) });
    if (chosen >= 0) state.addTo(g, place, chosen, -1);
  }
  children.sort((a, b) => a.bound - b.bound);
  for (const { option, bound } of children) {
    if (bound > toBeat(state)) break;
    const next = g.slice();
    if (option >= 0) state.addTo(next, place, option, 1);
    options[place] = option;
    descend(state, path, depth + 1, next, options, ours);
  }
  options[place] = -1;
}
