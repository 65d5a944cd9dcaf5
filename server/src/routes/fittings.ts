import type { Router } from 'express';
import { hasWork } from '@kevro/core';
import { sentence, type ActBodyOf, type FittingView, type ReadBodyOf } from '@kevro/contract';
import { lock, type Acts, type ActInput } from '../act';
import type { Clock } from '../clock';
import type { Queries } from '../db/db';
import { requireFitting } from '../fitting/bench';
import { ApiProblem, badInput, notFoundAt } from '../problem';
import {
  beginRound,
  changeFitting,
  fittings,
  hangingOn,
  openFitting,
  openFittingsOf,
  removeFitting,
  setBeside,
  setReferences,
} from '../records/fitting';
import { framesOf } from '../records/frame';
import { newId } from '../records/id';
import { findMeasurements } from '../records/measurement';
import { partsOf } from '../records/part';
import { findPlayer } from '../records/player';
import { knownSetups } from '../records/setup';
import { momentOf } from '../records/shop';
import { listFittings } from '../records/today';
import { answer } from './route';

/** @throws ApiProblem where a setup is not known @param pathOf the field of each */
export async function requireSetups(
  db: Queries,
  ids: readonly string[],
  pathOf: (i: number) => string,
): Promise<void> {
  const known = await knownSetups(db, ids);
  const missing = ids.flatMap((id, i) => (known.has(id) ? [] : [notFoundAt(pathOf(i))]));
  if (missing.length > 0) throw badInput(missing);
}

/** The frames of a request, each once. @throws ApiProblem where a frame or the player is not known */
async function requirePair(
  db: Queries,
  body: Pick<ReadBodyOf<'openFitting'>, 'playerId' | 'frameIds'>,
): Promise<string[]> {
  const frameIds = [...new Set(body.frameIds)];
  const known = new Set((await framesOf(db, frameIds)).map(({ id }) => id));
  const missing = frameIds.flatMap((id, i) => (known.has(id) ? [] : [notFoundAt(`frameIds.${i}`)]));
  if (!(await findPlayer(db, body.playerId))) missing.unshift(notFoundAt('playerId'));
  if (missing.length > 0) throw badInput(missing);
  return frameIds;
}

async function requireNoOpenOne(
  tx: Queries,
  { playerId, evenIfOpen }: ActBodyOf<'openFitting'>,
  frameIds: readonly string[],
): Promise<void> {
  const [open] = evenIfOpen ? [] : await openFittingsOf(tx, playerId, frameIds);
  if (!open) return;
  const values = { player: open.player, frame: open.frame };
  throw new ApiProblem('fitting-exists', [], values, undefined, open.id);
}

/** Fittings: opened, changed, closed, and what is set beside their frames. */
export function fittingRoutes(router: Router, acts: Acts, now: Clock): void {
  const { db } = acts;
  const theFitting = (q: Queries, id: string): Promise<FittingView> => requireFitting(q, id, now());
  /** A fitting that an act is about answers itself. */
  const itself = (q: Queries, _made: string, { id }: { id: string }): Promise<FittingView> =>
    theFitting(q, id);
  const openOne = async (tx: Queries, id: string): Promise<FittingView> => {
    const fitting = await theFitting(tx, id);
    if (fitting.closed) throw new ApiProblem('fitting-closed');
    return fitting;
  };

  answer(router, 'today', ({ query }) => listFittings(db, query, now()));
  answer(router, 'fitting', ({ params }) => theFitting(db, params.id ?? ''));

  acts.begin(
    router,
    'openFitting',
    async ({ tx, body, now: at }) => {
      await lock(tx, 'player', body.playerId);
      const frameIds = await requirePair(tx, body);
      await requireNoOpenOne(tx, body, frameIds);
      const id = newId();
      await openFitting(tx, { playerId: body.playerId, frameIds }, at, id);
      return id;
    },
    theFitting,
  );

  acts.on(router, 'editFitting', async ({ tx, id, body, now: at }) => {
    const fitting = await openOne(tx, id);
    const frameIds = await requirePair(tx, body);
    const { linksOf } = await hangingOn(tx, id);
    // A follow-up is the fitting's, whichever frames it has.
    const stays = fitting.frames.find(
      ({ frame, ...work }) =>
        !frameIds.includes(frame.id) && hasWork({ ...work, links: linksOf(frame.id), followUps: 0 }),
    );
    if (stays) {
      const values = { frame: stays.frame.tag };
      const message = sentence('frame-has-work', values);
      throw new ApiProblem('frame-has-work', [{ path: 'frameIds', code: 'frame-has-work', message }], values);
    }
    await changeFitting(tx, fitting, { ...body, frameIds }, at);
    return theFitting(tx, id);
  });

  acts.on(router, 'removeFitting', async ({ tx, id }) => {
    const { frames } = await theFitting(tx, id);
    const { linksOf, followUps } = await hangingOn(tx, id);
    const full = frames.some(({ frame, ...work }) =>
      hasWork({ ...work, links: linksOf(frame.id), followUps }),
    );
    if (full) throw new ApiProblem('fitting-not-empty');
    await removeFitting(tx, id);
    return { removed: true as const };
  });

  acts.begin(
    router,
    'closeFitting',
    async ({ tx, id, body, now: at }) => {
      await openOne(tx, id);
      await fittings.change(tx, { closedAt: at, closedHow: body.how, closedNote: body.note }, 'id = $1', id);
      return id;
    },
    itself,
  );

  async function reopen({ tx, id, body, now: at }: ActInput<'reopenFitting'>): Promise<string> {
    const { closed, frames } = await theFitting(tx, id);
    if (!closed) throw new ApiProblem('fitting-open');
    await fittings.change(tx, { closedAt: null, closedHow: null, closedNote: '' }, 'id = $1', id);
    if (!body.newRound) return id;
    const { day } = await momentOf(tx, closed.at);
    const note = `closed on ${day}: ${closed.how}${closed.note ? `, ${closed.note}` : ''}`;
    for (const { frame } of frames)
      await beginRound(tx, { fittingId: id, frameId: frame.id, why: 'reopened', note, begunAt: at });
    return id;
  }
  acts.begin(router, 'reopenFitting', reopen, itself);

  acts.on(router, 'setReferences', async ({ tx, id, body }) => {
    await theFitting(tx, id);
    const setupIds = [...new Set(body)];
    await requireSetups(tx, setupIds, (i) => `${i}`);
    await setReferences(tx, id, setupIds);
    return theFitting(tx, id);
  });

  acts.on(router, 'setParts', async ({ tx, id, body }) => {
    await openOne(tx, id);
    const ids = [...new Set(body)];
    const known = new Set((await partsOf(tx, ids)).map((part) => part.id));
    const missing = ids.flatMap((part, i) => (known.has(part) ? [] : [notFoundAt(`${i}`)]));
    if (missing.length > 0) throw badInput(missing);
    await fittings.change(tx, { parts: ids }, 'id = $1', id);
    return theFitting(tx, id);
  });

  acts.on(router, 'setBeside', async ({ tx, id, body }) => {
    await theFitting(tx, id);
    const asked = body.flatMap((one) => (one.kind === 'measured' ? [one.measurementId] : []));
    const known = new Set((await findMeasurements(tx, asked)).map((m) => m.id));
    const missing = body.flatMap((one, i) =>
      one.kind === 'measured' && !known.has(one.measurementId) ? [notFoundAt(`${i}.measurementId`)] : [],
    );
    if (missing.length > 0) throw badInput(missing);
    await setBeside(tx, id, body);
    return theFitting(tx, id);
  });
}
