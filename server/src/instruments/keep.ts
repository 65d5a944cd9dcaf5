import type { ReadingRecord } from '@kevro/contract';
import type { Db } from '../db/db';
import { ApiProblem } from '../problem';
import { addReading, openCapture } from '../records/capture';
import { findFrame } from '../records/frame';

/**
 * Keeps a reading in the frame's open capture, in one transaction: a capture that closes meanwhile cannot swallow it.
 * @throws ApiProblem `key-used` where the reading's id is another frame's
 */
export async function keepReading(db: Db, frameId: string, reading: ReadingRecord): Promise<void> {
  await db.transaction(async (tx) => {
    const frame = await findFrame(tx, frameId);
    if (!frame) return;
    const capture = await openCapture(tx, frame, reading.takenAt);
    if (!(await addReading(tx, capture, reading))) throw new ApiProblem('key-used');
  });
}
