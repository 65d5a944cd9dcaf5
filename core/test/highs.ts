import loadHighs from 'highs';
import type { SolveMilp } from '../src/plan';

/** The general solver as the programme's `SolveMilp`, with no gap left between answer and proof. */
export async function generalSolver(): Promise<SolveMilp> {
  const highs = await loadHighs();
  return (lp) => {
    const solution = highs.solve(lp, {
      mip_rel_gap: 0,
      mip_abs_gap: 1e-9,
      output_flag: false,
      time_limit: 60,
    });
    if (solution.Status === 'Infeasible') return { status: 'infeasible', values: {} };
    if (solution.Status !== 'Optimal') return { status: 'stopped', values: {} };
    const values = Object.fromEntries(
      Object.entries(solution.Columns).map(([name, column]) => [
        name,
        'Primal' in column ? column.Primal : 0,
      ]),
    );
    return { status: 'optimal', values };
  };
}
