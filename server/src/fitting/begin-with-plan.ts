import {
  buildOf,
  guardsOf,
  instrumentsAfter,
  judgedSport,
  measuredWith,
  partWay,
  renewedSince,
  settleFrame,
  unansweredGuards,
  withOwn,
  type Change,
} from '@kevro/core';
import {
  growingIn,
  guardSentence,
  guardedPlayer,
  type FittingView,
  type FrameRecord,
  type Measurement,
  type PartRecord,
  type RoundView,
} from '@kevro/contract';
import type { Queries } from '../db/db';
import { ApiProblem, badInput, notFoundAt } from '../problem';
import { aims } from '../records/aim';
import { beginRound } from '../records/fitting';
import { newId } from '../records/id';
import { instrumentsNow } from '../records/instrument';
import { lastStanding } from '../records/measurement';
import { plans } from '../records/plan';
import { theShop, yearOf, type Moment } from '../records/shop';
import { planRow, settleMinutesOf } from './plan-row';

export type Entry = FittingView['frames'][number];

/** The frame of an open fitting, with the round that it is in. @throws ApiProblem */
export function entryOf(
  fitting: FittingView,
  found: (entry: Entry) => boolean,
  path: string,
): Entry & { round: RoundView } {
  if (fitting.closed) throw new ApiProblem('fitting-closed');
  const entry = fitting.frames.find(found);
  const round = entry?.rounds.at(-1);
  if (!entry || !round) throw badInput([notFoundAt(path)]);
  return { ...entry, round };
}
interface Begun {
  fitting: FittingView;
  frame: FrameRecord;
  from: Measurement;
  why: 'programme' | 'back';
  /** What the round is for; and why a guard is gone past, where the fitter said so. */
  note: string;
  reason: string;
  by: string;
  key: string;
  programmeId: string | null;
  change: Omit<Change, 'parts'> & { parts: readonly PartRecord[] };
}
/** Begins a round with its aim and its plan, ready for the bench. @returns the round */
export async function beginWithPlan(tx: Queries, begun: Begun, moment: Moment): Promise<string> {
  const { now } = moment;
  const { fitting, frame, from, why, note, reason, by, key, programmeId, change } = begun;
  const settled = settleFrame(frame.shape);
  const { sport } = frame.shape;
  const year = yearOf(moment);
  const { sports, wantedChance } = await theShop(tx);
  const own = sports[sport];
  const renewed = renewedSince(from.how, await instrumentsNow(tx));
  const ownSport = withOwn(settled.sport, own);
  const instruments = instrumentsAfter(ownSport, measuredWith(from), renewed);
  const build = buildOf(settled, from.specs, from.dress, change, instruments);
  // What the plan gives is what it is aimed at.
  const target = partWay(judgedSport(ownSport, build), from.specs, build.after, 1);
  // As at Aim: what speaks strongly against it is gone past only with a reason.
  const guards = guardsOf({
    shape: frame.shape,
    specs: from.specs,
    dress: from.dress,
    target,
    player: guardedPlayer(fitting.player, sport, year),
    own,
  });
  const strong = unansweredGuards(guards, {});
  if (strong.length > 0 && reason === '') {
    const message = strong.map((guard) => guardSentence(guard, fitting.player.name)).join(' ');
    throw new ApiProblem('guard-unanswered', [{ path: 'note', code: 'guard-unanswered', message }]);
  }
  const round = await beginRound(tx, {
    fittingId: fitting.id,
    frameId: frame.id,
    why,
    note,
    begunAt: now,
    programmeId,
    key,
  });
  const aim = await aims.insert(tx, {
    id: newId(),
    createdAt: now,
    roundId: round.id,
    way: why,
    setupId: null,
    source: {},
    note,
    target,
    guards: strong.map(({ code }) => ({ code, note: reason })),
    by,
  });
  if (!aim) throw new Error('the aim was not stored');
  await plans.insert(
    tx,
    planRow({
      frame,
      from,
      aim,
      change,
      school: 'free',
      byHand: true,
      bench: {
        child: growingIn(year, fitting.player),
        settleMinutes: settleMinutesOf(own),
      },
      now,
      wanted: wantedChance,
      renewed,
    }),
  );
  return round.id;
}

/** The measurement that new work starts from: the one that a new round starts from too. @throws ApiProblem where the round is in the middle of something */
export async function startOf(tx: Queries, { state, frameId }: RoundView): Promise<Measurement> {
  if (state.planId && state.stations.check !== 'done') throw new ApiProblem('check-first');
  const from = await lastStanding(tx, frameId);
  if (!from) throw new ApiProblem('nothing-measured');
  return from;
}
