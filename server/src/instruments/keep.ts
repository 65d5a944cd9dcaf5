import type { ReadingRecord } from '@kevro/contract';
import type { Queries } from '../db/db';
import { ApiProblem } from '../problem';
import { addReading, openCapture } from '../records/capture';
import { findFrame } from '../records/frame';

/**
 * Keeps a reading in the frame's open capture. In one transaction: a capture that closes meanwhile cannot swallow it.
 * @throws ApiProblem `key-used` where the reading's id is another frame's
 */
export async function keepReading(tx: Queries, frameId: string, reading: ReadingRecord): Promise<void> {
  const frame = await findFrame(tx, frameId);
  if (!frame) return;
  const capture = await openCapture(tx, frame, reading.takenAt);
  if (!(await addReading(tx, capture, reading))) throw new ApiProblem('key-used');
}
