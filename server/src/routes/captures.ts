import type { Router } from 'express';
import {
  QUANTITIES,
  SPEC_KEYS,
  TYPICAL_READING,
  Fault,
  estimatedOf,
  settleCapture,
  settleFrame,
  specsOfCapture,
  type SettledCapture,
} from '@kevro/core';
import type { CaptureRecord, Measurement } from '@kevro/contract';
import type { Clock } from '../clock';
import type { Db, Queries } from '../db/db';
import type { Hub } from '../instruments/hub';
import { keepReading } from '../instruments/keep';
import { readingByHand } from '../instruments/uncertainty';
import { ApiProblem } from '../problem';
import {
  closeCapture,
  dropCapture,
  lockCapture,
  openCapture,
  setDress,
  setReadingAside,
} from '../records/capture';
import { findMeasurement, addMeasurement } from '../records/measurement';
import { frameOrNone } from './frames';
import { answer } from './route';

/** How each quantity of a capture was found. */
function howFound(capture: CaptureRecord, { settled }: SettledCapture): Measurement['how'] {
  const how: Measurement['how'] = {};
  for (const quantity of QUANTITIES) {
    const found = settled[quantity];
    if (!found) continue;
    const counted = capture.readings.filter((r) => r.quantity === quantity && !r.setAside);
    const ids = (key: 'instrumentId' | 'calibrationId') => [...new Set(counted.flatMap((r) => r[key] ?? []))];
    how[quantity] = {
      means: found.means,
      count: found.count,
      instruments: ids('instrumentId'),
      calibrations: ids('calibrationId'),
    };
  }
  return how;
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

  answer(router, 'storeCapture', async ({ params, body }) => {
    const frame = await frameOrNone(db, params.id);
    return db.transaction(async (tx) => {
      const capture = await lockCapture(tx, frame.id, body.captureId);
      if (!capture || capture.dropped) throw new ApiProblem('capture-gone');
      // Stored already, by a double click or another page: the same measurement is the answer.
      if (capture.measurementId !== null) return findMeasurement(tx, capture.measurementId);
      const settledFrame = settleFrame(frame.shape);
      const found = settleCapture(settledFrame, capture.readings);
      const specs = specsOfCapture(settledFrame, found);
      if (!specs) throw new ApiProblem('capture-incomplete');
      const leftRight = found.settled.leftRightG;
      const measurement = await addMeasurement(tx, {
        key: `capture ${capture.id}`,
        frameId: frame.id,
        takenAt: now(),
        dress: capture.dress,
        specs,
        uncertainty: Object.fromEntries(
          SPEC_KEYS.map((key) => [key, found.settled[key]?.uncertainty ?? TYPICAL_READING[key]]),
        ) as Measurement['uncertainty'],
        estimated: estimatedOf(found),
        leftRight: leftRight ? { massG: leftRight.value, uncertainty: leftRight.uncertainty } : null,
        how: howFound(capture, found),
        note: body.note,
      });
      await closeCapture(tx, capture.id, measurement.id);
      return measurement;
    });
  });
}
