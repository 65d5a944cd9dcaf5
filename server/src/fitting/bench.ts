import { settleFrame, type Frame } from '@kevro/core';
import type {
  AimRecord,
  FittingView,
  FrameRecord,
  Measurement,
  PlanRecord,
  RoundView,
} from '@kevro/contract';
import type { Queries } from '../db/db';
import { ApiProblem, badInput, notFoundAt } from '../problem';
import { findFitting } from '../records/fitting';

/** @throws ApiProblem where there is no such fitting */
export async function requireFitting(db: Queries, id: string, now: string): Promise<FittingView> {
  const fitting = await findFitting(db, id, now);
  if (!fitting) throw new ApiProblem('not-found');
  return fitting;
}

/** A round of an open fitting, with its frame: what is worked on. */
export interface Bench {
  fitting: FittingView;
  round: RoundView;
  frame: FrameRecord;
  settled: Frame;
  start: Measurement | undefined;
  aim: AimRecord | undefined;
}

/** @param found which round @param path the field that names it @throws ApiProblem where the fitting is closed or has no such round */
export function benchOf(fitting: FittingView, found: (round: RoundView) => boolean, path: string): Bench {
  if (fitting.closed) throw new ApiProblem('fitting-closed');
  for (const { frame, rounds } of fitting.frames) {
    const round = rounds.find(found);
    if (!round) continue;
    return {
      fitting,
      round,
      frame,
      settled: settleFrame(frame.shape),
      start: round.measurements.find(({ id }) => id === round.startId),
      aim: round.aims.find(({ id }) => id === round.state.aimId),
    };
  }
  throw badInput([notFoundAt(path)]);
}

/** The bench of a plan. @throws ApiProblem as {@link benchOf} */
export function benchOfPlan(fitting: FittingView, planId: string): Bench & { plan: PlanRecord } {
  const hasPlan = ({ plans }: RoundView): boolean => plans.some((plan) => plan.id === planId);
  const bench = benchOf(fitting, hasPlan, 'planId');
  return { ...bench, plan: bench.round.plans.find((plan) => plan.id === planId) as PlanRecord };
}
