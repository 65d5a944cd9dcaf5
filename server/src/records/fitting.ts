import { programmeStanding, stateInFrame, type RoundReason, type RoundState } from '@kevro/core';
import type { Beside, BesideKey, Carried, FittingView, ProgrammeView, RoundView } from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';
import { aims } from './aim';
import { bedsOf } from './bed';
import { findFrame, framesOf } from './frame';
import { newId } from './id';
import { instrumentsNow } from './instrument';
import { findMeasurements, lastStanding, measurementsOfRounds } from './measurement';
import { findPlayer } from './player';
import { plans } from './plan';
import { programmesOf, type ProgrammeEvent, type ProgrammeRecord } from './programme';
import { sessionsOf } from './session';
import { signOffs } from './sign-off';
import { stepMarks } from './step-mark';

interface FittingRecord {
  id: string;
  playerId: string;
  openedAt: string;
  closedAt: string | null;
  closedHow: NonNullable<FittingView['closed']>['how'] | null;
  closedNote: string;
  parts: string[];
}
export const fittings = tableOf<FittingRecord>('fitting', {
  id: 'id',
  playerId: 'player_id',
  openedAt: 'opened_at',
  closedAt: 'closed_at',
  closedHow: 'closed_how',
  closedNote: 'closed_note',
  parts: 'parts',
});

export interface RoundRecord {
  id: string;
  fittingId: string;
  frameId: string;
  number: number;
  why: RoundReason;
  note: string;
  begunAt: string;
  startId: string | null;
  programmeId: string | null;
  onFrame: Carried | null;
  /** Made by the client, for a round that was begun with its plan: sent twice it is begun once. */
  key: string | null;
}
export const rounds = tableOf<RoundRecord>('round', {
  id: 'id',
  fittingId: 'fitting_id',
  frameId: 'frame_id',
  number: 'number',
  why: 'why',
  note: 'note',
  begunAt: 'begun_at',
  startId: 'start_id',
  programmeId: 'programme_id',
  onFrame: 'on_frame',
  key: 'key',
});

const frameIdsOf = async (db: Queries, fittingId: string): Promise<string[]> =>
  (
    await db.query<{ id: string }>(
      'select frame_id as id from fitting_frame where fitting_id = $1 order by position',
      [fittingId],
    )
  ).map(({ id }) => id);

/**
 * Begins the next round of a frame. It starts from what the frame was measured as last, as it stands; nothing where it never was.
 * @returns the round
 */
export async function beginRound(
  db: Queries,
  round: Pick<RoundRecord, 'fittingId' | 'frameId' | 'why' | 'note' | 'begunAt'> &
    Partial<Pick<RoundRecord, 'programmeId' | 'key'>>,
): Promise<RoundRecord> {
  const [last] = await rounds.find(
    db,
    'where fitting_id = $1 and frame_id = $2 order by number desc limit 1',
    [round.fittingId, round.frameId],
  );
  const start = await lastStanding(db, round.frameId);
  const frame = await findFrame(db, round.frameId);
  const stored = await rounds.insert(db, {
    id: newId(),
    number: (last?.number ?? 0) + 1,
    startId: start?.id ?? null,
    ...(frame ? { onFrame: { dress: frame.onIt, weights: frame.weights } } : {}),
    ...round,
  });
  return stored as RoundRecord;
}

/** Opens a fitting, with the first round of each frame. */
export async function openFitting(
  tx: Queries,
  { playerId, frameIds }: { playerId: string; frameIds: readonly string[] },
  openedAt: string,
  id = newId(),
): Promise<RoundRecord[]> {
  await fittings.insert(tx, { id, playerId, openedAt });
  const begun: RoundRecord[] = [];
  for (const [position, frameId] of frameIds.entries()) {
    await tx.query('insert into fitting_frame (fitting_id, frame_id, position) values ($1, $2, $3)', [
      id,
      frameId,
      position,
    ]);
    begun.push(await beginRound(tx, { fittingId: id, frameId, why: 'first', note: '', begunAt: openedAt }));
  }
  return begun;
}

/** The open fittings of a player and any of these frames. */
export const openFittingsOf = (
  db: Queries,
  playerId: string,
  frameIds: readonly string[],
): Promise<{ id: string; player: string; frame: string }[]> =>
  db.query(
    `select f.id, p.name as player, frame.tag as frame from fitting f join player p on p.id = f.player_id
       join fitting_frame ff on ff.fitting_id = f.id join frame on frame.id = ff.frame_id
     where f.closed_at is null and f.player_id = $1 and ff.frame_id = any($2) order by f.seq desc`,
    [playerId, frameIds],
  );

/** Gives a fitting another player and other frames. A frame that is new to it begins its first round; one that goes takes its empty round along. */
export async function changeFitting(
  tx: Queries,
  { id, frames }: Pick<FittingView, 'id' | 'frames'>,
  { playerId, frameIds }: { playerId: string; frameIds: readonly string[] },
  now: string,
): Promise<void> {
  await fittings.change(tx, { playerId }, 'id = $1', id);
  const before = frames.map(({ frame }) => frame.id);
  const gone = before.filter((frameId) => !frameIds.includes(frameId));
  await tx.query('delete from round where fitting_id = $1 and frame_id = any($2)', [id, gone]);
  await tx.query('delete from fitting_frame where fitting_id = $1', [id]);
  for (const [position, frameId] of frameIds.entries()) {
    await tx.query('insert into fitting_frame (fitting_id, frame_id, position) values ($1, $2, $3)', [
      id,
      frameId,
      position,
    ]);
    if (!before.includes(frameId)) {
      await beginRound(tx, { fittingId: id, frameId, why: 'first', note: '', begunAt: now });
    }
  }
}

/** Takes away a fitting in which nothing was stored. */
export async function removeFitting(tx: Queries, id: string): Promise<void> {
  for (const table of ['fitting_reference', 'fitting_beside', 'round', 'fitting_frame']) {
    await tx.query(`delete from ${table} where fitting_id = $1`, [id]);
  }
  await tx.query('delete from fitting where id = $1', [id]);
}

export async function referencesOf(db: Queries, fittingId: string): Promise<string[]> {
  const rows = await db.query<{ id: string }>(
    'select setup_id as id from fitting_reference where fitting_id = $1 order by position',
    [fittingId],
  );
  return rows.map(({ id }) => id);
}

export async function setReferences(
  db: Queries,
  fittingId: string,
  setupIds: readonly string[],
): Promise<void> {
  await db.query('delete from fitting_reference where fitting_id = $1', [fittingId]);
  for (const [position, setupId] of setupIds.entries()) {
    await db.query('insert into fitting_reference (fitting_id, setup_id, position) values ($1, $2, $3)', [
      fittingId,
      setupId,
      position,
    ]);
  }
}

export async function setBeside(db: Queries, fittingId: string, list: readonly BesideKey[]): Promise<void> {
  await db.query('delete from fitting_beside where fitting_id = $1', [fittingId]);
  await db.query(
    `insert into fitting_beside (fitting_id, position, what)
     select $1, position, what from jsonb_array_elements($2::jsonb) with ordinality as x (what, position)`,
    [fittingId, JSON.stringify(list)],
  );
}

/** What stands beside a fitting's frame, with the numbers of what was measured. */
async function besideOf(db: Queries, fittingId: string, own: readonly RoundRecord[]): Promise<Beside[]> {
  const rows = await db.query<{ what: BesideKey }>(
    'select what from fitting_beside where fitting_id = $1 order by position',
    [fittingId],
  );
  const ids = rows.flatMap(({ what }) => (what.kind === 'measured' ? [what.measurementId] : []));
  const measured = await findMeasurements(db, ids);
  const frames = await framesOf(db, [...new Set(measured.map(({ frameId }) => frameId))]);
  return rows.flatMap(({ what }): Beside[] => {
    if (what.kind !== 'measured') return [what];
    const measurement = measured.find(({ id }) => id === what.measurementId);
    const found = frames.find(({ id }) => id === measurement?.frameId);
    if (!measurement || !found) return [];
    const { id, tag, maker, model, shape } = found;
    const round = own.find((one) => one.id === measurement.roundId)?.number ?? null;
    return [{ ...what, frame: { id, tag, maker, model, shape }, measurement, round }];
  });
}

/** A round's state as it is answered: what is not there is null. */
const answeredState = ({ next, aimId, planId, ...state }: RoundState): RoundView['state'] => ({
  ...state,
  next: next ?? null,
  aimId: aimId ?? null,
  planId: planId ?? null,
});

type ProgrammesOf = Awaited<ReturnType<typeof programmesOf>>;
/** What the state of rounds depends on, beside their own records. */
interface RoundCase {
  compared: boolean;
  now: string;
  closed: boolean;
  programmes: ProgrammesOf;
}

/** Rounds with all that belongs to them, read together. */
async function viewsOf(
  db: Queries,
  list: readonly RoundRecord[],
  { compared, now, closed, programmes }: RoundCase,
): Promise<RoundView[]> {
  const ids = list.map(({ id }) => id);
  const of = 'where round_id = any($1) order by seq';
  const [aimed, planned, own, starts, sessions] = await Promise.all([
    aims.find(db, of, [ids]),
    plans.find(db, of, [ids]),
    measurementsOfRounds(db, ids),
    findMeasurements(
      db,
      list.flatMap(({ startId }) => startId ?? []),
    ),
    sessionsOf(db, ids),
  ]);
  const ofPlans = 'where plan_id = any($1) order by seq';
  const planIds = planned.map(({ id }) => id);
  const [marks, signed] = await Promise.all([
    stepMarks.find(db, ofPlans, [planIds]),
    signOffs.find(db, ofPlans, [planIds]),
  ]);
  const read = list.map(({ fittingId: _, key: ___, ...round }) => {
    const ofRound = <T extends { roundId: string | null }>(all: T[]): T[] =>
      all.filter(({ roundId }) => roundId === round.id);
    const roundPlans = ofRound(planned);
    const ofPlan = <T extends { planId: string }>(all: T[]): T[] =>
      all.filter(({ planId }) => roundPlans.some(({ id }) => id === planId));
    const begun = starts.filter(({ id, roundId }) => id === round.startId && roundId !== round.id);
    return {
      ...round,
      measurements: [...begun, ...ofRound(own)],
      aims: ofRound(aimed),
      plans: roundPlans,
      marks: ofPlan(marks),
      signOffs: ofPlan(signed).map(({ key: __, ...signOff }) => signOff),
      sessions: ofRound(sessions),
    };
  });
  return read.map((round): RoundView => {
    const rounds = read.filter(({ frameId }) => frameId === round.frameId);
    const ofFrame = programmes.filter(({ programme }) => programme.frameId === round.frameId);
    const frame = { rounds, programmes: ofFrame.map(({ programme, events }) => ({ ...programme, events })) };
    // What a programme says holds in the round that its frame is in now.
    const on = round === rounds.at(-1) ? { frame, roundId: round.id } : undefined;
    return { ...round, state: answeredState(stateInFrame({ ...round, compared }, on, now, closed)) };
  });
}

/** A fitting with all its rounds; undefined where there is none. */
export async function findFitting(db: Queries, id: string, now: string): Promise<FittingView | undefined> {
  const [fitting] = await fittings.find(db, 'where id = $1', [id]);
  if (!fitting) return undefined;
  const [player, frameIds, references, begun, ofFitting, instruments] = await Promise.all([
    findPlayer(db, fitting.playerId),
    frameIdsOf(db, id),
    referencesOf(db, id),
    rounds.find(db, 'where fitting_id = $1 order by number', [id]),
    programmesOf(db, id),
    instrumentsNow(db),
  ]);
  const [frames, beside, beds] = await Promise.all([
    framesOf(db, frameIds),
    besideOf(db, id, begun),
    bedsOf(db, frameIds, now),
  ]);
  if (!player) throw new Error(`fitting ${id} has lost its player`);
  const { closedAt, closedHow, closedNote, openedAt, parts } = fitting;
  const closed = closedAt && closedHow ? { at: closedAt, how: closedHow, note: closedNote } : null;
  const views = await viewsOf(db, begun, {
    compared: references.length + beside.length > 0,
    now,
    closed: closed !== null,
    programmes: ofFitting,
  });
  return {
    id,
    openedAt,
    closed,
    player,
    references,
    parts,
    instruments,
    beside,
    frames: frameIds.flatMap((frameId) => {
      const frame = frames.find((f) => f.id === frameId);
      if (!frame) return [];
      const own = views.filter((round) => round.frameId === frameId);
      const list = ofFitting.filter(({ programme }) => programme.frameId === frameId);
      const told = list.map(({ programme, events }) => programmeView(programme, events, own));
      const bed = beds.find((one) => one.frameId === frameId) ?? null;
      return [{ frame, bed, rounds: own, programmes: told }];
    }),
  };
}

/** What hangs on each frame of a fitting beside its rounds and programmes: links for the player. And the follow-ups that were set for it. */
export async function hangingOn(
  db: Queries,
  fittingId: string,
): Promise<{ linksOf: (frameId: string) => number; followUps: number }> {
  const links = await db.query<{ frameId: string; n: number }>(
    `select r.frame_id as "frameId", count(*) as n from session_link l join round r on r.id = l.round_id
     where r.fitting_id = $1 group by r.frame_id`,
    [fittingId],
  );
  const [followUps] = await db.query<{ n: number }>(
    'select count(*) as n from look_again where fitting_id = $1',
    [fittingId],
  );
  return {
    linksOf: (frameId) => links.find((row) => row.frameId === frameId)?.n ?? 0,
    followUps: followUps?.n ?? 0,
  };
}

/** A programme as a fitting shows it: how it stands. Its next step is worked out where somebody looks at it. */
function programmeView(
  { key: _, fittingId: __, frameId: ___, there: ____, ...programme }: ProgrammeRecord,
  events: readonly ProgrammeEvent[],
  rounds: readonly RoundView[],
): ProgrammeView {
  const { state, sessions } = programmeStanding({ ...programme, events }, rounds);
  return {
    ...programme,
    state,
    sessions,
    events: events.map(({ programmeId: _____, sessions: ______, ...event }) => event),
  };
}
