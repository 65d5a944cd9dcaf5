import type { Router } from 'express';
import { makerProblems, placementProblems, settleFrame, Fault, type Problem } from '@kevro/core';
import { sentence, type FrameRecord, type ReadBodyOf } from '@kevro/contract';
import type { Db } from '../db/db';
import { ApiProblem, badInput, notFoundAt } from '../problem';
import {
  addFrame,
  addStringing,
  archiveFrame,
  changeFrame,
  changeStringing,
  findFrame,
  listFrames,
  listModels,
  listStringings,
  retireStringing,
} from '../records/frame';
import { listMeasurements } from '../records/measurement';
import { buildsOf } from '../records/plan';
import { findPlayer } from '../records/player';
import { answer } from './route';

export async function frameOrNone(db: Db, id: string | undefined): Promise<FrameRecord> {
  const frame = await findFrame(db, id ?? '');
  if (!frame) throw new ApiProblem('not-found');
  return frame;
}

function orTagTaken(frame: FrameRecord | undefined, tag: string): FrameRecord {
  if (frame) return frame;
  const values = { what: `a frame tagged ${tag}` };
  const message = sentence('already-there', values);
  throw new ApiProblem('already-there', [{ path: 'tag', code: 'already-there', message }], values);
}

export function frameRoutes(router: Router, db: Db): void {
  /** Throws where the shape cannot be, or there is no such owner. A frame over a rule limit can be stored: it is judged, not refused. */
  async function check(body: ReadBodyOf<'addFrame'>): Promise<void> {
    const frame = settleFrame(body.shape);
    // Of what was on it before anybody noted parts, the part may be unknown; its place may not.
    const problems: Problem[] = placementProblems(frame, body.weights, [], 'weights').filter(
      ({ code }) => code !== 'part-unknown',
    );
    if (body.nominal) problems.push(...makerProblems(body.nominal, frame.sport, frame.lengthCm));
    if (problems.length > 0) throw new Fault(...problems);
    if (body.ownerId !== null && !(await findPlayer(db, body.ownerId))) {
      throw badInput([notFoundAt('ownerId')]);
    }
  }

  answer(router, 'models', ({ query }) => listModels(db, query));
  answer(router, 'frames', ({ query }) => listFrames(db, query));

  answer(router, 'frame', async ({ params }) => {
    const frame = await frameOrNone(db, params.id);
    const [owner, measurements, stringings, builds] = await Promise.all([
      frame.ownerId === null ? undefined : findPlayer(db, frame.ownerId),
      listMeasurements(db, frame.id),
      listStringings(db, frame.id),
      buildsOf(db, frame.id),
    ]);
    return { frame, ownerName: owner?.name ?? null, measurements, stringings, builds };
  });

  answer(router, 'addFrame', async ({ body }) => {
    await check(body);
    return orTagTaken(await db.transaction((tx) => addFrame(tx, body)), body.tag);
  });

  answer(router, 'editFrame', async ({ params, body }) => {
    const { id } = await frameOrNone(db, params.id);
    await check(body);
    return orTagTaken(await db.transaction((tx) => changeFrame(tx, id, body)), body.tag);
  });

  answer(router, 'archiveFrame', async ({ params, body }) => {
    const { id } = await frameOrNone(db, params.id);
    await archiveFrame(db, id, body.archived);
    return frameOrNone(db, id);
  });

  answer(router, 'duplicateFrame', async ({ params, body }) => {
    const { id: _, archived: __, ...frame } = await frameOrNone(db, params.id);
    // The twin is another frame: it has no measurements, and what was put on the first is not on it.
    const twin = { ...frame, tag: body.tag, weights: [], note: '' };
    return orTagTaken(await db.transaction((tx) => addFrame(tx, twin)), body.tag);
  });

  answer(router, 'addStringing', async ({ params, body }) => {
    const { id } = await frameOrNone(db, params.id);
    return addStringing(db, id, { ...body, crosses: body.crosses || body.mains });
  });
  answer(router, 'editStringing', async ({ params, body }) => {
    const changed = await changeStringing(db, params.id ?? '', {
      ...body,
      crosses: body.crosses || body.mains,
    });
    if (!changed) throw new ApiProblem('not-found');
    return changed;
  });
  answer(router, 'retireStringing', async ({ params, body }) => {
    const changed = await retireStringing(db, params.id ?? '', body.retired);
    if (!changed) throw new ApiProblem('not-found');
    return changed;
  });
}
