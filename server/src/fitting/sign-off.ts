import { dressAfter, trimChain, verdictOf, weightsAfter, withinTolerance } from '@kevro/core';
import type { AimRecord, FrameRecord, Measurement, PlanRecord, ReadBodyOf, RoundView } from '@kevro/contract';
import type { Queries } from '../db/db';
import { badInput, wrongAt } from '../problem';
import { findFrame, setOnFrame } from '../records/frame';
import { newId } from '../records/id';
import { signOffs } from '../records/sign-off';

/** What is on a frame: its dress, and the weights on it. */
type OnIt = Pick<FrameRecord, 'onIt' | 'weights'>;

/** What is on a frame after builds, one after the other. Where that is noted on the frame already, it stays so. */
function onFrameAfter({ onIt, weights }: OnIt, chain: readonly PlanRecord[], round: RoundView): OnIt {
  const what = new Map(weights.map((w) => [w.id, w.what]));
  return {
    onIt: chain.reduce((dress, { swaps }) => dressAfter(dress, swaps), onIt),
    weights: weightsAfter(weights, chain, round).map((p) => ({ ...p, what: what.get(p.id) ?? '' })),
  };
}

export interface Checked {
  frame: FrameRecord;
  round: RoundView;
  plan: PlanRecord;
  aim: AimRecord;
  check: Measurement;
}

/** Judges a check against its aim, and notes what is on the frame from then on. @returns the sign-off's id */
export async function storeSignOff(
  tx: Queries,
  { frame, round, plan, aim, check }: Checked,
  body: ReadBodyOf<'signOff'>,
  now: string,
): Promise<string> {
  const passed = withinTolerance(aim.target, check.specs);
  if (!passed && body.note === '') throw badInput([wrongAt('note', 'outside-needs-note')]);
  const there = (await findFrame(tx, frame.id)) ?? frame;
  const after = onFrameAfter(there, trimChain(round, plan), round);
  const id = newId();
  await signOffs.insert(tx, {
    id,
    at: now,
    passed,
    verdict: verdictOf(aim.target, check.specs),
    onFrame: { dress: after.onIt, weights: after.weights },
    ...body,
  });
  // It is what the frame carries from now on: the next visit starts from it.
  await setOnFrame(tx, frame.id, after);
  return id;
}
