import { makePlans, planSet, reach, trimPlans } from '@kevro/core';

/** Computations that can take longer than a moment: they are done beside the thread that answers. */
export const JOBS = { makePlans, planSet, reach, trimPlans };
export type Jobs = typeof JOBS;
export type JobName = keyof Jobs;
