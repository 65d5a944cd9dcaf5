import {
  SPEC_KEYS,
  backTo,
  changeOutcome,
  guardsOf,
  settleFrame,
  unansweredGuards,
  sportData,
  withOwn,
  zoneChanges,
  type Aim,
  type AxisSpecs,
  type Change,
  type SportData,
} from '@kevro/core';
import {
  growingIn,
  guardSentence,
  guardedPlayer,
  zoneChangeWords,
  type FittingView,
  type FrameRecord,
  type Measurement,
  type PartRecord,
  type ProgrammeView,
  type ReadBodyOf,
  type RoundView,
} from '@kevro/contract';
import type { Queries } from '../db/db';
import { ApiProblem, badInput, notFoundAt, wrongAt } from '../problem';
import { aims } from '../records/aim';
import { beginRound, rounds } from '../records/fitting';
import { newId } from '../records/id';
import { addLookAgain } from '../records/look-again';
import { listParts, partsOf } from '../records/part';
import { setCeiling } from '../records/player';
import { plans } from '../records/plan';
import { programmeEvents, programmes } from '../records/programme';
import { theShop } from '../records/shop';
import { layOut, standingOf } from './programmes';
import { planRow } from './plan-row';

type Entry = FittingView['frames'][number];

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
export const programmeIn = (
  fitting: FittingView,
  id: string,
): Entry & { round: RoundView; programme: ProgrammeView } => {
  const entry = entryOf(fitting, ({ programmes: list }) => list.some((p) => p.id === id), 'programmeId');
  const programme = entry.programmes.find((p) => p.id === id) as ProgrammeView;
  if (programme.state === 'ended') throw new ApiProblem('programme-over');
  return { ...entry, programme };
};

/** What an aim is at that comes from a plan: what the plan gives, as near as the sport works. */
function aimAt({ tolerance, decimals }: SportData, specs: AxisSpecs): Aim {
  return Object.fromEntries(
    SPEC_KEYS.flatMap((key) => {
      const value = specs[key];
      if (value === undefined) return [];
      const rounded = Number(value.toFixed(decimals[key] + 1));
      return [[key, { value: rounded, tolerance: tolerance[key], priority: 'want' as const }]];
    }),
  );
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
/** Begins a round with its aim and its plan, ready for the bench. */
async function beginWithPlan(tx: Queries, begun: Begun, now: string): Promise<void> {
  const { fitting, frame, from, why, note, reason, by, key, programmeId, change } = begun;
  const settled = settleFrame(frame.shape);
  const { specs } = changeOutcome(settled, from.specs, from.dress, change);
  const { sport } = frame.shape;
  const year = Number(now.slice(0, 4));
  const own = (await theShop(tx)).sports[sport];
  const target = aimAt(withOwn(settled.sport, own), specs);
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
  if (!aim) return;
  await plans.insert(
    tx,
    planRow({
      frame,
      from,
      aim,
      change,
      school: 'free',
      byHand: true,
      bench: { child: growingIn(year, fitting.player) },
      now,
    }),
  );
}

const begunAlready = async (tx: Queries, key: string): Promise<boolean> =>
  (await rounds.find(tx, 'where key = $1', [key])).length > 0;

/** The measurement that new work starts from. @throws ApiProblem where the round is in the middle of something */
function startOf(round: RoundView): Measurement {
  const { state } = round;
  if (state.planId && state.stations.check !== 'done') throw new ApiProblem('check-first');
  const from = standingOf(round);
  if (!from) throw new ApiProblem('nothing-measured');
  return from;
}

/** Begins a programme on a frame; another one of it ends. */
export async function beginProgramme(
  tx: Queries,
  fitting: FittingView,
  { key, frameId, name, towards, note, by }: ReadBodyOf<'beginProgramme'>,
  now: string,
): Promise<void> {
  const {
    frame,
    round,
    programmes: list,
  } = entryOf(fitting, (entry) => entry.frame.id === frameId, 'frameId');
  if ((await programmes.find(tx, 'where key = $1', [key])).length > 0) return;
  const start = standingOf(round);
  if (!start) throw new ApiProblem('nothing-measured');
  const comesBack = name === 'after-sore-arm' || name === 'trim-evenly';
  const wasSore = fitting.frames.some(
    (entry) =>
      entry.rounds.flatMap(({ sessions }) => sessions).findLast(({ counts }) => counts)?.arm === 'sore',
  );
  if (wasSore && !comesBack && note === '') throw badInput([wrongAt('note', 'note-for-sore')]);
  if (name === 'half-way' && !towards) throw badInput([wrongAt('towards', 'missing')]);
  for (const other of list)
    if (other.state !== 'ended') await addEvent(tx, other, { what: 'end', note: '', by, day: null }, now);
  await programmes.insert(tx, {
    id: newId(),
    key,
    fittingId: fitting.id,
    frameId,
    name,
    begunAt: now,
    roundId: round.id,
    // What came before the arm was well, or before more was tried all the same, is no answer to it.
    sessionsBefore: wasSore ? round.sessions.length : 0,
    startId: start.id,
    towards,
    there: zoneChanges(settleFrame(frame.shape), { placements: frame.weights, removals: [] }),
    note,
    by,
  });
}

const addEvent = (
  tx: Queries,
  { id, sessions }: Pick<ProgrammeView, 'id' | 'sessions'>,
  event: Pick<ProgrammeView['events'][number], 'what' | 'note' | 'by' | 'day'>,
  at: string,
): Promise<unknown> => programmeEvents.insert(tx, { programmeId: id, sessions, at, ...event });

/** The ceiling that a programme found is the player's from then on, with how well it is known. */
async function writeCeiling(
  tx: Queries,
  fitting: FittingView,
  frame: FrameRecord,
  { next }: ProgrammeView,
  now: string,
): Promise<void> {
  if (!next?.ceiling) return;
  const { sport } = frame.shape;
  const { swingWeight, uncertainty } = next.ceiling;
  await setCeiling(tx, fitting.player.id, sport, {
    swingWeight: Number(swingWeight.toFixed(sportData(sport).decimals.swingWeight)),
    uncertainty,
    on: now.slice(0, 10),
  });
}

/** Takes the next step of a programme, or another one: a round of its own, ready for the bench. */
export async function takeStep(
  tx: Queries,
  fitting: FittingView,
  body: ReadBodyOf<'takeStep'>,
  now: string,
): Promise<void> {
  if (await begunAlready(tx, body.key)) return;
  const { frame, rounds: list, round, programme } = programmeIn(fitting, body.programmeId);
  const { next } = programme;
  if (programme.sessions !== body.sessions) throw new ApiProblem('step-outdated');
  if (body.change && body.note === '') throw badInput([wrongAt('note', 'note-for-own-step')]);
  const change = body.change ?? next?.change ?? [];
  if (change.length === 0) throw new ApiProblem('no-step');
  const from = startOf(round);
  const usable = (await listParts(tx)).filter(({ retired }) => !retired).map(({ part }) => part);
  const { short, specs: _, ...laid } = layOut(frame, list, from, change, usable);
  if (short.length > 0) throw new ApiProblem('step-short', [], { what: zoneChangeWords(short) });
  const said = body.change ? zoneChangeWords(change) : (next?.sentence ?? '');
  await beginWithPlan(
    tx,
    {
      fitting,
      frame,
      from,
      why: 'programme',
      note: [said, body.note].filter(Boolean).join(' '),
      reason: body.note,
      by: body.by,
      key: body.key,
      programmeId: programme.id,
      change: laid,
    },
    now,
  );
  const what = body.change ? 'own-step' : 'step';
  await addEvent(tx, programme, { what, note: body.note, by: body.by, day: null }, now);
  if (body.change || !next) return;
  await writeCeiling(tx, fitting, frame, programme, now);
  // What was found, or was too much, is taken back in this step: there is no next one.
  if (next.state !== 'go-on' && programme.name !== 'hot-cold')
    await addEvent(tx, programme, { what: 'end', note: '', by: body.by, day: null }, now);
}

export async function actOnProgramme(
  tx: Queries,
  fitting: FittingView,
  { programmeId, act, day, lookAgainOn, note, by }: ReadBodyOf<'actOnProgramme'>,
  now: string,
): Promise<void> {
  const { frame, programme } = programmeIn(fitting, programmeId);
  if (act === 'day' && !day) throw badInput([wrongAt('day', 'missing')]);
  await addEvent(tx, programme, { what: act, note, by, day: day ?? null }, now);
  if (act !== 'end') return;
  if (programme.next?.state === 'done') await writeCeiling(tx, fitting, frame, programme, now);
  if (lookAgainOn)
    await addLookAgain(
      tx,
      {
        playerId: fitting.player.id,
        fittingId: fitting.id,
        dueOn: lookAgainOn,
        why: programme.name === 'half-way' ? 'growing' : 'programme',
        note,
      },
      now,
    );
}

/** Back to what was on a frame earlier: a round whose plan takes off what is new and puts on what has gone. */
export async function goBack(
  tx: Queries,
  fitting: FittingView,
  { key, frameId, toRoundId, which, note, by }: ReadBodyOf<'goBack'>,
  now: string,
): Promise<void> {
  if (await begunAlready(tx, key)) return;
  const { frame, round, rounds: list } = entryOf(fitting, (entry) => entry.frame.id === frameId, 'frameId');
  const to = list.find(({ id }) => id === toRoundId);
  if (!to) throw badInput([notFoundAt('toRoundId')]);
  const then = which === 'found' ? to.onFrame : (to.signOffs.at(-1)?.onFrame ?? null);
  if (!then) throw new ApiProblem('nothing-kept');
  const from = startOf(round);
  const way = backTo({ dress: frame.onIt, weights: frame.weights }, then);
  if (way.placements.length + way.removals.length + way.swaps.length === 0)
    throw new ApiProblem('nothing-to-go-back');
  const ids = [...way.placements, ...way.removals.map(({ of }) => of)].map(({ partId }) => partId);
  const parts = await partsOf(tx, [...new Set(ids)]);
  const unknown = way.placements.filter(({ partId }) => !parts.some(({ id }) => id === partId));
  if (unknown.length > 0)
    throw new ApiProblem('step-short', [], {
      what: zoneChangeWords(zoneChanges(settleFrame(frame.shape), { placements: unknown, removals: [] })),
    });
  const words = which === 'found' ? `as round ${to.number} found it` : `the build of round ${to.number}`;
  await beginWithPlan(
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
    now,
  );
}
