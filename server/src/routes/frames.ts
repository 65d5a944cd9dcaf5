import type { Router } from 'express';
import { makerProblems, placementProblems, settleFrame, Fault, type Problem } from '@kevro/core';
import { sentence, type ActBodyOf, type FrameRecord, type Stringing } from '@kevro/contract';
import type { Acts } from '../act';
import type { Clock } from '../clock';
import type { Queries } from '../db/db';
import { ApiProblem, badInput, notFoundAt } from '../problem';
import {
  addFrame,
  addStringing,
  archiveFrame,
  changeFrame,
  changeStringing,
  findFrame,
  findStringing,
  listFrames,
  listModels,
  listStringings,
  modelOutline,
  retireStringing,
  setShape,
} from '../records/frame';
import { bedsOf } from '../records/bed';
import { keepOutlinePicture, keptFilms, outlinePicture, removeOutlinePicture } from '../records/film';
import { listMeasurements } from '../records/measurement';
import { buildsOf } from '../records/plan';
import { findPlayer } from '../records/player';
import { answer } from './route';

export async function frameOrNone(db: Queries, id: string | undefined): Promise<FrameRecord> {
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

/** Throws where the shape cannot be, or there is no such owner. A frame over a rule limit can be stored: it is judged, not refused. */
async function check(tx: Queries, body: ActBodyOf<'addFrame'>): Promise<void> {
  const frame = settleFrame(body.shape);
  // Of what was on it before anybody noted parts, the part may be unknown; its place may not.
  const problems: Problem[] = placementProblems(frame, body.weights, [], 'weights').filter(
    ({ code }) => code !== 'part-unknown',
  );
  if (body.nominal) problems.push(...makerProblems(body.nominal, frame.sport, frame.lengthCm));
  if (problems.length > 0) throw new Fault(...problems);
  if (body.ownerId !== null && !(await findPlayer(tx, body.ownerId))) {
    throw badInput([notFoundAt('ownerId')]);
  }
}

export function frameRoutes(router: Router, acts: Acts, now: Clock): void {
  const { db } = acts;
  answer(router, 'models', ({ query }) => listModels(db, query));
  answer(router, 'frames', ({ query }) => listFrames(db, query));

  answer(router, 'frame', async ({ params }) => {
    const frame = await frameOrNone(db, params.id);
    const [owner, measurements, stringings, builds, films, picture, ofModel, [bed]] = await Promise.all([
      frame.ownerId === null ? undefined : findPlayer(db, frame.ownerId),
      listMeasurements(db, frame.id),
      listStringings(db, frame.id),
      buildsOf(db, frame.id),
      keptFilms(db, frame.id),
      outlinePicture(db, frame.id),
      frame.shape.outline ? null : modelOutline(db, frame),
      bedsOf(db, [frame.id], now()),
    ]);
    return {
      frame,
      ownerName: owner?.name ?? null,
      measurements,
      stringings,
      builds,
      bed: bed ?? null,
      films,
      outlinePicture: picture,
      modelOutline: ofModel,
    };
  });

  acts.begin(
    router,
    'addFrame',
    async ({ tx, body }) => {
      await check(tx, body);
      return orTagTaken(await addFrame(tx, body), body.tag).id;
    },
    frameOrNone,
  );
  acts.on(router, 'editFrame', async ({ tx, id, body }) => {
    await frameOrNone(tx, id);
    await check(tx, body);
    const changed = orTagTaken(await changeFrame(tx, id, body), body.tag);
    // The photo goes with the outline, whichever way that goes.
    if (!changed.shape.outline) await removeOutlinePicture(tx, id);
    return changed;
  });
  acts.on(router, 'takeOutline', async ({ tx, id, body }) => {
    const frame = await frameOrNone(tx, id);
    const { outline, lengthCm = frame.shape.lengthCm } = body;
    const shape = { ...frame.shape, lengthCm, outline };
    await check(tx, { ...frame, shape });
    await setShape(tx, id, shape);
    await removeOutlinePicture(tx, id);
    if (body.pictureId !== null && !(await keepOutlinePicture(tx, id, body.pictureId)))
      throw badInput([notFoundAt('pictureId')]);
    return frameOrNone(tx, id);
  });
  acts.on(router, 'removeOutline', async ({ tx, id }) => {
    const frame = await frameOrNone(tx, id);
    const { outline: _, ...shape } = frame.shape;
    await check(tx, { ...frame, shape });
    await setShape(tx, id, shape);
    await removeOutlinePicture(tx, id);
    return frameOrNone(tx, id);
  });
  acts.on(router, 'archiveFrame', async ({ tx, id, body }) => {
    await archiveFrame(tx, id, body.archived);
    return frameOrNone(tx, id);
  });
  acts.begin(
    router,
    'duplicateFrame',
    async ({ tx, id, body }) => {
      const { id: _, archived: __, ...frame } = await frameOrNone(tx, id);
      // The twin is another frame: it has no measurements, and what was put on the first is not on it.
      const { outline } = frame.shape;
      const shape = outline
        ? { ...frame.shape, outline: { ...outline, from: 'model' as const } }
        : frame.shape;
      const twin = { ...frame, shape, tag: body.tag, weights: [], note: '' };
      return orTagTaken(await addFrame(tx, twin), body.tag).id;
    },
    frameOrNone,
  );

  const orNone = (stringing: Stringing | undefined): Stringing => {
    if (!stringing) throw new ApiProblem('not-found');
    return stringing;
  };
  acts.begin(
    router,
    'addStringing',
    async ({ tx, id, body }) => {
      await frameOrNone(tx, id);
      return (await addStringing(tx, id, { ...body, crosses: body.crosses || body.mains })).id;
    },
    async (q, made) => orNone(await findStringing(q, made)),
  );
  acts.on(router, 'editStringing', async ({ tx, id, body }) =>
    orNone(await changeStringing(tx, id, { ...body, crosses: body.crosses || body.mains })),
  );
  acts.on(router, 'retireStringing', async ({ tx, id, body }) =>
    orNone(await retireStringing(tx, id, body.retired)),
  );
}
