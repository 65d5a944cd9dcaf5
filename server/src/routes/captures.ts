import type { Router } from 'express';
import { Fault, measurementOf, readingByHand, settleCapture, settleFrame, type Measured } from '@kevro/core';
import type { CaptureRecord, Measurement } from '@kevro/contract';
import type { Clock } from '../clock';
import type { Db, Queries } from '../db/db';
import type { Hub } from '../instruments/hub';
import { keepReading } from '../instruments/keep';
import { ApiProblem } from '../problem';
import {
  closeCapture,
  dropCapture,
  lockCapture,
  openCapture,
  setDress,
  setReadingAside,
} from '../records/capture';
import { findMeasurements } from '../records/measurement';
import { frameOrNone } from './frames';
import { storeMeasurement } from './measurements';
import { answer } from './route';

/** How each quantity was found, with the instruments and calibrations behind the readings that count. */
function howFound({ how }: Measured, { readings }: CaptureRecord): Measurement['how'] {
  const found: Measurement['how'] = {};
  for (const [quantity, one] of Object.entries(how)) {
    const counted = readings.filter(({ id }) => one.readings.includes(id));
    const ids = (key: 'instrumentId' | 'calibrationId') => [...new Set(counted.flatMap((r) => r[key] ?? []))];
    found[quantity as keyof Measured['how']] = {
      means: one.means,
      count: one.count,
      instruments: ids('instrumentId'),
      calibrations: ids('calibrationId'),
    };
  }
  return found;
}

export function captureRoutes(router: Router, db: Db, now: Clock, hub: Hub): void {
  async function open(frameId: string | undefined, tx: Queries = db): Promise<CaptureRecord> {
    return openCapture(tx, await frameOrNone(db, frameId), now());
  }

  answer(router, 'capture', ({ params }) => open(params.id));

  answer(router, 'setDress', async ({ params, body }) => {
    const { id, frameId } = await open(params.id);
    await setDress(db, id, body.dress);
    await hub.redress(frameId);
    return open(frameId);
  });

  answer(router, 'addReading', async ({ params, body }) => {
    const frame = await frameOrNone(db, params.id);
    const capture = await openCapture(db, frame, now());
    const settledFrame = settleFrame(frame.shape);
    const reading = readingByHand(settledFrame, body, settleCapture(settledFrame, capture.readings));
    if (!reading) throw new Fault({ code: 'needs-weight-and-balance', path: 'quantity' });
    await keepReading(db, frame.id, {
      ...reading,
      id: body.key,
      takenAt: now(),
      instrumentId: null,
      calibrationId: null,
      setAside: false,
    });
    return openCapture(db, frame, now());
  });

  answer(router, 'setAside', async ({ params, body }) => {
    const { id, frameId } = await open(params.id);
    if (!(await setReadingAside(db, id, body.readingId, body.setAside))) throw new ApiProblem('capture-gone');
    return open(frameId);
  });

  answer(router, 'dropCapture', async ({ params, body }) => {
    const frame = await frameOrNone(db, params.id);
    await db.transaction(async (tx) => {
      const capture = await lockCapture(tx, frame.id, body.captureId);
      if (capture && capture.measurementId === null) await dropCapture(tx, capture.id);
    });
    return openCapture(db, frame, now());
  });

  answer(router, 'storeCapture', async ({ params, body: { captureId, ...body } }) => {
    const frame = await frameOrNone(db, params.id);
    return db.transaction(async (tx) => {
      const capture = await lockCapture(tx, frame.id, captureId);
      if (!capture || capture.dropped) throw new ApiProblem('capture-gone');
      if (capture.measurementId !== null) {
        // Stored already, by a double click or another page: the same measurement is the answer.
        return (await findMeasurements(tx, [capture.measurementId]))[0] as Measurement;
      }
      const measured = measurementOf(settleFrame(frame.shape), capture.readings);
      const measurement = await storeMeasurement(
        tx,
        {
          ...measured,
          ...body,
          frameId: frame.id,
          takenAt: now(),
          dress: capture.dress,
          how: howFound(measured, capture),
        },
        `capture ${capture.id}`,
      );
      await closeCapture(tx, capture.id, measurement.id);
      return measurement;
    });
  });
}
