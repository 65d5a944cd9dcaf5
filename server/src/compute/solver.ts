import loadHighs from 'highs';
import type { SolveMilp } from '@kevro/core';

/** Longest time one programme may take, s. Beyond it the answer is «not proven», never a guess. */
const TIME_LIMIT_S = 20;

/** A general mixed-integer solver with no gap left between answer and proof. */
export async function loadSolver(): Promise<SolveMilp> {
  const highs = await loadHighs();
  return (lp) => {
    const solution = highs.solve(lp, {
      mip_rel_gap: 0,
      mip_abs_gap: 1e-9,
      output_flag: false,
      time_limit: TIME_LIMIT_S,
    });
    if (solution.Status === 'Infeasible') return { status: 'infeasible', values: {} };
    if (solution.Status !== 'Optimal') return { status: 'stopped', values: {} };
    const values: Record<string, number> = {};
    for (const [name, column] of Object.entries(solution.Columns)) {
      values[name] = 'Primal' in column ? column.Primal : 0;
    }
    return { status: 'optimal', values };
  };
}
