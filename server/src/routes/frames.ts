import type { Router } from 'express';
import { TYPICAL_READING, requireSpecs, settleFrame, withAxis } from '@kevro/core';
import { sentence, type FrameRecord } from '@kevro/contract';
import type { Clock } from '../clock';
import type { Db } from '../db/db';
import { ApiProblem, badInput } from '../problem';
import { addFrame, findFrame, listFrames } from '../records/frame';
import { addMeasurement, listMeasurements } from '../records/measurement';
import { findPlayer } from '../records/player';
import { answer } from './route';

async function frameOrNone(db: Db, id: string | undefined): Promise<FrameRecord> {
  const frame = await findFrame(db, id ?? '');
  if (!frame) throw new ApiProblem('not-found');
  return frame;
}

export function frameRoutes(router: Router, db: Db, now: Clock): void {
  answer(router, 'frames', () => listFrames(db));

  answer(router, 'addFrame', async ({ body }) => {
    settleFrame(body.shape);
    if (body.ownerId !== null && !(await findPlayer(db, body.ownerId))) {
      throw badInput([{ path: 'ownerId', code: 'not-found', message: sentence('not-found') }]);
    }
    const frame = await addFrame(db, body);
    if (!frame) {
      const values = { what: `a frame tagged ${body.tag}` };
      const message = sentence('already-there', values);
      throw new ApiProblem('already-there', [{ path: 'tag', code: 'already-there', message }], values);
    }
    return frame;
  });

  answer(router, 'measurements', async ({ params }) => {
    const frame = await frameOrNone(db, params.id);
    return listMeasurements(db, frame.id);
  });

  answer(router, 'addMeasurement', async ({ params, body }) => {
    const frame = await frameOrNone(db, params.id);
    const { sport, lengthCm } = settleFrame(frame.shape);
    const specs = requireSpecs(withAxis(body.specs, sport.axisCm), lengthCm);
    const uncertainty = body.uncertainty ?? TYPICAL_READING;
    const { key, dress, note } = body;
    return addMeasurement(db, { key, frameId: frame.id, takenAt: now(), dress, specs, uncertainty, note });
  });
}
