import type { FramePage, PlanRecord } from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';

export const plans = tableOf<PlanRecord>('plan', {
  id: 'id',
  createdAt: 'created_at',
  roundId: 'round_id',
  startId: 'measurement_id',
  aimId: 'aim_id',
  trims: 'trims',
  school: 'school',
  byHand: 'by_hand',
  placements: 'placements',
  swaps: 'swaps',
  removals: 'removals',
  parts: 'parts',
  steps: 'steps',
  specs: 'specs',
  uncertainty: 'uncertainty',
  chance: 'chance',
  truly: 'truly',
  readings: 'readings',
  withinTolerance: 'within_tolerance',
});

/** What was planned on a frame and what was done of it, in the order of arrival, the last first. */
export const buildsOf = (db: Queries, frameId: string): Promise<FramePage['builds']> =>
  db.query<FramePage['builds'][number]>(
    `select plan.id as "planId", round.fitting_id as "fittingId", round.number as round, player.name as "playerName",
       plan.created_at as "createdAt", plan.school, plan.by_hand as "byHand",
       (select coalesce(sum((p->>'massG')::float8), 0) from jsonb_array_elements(plan.placements) p) as "addedG",
       (select count(*) from (select distinct on (step) mark from step_mark where plan_id = plan.id
          order by step, seq desc) last where mark = 'done') as "stepsDone"
     from plan join round on round.id = plan.round_id join fitting on fitting.id = round.fitting_id
       join player on player.id = fitting.player_id
     where round.frame_id = $1 order by plan.seq desc`,
    [frameId],
  );
