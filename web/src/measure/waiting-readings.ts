import { readingByHand, settleCapture, type Frame } from '@kevro/core';
import type { CaptureRecord } from '@kevro/contract';
import { waitingFor } from '../api/waiting';
import { plainly } from '../ui/same';

/**
 * The readings of a frame with what waits on this device for the server, in the order in which it was done: what is shown is what will be stored.
 * @param stands as the server answered last
 */
export function withWaiting(frame: Frame, stands: CaptureRecord): CaptureRecord {
  const { frameId } = stands;
  const dresses = waitingFor('setDress', frameId);
  const added = waitingFor('addReading', frameId);
  const aside = waitingFor('setAside', frameId);
  if (dresses.length + added.length + aside.length === 0) return stands;
  const shown = plainly(stands);
  const mine = ({ body }: { body: { captureId?: string | undefined } }): boolean =>
    body.captureId === undefined || body.captureId === stands.id;
  for (const { body } of dresses.filter(mine)) {
    shown.dress = body.dress;
    shown.dressSaid = true;
  }
  for (const { body, doneAt } of added.filter(mine)) {
    const { key: id } = body;
    if (shown.readings.some((reading) => reading.id === id)) continue;
    const reading = readingByHand(frame, body, settleCapture(frame, shown.readings));
    if (reading)
      shown.readings.push({
        ...reading,
        id,
        takenAt: doneAt,
        instrumentId: null,
        calibrationId: null,
        setAside: false,
      });
  }
  for (const { body } of aside)
    for (const reading of shown.readings) if (reading.id === body.readingId) reading.setAside = body.setAside;
  return shown;
}
