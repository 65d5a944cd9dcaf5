import { rowConstant, rowRoom, rowValue, type PlanProblem } from './problem';

/**
 * The problem as numbers. Every limit is a row g ≤ 0, linear in what is put on: for each spec one for too much and one for too little,
 * and for a school's tie two that are hard. `excess` = Σ weight · max(0, g).
 */
export interface Table {
  rows: number;
  /** g with nothing put on. */
  base: Float64Array;
  weight: Float64Array;
  /** A hard row may not be broken at all. */
  hard: Uint8Array;
  columns: TableColumn[];
}

export interface TableColumn {
  /** Place of the column in the problem. */
  index: number;
  count: number;
  /** Change of g for option j in row i at [j · rows + i]. */
  g: Float64Array;
  mass: Float64Array;
  /** Heavier with every option. */
  ascending: boolean;
  /** Row by row: 1 where g grows with every option, −1 where it falls, 0 where neither. */
  trend: Int8Array;
  /** Least g of any option, row by row. */
  least: Float64Array;
  /** Each option is that many times the first. */
  linear: boolean;
}

/** Weight of a hard row where only a bound is wanted. */
const HARD_WEIGHT = 1e6;

export function tableOf(problem: PlanProblem): Table {
  const { rows, columns, base, before, rule } = problem;
  const keep = rule.keepBalanceWithinCm;
  const soft = 2 * rows.length;
  const count = soft + (keep === undefined ? 0 : 2);
  const table: Table = {
    rows: count,
    base: new Float64Array(count),
    weight: new Float64Array(count),
    hard: new Uint8Array(count),
    columns: [],
  };
  const roomPerG = rows.map((row) => rowRoom(row, 1) - rowRoom(row, 0));
  rows.forEach((row, i) => {
    const residual = rowValue(row, base) - rowConstant(row);
    const room = rowRoom(row, base.massG);
    table.base[2 * i] = residual - room;
    table.base[2 * i + 1] = -residual - room;
    table.weight[2 * i] = table.weight[2 * i + 1] = row.weight;
  });
  if (keep !== undefined) {
    for (const i of [soft, soft + 1]) {
      table.base[i] = -keep * base.massG;
      table.weight[i] = HARD_WEIGHT;
      table.hard[i] = 1;
    }
  }
  columns.forEach(({ options, linear }, index) => {
    if (options.length === 0) return;
    const g = new Float64Array(options.length * count);
    options.forEach(({ sums, massG }, j) => {
      rows.forEach((row, i) => {
        const change = rowValue(row, sums);
        const room = (roomPerG[i] ?? 0) * massG;
        g[j * count + 2 * i] = change - room;
        g[j * count + 2 * i + 1] = -change - room;
      });
      if (keep !== undefined) {
        const moment = sums.firstGCm - before.balanceCm * sums.massG;
        g[j * count + soft] = moment - keep * massG;
        g[j * count + soft + 1] = -moment - keep * massG;
      }
    });
    table.columns.push({
      index,
      count: options.length,
      g,
      mass: Float64Array.from(options, (o) => o.massG),
      ascending: options.every((o, j) => j === 0 || o.massG > (options[j - 1]?.massG ?? 0)),
      ...trends(g, options.length, count),
      linear,
    });
  });
  return table;
}

function trends(g: Float64Array, options: number, rows: number): Pick<TableColumn, 'trend' | 'least'> {
  const trend = new Int8Array(rows);
  const least = new Float64Array(rows).fill(Infinity);
  for (let i = 0; i < rows; i++) {
    let [grows, falls] = [true, true];
    for (let j = 0; j < options; j++) {
      const value = g[j * rows + i] as number;
      least[i] = Math.min(least[i] as number, value);
      if (j === 0) continue;
      const before = g[(j - 1) * rows + i] as number;
      if (value < before) grows = false;
      if (value > before) falls = false;
    }
    trend[i] = grows ? 1 : falls ? -1 : 0;
  }
  return { trend, least };
}
