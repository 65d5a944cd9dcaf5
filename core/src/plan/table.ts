import { rowConstant, rowTolerance, rowValue, type PlanProblem, type Row } from './problem';

/**
 * The problem as numbers, in tolerances. Each row has a residual r, linear in what is put on, and a room that grows with the mass (for the balance, which
 * is a moment): |r| ≤ room. A school's tie is one row more, that may not be broken at all.
 */
export interface Table {
  rows: number;
  /** Residuals with nothing put on. */
  base: Float64Array;
  /** Room with nothing put on, and how it grows with each gram. */
  room: Float64Array;
  roomPerG: Float64Array;
  /** Share of the tolerance that the room is; 0 for a tie, which has no aim to be near to. */
  share: Float64Array;
  kind: Uint8Array;
  columns: TableColumn[];
}

/** Kinds of rows. */
export const MUST = 0;
export const WANT = 1;
export const TIE = 2;

/** Options of one column that lie at one place, lightest first: nearly one vector a gram. */
export interface TableLine {
  from: number;
  to: number;
  /** Middle of the residuals a gram, row by row, and how far the options' own are from it at the most, times the line's largest mass. */
  perG: Float64Array;
  blur: Float64Array;
  least: number;
  most: number;
}

export interface TableColumn {
  /** Place of the column in the problem. */
  index: number;
  count: number;
  /** Change of the residuals for option j in row i at [j · rows + i]. */
  r: Float64Array;
  mass: Float64Array;
  lines: TableLine[];
  /** A swap or a removal: its options are taken one by one. */
  single: boolean;
  lightest: number;
  heaviest: number;
}

export function tableOf(problem: PlanProblem): Table {
  const { rows, columns, base, before, rule } = problem;
  const keep = rule.keepBalanceWithinCm;
  const count = rows.length + (keep === undefined ? 0 : 1);
  const table: Table = {
    rows: count,
    base: new Float64Array(count),
    room: new Float64Array(count),
    roomPerG: new Float64Array(count),
    share: new Float64Array(count),
    kind: new Uint8Array(count),
    columns: [],
  };
  rows.forEach((row, i) => {
    table.base[i] = rowValue(row, base) - rowConstant(row);
    table.kind[i] = row.priority === 'must' ? MUST : WANT;
    narrow(table, row, i, base.massG);
  });
  // In units of the moment that the tie allows on the frame as it is.
  const tieUnit = (keep ?? 1) * base.massG;
  if (keep !== undefined) {
    table.room[rows.length] = 1;
    table.roomPerG[rows.length] = 1 / base.massG;
    table.kind[rows.length] = TIE;
  }
  columns.forEach(({ options, lines, zone }, index) => {
    if (options.length === 0) return;
    const r = new Float64Array(options.length * count);
    options.forEach(({ sums }, j) => {
      for (let i = 0; i < rows.length; i++)
        r[j * count + i] = rowValue(rows[i] as (typeof rows)[number], sums);
      if (keep !== undefined)
        r[j * count + rows.length] = (sums.firstGCm - before.balanceCm * sums.massG) / tieUnit;
    });
    const mass = Float64Array.from(options, (o) => o.massG);
    table.columns.push({
      index,
      count: options.length,
      r,
      mass,
      lines: zone === undefined ? [] : lines.map(({ from, to }) => lineOf(r, mass, count, from, to)),
      single: zone === undefined,
      lightest: Math.min(...mass),
      heaviest: Math.max(...mass),
    });
  });
  return table;
}

function narrow(table: Table, row: Row, i: number, massG: number): void {
  table.room[i] = row.share * rowTolerance(row, massG);
  table.roomPerG[i] = row.share * (rowTolerance(row, 1) - rowTolerance(row, 0));
  table.share[i] = row.share;
}

/** The same table for a problem that differs only in the shares of its tolerances. */
export function tableFor(table: Table, { rows, base }: PlanProblem): Table {
  const own = {
    ...table,
    room: table.room.slice(),
    roomPerG: table.roomPerG.slice(),
    share: table.share.slice(),
  };
  rows.forEach((row, i) => narrow(own, row, i, base.massG));
  return own;
}

function lineOf(r: Float64Array, mass: Float64Array, rows: number, from: number, to: number): TableLine {
  const perG = new Float64Array(rows);
  const blur = new Float64Array(rows);
  const most = mass[to - 1] as number;
  for (let i = 0; i < rows; i++) {
    let [low, high] = [Infinity, -Infinity];
    for (let j = from; j < to; j++) {
      const unit = (r[j * rows + i] as number) / (mass[j] as number);
      if (unit < low) low = unit;
      if (unit > high) high = unit;
    }
    perG[i] = (low + high) / 2;
    let off = 0;
    for (let j = from; j < to; j++) {
      const m = mass[j] as number;
      off = Math.max(off, Math.abs((r[j * rows + i] as number) - (perG[i] as number) * m));
    }
    blur[i] = off + 1e-12;
  }
  return { from, to, perG, blur, least: mass[from] as number, most };
}
