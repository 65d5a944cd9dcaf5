import { targetOf, type Aim, type Priority } from '../aim';
import { add, linearSpec, SPEC_KEYS, type AxisSpecs, type MassSums, type SpecKey } from '../mass';
import type { ZoneColumn } from './options';
import type { SchoolRule } from './schools';

/**
 * The plan as an optimisation, counted in tolerances so that every row is of one size:
 * each spec's residual is linear in what is put on. The balance row is written as a moment about the aim's balance,
 * Σ m (x − B*) + M0 (B0 − B*), which equals M' (B' − B*).
 */
export interface PlanProblem {
  before: AxisSpecs;
  base: MassSums;
  rows: Row[];
  columns: ZoneColumn[];
  rule: SchoolRule;
}

export interface Row {
  key: SpecKey;
  priority: Exclude<Priority, 'free'>;
  target: number;
  tolerance: number;
  /** How much of the tolerance may be used: 1, or less where a margin is kept for the errors of the build. */
  share: number;
  /** Mass that turns a moment about B* into a balance, g; only for the balance row. */
  massScaleG: number;
  axisCm: number;
}

/** Shares of the tolerances that may be used; 1 where left out. */
export type Shares = Partial<Record<SpecKey, number>>;

export function planRows(before: AxisSpecs, aim: Aim, shares: Shares = {}): Row[] {
  const massScaleG = targetOf(aim, 'massG')?.value ?? before.massG;
  return SPEC_KEYS.flatMap((key) => {
    const target = targetOf(aim, key);
    if (!target) return [];
    return [
      {
        key,
        priority: target.priority === 'must' ? 'must' : 'want',
        target: target.value,
        tolerance: target.tolerance,
        share: shares[key] ?? 1,
        massScaleG,
        axisCm: before.axisCm,
      },
    ];
  });
}

/** The linear part of a row for some sums, in tolerances (without the target's constant, see {@link rowConstant}). */
export function rowValue({ key, target, tolerance, massScaleG, axisCm }: Row, sums: MassSums): number {
  const scale = key === 'balanceCm' ? tolerance * massScaleG : tolerance;
  return linearSpec(key, sums, target, axisCm) / scale;
}

/** What is subtracted so that a row's value is the residual: nothing for the balance row, which is a moment already. */
export const rowConstant = (row: Row): number => (row.key === 'balanceCm' ? 0 : row.target / row.tolerance);

/**
 * A whole tolerance in units of the row: 1, and for the balance row M'/scale, so that |M' (B' − B*)| ≤ tolerance · M' holds exactly.
 */
export const rowTolerance = (row: Row, massG: number): number =>
  row.key === 'balanceCm' ? massG / row.massScaleG : 1;

/** How far a residual may go, in units of the row: the share of the tolerance that may be used. */
export const rowRoom = (row: Row, massG: number): number => row.share * rowTolerance(row, massG);

/** Rounding: an excess this small is none. */
export const EXCESS_EPS = 1e-6;
/** Excess counts in steps of a hundredth of a tolerance: finer than anybody builds, and coarse enough that no place is spent on less. */
export const EXCESS_STEP = 0.01;
/** How near the aim a plan lies counts in steps of a tenth of a tolerance. */
export const NEAR_STEP = 0.1;

const stepsOf = (value: number, step: number): number =>
  value <= EXCESS_EPS ? 0 : Math.ceil((value - EXCESS_EPS) / step);
/** An excess in whole steps; 0 only where there is none. */
export const excessSteps = (excess: number): number => stepsOf(excess, EXCESS_STEP);
/** The most excess that counts as so many steps. */
export const excessOfSteps = (steps: number): number => steps * EXCESS_STEP + EXCESS_EPS;
/** A distance from the aim in whole steps. */
export const nearSteps = (tolerances: number): number => stepsOf(tolerances, NEAR_STEP);

/**
 * How good a choice is, in the order in which it counts, less is better: hundredths of a tolerance outside for what must be kept, then for what is wanted,
 * places, tenths of a tolerance between the aim and the spec that is farthest from it, mass. Ranking and search measure by this alone.
 */
export interface Score {
  mustSteps: number;
  wantSteps: number;
  places: number;
  nearSteps: number;
  addedG: number;
}
const ORDER = ['mustSteps', 'wantSteps', 'places', 'nearSteps', 'addedG'] as const;
const SAME = 1e-6;

/** Which score is better: negative where the first is. Masses that differ by rounding are one. */
export function compareScores(a: Score, b: Score): number {
  for (const key of ORDER) if (Math.abs(a[key] - b[key]) > SAME) return a[key] - b[key];
  return 0;
}

/** How far a choice lies from its aim. */
export interface Residuals {
  /** Tolerances outside what may be used, summed over what must be kept and over what is wanted. */
  must: number;
  want: number;
  /** Tolerances between the aim and the spec that is farthest from it. */
  farthest: number;
}

export function residualsOf(rows: readonly Row[], sums: MassSums): Residuals {
  const found: Residuals = { must: 0, want: 0, farthest: 0 };
  for (const row of rows) {
    const off = Math.abs(rowValue(row, sums) - rowConstant(row));
    found[row.priority] += Math.max(0, off - rowRoom(row, sums.massG));
    found.farthest = Math.max(found.farthest, off / rowTolerance(row, sums.massG));
  }
  return found;
}

/** What a frame adds up to with a choice put on. */
export const chosenSums = (
  { base, columns }: PlanProblem,
  chosen: readonly (number | undefined)[],
): MassSums =>
  chosen.reduce<MassSums>((sums, option, k) => {
    const picked = option === undefined ? undefined : columns[k]?.options[option];
    return picked ? add(sums, picked.sums) : sums;
  }, base);

export function scoreOf(problem: PlanProblem, chosen: readonly (number | undefined)[]): Score {
  const sums = chosenSums(problem, chosen);
  const { must, want, farthest } = residualsOf(problem.rows, sums);
  return {
    mustSteps: excessSteps(must),
    wantSteps: excessSteps(want),
    places: chosen.filter((option) => option !== undefined).length,
    nearSteps: nearSteps(farthest),
    addedG: sums.massG - problem.base.massG,
  };
}
