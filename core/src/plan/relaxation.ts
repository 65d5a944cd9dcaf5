import { minimise } from './simplex';
import type { Table, TableColumn } from './table';

/** What the continuous relaxation tells: a lower bound on the excess, its dual prices, and a point. */
export interface Relaxed {
  bound: number;
  /** Price of each row, 0 to its weight: any such prices give a valid bound by `priced`. */
  prices: Float64Array;
  /** Share of each option of each column of the subset that the relaxation takes. */
  shares: Float64Array[];
}

/**
 * The options that the relaxation mixes. A linear column is the line to its last option; of a longer one a few stand for all,
 * since the bound is evaluated over every option afterwards.
 */
function samples({ linear, count }: TableColumn): number[] {
  if (linear) return [count - 1];
  if (count <= 3) return Array.from({ length: count }, (_, j) => j);
  return [Math.floor(count / 3), Math.floor((2 * count) / 3), count - 1];
}

/**
 * Least excess when options may be mixed: minimise Σ w s, subject to g(base) + Σ x g(option) ≤ s and Σ_j x_kj ≤ 1 a column.
 * Primal simplex on a dense tableau (Dantzig's rule; Bland's near the pivot limit). The bound is evaluated from the prices, so that it is
 * valid whatever rounding did.
 * @param perG what a gram costs beside the excess: 0 where only the excess counts
 * @param base g of what is settled already @param subset places in `table.columns` that are still open
 */
export function relax(table: Table, base: Float64Array, subset: readonly number[], perG = 0): Relaxed {
  const R = table.rows;
  const K = subset.length;
  const picks: { k: number; j: number }[] = [];
  subset.forEach((place, k) => {
    const column = table.columns[place];
    if (!column) return;
    for (const j of samples(column)) picks.push({ k, j });
  });
  const N = picks.length;
  const M = R + K;
  // Columns: picks, excesses s, slacks of the rows, slacks of the columns, right-hand side.
  const width = N + R + M + 1;
  const rhs = width - 1;
  const t = new Float64Array((M + 1) * width);
  const basis = new Int32Array(M);
  for (let i = 0; i < R; i++) {
    const start = base[i] ?? 0;
    // Where the row is broken at the start its excess is basic, and the row is turned round.
    const sign = start > 0 ? -1 : 1;
    for (let n = 0; n < N; n++) {
      const { k, j } = picks[n] as { k: number; j: number };
      t[i * width + n] = sign * (table.columns[subset[k] as number]?.g[j * R + i] ?? 0);
    }
    t[i * width + N + i] = -sign;
    t[i * width + N + R + i] = sign;
    t[i * width + rhs] = -sign * start;
    basis[i] = sign < 0 ? N + i : N + R + i;
  }
  for (let k = 0; k < K; k++) {
    const row = (R + k) * width;
    for (let n = 0; n < N; n++) if (picks[n]?.k === k) t[row + n] = 1;
    t[row + N + R + R + k] = 1;
    t[row + rhs] = 1;
    basis[R + k] = N + R + R + k;
  }
  // Reduced costs: c − c_B B⁻¹ A.
  const z = M * width;
  if (perG > 0) {
    picks.forEach(({ k, j }, n) => {
      t[z + n] = perG * (table.columns[subset[k] as number]?.mass[j] ?? 0);
    });
  }
  for (let i = 0; i < R; i++) t[z + N + i] = table.weight[i] ?? 0;
  for (let i = 0; i < R; i++) {
    if (basis[i] !== N + i) continue;
    const w = table.weight[i] ?? 0;
    for (let c = 0; c < width; c++) t[z + c] = (t[z + c] ?? 0) - w * (t[i * width + c] ?? 0);
  }

  minimise(t, basis, width);

  const prices = new Float64Array(R);
  for (let i = 0; i < R; i++) {
    prices[i] = Math.min(table.weight[i] ?? 0, Math.max(0, t[z + N + R + i] as number));
  }
  const shares = subset.map((place) => new Float64Array(table.columns[place]?.count ?? 0));
  for (let i = 0; i < M; i++) {
    const b = basis[i] as number;
    const pick = b < N ? picks[b] : undefined;
    const share = pick && shares[pick.k];
    if (pick && share) share[pick.j] = t[i * width + rhs] as number;
  }
  return { bound: priced(table, base, subset, prices), prices, shares };
}

/** The lower bound that prices prove: Σ p g(base) + Σ_columns min(0, min_j p · g(option)). */
export function priced(
  table: Table,
  base: Float64Array,
  subset: readonly number[],
  prices: Float64Array,
): number {
  let bound = 0;
  for (let i = 0; i < table.rows; i++) bound += (prices[i] as number) * (base[i] as number);
  for (const place of subset) bound += Math.min(0, leastPriced(table, place, prices));
  return bound;
}

/** min_j p · g(option j) of one column, over options that put something on. */
export function leastPriced(table: Table, place: number, prices: Float64Array): number {
  const column = table.columns[place];
  if (!column) return 0;
  const R = table.rows;
  let least = Infinity;
  // A linear column is least at one of its ends.
  const step = column.linear ? Math.max(1, column.count - 1) : 1;
  for (let j = 0; j < column.count; j += step) {
    let value = 0;
    for (let i = 0; i < R; i++) value += (prices[i] as number) * (column.g[j * R + i] as number);
    if (value < least) least = value;
  }
  return least;
}
