import { Fault } from '../fault';
import { EXCESS_EPS, excessOfSteps, excessSteps, type PlanProblem } from './problem';
import { leastPriced, priced, relax, type Relaxed } from './relaxation';
import { tableOf, type Table, type TableColumn } from './table';

/** The option chosen in each column of the problem, undefined where the zone stays empty. */
export type Choice = (number | undefined)[];

const MASS_EPS = 1e-9;
const HARD_EPS = 1e-9;
/** Sets of up to this many places are tried before anything is proven about all of them: nearly every plan is found there. */
const USUAL_PLACES = 4;
/** More nodes than any real plan needs; beyond it the answer is «not proven», never a guess. */
const MOST_NODES = 5_000_000;

interface Found {
  excess: number;
  places: number;
  mass: number;
  offAim: number;
  /** Option by place in `table.columns`, −1 for none. */
  options: Int32Array;
}

/** The order in which columns are settled, and what those after each can still take off each row. */
interface Path {
  order: number[];
  rest: Float64Array[];
}

/**
 * An exact search made for this problem: few rows, a dozen columns, few options each.
 * First the least excess (branch and bound on the prices of the continuous relaxation), then, sets of places by size, the first size at
 * which that excess can be had; among those the least mass, then the nearest to the aim.
 */
class Search {
  private readonly all: number[];
  private nodes = 0;
  private readonly best: Found;

  constructor(
    private readonly table: Table,
    private readonly rowsOfAim: number,
  ) {
    this.all = table.columns.map((_, place) => place);
    this.best = this.judge(new Int32Array(this.all.length).fill(-1));
  }

  run(): Found {
    const root = relax(this.table, this.table.base, this.all);
    if (root.bound > EXCESS_EPS) {
      this.leastExcess(root);
      this.fewestPlaces(excessSteps(this.best.excess), root, this.all.length);
    } else if (!this.fewestPlaces(0, root, Math.min(USUAL_PLACES, this.all.length))) {
      this.leastExcess(root);
      this.fewestPlaces(excessSteps(this.best.excess), root, this.all.length);
    }
    return this.best;
  }

  private count(): void {
    if (++this.nodes > MOST_NODES) throw new Fault({ code: 'plan-not-proven', path: 'target' });
  }

  private excessAt(g: Float64Array): number {
    const { rows, weight, hard } = this.table;
    let excess = 0;
    for (let i = 0; i < rows; i++) {
      const value = g[i] as number;
      if (value <= 0) continue;
      if (hard[i]) {
        if (value > HARD_EPS) return Infinity;
      } else excess += (weight[i] as number) * value;
    }
    return excess;
  }

  private judge(options: Int32Array): Found {
    const g = this.table.base.slice();
    let places = 0;
    let mass = 0;
    options.forEach((option, place) => {
      const column = this.table.columns[place];
      if (option < 0 || !column) return;
      places++;
      mass += column.mass[option] as number;
      this.addTo(g, place, option, 1);
    });
    return { excess: this.excessAt(g), places, mass, offAim: this.offAim(g), options: options.slice() };
  }

  /** Distance from the aim itself: half the gap between the two rows of a spec, since their rooms cancel. */
  private offAim(g: Float64Array): number {
    let off = 0;
    for (let i = 0; i < this.rowsOfAim; i++)
      off += Math.abs((g[2 * i] as number) - (g[2 * i + 1] as number)) / 2;
    return off;
  }

  private addTo(g: Float64Array, place: number, option: number, times: 1 | -1): void {
    const column = this.table.columns[place];
    if (!column) return;
    const { rows } = this.table;
    for (let i = 0; i < rows; i++) g[i] = (g[i] as number) + times * (column.g[option * rows + i] as number);
  }

  private keep(found: Found): void {
    Object.assign(this.best, found);
  }

  // The least excess

  /** What a choice must come down to in order to be better: a step less than the best. */
  private toBeat(): number {
    return excessOfSteps(excessSteps(this.best.excess) - 1);
  }

  private leastExcess(root: Relaxed): void {
    this.start(root);
    // Columns whose options differ most in price are settled first: few of their options survive.
    const spread = (place: number): number => {
      const column = this.table.columns[place];
      if (!column) return 0;
      const R = this.table.rows;
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
    const order = [...this.all].sort((a, b) => spread(b) - spread(a));
    // What the columns after each depth can take off a row at most.
    const R = this.table.rows;
    const rest = order.map((_, depth) => {
      const rows = new Float64Array(R);
      for (const place of order.slice(depth + 1)) {
        const least = this.table.columns[place]?.least;
        for (let i = 0; i < R; i++) rows[i] = (rows[i] as number) + Math.min(0, least?.[i] ?? 0);
      }
      return rows;
    });
    const options = new Int32Array(this.all.length).fill(-1);
    this.descend({ order, rest }, 0, this.table.base.slice(), options, root.prices);
  }

  /** A first good answer: the relaxation rounded, then one column after the other put to its best option. */
  private start(root: Relaxed): void {
    const options = new Int32Array(this.all.length).fill(-1);
    root.shares.forEach((shares, place) => {
      const column = this.table.columns[place];
      if (!column) return;
      let position = 0;
      shares.forEach((share, j) => (position += share * (j + 1)));
      options[place] = Math.min(column.count, Math.round(position)) - 1;
    });
    let current = this.judge(options);
    for (let better = true; better;) {
      better = false;
      for (const place of this.all) {
        for (let j = -1; j < (this.table.columns[place]?.count ?? 0); j++) {
          const next = current.options.slice();
          next[place] = j;
          const found = this.judge(next);
          if (found.excess < current.excess - EXCESS_EPS) {
            current = found;
            better = true;
          }
        }
      }
    }
    if (current.excess < this.best.excess) this.keep(current);
  }

  private descend(
    path: Path,
    depth: number,
    g: Float64Array,
    options: Int32Array,
    prices: Float64Array,
  ): void {
    this.count();
    const { table } = this;
    const open = path.order.slice(depth);
    if (priced(table, g, open, prices) > this.toBeat()) return;
    let ours = prices;
    // Few columns are left: a relaxation of their own is cheap and its prices fit better.
    if (depth > 0 && open.length >= 2 && open.length <= 5) {
      const relaxed = relax(table, g, open);
      if (relaxed.bound > this.toBeat()) return;
      ours = relaxed.prices;
    }
    const place = open[0] as number;
    const column = table.columns[place] as TableColumn;
    const rest = path.rest[depth] as Float64Array;
    const later = open.slice(1);
    const [from, to] = allowed(column, table.rows, g, rest, this.rowLimits(this.toBeat()));
    const children: { option: number; bound: number }[] = [];
    for (let option = from - 1; option <= to; option++) {
      // Before the first allowed option comes the empty place.
      const chosen = option < from ? -1 : option;
      if (chosen >= 0) this.addTo(g, place, chosen, 1);
      if (later.length === 0) {
        if (this.excessAt(g) <= this.toBeat()) {
          options[place] = chosen;
          this.keep(this.judge(options));
        }
      } else children.push({ option: chosen, bound: priced(table, g, later, ours) });
      if (chosen >= 0) this.addTo(g, place, chosen, -1);
    }
    children.sort((a, b) => a.bound - b.bound);
    for (const { option, bound } of children) {
      if (bound > this.toBeat()) break;
      const next = g.slice();
      if (option >= 0) this.addTo(next, place, option, 1);
      options[place] = option;
      this.descend(path, depth + 1, next, options, ours);
    }
    options[place] = -1;
  }

  /** No row may exceed this by itself where the whole excess is to stay within a limit. */
  private rowLimits(limit: number): Float64Array {
    const { weight, hard } = this.table;
    return weight.map((w, i) => (hard[i] ? HARD_EPS : limit / w));
  }

  // The fewest places at that excess, then the least mass

  /** Whether some choice of at most `most` places has no more than those steps of excess; the best such choice is kept. */
  private fewestPlaces(steps: number, root: Relaxed, most: number): boolean {
    const limit = excessOfSteps(steps);
    const none = this.judge(new Int32Array(this.all.length).fill(-1));
    if (none.excess <= limit) {
      this.keep(none);
      return true;
    }
    const { table } = this;
    const rootLeast = this.all.map((place) => leastPriced(table, place, root.prices));
    let rootBase = 0;
    for (let i = 0; i < table.rows; i++) rootBase += (root.prices[i] as number) * (table.base[i] as number);
    const places = Math.min(most, this.all.length);
    for (let size = 1; size <= places; size++) {
      let found: Found | undefined;
      const visit = (from: number, set: number[], bound: number): void => {
        if (set.length === size) {
          if (bound > limit) return;
          const relaxed = relax(table, table.base, set);
          if (relaxed.bound > limit) return;
          found = this.lightest(set, limit, relaxed.prices, found);
          return;
        }
        for (let place = from; place <= this.all.length - (size - set.length); place++) {
          visit(place + 1, [...set, place], bound + (rootLeast[place] as number));
        }
      };
      visit(0, [], rootBase);
      if (found) {
        this.keep(found);
        return true;
      }
    }
    return false;
  }

  /** The lightest choice that uses each place of a set and keeps the limit, if it beats what was found so far. */
  private lightest(
    set: number[],
    limit: number,
    prices: Float64Array,
    best: Found | undefined,
  ): Found | undefined {
    const { table } = this;
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
    const most = this.rowLimits(limit);
    const options = new Int32Array(this.all.length).fill(-1);
    const g = table.base.slice();
    let result = best;

    const walk = (depth: number, mass: number): void => {
      const place = set[depth] as number;
      const column = order[depth] as TableColumn;
      const rest = after[depth] as (typeof after)[number];
      const last = depth === order.length - 1;
      const [from, to] = allowed(column, R, g, rest.rows, most);
      for (let j = from; j <= to; j++) {
        this.count();
        const total = mass + (column.mass[j] as number);
        if (result && total + rest.mass > result.mass + MASS_EPS) {
          if (column.ascending) break;
          continue;
        }
        this.addTo(g, place, j, 1);
        let deeper = !last;
        if (last) {
          if (this.excessAt(g) <= limit) {
            const offAim = this.offAim(g);
            if (!result || total < result.mass - MASS_EPS || offAim < result.offAim) {
              options[place] = j;
              result = this.judge(options);
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
        this.addTo(g, place, j, -1);
        options[place] = -1;
      }
    };
    walk(0, 0);
    return result;
  }
}

/** The options of a column that leave every row a chance to keep its limit: found by bisection where a row rises or falls throughout. */
function allowed(
  column: TableColumn,
  rows: number,
  g: Float64Array,
  rest: Float64Array,
  most: Float64Array,
): [number, number] {
  let from = 0;
  let to = column.count - 1;
  for (let i = 0; i < rows && from <= to; i++) {
    const trend = column.trend[i] as number;
    if (trend === 0) continue;
    const room = (most[i] as number) - (g[i] as number) - (rest[i] as number);
    // trend > 0: the last option still within the room; trend < 0: the first one.
    let low = from - 1;
    let high = to + 1;
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      const fits = (column.g[middle * rows + i] as number) <= room;
      if (fits === trend > 0) low = middle;
      else high = middle;
    }
    if (trend > 0) to = low;
    else from = high;
  }
  return [from, to];
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
  const { options } = new Search(table, problem.rows.length).run();
  const choice: Choice = problem.columns.map(() => undefined);
  table.columns.forEach(({ index }, place) => {
    const option = options[place] as number;
    if (option >= 0) choice[index] = option;
  });
  return choice;
}
