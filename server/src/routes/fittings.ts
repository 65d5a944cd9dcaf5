import type { Router } from 'express';
import { Fault, aimProblems, planUncertainty, settleFrame, specsWith, withinTolerance } from '@kevro/core';
import { sentence, type FieldError, type FittingView } from '@kevro/contract';
import type { Clock } from '../clock';
import type { Db, Queries } from '../db/db';
import { ApiProblem, badInput } from '../problem';
import { addAim } from '../records/aim';
import { findFitting, listFittings, openFitting, setReferences } from '../records/fitting';
import { findFrame } from '../records/frame';
import { addPlan, markStep } from '../records/plan';
import { findPlayer } from '../records/player';
import { knownSetups } from '../records/setup';
import { answer } from './route';

const notFound = (path: string): FieldError => ({ path, code: 'not-found', message: sentence('not-found') });

async function fittingOrNone(db: Queries, id: string | undefined): Promise<FittingView> {
  const fitting = await findFitting(db, id ?? '');
  if (!fitting) throw new ApiProblem('not-found');
  return fitting;
}

async function requireSetups(
  db: Queries,
  ids: readonly string[],
  pathOf: (i: number) => string,
): Promise<void> {
  const known = await knownSetups(db, ids);
  const missing = ids.flatMap((id, i) => (known.has(id) ? [] : [notFound(pathOf(i))]));
  if (missing.length > 0) throw badInput(missing);
}

export function fittingRoutes(router: Router, db: Db, now: Clock): void {
  answer(router, 'today', () => listFittings(db));
  answer(router, 'fitting', ({ params }) => fittingOrNone(db, params.id));

  answer(router, 'openFitting', async ({ body }) => {
    const missing: FieldError[] = [];
    if (!(await findPlayer(db, body.playerId))) missing.push(notFound('playerId'));
    if (!(await findFrame(db, body.frameId))) missing.push(notFound('frameId'));
    if (missing.length > 0) throw badInput(missing);
    return fittingOrNone(db, await openFitting(db, body, now()));
  });

  answer(router, 'setReferences', async ({ params, body }) => {
    const { id } = await fittingOrNone(db, params.id);
    const setupIds = [...new Set(body)];
    await requireSetups(db, setupIds, (i) => `${i}`);
    await db.transaction((tx) => setReferences(tx, id, setupIds));
    return fittingOrNone(db, id);
  });

  answer(router, 'setAim', async ({ params, body }) => {
    const { id, frame, measurement } = await fittingOrNone(db, params.id);
    if (!measurement) throw new ApiProblem('nothing-measured');
    const problems = aimProblems(body.target, settleFrame(frame.shape).lengthCm, measurement.specs);
    if (problems.length > 0) throw new Fault(...problems);
    if (body.setupId !== null) await requireSetups(db, [body.setupId], () => 'setupId');
    return addAim(db, id, body, now());
  });

  answer(router, 'choosePlan', async ({ params, body }) => {
    const { id, frame, measurement, aim } = await fittingOrNone(db, params.id);
    if (!measurement) throw new ApiProblem('nothing-measured');
    if (!aim) throw new ApiProblem('nothing-aimed');
    if (body.measurementId !== measurement.id) throw badInput([notFound('measurementId')]);
    if (body.aimId !== aim.id) throw badInput([notFound('aimId')]);
    // What the plan leads to is computed here, never taken from the page.
    const settled = settleFrame(frame.shape);
    const specs = specsWith(settled, measurement.specs, body.placements);
    const uncertainty = planUncertainty(settled, measurement.specs, measurement.uncertainty, body.placements);
    return addPlan(db, id, {
      ...body,
      createdAt: now(),
      specs,
      uncertainty,
      withinTolerance: withinTolerance(aim.target, specs),
    });
  });

  answer(router, 'markStep', async ({ params, body }) => {
    const { id, plan } = await fittingOrNone(db, params.id);
    if (plan?.id !== body.planId) throw badInput([notFound('planId')]);
    await markStep(db, body.planId, body.step, body.done, now());
    return fittingOrNone(db, id);
  });
}
