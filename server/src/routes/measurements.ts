import type { Router } from 'express';
import {
  ratingsBy,
  bringTo,
  bySpec,
  readingAfter,
  requireSpecs,
  settleFrame,
  sportData,
  withOwn,
  stepDistance,
  withAxis,
  type SpecKey,
} from '@kevro/core';
import type { Measurement } from '@kevro/contract';
import type { Acts } from '../act';
import type { Queries } from '../db/db';
import { ApiProblem, badInput, notFoundAt } from '../problem';
import { findFitting, fittings, rounds } from '../records/fitting';
import {
  addMeasurement,
  correctMeasurement,
  countMeasurement,
  findMeasurements,
  listMeasurements,
  partsSaid,
  type MeasurementToStore,
} from '../records/measurement';
import { broughtSetups, nearestSetups, offeredIds, type Measured } from '../records/near-setups';
import { stepMarks } from '../records/step-mark';
import { removeFilmsOfMeasurement } from '../records/film';
import { frameOrNone } from './frames';
import { theShop } from '../records/shop';
import { answer } from './route';

/** Marks the step that a measurement was taken at, of the plan that stands: the reading stands with it. */
async function markMeasuredStep(tx: Queries, m: Measurement, asked: string | null): Promise<void> {
  if (m.roundId === null) return;
  const [round] = await rounds.find(tx, 'where id = $1', [m.roundId]);
  const fitting = round && (await findFitting(tx, round.fittingId, m.takenAt));
  const view = fitting?.frames.flatMap((f) => f.rounds).find(({ id }) => id === m.roundId);
  const plan = view?.plans.find(({ id }) => id === view.state.planId);
  // Unless it says, it belongs to the step that has such a measurement: a trial to one, the check to another.
  const found = plan?.steps.find(({ key, kind }) =>
    asked === null ? m.purpose !== 'step' && readingAfter(kind)?.purpose === m.purpose : key === asked,
  );
  if (!plan || !found) return;
  // The same measurement sent twice is one reading.
  if (view?.marks.some((mark) => mark.measurementId === m.id)) return;
  await stepMarks.insert(tx, {
    planId: plan.id,
    step: found.key,
    mark: 'done',
    at: m.takenAt,
    reason: '',
    asBuilt: null,
    measurementId: m.id,
    by: '',
  });
}

/**
 * Stores a measurement once a key. Of a round it must be one of the frame's own in an open fitting; found for a round, it is where the round starts.
 * @throws ApiProblem where the round or the key belong to something else
 */
export async function storeMeasurement(
  tx: Queries,
  { step, ...m }: MeasurementToStore & { step: string | null },
  key: string,
): Promise<Measurement> {
  if (m.roundId !== null) {
    const [round] = await rounds.find(tx, 'where id = $1', [m.roundId]);
    if (round?.frameId !== m.frameId) throw badInput([notFoundAt('roundId')]);
    const [fitting] = await fittings.find(tx, 'where id = $1', [round.fittingId]);
    if (fitting?.closedAt) throw new ApiProblem('fitting-closed');
  }
  const stored = await addMeasurement(tx, m, key);
  if (!stored) throw new ApiProblem('key-used');
  if (stored.roundId !== null && stored.purpose === 'found') {
    await rounds.change(tx, { startId: stored.id }, 'id = $1', stored.roundId);
  }
  await markMeasuredStep(tx, stored, step);
  return stored;
}

/** @throws ApiProblem where there is no such measurement */
export async function measurementOrNone(db: Queries, id: string): Promise<Measurement> {
  const [measurement] = await findMeasurements(db, [id]);
  if (!measurement) throw new ApiProblem('not-found');
  return measurement;
}

/** A measurement that may be corrected or discarded: of an open fitting, or of none. */
async function measurementToChange(tx: Queries, id: string): Promise<Measurement> {
  const measurement = await measurementOrNone(tx, id);
  const [round] = measurement.roundId ? await rounds.find(tx, 'where id = $1', [measurement.roundId]) : [];
  const [fitting] = round ? await fittings.find(tx, 'where id = $1', [round.fittingId]) : [];
  if (fitting?.closedAt) throw new ApiProblem('fitting-closed');
  return measurement;
}

export function measurementRoutes(router: Router, acts: Acts): void {
  const { db } = acts;
  answer(router, 'measurements', async ({ params }) => {
    const frame = await frameOrNone(db, params.id);
    return listMeasurements(db, frame.id);
  });

  acts.begin(
    router,
    'addMeasurement',
    async ({ tx, id, body, key, now: at }) => {
      const frame = await frameOrNone(tx, id);
      const { sport, lengthCm } = settleFrame(frame.shape);
      const specs = requireSpecs(withAxis(body.specs, sport.axisCm), lengthCm);
      const { uncertainty, ...rest } = body;
      const parts = partsSaid(uncertainty ?? sport.typicalReading, specs, body.estimated);
      const measurement = { ...rest, frameId: id, takenAt: at, specs, parts, how: {} };
      return (await storeMeasurement(tx, measurement, key)).id;
    },
    measurementOrNone,
  );

  acts.begin(
    router,
    'correctMeasurement',
    async ({ tx, id, body: { reason, ...body }, key, now: at }) => {
      const first = await measurementToChange(tx, id);
      // Corrected by somebody else meanwhile: the first does not count any more.
      if (first.supersededBy !== null) throw new ApiProblem('measurement-superseded');
      const { sport, lengthCm } = settleFrame((await frameOrNone(tx, first.frameId)).shape);
      const specs = requireSpecs(withAxis(body.specs, sport.axisCm), lengthCm);
      const { uncertainty, ...rest } = body;
      // An estimate that was put right by hand is one no more: as uncertain, but as a reading is.
      const wasEstimated = (key: SpecKey) => first.estimated.includes(key) && !body.estimated.includes(key);
      const kept = {
        ...bySpec((key) => (wasEstimated(key) ? first.uncertainty[key] : first.parts[key])),
        ...ratingsBy((key) => first.parts[key] ?? sport.typicalReading[key]),
      };
      const parts = partsSaid(uncertainty ?? kept, specs, body.estimated);
      const stored = await correctMeasurement(tx, first, { ...rest, specs, parts }, { key, reason, at });
      if (!stored) throw new ApiProblem('key-used');
      return stored.id;
    },
    measurementOrNone,
  );

  acts.on(router, 'countMeasurement', async ({ tx, id, body: { counts, reason }, now: at }) => {
    const measurement = await measurementToChange(tx, id);
    if (measurement.supersededBy !== null) throw new ApiProblem('measurement-superseded');
    // A film is kept as long as what was read of it counts.
    if (!counts) await removeFilmsOfMeasurement(tx, id);
    return countMeasurement(tx, measurement, counts, reason, at);
  });

  /** A measurement with the frame that it is of, as setups are set against it. */
  async function measured(id: string | undefined): Promise<Measured> {
    const measurement = await measurementOrNone(db, id ?? '');
    const frame = await frameOrNone(db, measurement.frameId);
    const { sports } = await theShop(db);
    return {
      shape: frame.shape,
      dress: measurement.dress,
      specs: measurement.specs,
      own: sports[frame.shape.sport],
    };
  }

  answer(router, 'nearSetups', async ({ params, query }) => {
    const frame = await measured(params.id);
    const { rows, ...inAll } = await nearestSetups(db, frame, query);
    const sport = withOwn(sportData(frame.shape.sport), frame.own);
    return {
      rows: rows.map((setup) => {
        const { specs } = bringTo(setup, frame.dress, frame.specs.axisCm);
        const { distanceSteps, unknown } = stepDistance(frame.specs, specs, sport);
        return { setup, distanceSteps, unknown };
      }),
      ...inAll,
    };
  });

  answer(router, 'setupIds', async ({ params, query }) => {
    const { shape } = await measured(params.id);
    return { ids: await offeredIds(db, { ...query, sport: shape.sport }) };
  });

  answer(router, 'broughtSetups', async ({ params, query: { after, limit } }) =>
    broughtSetups(db, await measured(params.id), after, limit),
  );
}
