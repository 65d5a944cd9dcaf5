import type { Router } from 'express';
import { bringTo, nearest, requireSpecs, settleFrame, sportData, withAxis } from '@kevro/core';
import type { Measurement } from '@kevro/contract';
import type { Clock } from '../clock';
import type { Db, Queries } from '../db/db';
import { ApiProblem, badInput, notFoundAt } from '../problem';
import { fittings, rounds } from '../records/fitting';
import { findFrame } from '../records/frame';
import {
  addMeasurement,
  correctMeasurement,
  countMeasurement,
  findMeasurements,
  listMeasurements,
  type MeasurementToStore,
} from '../records/measurement';
import { setupsFound } from '../records/setup';
import { frameOrNone } from './frames';
import { answer } from './route';

/**
 * Stores a measurement once a key. Of a round it must be one of the frame's own in an open fitting; found for a round, it is where the round starts.
 * @throws ApiProblem where the round or the key belong to something else
 */
export async function storeMeasurement(
  tx: Queries,
  m: MeasurementToStore,
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
  return stored;
}

export function measurementRoutes(router: Router, db: Db, now: Clock): void {
  answer(router, 'measurements', async ({ params }) => {
    const frame = await frameOrNone(db, params.id);
    return listMeasurements(db, frame.id);
  });

  answer(router, 'addMeasurement', async ({ params, body: { key, ...body } }) => {
    const frame = await frameOrNone(db, params.id);
    const { sport, lengthCm } = settleFrame(frame.shape);
    const specs = requireSpecs(withAxis(body.specs, sport.axisCm), lengthCm);
    const uncertainty = body.uncertainty ?? sport.typicalReading;
    const measurement = { ...body, frameId: frame.id, takenAt: now(), specs, uncertainty, how: {} };
    return db.transaction((tx) => storeMeasurement(tx, measurement, key));
  });

  /** A measurement that may be put right: of an open fitting, or of none. */
  async function measurementToChange(id: string | undefined): Promise<Measurement> {
    const [measurement] = await findMeasurements(db, [id ?? '']);
    if (!measurement) throw new ApiProblem('not-found');
    const [round] = measurement.roundId ? await rounds.find(db, 'where id = $1', [measurement.roundId]) : [];
    const [fitting] = round ? await fittings.find(db, 'where id = $1', [round.fittingId]) : [];
    if (fitting?.closedAt) throw new ApiProblem('fitting-closed');
    return measurement;
  }

  answer(router, 'correctMeasurement', async ({ params, body: { key, reason, ...body } }) => {
    const first = await measurementToChange(params.id);
    const { sport, lengthCm } = settleFrame((await frameOrNone(db, first.frameId)).shape);
    const specs = requireSpecs(withAxis(body.specs, sport.axisCm), lengthCm);
    const uncertainty = body.uncertainty ?? first.uncertainty;
    return db.transaction(async (tx) => {
      const [current] = await findMeasurements(tx, [first.id]);
      const again = current?.supersededBy ? await findMeasurements(tx, [current.supersededBy]) : [];
      const stored = await correctMeasurement(
        tx,
        first,
        { ...body, specs, uncertainty },
        { key, reason, at: now() },
      );
      if (!stored) throw new ApiProblem('key-used');
      // Sent twice it is stored once; put right twice it is refused, since the first does not stand any more.
      if (again.length > 0 && again[0]?.id !== stored.id) throw new ApiProblem('measurement-superseded');
      return stored;
    });
  });

  answer(router, 'countMeasurement', async ({ params, body: { counts, reason } }) => {
    const measurement = await measurementToChange(params.id);
    if (measurement.supersededBy !== null) throw new ApiProblem('measurement-superseded');
    return db.transaction((tx) => countMeasurement(tx, measurement, counts, reason, now()));
  });

  answer(router, 'nearSetups', async ({ params, query }) => {
    const [measurement] = await findMeasurements(db, [params.id ?? '']);
    const frame = measurement && (await findFrame(db, measurement.frameId));
    if (!measurement || !frame) throw new ApiProblem('not-found');
    const { sport } = frame.shape;
    const { specs, dress } = measurement;
    const { limit, offset, ...asked } = query;
    const brought = (await setupsFound(db, { ...asked, sport })).map((setup) => ({
      setup,
      specs: bringTo(setup, dress, specs.axisCm).specs,
    }));
    const ordered = nearest(specs, brought, sportData(sport));
    return {
      rows: ordered
        .slice(offset, offset + limit)
        .map(({ setup, distanceSteps, unknown }) => ({ setup, distanceSteps, unknown })),
      total: ordered.length,
    };
  });
}
