import { programmeState, roundState, type RoundRecords, type RoundReason } from '@kevro/core';
import type { Beside, BesideKey, Carried, FittingView, RoundView } from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';
import { aims } from './aim';
import { findFrame, framesOf } from './frame';
import { newId } from './id';
import { findMeasurements, lastStanding, measurementsOfRounds } from './measurement';
import { findPlayer } from './player';
import { plans } from './plan';
import { programmesOf } from './programme';
import { listParts } from './part';
import { programmeView, sessionsSince } from '../fitting/programmes';
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
}
export const fittings = tableOf<FittingRecord>('fitting', {
  id: 'id',
  playerId: 'player_id',
  openedAt: 'opened_at',
  closedAt: 'closed_at',
  closedHow: 'closed_how',
  closedNote: 'closed_note',
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

/** A round's state as it is told: what is not there is null. */
function stateOf(records: RoundRecords, now: string, closed: boolean): RoundView['state'] {
  const { next, aimId, planId, ...state } = roundState(records, now, closed);
  return { ...state, next: next ?? null, aimId: aimId ?? null, planId: planId ?? null };
}

/** Records without the sessions that were noted by mistake. */
const counted = <T extends { sessions: RoundView['sessions'] }>(records: T): T => ({
  ...records,
  sessions: records.sessions.filter(({ counts }) => counts),
});

type ProgrammesOf = Awaited<ReturnType<typeof programmesOf>>;
/** What the state of rounds depends on, beside their own records. */
interface RoundCase {
  compared: boolean;
  now: string;
  closed: boolean;
  programmes: ProgrammesOf;
}

/** The programme that goes on on a frame: in its last round it says what is next. Sessions are counted from the round in which it began. */
function runningIn(list: readonly RoundView[], programmes: ProgrammesOf): RoundRecords['programme'] {
  for (const { programme, events } of programmes) {
    if (!list.some(({ id }) => id === programme.roundId)) continue;
    const { state, onceMore } = programmeState(events, sessionsSince(programme, list));
    const last = list.at(-1);
    // Sessions that came before it began are no answer to it.
    const own =
      last?.id === programme.roundId
        ? counted({ sessions: last.sessions.slice(programme.sessionsBefore) })
        : undefined;
    if (state === 'running') return { onceMore: onceMore || own?.sessions.length === 0 };
  }
  return undefined;
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
  const views = list.map(({ fittingId: _, key: ___, ...round }): RoundView => {
    const ofRound = <T extends { roundId: string | null }>(all: T[]): T[] =>
      all.filter(({ roundId }) => roundId === round.id);
    const roundPlans = ofRound(planned);
    const ofPlan = <T extends { planId: string }>(all: T[]): T[] =>
      all.filter(({ planId }) => roundPlans.some(({ id }) => id === planId));
    const begun = starts.filter(({ id, roundId }) => id === round.startId && roundId !== round.id);
    const records = {
      measurements: [...begun, ...ofRound(own)],
      aims: ofRound(aimed),
      plans: roundPlans,
      marks: ofPlan(marks),
      signOffs: ofPlan(signed).map(({ key: __, ...signOff }) => signOff),
      sessions: ofRound(sessions),
    };
    return {
      ...round,
      ...records,
      state: stateOf({ ...counted(records), startId: round.startId, compared }, now, closed),
    };
  });
  // What a programme says holds in the round that a frame is in now.
  for (const frameId of new Set(views.map((round) => round.frameId))) {
    const own = views.filter((round) => round.frameId === frameId);
    const programme = runningIn(own, programmes);
    const last = own.at(-1);
    if (programme && last)
      last.state = stateOf({ ...counted(last), startId: last.startId, compared, programme }, now, closed);
  }
  return views;
}

/** A fitting with all its rounds; undefined where there is none. */
export async function findFitting(db: Queries, id: string, now: string): Promise<FittingView | undefined> {
  const [fitting] = await fittings.find(db, 'where id = $1', [id]);
  if (!fitting) return undefined;
  const [player, frameIds, references, begun, ofFitting] = await Promise.all([
    findPlayer(db, fitting.playerId),
    frameIdsOf(db, id),
    referencesOf(db, id),
    rounds.find(db, 'where fitting_id = $1 order by number', [id]),
    programmesOf(db, id),
  ]);
  const [frames, beside] = await Promise.all([framesOf(db, frameIds), besideOf(db, id, begun)]);
  if (!player) throw new Error(`fitting ${id} has lost its player`);
  const { closedAt, closedHow, closedNote, openedAt } = fitting;
  const closed = closedAt && closedHow ? { at: closedAt, how: closedHow, note: closedNote } : null;
  const views = await viewsOf(db, begun, {
    compared: references.length + beside.length > 0,
    now,
    closed: closed !== null,
    programmes: ofFitting,
  });
  const [starts, parts, standing] =
    ofFitting.length > 0
      ? await Promise.all([
          findMeasurements(
            db,
            ofFitting.map(({ programme }) => programme.startId),
          ),
          listParts(db),
          Promise.all(frameIds.map((frameId) => lastStanding(db, frameId))),
        ])
      : [[], [], []];
  const usable = parts.filter(({ retired }) => !retired).map(({ part }) => part);
  return {
    id,
    openedAt,
    closed,
    player,
    references,
    beside,
    frames: frameIds.flatMap((frameId) => {
      const frame = frames.find((f) => f.id === frameId);
      if (!frame) return [];
      const own = views.filter((round) => round.frameId === frameId);
      const list = ofFitting.filter(({ programme }) => programme.frameId === frameId);
      const told = list.map(({ programme, events }) =>
        programmeView({
          frame,
          rounds: own,
          start: starts.find(({ id: startId }) => startId === programme.startId),
          standing: standing.find((m) => m?.frameId === frameId),
          programme,
          events,
          parts: usable,
        }),
      );
      return [{ frame, rounds: own, programmes: told }];
    }),
  };
}
