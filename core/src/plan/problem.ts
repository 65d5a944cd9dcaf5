import { PRIORITY_WEIGHT, type Aim } from '../aim';
import { add, swingAbout, SPEC_KEYS, type AxisSpecs, type MassSums, type SpecKey } from '../mass';
import { G_CM2_PER_KG_CM2 } from '../units';
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
  /** How much a tolerance outside counts: a must outweighs a want a thousandfold. */
  weight: number;
  target: number;
  tolerance: number;
  /** Mass that turns a moment about B* into a balance, g; only for the balance row. */
  massScaleG: number;
  axisCm: number;
}

export function planRows(before: AxisSpecs, aim: Aim): Row[] {
  const massScaleG = aim.massG && aim.massG.priority !== 'free' ? aim.massG.value : before.massG;
  return SPEC_KEYS.flatMap((key) => {
    const target = aim[key];
    if (!target || target.priority === 'free') return [];
    return [
      {
        key,
        weight: PRIORITY_WEIGHT[target.priority ?? 'want'],
        target: target.value,
        tolerance: target.tolerance,
        massScaleG,
        axisCm: before.axisCm,
      },
    ];
  });
}

/** The linear part of a row for some sums, in tolerances (without the target's constant, see {@link rowConstant}). */
export function rowValue(row: Row, sums: MassSums): number {
  switch (row.key) {
    case 'massG':
      return sums.massG / row.tolerance;
    case 'balanceCm':
      return (sums.firstGCm - row.target * sums.massG) / (row.tolerance * row.massScaleG);
    case 'swingWeight':
      return swingAbout(sums, row.axisCm) / row.tolerance;
    case 'twistWeight':
      return sums.twistGCm2 / G_CM2_PER_KG_CM2 / row.tolerance;
  }
}

/** What is subtracted so that a row's value is the residual: nothing for the balance row, which is a moment already. */
export const rowConstant = (row: Row): number => (row.key === 'balanceCm' ? 0 : row.target / row.tolerance);

/**
 * How far a residual may go and still be within tolerance, in units of the row: 1, and for the balance row M'/scale,
 * so that |M' (B' − B*)| ≤ tolerance · M' holds exactly.
 */
export const rowRoom = (row: Row, massG: number): number =>
  row.key === 'balanceCm' ? massG / row.massScaleG : 1;

/** Rounding: an excess this small is none. */
export const EXCESS_EPS = 1e-6;
/** Excess counts in steps of a hundredth of a tolerance: finer than anybody builds, and coarse enough that no place is spent on less. */
export const EXCESS_STEP = 0.01;

/** An excess in whole steps; 0 only where there is none. */
export const excessSteps = (excess: number): number =>
  excess <= EXCESS_EPS ? 0 : Math.ceil((excess - EXCESS_EPS) / EXCESS_STEP);

/** The most excess that counts as so many steps. */
export const excessOfSteps = (steps: number): number => steps * EXCESS_STEP + EXCESS_EPS;

/** How good a choice is, in the order in which it counts: less is better, first entry first. */
export interface Score {
  /** Weighted tolerances outside tolerance. */
  excess: number;
  places: number;
  addedG: number;
  /** Tolerances away from the aim, the tie-break. */
  offAim: number;
}

export function scoreOf(problem: PlanProblem, chosen: readonly (number | undefined)[]): Score {
  let sums = problem.base;
  let places = 0;
  chosen.forEach((option, k) => {
    const picked = option === undefined ? undefined : problem.columns[k]?.options[option];
    if (!picked) return;
    places++;
    sums = add(sums, picked.sums);
  });
  let excess = 0;
  let offAim = 0;
  for (const row of problem.rows) {
    const off = Math.abs(rowValue(row, sums) - rowConstant(row));
    offAim += off;
    excess += row.weight * Math.max(0, off - rowRoom(row, sums.massG));
  }
  return { excess, places, addedG: sums.massG - problem.base.massG, offAim };
}

/** Whether a choice obeys the school's tie. */
export function obeysTie(problem: PlanProblem, chosen: readonly (number | undefined)[]): boolean {
  const { keepBalanceWithinCm } = problem.rule;
  if (keepBalanceWithinCm === undefined) return true;
  const sums = chosen.reduce<MassSums>((sum, option, k) => {
    const picked = option === undefined ? undefined : problem.columns[k]?.options[option];
    return picked ? add(sum, picked.sums) : sum;
  }, problem.base);
  return Math.abs(sums.firstGCm / sums.massG - problem.before.balanceCm) <= keepBalanceWithinCm + 1e-9;
}
