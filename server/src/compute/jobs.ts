import { learnedAbout, makePlans, planSet, trimPlans } from '@kevro/core';
import { programmeOutlook } from '../fitting/programmes';
import { nearestOf, reachOf } from './list-bodies';

/** Computations that can take longer than a moment: they are done beside the thread that answers. */
export const JOBS = { learnedAbout, makePlans, nearestOf, planSet, programmeOutlook, reachOf, trimPlans };
export type Jobs = typeof JOBS;
export type JobName = keyof Jobs;
