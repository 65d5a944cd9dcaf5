import type { SolveMilp } from './milp';

/** What a general solver answers, as far as it is read here. */
interface RawSolution {
  Status: string;
  Columns: Record<string, object>;
}
type RawSolve = (
  lpText: string,
  options: { mip_rel_gap: number; mip_abs_gap: number; output_flag: boolean; time_limit: number },
) => RawSolution;

/** Longest time one programme may take, s. Beyond it the answer is «not proven», never a guess. */
const TIME_LIMIT_S = 20;

/**
 * A general mixed-integer solver as the planner uses it, with no gap left between answer and proof.
 * @param solve the solver's own call: takes LP text and options, gives `Optimal`, `Infeasible` or another status, and the columns
 */
export const generalSolver =
  (solve: RawSolve): SolveMilp =>
  (lpText) => {
    const { Status, Columns } = solve(lpText, {
      mip_rel_gap: 0,
      mip_abs_gap: 1e-9,
      output_flag: false,
      time_limit: TIME_LIMIT_S,
    });
    if (Status === 'Infeasible') return { status: 'infeasible', values: {} };
    if (Status !== 'Optimal') return { status: 'stopped', values: {} };
    const values: Record<string, number> = {};
    for (const [name, column] of Object.entries(Columns)) {
      values[name] = 'Primal' in column ? Number(column.Primal) : 0;
    }
    return { status: 'optimal', values };
  };
