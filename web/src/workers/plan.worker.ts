import loadHighs from 'highs';
import wasmUrl from 'highs/runtime?url';
import {
  Fault,
  SCHOOLS,
  generalSolver,
  makePlans,
  type Plan,
  type PlanRequest,
  type Problem,
} from '@kevro/core';

/** Plans school by school, so that the page can show how far it is. The last message says that all are there. */
export type PlanMessage =
  { plans: Plan[]; done: number; of: number } | { problems: Problem[] } | { failure: string };

const highs = loadHighs({ locateFile: () => wasmUrl });
const post = (message: PlanMessage): void => self.postMessage(message);

self.onmessage = async ({ data }: MessageEvent<PlanRequest>) => {
  try {
    const solver = await highs;
    const solve = generalSolver((lp, options) => solver.solve(lp, options));
    let plans: Plan[] = [];
    for (const [i, school] of SCHOOLS.entries()) {
      plans = [...plans, ...makePlans({ ...data, schools: [school] }, solve)];
      post({ plans, done: i + 1, of: SCHOOLS.length });
    }
  } catch (error) {
    if (error instanceof Fault) post({ problems: error.problems });
    else post({ failure: String(error) });
  }
};
