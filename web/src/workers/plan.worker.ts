import { Fault, SCHOOLS, makePlans, type Plan, type PlanRequest, type Problem } from '@kevro/core';

/** Plans school by school, so that the page can show how far it is. The last message says that all are there. */
export type PlanMessage =
  { plans: Plan[]; done: number; of: number } | { problems: Problem[] } | { failure: string };

const post = (message: PlanMessage): void => self.postMessage(message);

self.onmessage = ({ data }: MessageEvent<PlanRequest>) => {
  try {
    let plans: Plan[] = [];
    const schools = data.schools ?? SCHOOLS;
    for (const [i, school] of schools.entries()) {
      plans = [...plans, ...makePlans({ ...data, schools: [school] })];
      post({ plans, done: i + 1, of: schools.length });
    }
  } catch (error) {
    if (error instanceof Fault) post({ problems: error.problems });
    else post({ failure: String(error) });
  }
};
