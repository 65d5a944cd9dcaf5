import type { SearchState, Wanted } from './search-state';
import type { Table, TableColumn, TableLine } from './table';

/** One piece to be chosen: a line of a column. */
interface Piece {
  place: number;
  column: TableColumn;
  line: TableLine;
}

const TINY = 1e-9;

/**
 * Chooses amounts on lines so that the sum of their residuals comes within windows. An amount on a line is nearly one vector a gram, so for a few lines the
 * mass on the first of them is an interval by Cramer's rule from every few rows; its options are taken one by one and the rest is one line less. What
 * the options' vectors differ from one a gram widens the windows, and every choice found is judged exactly: nothing is missed and nothing wrong is kept.
 */
export class LineSearch {
  private readonly rows: number;
  /** What is still needed of each row at each depth, and the half-widths of the windows. */
  private readonly need: Float64Array[];
  private readonly window: Float64Array;
  /** Windows widened by the blur of the lines that are still to be chosen. */
  private readonly wide: Float64Array[];
  private readonly options: Int32Array;
  private readonly pieces: Piece[] = [];
  private readonly minors = new Float64Array(4);
  private heaviest = 0;

  constructor(
    private readonly state: SearchState,
    private wanted: Wanted,
    /** A choice within the windows; its answer is what is wanted from now on. */
    private readonly found: (options: Int32Array) => Wanted,
  ) {
    const { table } = state;
    this.rows = table.rows;
    this.need = Array.from({ length: 6 }, () => new Float64Array(this.rows));
    this.wide = Array.from({ length: 6 }, () => new Float64Array(this.rows));
    this.window = new Float64Array(this.rows);
    this.options = new Int32Array(state.all.length).fill(-1);
  }

  /**
   * Every choice that uses each place of a set.
   * @param set of at most four columns of lines, and any of single ones @param beside options of other places that stay as they are
   */
  run(set: readonly number[], beside?: Int32Array): void {
    const { table } = this.state;
    let massG = 0;
    const columns = set.map((place) => ({ place, column: table.columns[place] as TableColumn }));
    const singles = columns.filter(({ column }) => column.single);
    const lined = columns
      .filter(({ column }) => !column.single)
      .sort((a, b) => b.column.lines.length - a.column.lines.length);
    const need = this.need[0] as Float64Array;
    for (let i = 0; i < this.rows; i++) need[i] = -(table.base[i] as number);
    this.options.fill(-1);
    beside?.forEach((option, place) => {
      if (option < 0 || set.includes(place)) return;
      const column = table.columns[place] as TableColumn;
      this.options[place] = option;
      massG += column.mass[option] as number;
      this.take(need, need, column, option, 1);
    });
    this.heaviest = columns.reduce((sum, { column }) => sum + Math.max(0, column.heaviest), massG);
    this.widen();
    this.chooseSingles(singles, lined, massG);
  }

  private chooseSingles(
    singles: readonly { place: number; column: TableColumn }[],
    lined: readonly { place: number; column: TableColumn }[],
    massG: number,
  ): void {
    const [next, ...others] = singles;
    if (!next) {
      this.chooseLines(lined, 0, massG);
      return;
    }
    const need = this.need[0] as Float64Array;
    for (let j = 0; j < next.column.count; j++) {
      this.state.count(1);
      this.take(need, need, next.column, j, 1);
      this.options[next.place] = j;
      this.chooseSingles(others, lined, massG + (next.column.mass[j] as number));
      this.take(need, need, next.column, j, -1);
    }
    this.options[next.place] = -1;
  }

  private take(from: Float64Array, to: Float64Array, column: TableColumn, j: number, times: 1 | -1): void {
    const { rows } = this;
    for (let i = 0; i < rows; i++) to[i] = (from[i] as number) - times * (column.r[j * rows + i] as number);
  }

  /** Windows of each row by what is wanted now, with the mass that may be on at most. */
  private widen(): void {
    for (let i = 0; i < this.rows; i++) this.window[i] = this.state.window(i, this.wanted, this.heaviest);
  }

  private chooseLines(
    columns: readonly { place: number; column: TableColumn }[],
    depth: number,
    massG: number,
  ): void {
    const next = columns[depth];
    if (next) {
      const piece: Piece = { ...next, line: next.column.lines[0] as TableLine };
      for (const line of next.column.lines) {
        piece.line = line;
        this.pieces[depth] = piece;
        this.chooseLines(columns, depth + 1, massG);
      }
      return;
    }
    const n = columns.length;
    this.state.count(3 + n);
    // Windows at each depth, with the blur of the lines from there on.
    const { rows, window } = this;
    const last = this.wide[n] as Float64Array;
    for (let i = 0; i < rows; i++) last[i] = window[i] as number;
    for (let d = n - 1; d >= 0; d--) {
      const wide = this.wide[d] as Float64Array;
      const later = this.wide[d + 1] as Float64Array;
      const { blur } = (this.pieces[d] as Piece).line;
      for (let i = 0; i < rows; i++) wide[i] = (later[i] as number) + (blur[i] as number);
    }
    if (n === 0) {
      this.leaf(this.need[0] as Float64Array, massG);
      return;
    }
    this.solve(0, n, massG);
  }

  /** Chooses on the lines from a depth on. */
  private solve(depth: number, n: number, massG: number): void {
    const { line, column, place } = this.pieces[depth] as Piece;
    const [low, high] = this.interval(depth, n, massG);
    if (low > high) return;
    const { mass } = column;
    let from = line.from;
    let end = line.to;
    while (from < end) {
      const middle = (from + end) >> 1;
      if ((mass[middle] as number) < low) from = middle + 1;
      else end = middle;
    }
    const need = this.need[depth] as Float64Array;
    const left = this.need[depth + 1] as Float64Array;
    for (let j = from; j < line.to; j++) {
      const m = mass[j] as number;
      if (m > high) break;
      this.state.count(2);
      this.take(need, left, column, j, 1);
      this.options[place] = j;
      if (depth + 1 < n) this.solve(depth + 1, n, massG + m);
      else this.leaf(left, massG + m);
    }
    this.options[place] = -1;
  }

  private leaf(left: Float64Array, massG: number): void {
    if (massG > this.wanted.massG) return;
    for (let i = 0; i < this.rows; i++)
      if (Math.abs(left[i] as number) > (this.window[i] as number) + TINY) return;
    const wanted = this.found(this.options);
    if (wanted === this.wanted) return;
    this.wanted = wanted;
    this.widen();
  }

  /** The masses that the line at a depth may take, so that those after it can bring every row into its window. */
  private interval(depth: number, n: number, massG: number): [number, number] {
    const rows = this.rows;
    const need = this.need[depth] as Float64Array;
    const wide = this.wide[depth] as Float64Array;
    const a = (this.pieces[depth] as Piece).line;
    let least = 0;
    for (let d = depth + 1; d < n; d++) least += (this.pieces[d] as Piece).line.least;
    let low = a.least - TINY;
    let high = Math.min(a.most, this.wanted.massG - massG - least) + TINY;
    const narrow = (value: number, half: number, det: number): void => {
      if (Math.abs(det) < 1e-12) {
        // The rows say nothing of this line, but may say that it cannot be.
        if (Math.abs(value) > half + TINY) high = -Infinity;
        return;
      }
      const centre = value / det;
      const reach = Math.abs(half / det) + TINY;
      if (centre - reach > low) low = centre - reach;
      if (centre + reach < high) high = centre + reach;
    };
    const left = n - depth;
    if (left === 1) {
      for (let i = 0; i < rows; i++) narrow(need[i] as number, wide[i] as number, a.perG[i] as number);
      return [low, high];
    }
    const b = (this.pieces[depth + 1] as Piece).line;
    if (left === 2) {
      for (let i = 0; i < rows; i++) {
        const bi = b.perG[i] as number;
        for (let j = i + 1; j < rows; j++) {
          const bj = b.perG[j] as number;
          narrow(
            (need[i] as number) * bj - (need[j] as number) * bi,
            (wide[i] as number) * Math.abs(bj) + (wide[j] as number) * Math.abs(bi),
            (a.perG[i] as number) * bj - (a.perG[j] as number) * bi,
          );
          if (low > high) return [low, high];
        }
      }
      return [low, high];
    }
    const c = (this.pieces[depth + 2] as Piece).line;
    if (left === 3) {
      for (let i = 0; i < rows; i++)
        for (let j = i + 1; j < rows; j++) {
          const bij = cross(b.perG, c.perG, i, j);
          for (let k = j + 1; k < rows; k++) {
            const bjk = cross(b.perG, c.perG, j, k);
            const bik = cross(b.perG, c.perG, i, k);
            narrow(
              (need[i] as number) * bjk - (need[j] as number) * bik + (need[k] as number) * bij,
              (wide[i] as number) * Math.abs(bjk) +
                (wide[j] as number) * Math.abs(bik) +
                (wide[k] as number) * Math.abs(bij),
              (a.perG[i] as number) * bjk - (a.perG[j] as number) * bik + (a.perG[k] as number) * bij,
            );
            if (low > high) return [low, high];
          }
        }
      return [low, high];
    }
    if (left === 4 && rows >= 4) {
      const d = (this.pieces[depth + 3] as Piece).line;
      // Minors of the last three lines, leaving out each of the first four rows in turn.
      const { minors } = this;
      for (let out = 0; out < 4; out++) {
        const [i, j, k] = OTHERS[out] as [number, number, number];
        minors[out] =
          (b.perG[i] as number) * cross(c.perG, d.perG, j, k) -
          (b.perG[j] as number) * cross(c.perG, d.perG, i, k) +
          (b.perG[k] as number) * cross(c.perG, d.perG, i, j);
      }
      let [value, half, det] = [0, 0, 0];
      for (let i = 0; i < 4; i++) {
        const minor = (i % 2 === 0 ? 1 : -1) * (minors[i] as number);
        value += minor * (need[i] as number);
        det += minor * (a.perG[i] as number);
        half += Math.abs(minor) * (wide[i] as number);
      }
      narrow(value, half, det);
    }
    return [low, high];
  }
}

const OTHERS = [
  [1, 2, 3],
  [0, 2, 3],
  [0, 1, 3],
  [0, 1, 2],
] as const;

const cross = (u: Float64Array, v: Float64Array, i: number, j: number): number =>
  (u[i] as number) * (v[j] as number) - (u[j] as number) * (v[i] as number);

/** How many places of a set are lined: swaps and removals are taken one by one. */
export const mostLines = (table: Table, set: readonly number[]): number =>
  set.filter((place) => !table.columns[place]?.single).length;
