import {
  programmeTraits,
  programmesOf,
  countedSessions,
  settleFrame,
  sportData,
  suggestProgramme,
  zoneChanges,
  type Programme,
} from '@kevro/core';
import {
  growingIn,
  zoneChangeWords,
  type FittingView,
  type ActBodyOf,
  type FrameRecord,
  type Measurement,
  type ProgrammeOutlook,
  type ProgrammeView,
  type ReadBodyOf,
  type RoundView,
} from '@kevro/contract';
import type { Queries } from '../db/db';
import { ApiProblem, badInput, wrongAt } from '../problem';
import { newId } from '../records/id';
import { lastStanding } from '../records/measurement';
import { addLookAgain } from '../records/look-again';
import { listParts } from '../records/part';
import { setCeiling } from '../records/player';
import { programmeEvents, programmes, type ProgrammeRecord } from '../records/programme';
import { theShop, yearOf, type Moment } from '../records/shop';
import { outlookCase } from './outlook';
import { isStep, layOut, programmeOutlook, wasSoreIn, type OutlookCase } from './programmes';
import { beginWithPlan, entryOf, startOf, type Entry } from './begin-with-plan';

const programmeIn = (
  fitting: FittingView,
  id: string,
): Entry & { round: RoundView; programme: ProgrammeView } => {
  const entry = entryOf(fitting, ({ programmes: list }) => list.some((p) => p.id === id), 'programmeId');
  const programme = entry.programmes.find((p) => p.id === id) as ProgrammeView;
  if (programme.state === 'ended') throw new ApiProblem('programme-over');
  return { ...entry, programme };
};

/** A programme as it stands when it is begun on a frame. */
const asBegun = (
  fitting: FittingView,
  { frame, round }: Pick<Entry, 'frame'> & { round: RoundView },
  start: Measurement,
  said: Pick<ProgrammeRecord, 'id' | 'key' | 'name' | 'towards' | 'happiest' | 'note' | 'by' | 'begunAt'>,
): ProgrammeRecord => ({
  ...said,
  fittingId: fitting.id,
  frameId: frame.id,
  roundId: round.id,
  // What came before the arm was well, or before more was tried all the same, is no answer to it.
  sessionsBefore: wasSoreIn(fitting) ? round.sessions.length : 0,
  startId: start.id,
  there: zoneChanges(settleFrame(frame.shape), { placements: frame.weights, removals: [] }),
});

/** What follows from the last session of a frame on which no programme goes on: that which suits it, as if it was begun now. */
export async function answerCase(
  db: Queries,
  fitting: FittingView,
  frameId: string,
  moment: Moment,
): Promise<{ programme: Programme | null; case?: OutlookCase }> {
  const entry = fitting.frames.find(({ frame }) => frame.id === frameId);
  const round = entry?.rounds.at(-1);
  if (!entry || !round) throw new ApiProblem('not-found');
  const last = countedSessions(round.sessions).at(-1);
  const { player } = fitting;
  if (!last || entry.programmes.some(({ state }) => state !== 'ended')) return { programme: null };
  const name = suggestProgramme({
    last,
    growing: growingIn(yearOf(moment), player),
    soreArm: player.bothers.includes('sore-arm'),
    ceilingKnown: player.ceilings[entry.frame.shape.sport] !== undefined,
    strung: entry.bed !== null,
  });
  const start = await lastStanding(db, frameId);
  // Half the way goes toward a frame that nobody named yet.
  if (!start || programmeTraits(name).needsTarget) return { programme: name };
  const said = {
    id: '',
    key: '',
    name,
    towards: null,
    happiest: null,
    note: '',
    by: '',
    begunAt: moment.now,
  };
  const programme = asBegun(fitting, { ...entry, round }, start, said);
  const parts = (await listParts(db)).filter(({ retired }) => !retired).map(({ part }) => part);
  const { frame, rounds, bed } = entry;
  return {
    programme: name,
    case: { frame, rounds, start, standing: start, programme, events: [], parts, bed },
  };
}

/** Begins a programme on a frame; another one of it ends. */
export async function beginProgramme(
  tx: Queries,
  fitting: FittingView,
  { key, frameId, name, towards, happiest, note, by }: ReadBodyOf<'beginProgramme'>,
  { now }: Moment,
): Promise<string> {
  const {
    frame,
    round,
    programmes: list,
  } = entryOf(fitting, (entry) => entry.frame.id === frameId, 'frameId');
  const start = await lastStanding(tx, frameId);
  if (!start) throw new ApiProblem('nothing-measured');
  const traits = programmeTraits(name);
  if (wasSoreIn(fitting) && !traits.lightens && note === '')
    throw badInput([wrongAt('note', 'note-for-sore')]);
  if (traits.needsTarget && !towards) throw badInput([wrongAt('towards', 'missing')]);
  if (!programmesOf(frame.shape.sport).includes(name)) throw badInput([wrongAt('name', 'no-strings')]);
  for (const other of list)
    if (other.state !== 'ended') await addEvent(tx, other, { what: 'end', note: '', by, day: null }, now);
  const id = newId();
  const said = { id, key, name, towards, happiest, note, by, begunAt: now };
  await programmes.insert(tx, asBegun(fitting, { frame, round }, start, said));
  return id;
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
  next: ProgrammeOutlook['next'],
  day: string,
): Promise<void> {
  if (!next?.ceiling) return;
  const { sport } = frame.shape;
  const { swingWeight, uncertainty } = next.ceiling;
  await setCeiling(tx, fitting.player.id, sport, {
    swingWeight: Number(swingWeight.toFixed(sportData(sport).decimals.swingWeight)),
    uncertainty,
    on: day,
  });
}

const outlookOf = async (
  tx: Queries,
  fitting: FittingView,
  { id }: ProgrammeView,
): Promise<ProgrammeOutlook['next']> => {
  const found = await outlookCase(tx, fitting, id);
  return found ? programmeOutlook(found).next : null;
};

/** Takes the next step of a programme, or another one: a round of its own, ready for the bench. @returns the round */
export async function takeStep(
  tx: Queries,
  fitting: FittingView,
  body: ReadBodyOf<'takeStep'>,
  moment: Moment,
): Promise<string> {
  const { now, day } = moment;
  const { frame, rounds: list, round, bed, programme } = programmeIn(fitting, body.programmeId);
  if (body.change && programmeTraits(programme.name).changesStrings)
    throw badInput([wrongAt('change', 'one-lever')]);
  if (programme.sessions !== body.sessions) throw new ApiProblem('step-outdated');
  if (body.change && body.note === '') throw badInput([wrongAt('note', 'note-for-own-step')]);
  const next = await outlookOf(tx, fitting, programme);
  const step = body.change ? { change: body.change } : next;
  if (!step || !isStep(step)) throw new ApiProblem('no-step');
  const from = await startOf(tx, round);
  const usable = (await listParts(tx)).filter(({ retired }) => !retired).map(({ part }) => part);
  const { short, specs: _, job: __, ...laid } = layOut(frame, list, from, step, bed, usable);
  if (short.length > 0)
    throw new ApiProblem('step-short', [], {
      what: zoneChangeWords(short, (await theShop(tx)).partUnit),
    });
  const said = body.change ? zoneChangeWords(body.change) : (next?.sentence ?? '');
  const begun = await beginWithPlan(
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
    moment,
  );
  const what = body.change ? 'own-step' : 'step';
  await addEvent(tx, programme, { what, note: body.note, by: body.by, day: null }, now);
  if (body.change || !next) return begun;
  await writeCeiling(tx, fitting, frame, next, day);
  // What was found, or was too much, is taken back in this step: there is no next one.
  if (next.state !== 'go-on' && !programmeTraits(programme.name).asksForDay)
    await addEvent(tx, programme, { what: 'end', note: '', by: body.by, day: null }, now);
  return begun;
}

export async function actOnProgramme(
  tx: Queries,
  fitting: FittingView,
  { programmeId, act, day, lookAgainOn, note, by }: ActBodyOf<'actOnProgramme'>,
  { now, day: today }: Moment,
): Promise<undefined> {
  const { frame, programme } = programmeIn(fitting, programmeId);
  if (act === 'day' && !day) throw badInput([wrongAt('day', 'missing')]);
  // As it was before it ends.
  const next = act === 'end' ? await outlookOf(tx, fitting, programme) : null;
  await addEvent(tx, programme, { what: act, note, by, day: day ?? null }, now);
  if (act !== 'end') return undefined;
  if (next?.state === 'done') await writeCeiling(tx, fitting, frame, next, today);
  if (lookAgainOn)
    await addLookAgain(
      tx,
      {
        playerId: fitting.player.id,
        fittingId: fitting.id,
        dueOn: lookAgainOn,
        why: programmeTraits(programme.name).lookAgainWhy,
        note,
      },
      now,
    );
  return undefined;
}
