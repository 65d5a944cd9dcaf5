import { minimise } from './simplex';
import type { Table, TableColumn } from './table';

/** What the continuous relaxation tells: a lower bound on the weighted excess, its dual prices, and a point. */
export interface Relaxed {
  bound: number;
  /** Prices of too much and of too little of each row at [2i] and [2i + 1], 0 to its weight: any such prices give a valid bound by `priced`. */
  prices: Float64Array;
  /** Share of each option of each column of the subset that the relaxation takes. */
  shares: Float64Array[];
}

/**
 * The options that the relaxation mixes: of each line the last, which with nothing spans it; the bound is evaluated over every option afterwards.
 */
function samples({ lines, count, single }: TableColumn): number[] {
  if (single || lines.length === 0) return Array.from({ length: count }, (_, j) => j);
  return lines.map(({ to }) => to - 1);
}

/** Too much (sign 1) or too little (sign −1) of a row for an option: ± its residual less the room that its mass makes. */
const overOf = (table: Table, { r, mass }: TableColumn, j: number, i: number, sign: 1 | -1): number =>
  sign * (r[j * table.rows + i] as number) - (table.roomPerG[i] as number) * (mass[j] as number);

/**
 * Least weighted excess when options may be mixed: minimise Σ w s, subject to ±(r + Σ x r_option) − room ≤ s and Σ_j x_kj ≤ 1 a column.
 * Primal simplex on a dense tableau (Dantzig's rule; Bland's near the pivot limit). The bound is evaluated from the prices, so that it is
 * valid whatever rounding did.
 * @param weight of each row's excess @param base residuals of what is settled already @param massG mass of that
 * @param subset places in `table.columns` that are still open
 */
export function relax(
  table: Table,
  weight: Float64Array,
  base: Float64Array,
  massG: number,
  subset: readonly number[],
): Relaxed {
  const mixed = mix(table, weight, base, massG, subset);
  return { ...mixed, bound: priced(table, base, massG, subset, mixed.prices) };
}

/** The relaxation's own point and prices, without the bound that they prove. @param perG what a gram costs beside the excess */
export function mix(
  table: Table,
  weight: Float64Array,
  base: Float64Array,
  massG: number,
  subset: readonly number[],
  perG = 0,
): Omit<Relaxed, 'bound'> {
  const R = 2 * table.rows;
  const K = subset.length;
  const picks: { k: number; j: number; column: TableColumn }[] = [];
  subset.forEach((place, k) => {
    const column = table.columns[place] as TableColumn;
    for (const j of samples(column)) picks.push({ k, j, column });
  });
  const N = picks.length;
  const M = R + K;
  // Columns: picks, excesses s, slacks of the rows, slacks of the columns, right-hand side.
  const width = N + R + M + 1;
  const rhs = width - 1;
  const t = new Float64Array((M + 1) * width);
  const basis = new Int32Array(M);
  for (let row = 0; row < R; row++) {
    const i = row >> 1;
    const side = row & 1 ? -1 : 1;
    const start = startOver(table, base, massG, i, side);
    // Where the row is broken at the start its excess is basic, and the row is turned round.
    const sign = start > 0 ? -1 : 1;
    const at = row * width;
    for (let n = 0; n < N; n++) {
      const { j, column } = picks[n] as (typeof picks)[number];
      t[at + n] = sign * overOf(table, column, j, i, side);
    }
    t[at + N + row] = -sign;
    t[at + N + R + row] = sign;
    t[at + rhs] = -sign * start;
    basis[row] = sign < 0 ? N + row : N + R + row;
  }
  for (let k = 0; k < K; k++) {
    const at = (R + k) * width;
    for (let n = 0; n < N; n++) if (picks[n]?.k === k) t[at + n] = 1;
    t[at + N + R + R + k] = 1;
    t[at + rhs] = 1;
    basis[R + k] = N + R + R + k;
  }
  // Reduced costs: c − c_B B⁻¹ A.
  const z = M * width;
  if (perG > 0) picks.forEach(({ j, column }, n) => (t[z + n] = perG * (column.mass[j] as number)));
  for (let row = 0; row < R; row++) t[z + N + row] = weight[row >> 1] as number;
  for (let row = 0; row < R; row++) {
    if (basis[row] !== N + row) continue;
    const w = weight[row >> 1] as number;
    for (let c = 0; c < width; c++) t[z + c] = (t[z + c] as number) - w * (t[row * width + c] as number);
  }

  minimise(t, basis, width);

  const prices = new Float64Array(R);
  for (let row = 0; row < R; row++) {
    prices[row] = Math.min(weight[row >> 1] as number, Math.max(0, t[z + N + R + row] as number));
  }
  const shares = subset.map((place) => new Float64Array(table.columns[place]?.count ?? 0));
  for (let i = 0; i < M; i++) {
    const b = basis[i] as number;
    const pick = b < N ? picks[b] : undefined;
    const share = pick && shares[pick.k];
    if (pick && share) share[pick.j] = t[i * width + rhs] as number;
  }
  return { prices, shares };
}

const startOver = (table: Table, base: Float64Array, massG: number, i: number, side: number): number =>
  side * (base[i] as number) - (table.room[i] as number) - (table.roomPerG[i] as number) * massG;

/** The lower bound that prices prove: Σ p over(base) + Σ_columns min(0, min_j p · over(option)). */
export function priced(
  table: Table,
  base: Float64Array,
  massG: number,
  subset: readonly number[],
  prices: Float64Array,
): number {
  let bound = priceOf(table, base, massG, prices);
  for (const place of subset) bound += Math.min(0, leastPriced(table, place, prices));
  return bound;
}

/** Σ p over(base) by itself. */
export function priceOf(table: Table, base: Float64Array, massG: number, prices: Float64Array): number {
  let bound = 0;
  for (let i = 0; i < table.rows; i++) {
    bound += (prices[2 * i] as number) * startOver(table, base, massG, i, 1);
    bound += (prices[2 * i + 1] as number) * startOver(table, base, massG, i, -1);
  }
  return bound;
}

/** p · over(option) of every option of a column. */
export function pricedOptions(table: Table, place: number, prices: Float64Array): Float64Array {
  const { r, mass, count } = table.columns[place] as TableColumn;
  const { rows } = table;
  // ± the residual, less the room: one factor for the residual and one for the mass.
  const net = new Float64Array(rows);
  let perG = 0;
  for (let i = 0; i < rows; i++) {
    const [over, under] = [prices[2 * i] as number, prices[2 * i + 1] as number];
    net[i] = over - under;
    perG -= (over + under) * (table.roomPerG[i] as number);
  }
  const values = new Float64Array(count);
  for (let j = 0; j < count; j++) {
    let value = perG * (mass[j] as number);
    for (let i = 0; i < rows; i++) value += (net[i] as number) * (r[j * rows + i] as number);
    values[j] = value;
  }
  return values;
}

const known = new WeakMap<Float64Array, Map<TableColumn, number>>();

/** min_j p · over(option j) of one column, over options that put something on. Prices are asked about again and again, so it is kept. */
export function leastPriced(table: Table, place: number, prices: Float64Array): number {
  const column = table.columns[place] as TableColumn;
  let of = known.get(prices);
  if (!of) known.set(prices, (of = new Map<TableColumn, number>()));
  const before = of.get(column);
  if (before !== undefined) return before;
  let least = Infinity;
  for (const value of pricedOptions(table, place, prices)) if (value < least) least = value;
  of.set(column, least);
  return least;
}
