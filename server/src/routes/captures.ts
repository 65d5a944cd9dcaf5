import type { Router } from 'express';
import { Fault, measurementOf, readingByHand, settleCapture, settleFrame, type Measured } from '@kevro/core';
import type { CaptureRecord, Measurement } from '@kevro/contract';
import type { Acts } from '../act';
import type { Clock } from '../clock';
import type { Queries } from '../db/db';
import type { Hub } from '../instruments/hub';
import { keepReading } from '../instruments/keep';
import { ApiProblem } from '../problem';
import {
  closeCapture,
  dropCapture,
  frameOfReading,
  lockCapture,
  openCapture,
  setDress,
  setReadingAside,
} from '../records/capture';
import { removeFilmsOfCapture } from '../records/film';
import { frameOrNone } from './frames';
import { measurementOrNone, storeMeasurement } from './measurements';
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

export function captureRoutes(router: Router, acts: Acts, now: Clock, hub: Hub): void {
  const open = async (q: Queries, frameId: string): Promise<CaptureRecord> =>
    openCapture(q, await frameOrNone(q, frameId), now());

  answer(router, 'capture', ({ params }) => open(acts.db, params.id ?? ''));

  /** @throws ApiProblem where other readings stand than those that the page shows */
  const sameCapture = (stands: CaptureRecord, shown: string | undefined): CaptureRecord => {
    if (shown !== undefined && shown !== stands.id) throw new ApiProblem('capture-gone');
    return stands;
  };

  acts.on(router, 'setDress', async ({ tx, id, body, later }) => {
    await setDress(tx, sameCapture(await open(tx, id), body.captureId).id, body.dress);
    later(() => hub.redress(id));
    return open(tx, id);
  });

  acts.on(router, 'addReading', async ({ tx, id, body, key, now: at }) => {
    const frame = await frameOrNone(tx, id);
    const stands = await openCapture(tx, frame, at);
    // Sent again because its answer was lost, it is among the readings that were stored meanwhile.
    if ((await frameOfReading(tx, key)) === id) return stands;
    const capture = sameCapture(stands, body.captureId);
    const settledFrame = settleFrame(frame.shape);
    const reading = readingByHand(settledFrame, body, settleCapture(settledFrame, capture.readings));
    if (!reading) throw new Fault({ code: 'needs-weight-and-balance', path: 'quantity' });
    await keepReading(tx, id, {
      ...reading,
      id: key,
      takenAt: at,
      instrumentId: null,
      calibrationId: null,
      setAside: false,
    });
    return openCapture(tx, frame, at);
  });

  acts.on(router, 'setAside', async ({ tx, id, body }) => {
    const capture = await open(tx, id);
    if (!(await setReadingAside(tx, capture.id, body.readingId, body.setAside)))
      throw new ApiProblem('capture-gone');
    return open(tx, id);
  });

  acts.on(router, 'dropCapture', async ({ tx, id, body }) => {
    const capture = await lockCapture(tx, id, body.captureId);
    if (capture && capture.measurementId === null) {
      await dropCapture(tx, capture.id);
      await removeFilmsOfCapture(tx, capture.id);
    }
    return open(tx, id);
  });

  acts.on(router, 'storeCapture', async ({ tx, id, body: { captureId, ...body }, now: at }) => {
    const frame = await frameOrNone(tx, id);
    const capture = await lockCapture(tx, id, captureId);
    if (!capture || capture.dropped) throw new ApiProblem('capture-gone');
    // Stored already, by a double click or another page: the same measurement is the answer.
    if (capture.measurementId !== null) return measurementOrNone(tx, capture.measurementId);
    const measured = measurementOf(settleFrame(frame.shape), capture.readings);
    const measurement = await storeMeasurement(
      tx,
      {
        ...measured,
        ...body,
        frameId: frame.id,
        takenAt: at,
        dress: capture.dress,
        how: howFound(measured, capture),
      },
      `capture ${capture.id}`,
    );
    await closeCapture(tx, capture.id, measurement.id);
    return measurement;
  });
}
