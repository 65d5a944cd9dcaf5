import type { StepMark } from '@kevro/contract';
import { tableOf } from '../db/table';

/** Marks on bench steps: each is kept, the last one of a step counts. */
export const stepMarks = tableOf<StepMark>('step_mark', {
  planId: 'plan_id',
  step: 'step',
  mark: 'mark',
  at: 'at',
  reason: 'reason',
  asBuilt: 'as_built',
  measurementId: 'measurement_id',
  by: 'by',
});
