import { Fault } from '../fault';
import type { Table, TableColumn } from './table';

/** A hard row may be broken by rounding, no more. */
const HARD_EPS = 1e-9;
/** More work than any real plan needs, in choices judged; beyond it the answer is «not proven», never a guess. */
const MOST_WORK = 5_000_000;

/** A choice with all that it is judged by. */
export interface Found {
  excess: number;
  places: number;
  mass: number;
  offAim: number;
  /** Option by place in `table.columns`, −1 for none. */
  options: Int32Array;
}

/** A search under way: the table, the best choice so far, and what every part of the search does with a choice. */
export class SearchState {
  readonly all: number[];
  private work = 0;
  readonly best: Found;

  constructor(
    readonly table: Table,
    readonly rowsOfAim: number,
  ) {
    this.all = table.columns.map((_, place) => place);
    this.best = this.judge(new Int32Array(this.all.length).fill(-1));
  }

  /** Counts work done and ends a search that would take too long. @param choices what it cost, in choices judged */
  count(choices: number): void {
    this.work += choices;
    if (this.work > MOST_WORK) throw new Fault({ code: 'plan-not-proven', path: 'target' });
  }

  excessAt(g: Float64Array): number {
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

  judge(options: Int32Array): Found {
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
  offAim(g: Float64Array): number {
    let off = 0;
    for (let i = 0; i < this.rowsOfAim; i++)
      off += Math.abs((g[2 * i] as number) - (g[2 * i + 1] as number)) / 2;
    return off;
  }

  addTo(g: Float64Array, place: number, option: number, times: 1 | -1): void {
    const column = this.table.columns[place];
    if (!column) return;
    const { rows } = this.table;
    for (let i = 0; i < rows; i++) g[i] = (g[i] as number) + times * (column.g[option * rows + i] as number);
  }

  keep(found: Found): void {
    Object.assign(this.best, found);
  }

  /** No row may exceed this by itself where the whole excess is to stay within a limit. */
  rowLimits(limit: number): Float64Array {
    const { weight, hard } = this.table;
    return weight.map((w, i) => (hard[i] ? HARD_EPS : limit / w));
  }
}

/** The options of a column that leave every row a chance to keep its limit: found by bisection where a row rises or falls throughout. */
export function allowed(
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
