import { backTo, settleFrame, zoneChanges } from '@kevro/core';
import { zoneChangeWords, type FittingView, type ReadBodyOf } from '@kevro/contract';
import type { Queries } from '../db/db';
import { ApiProblem, badInput, notFoundAt } from '../problem';
import { partsOf } from '../records/part';
import { piecesOf } from './programmes';
import { theShop, type Moment } from '../records/shop';
import { beginWithPlan, entryOf, startOf } from './begin-with-plan';

/** Back to what was on a frame earlier: a round whose plan takes off what is new and puts on what has gone. @returns the round */
export async function goBack(
  tx: Queries,
  fitting: FittingView,
  { key, frameId, toRoundId, which, note, by }: ReadBodyOf<'goBack'>,
  moment: Moment,
): Promise<string> {
  const { frame, round, rounds: list } = entryOf(fitting, (entry) => entry.frame.id === frameId, 'frameId');
  const to = list.find(({ id }) => id === toRoundId);
  if (!to) throw badInput([notFoundAt('toRoundId')]);
  const then = which === 'found' ? to.onFrame : (to.signOffs.at(-1)?.onFrame ?? null);
  if (!then) throw new ApiProblem('nothing-kept');
  const from = await startOf(tx, round);
  const way = backTo(
    { dress: frame.onIt, weights: piecesOf(frame.weights) },
    { dress: then.dress, weights: piecesOf(then.weights) },
  );
  if (way.placements.length + way.removals.length + way.swaps.length === 0)
    throw new ApiProblem('nothing-to-go-back');
  const ids = [...way.placements, ...way.removals.map(({ of }) => of)].map(({ partId }) => partId);
  const parts = await partsOf(tx, [...new Set(ids)]);
  const unknown = way.placements.filter(({ partId }) => !parts.some(({ id }) => id === partId));
  if (unknown.length > 0)
    throw new ApiProblem('step-short', [], {
      what: zoneChangeWords(
        zoneChanges(settleFrame(frame.shape), { placements: unknown, removals: [] }),
        (await theShop(tx)).partUnit,
      ),
    });
  const words = which === 'found' ? `as round ${to.number} found it` : `the build of round ${to.number}`;
  return beginWithPlan(
    tx,
    {
      fitting,
      frame,
      from,
      why: 'back',
      note: [`Back to ${words}.`, note].filter(Boolean).join(' '),
      reason: note,
      by,
      key,
      programmeId: null,
      change: { ...way, parts },
    },
    moment,
  );
}
