import type { FramePage, PlanRecord } from '@kevro/contract';
import type { Queries } from '../db/db';
import { newId } from './id';

const COLUMNS = `id, created_at as "createdAt", aim_id as "aimId", measurement_id as "measurementId", school,
  by_hand as "byHand", materials, placements, specs, uncertainty, within_tolerance as "withinTolerance"`;

export async function newestPlan(db: Queries, fittingId: string): Promise<PlanRecord | undefined> {
  const sql = `select ${COLUMNS} from plan where fitting_id = $1 order by seq desc limit 1`;
  return (await db.query<PlanRecord>(sql, [fittingId]))[0];
}

/** What was planned and built on a frame, newest first: only the newest plan of each fitting, which is the one that was built from. */
export async function buildsOf(db: Queries, frameId: string): Promise<FramePage['builds']> {
  return db.query<FramePage['builds'][number]>(
    `select fitting.id as "fittingId", player.name as "playerName", plan.created_at as "createdAt", plan.school,
       (select coalesce(sum((p->>'massG')::float8), 0) from jsonb_array_elements(plan.placements) p) as "addedG",
       (select count(*) from build_step where build_step.plan_id = plan.id) as "stepsDone"
     from fitting join player on player.id = fitting.player_id
       join lateral (select * from plan where fitting_id = fitting.id order by seq desc limit 1) plan on true
     where fitting.frame_id = $1 order by plan.seq desc`,
    [frameId],
  );
}

export async function addPlan(
  db: Queries,
  fittingId: string,
  plan: Omit<PlanRecord, 'id'>,
): Promise<PlanRecord> {
  const rows = await db.query<PlanRecord>(
    `insert into plan (id, fitting_id, aim_id, measurement_id, created_at, school, by_hand, materials, placements,
       specs, uncertainty, within_tolerance)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12) returning ${COLUMNS}`,
    [
      newId(),
      fittingId,
      plan.aimId,
      plan.measurementId,
      plan.createdAt,
      plan.school,
      plan.byHand,
      JSON.stringify(plan.materials),
      JSON.stringify(plan.placements),
      JSON.stringify(plan.specs),
      JSON.stringify(plan.uncertainty),
      plan.withinTolerance,
    ],
  );
  return rows[0] as PlanRecord;
}

export async function stepsDone(db: Queries, planId: string): Promise<string[]> {
  const rows = await db.query<{ step: string }>(
    'select step from build_step where plan_id = $1 order by done_at',
    [planId],
  );
  return rows.map((row) => row.step);
}

export async function markStep(
  db: Queries,
  planId: string,
  step: string,
  done: boolean,
  at: string,
): Promise<void> {
  if (done) {
    await db.query(
      'insert into build_step (plan_id, step, done_at) values ($1, $2, $3) on conflict do nothing',
      [planId, step, at],
    );
  } else await db.query('delete from build_step where plan_id = $1 and step = $2', [planId, step]);
}
