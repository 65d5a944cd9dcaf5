import {
  AIR_SHARE,
  DEPTH_SHARE,
  SPEC_KEYS,
  asBuiltOf,
  errorSources,
  estimateSwing,
  estimateTwist,
  expectedAfter,
  redress,
  seededNormals,
  settleFrame,
  specErrors,
  type AxisSpecs,
  type Dress,
  type Frame,
} from '@kevro/core';
import type { Measurement, OnStandIn } from '@kevro/contract';
import { ApiProblem } from '../problem';
import type { Queries } from '../db/db';
import { openCapture } from '../records/capture';
import { findFitting } from '../records/fitting';
import { findFrame } from '../records/frame';
import { lastStanding } from '../records/measurement';
import { seedOf } from './seed';
import type { Truth } from './driver';

/** The usual difference between the sides of a frame, g at the widest part of the head (from memory). */
const LEFT_RIGHT_SPREAD_G = 0.6;

/**
 * What was done to a frame since it was measured, by the plan that stands: with the errors that a hand makes, the same ones however often it is asked. Undefined
 * where nothing was.
 */
async function builtSince(
  db: Queries,
  frame: Frame,
  start: Measurement,
): Promise<{ specs: AxisSpecs; dress: Dress } | undefined> {
  const [standing] = await db.query<{ fittingId: string; roundId: string }>(
    `select round.fitting_id as "fittingId", round.id as "roundId" from plan join round on round.id = plan.round_id
       join fitting on fitting.id = round.fitting_id
     where plan.measurement_id = $1 and fitting.closed_at is null order by plan.seq desc limit 1`,
    [start.id],
  );
  const fitting = standing && (await findFitting(db, standing.fittingId, new Date().toISOString()));
  const round = fitting?.frames.flatMap(({ rounds }) => rounds).find(({ id }) => id === standing?.roundId);
  const plan = round?.plans.find(({ id }) => id === round.state.planId);
  if (!round || plan?.startId !== start.id) return undefined;
  const last = plan.steps.findLast(({ key }) => round.state.steps[key]?.mark === 'done');
  if (!last) return undefined;
  const marks = round.marks.filter(({ planId }) => planId === plan.id);
  const { specs: before, uncertainty, dress } = start;
  const asBuilt = asBuiltOf(plan.steps, marks);
  const building = { frame, before, readings: uncertainty, dress, change: plan, steps: plan.steps, asBuilt };
  const built = expectedAfter(building, last.key);
  const normal = seededNormals(seedOf(plan.id));
  const specs = { ...built.specs };
  for (const { of } of specErrors(specs, errorSources(frame, dress, built.change))) {
    const z = normal();
    for (const key of SPEC_KEYS) if (specs[key] !== undefined) specs[key] += z * of[key];
  }
  return { specs, dress: built.dress };
}

/**
 * What a frame on a stand-in truly is: as last measured, and built on since, brought to the dress that the capture says is on it; a frame never measured is as the maker states it, or as
 * usual frames are. The left/right difference is the frame's own: always the same.
 */
export async function truthOf(db: Queries, on: OnStandIn): Promise<Truth> {
  if ('rod' in on) return on;
  const frame = await findFrame(db, on.frameId);
  if (!frame) throw new ApiProblem('not-found');
  const settled = settleFrame(frame.shape);
  const { dress } = await openCapture(db, frame, new Date().toISOString());
  const last = await lastStanding(db, frame.id);
  const { usual, axisCm } = settled.sport;
  const { massG, balanceCm, swingWeight } = frame.nominal?.specs ?? {};
  const stated =
    massG && balanceCm
      ? {
          massG,
          balanceCm,
          swingWeight: swingWeight ?? estimateSwing(settled, massG, balanceCm).value,
          axisCm,
        }
      : undefined;
  const built = last && (await builtSince(db, settled, last));
  const start = built?.specs ?? last?.specs ?? stated ?? { ...usual, axisCm };
  const from = built?.dress ?? last?.dress ?? (stated ? frame.nominal?.dress : dress) ?? dress;
  const { specs } = redress(frame.shape, start, from, dress);
  const twistWeight = specs.twistWeight ?? estimateTwist(settled, specs.massG).twistWeight;
  const own = seededNormals(seedOf(frame.id));
  return {
    frame: settled,
    specs: { ...specs, twistWeight },
    leftRightG: last?.leftRight?.massG ?? LEFT_RIGHT_SPREAD_G * own(),
    layup: { deeper: DEPTH_SHARE * own(), airier: AIR_SHARE * own() },
  };
}
