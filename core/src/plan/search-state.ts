import { EXCESS_EPS, NEAR_STEP, excessOfSteps, excessSteps, nearSteps, type Score } from './problem';
import { relax, type Relaxed } from './relaxation';
import { MUST, TIE, WANT, type Table } from './table';

/** A tie may be broken by rounding, no more. */
const TIE_EPS = 1e-9;
/** How much a tolerance outside of a must counts beside one of a want where both are bounded at once: any number gives a valid bound. */
const MUST_WEIGHT = 100;
const TIE_WEIGHT = 1000;

/** The most that a choice may lie outside, in tolerances. */
export interface Limits {
  must: number;
  want: number;
}

/** What a search among the choices of some places looks for. */
export interface Wanted {
  limits: Limits;
  /** Tenths of a tolerance that the farthest spec may be off at most. */
  near: number;
  /** Mass that may be put on at most, g. */
  massG: number;
}

/** Thrown, and caught, inside the search: no more work is to be done. */
export const OUT_OF_WORK = Symbol('out of work');

/** A choice with all that it is judged by. */
export interface Found extends Score {
  must: number;
  want: number;
  tied: boolean;
  /** Option by place in `table.columns`, −1 for none. */
  options: Int32Array;
}

/** A search under way: the table, the work left, the best choice so far, and how a choice is judged. */
export class SearchState {
  readonly all: number[];
  /** Weights of the rows in bounds on everything outside. */
  readonly weight: Float64Array;
  best: Found;
  readonly nothing: Found;

  constructor(
    readonly table: Table,
    private work: number,
  ) {
    this.all = table.columns.map((_, place) => place);
    this.weight = this.weights(MUST_WEIGHT, 1);
    this.best = this.nothing = this.judge(new Int32Array(this.all.length).fill(-1));
  }

  weights(must: number, want: number): Float64Array {
    return Float64Array.from(this.table.kind, (kind) =>
      kind === TIE ? TIE_WEIGHT : kind === MUST ? must : want,
    );
  }

  /** Counts work done, in choices judged. @throws OUT_OF_WORK */
  count(choices: number): void {
    this.work -= choices;
    if (this.work < 0) throw OUT_OF_WORK;
  }

  /** The work that is left, of which a part may be set apart for what comes later. */
  spare(share: number): { back: () => void } {
    const kept = share * this.work;
    this.work -= kept;
    return { back: () => (this.work = Math.max(0, this.work) + kept) };
  }

  /** The continuous relaxation of what is open, with the work that it takes. */
  relax(weight: Float64Array, r: Float64Array, massG: number, open: readonly number[]): Relaxed {
    const rows = 2 * this.table.rows + open.length;
    let picks = 0;
    let options = 0;
    for (const place of open) {
      const column = this.table.columns[place];
      picks += column?.lines.length || (column?.count ?? 0);
      options += column?.count ?? 0;
    }
    // Measured: about a dozen pivots over the whole tableau, and the bound over every option.
    this.count((rows * (picks + 2 * rows)) / 3 + (options * this.table.rows) / 8);
    return relax(this.table, weight, r, massG, open);
  }

  /** The most that the bound of {@link weight} may be for a choice within limits. */
  static weighted = ({ must, want }: Limits): number => MUST_WEIGHT * must + want;

  judge(options: Int32Array): Found {
    const { table } = this;
    const r = table.base.slice();
    let places = 0;
    let massG = 0;
    options.forEach((option, place) => {
      const column = table.columns[place];
      if (option < 0 || !column) return;
      places++;
      massG += column.mass[option] as number;
      for (let i = 0; i < table.rows; i++)
        r[i] = (r[i] as number) + (column.r[option * table.rows + i] as number);
    });
    const { must, want, farthest, tied } = this.weigh(r, massG);
    return {
      must,
      want,
      tied,
      mustSteps: excessSteps(must),
      wantSteps: excessSteps(want),
      nearSteps: nearSteps(farthest),
      places,
      addedG: massG,
      options: options.slice(),
    };
  }

  weigh(r: Float64Array, massG: number): { must: number; want: number; farthest: number; tied: boolean } {
    const { table } = this;
    const found = { must: 0, want: 0, farthest: 0, tied: true };
    for (let i = 0; i < table.rows; i++) {
      const room = (table.room[i] as number) + (table.roomPerG[i] as number) * massG;
      const off = Math.abs(r[i] as number);
      const kind = table.kind[i];
      if (kind === TIE) {
        if (off > room + TIE_EPS) found.tied = false;
        continue;
      }
      if (off > room) found[kind === MUST ? 'must' : 'want'] += off - room;
      const away = (off * (table.share[i] as number)) / room;
      if (away > found.farthest) found.farthest = away;
    }
    return found;
  }

  /** How far a row's residual may be off in a choice that is wanted, when at most so many grams are put on. */
  window(i: number, { limits, near }: Wanted, massG: number): number {
    const { kind, room, roomPerG, share } = this.table;
    const free = (room[i] as number) + (roomPerG[i] as number) * massG;
    if (kind[i] === TIE) return free + TIE_EPS;
    const outside = kind[i] === WANT ? limits.want : limits.must;
    return Math.min(free + outside, (near * NEAR_STEP + EXCESS_EPS) * (free / (share[i] as number)));
  }
}

export const limitsOf = (mustSteps: number, wantSteps: number): Limits => ({
  must: excessOfSteps(mustSteps),
  want: excessOfSteps(wantSteps),
});
