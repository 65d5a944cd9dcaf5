import { roundState, type RoundRecords, type RoundReason } from '@kevro/core';
import type { FittingRow, FittingView, RoundView, TodayQuery } from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';
import { aims } from './aim';
import { framesOf } from './frame';
import { newId } from './id';
import { findMeasurements, lastStanding, measurementsOfRounds } from './measurement';
import { findPlayer } from './player';
import { plans } from './plan';
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
  round: Pick<RoundRecord, 'fittingId' | 'frameId' | 'why' | 'note' | 'begunAt'>,
): Promise<RoundRecord> {
  const [last] = await rounds.find(
    db,
    'where fitting_id = $1 and frame_id = $2 order by number desc limit 1',
    [round.fittingId, round.frameId],
  );
  const start = await lastStanding(db, round.frameId);
  const stored = await rounds.insert(db, {
    id: newId(),
    number: (last?.number ?? 0) + 1,
    startId: start?.id ?? null,
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

/** A round's state as it is told: what is not there is null. */
function stateOf(records: RoundRecords, now: string, closed: boolean): RoundView['state'] {
  const { next, aimId, planId, ...state } = roundState(records, now, closed);
  return { ...state, next: next ?? null, aimId: aimId ?? null, planId: planId ?? null };
}

/** Rounds with all that belongs to them, read together. */
async function viewsOf(
  db: Queries,
  list: readonly RoundRecord[],
  compared: boolean,
  now: string,
  closed: boolean,
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
  return list.map(({ fittingId: _, ...round }): RoundView => {
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
      state: stateOf({ ...records, startId: round.startId, compared }, now, closed),
    };
  });
}

/** A fitting with all its rounds; undefined where there is none. */
export async function findFitting(db: Queries, id: string, now: string): Promise<FittingView | undefined> {
  const [fitting] = await fittings.find(db, 'where id = $1', [id]);
  if (!fitting) return undefined;
  const [player, frameIds, references, begun] = await Promise.all([
    findPlayer(db, fitting.playerId),
    frameIdsOf(db, id),
    referencesOf(db, id),
    rounds.find(db, 'where fitting_id = $1 order by number', [id]),
  ]);
  const frames = await framesOf(db, frameIds);
  if (!player) throw new Error(`fitting ${id} has lost its player`);
  const { closedAt, closedHow, closedNote, openedAt } = fitting;
  const closed = closedAt && closedHow ? { at: closedAt, how: closedHow, note: closedNote } : null;
  const views = await viewsOf(db, begun, references.length > 0, now, closed !== null);
  return {
    id,
    openedAt,
    closed,
    player,
    references,
    frames: frameIds.flatMap((frameId) => {
      const frame = frames.find((f) => f.id === frameId);
      return frame ? [{ frame, rounds: views.filter((round) => round.frameId === frameId) }] : [];
    }),
  };
}

type TodayRecord = Omit<FittingRow, 'frames' | 'closed'> & {
  closedAt: string | null;
  closedHow: NonNullable<FittingRow['closed']>['how'] | null;
};

/** The database writes a time within JSON with its offset. */
const zulu = (time: string): string => new Date(time).toISOString();

interface TodayFrame {
  fittingId: string;
  id: string;
  tag: string;
  name: string;
  roundId: string;
  round: number;
  startId: string | null;
  compared: boolean;
}

/** Rows of a query as one JSON value: a row at a time is several times slower. */
async function together<T>(db: Queries, query: string, values: readonly unknown[]): Promise<T[]> {
  const [found] = await db.query<{ rows: T[] }>(
    `select coalesce(json_agg(t), '[]') as rows from (${query}) t`,
    values,
  );
  return found?.rows ?? [];
}

/** The frames of fittings, each with the round that it is in. */
const framesInFittings = (db: Queries, fittingIds: readonly string[]): Promise<TodayFrame[]> =>
  together(
    db,
    `select ff.fitting_id as "fittingId", frame.id, frame.tag, frame.maker || ' ' || frame.model as name, r.id as "roundId",
       r.number as round, r.start_id as "startId", x.fitting_id is not null as compared
     from fitting_frame ff join frame on frame.id = ff.frame_id
       join (select distinct on (fitting_id, frame_id) * from round where fitting_id = any($1)
         order by fitting_id, frame_id, number desc) r on r.fitting_id = ff.fitting_id and r.frame_id = ff.frame_id
       left join (select distinct fitting_id from fitting_reference) x on x.fitting_id = ff.fitting_id
     where ff.fitting_id = any($1) order by ff.position`,
    [fittingIds],
  );

type OfRound<T> = T & { roundId: string };

/** Rows by the round that they belong to, in their order. */
function byRound<T>(rows: readonly OfRound<T>[]): (roundId: string) => readonly OfRound<T>[] {
  const groups = new Map<string, OfRound<T>[]>();
  for (const row of rows) {
    const group = groups.get(row.roundId);
    if (group) group.push(row);
    else groups.set(row.roundId, [row]);
  }
  return (roundId) => groups.get(roundId) ?? [];
}

/** What the state of each round is worked out from, and no more; one query a table. */
async function recordsOf(
  db: Queries,
  list: readonly Pick<TodayFrame, 'roundId' | 'startId' | 'compared'>[],
): Promise<(of: Pick<TodayFrame, 'roundId' | 'startId' | 'compared'>) => RoundRecords> {
  const read = <T>(columns: string, from: string): Promise<OfRound<T>[]> =>
    together(
      db,
      `select round_id as "roundId", ${columns} from ${from} where round_id = any($1) order by t.seq`,
      [list.map(({ roundId }) => roundId)],
    );
  const [measurements, aimed, planned, marks, signed, sessions] = await Promise.all([
    read<RoundRecords['measurements'][number]>('t.id, t.purpose', 'measurement t'),
    read<RoundRecords['aims'][number]>('t.id', 'aim t'),
    read<RoundRecords['plans'][number]>(
      't.id, t.aim_id as "aimId", t.measurement_id as "startId", t.steps',
      'plan t',
    ),
    read<RoundRecords['marks'][number]>(
      't.plan_id as "planId", t.step, t.mark, t.at',
      'step_mark t join plan on plan.id = t.plan_id',
    ),
    read<RoundRecords['signOffs'][number]>(
      't.plan_id as "planId", t.passed',
      'sign_off t join plan on plan.id = t.plan_id',
    ),
    read<RoundRecords['sessions'][number]>('t.id', 'session t'),
  ]);
  const of = {
    measurements: byRound(measurements),
    aims: byRound(aimed),
    plans: byRound(planned),
    marks: byRound(marks),
    signOffs: byRound(signed),
    sessions: byRound(sessions),
  };
  return ({ roundId, startId, compared }) => ({
    startId,
    compared,
    measurements: of.measurements(roundId),
    aims: of.aims(roundId),
    plans: of.plans(roundId),
    marks: of.marks(roundId),
    signOffs: of.signOffs(roundId),
    sessions: of.sessions(roundId),
  });
}

/** Fittings with the next step of each frame, the last opened first: the state comes from the records of each round. */
export async function listFittings(
  db: Queries,
  { closed, limit, offset }: TodayQuery,
  now: string,
): Promise<{ rows: FittingRow[]; total: number }> {
  const which = closed ? 'is not null' : 'is null';
  const found = await together<TodayRecord>(
    db,
    `select f.id, f.opened_at as "openedAt", f.closed_at as "closedAt", f.closed_how as "closedHow",
       player.name as "playerName"
     from (select * from fitting where closed_at ${which} order by seq desc limit $1 offset $2) f
       join player on player.id = f.player_id
     order by f.seq desc`,
    [limit, offset],
  );
  const frames = await framesInFittings(
    db,
    found.map(({ id }) => id),
  );
  const recordsFor = await recordsOf(db, frames);
  const rows = found.map(({ openedAt, closedAt, closedHow, ...row }): FittingRow => ({
    ...row,
    openedAt: zulu(openedAt),
    closed: closedAt && closedHow ? { at: zulu(closedAt), how: closedHow } : null,
    frames: frames
      .filter(({ fittingId }) => fittingId === row.id)
      .map((frame) => ({
        id: frame.id,
        tag: frame.tag,
        name: frame.name,
        round: frame.round,
        next: roundState(recordsFor(frame), now, closed).next ?? null,
      })),
  }));
  const total = await countFittings(db, which);
  return { rows, total };
}

const countFittings = async (db: Queries, which: string): Promise<number> =>
  (await db.query<{ n: number }>(`select count(*) as n from fitting where closed_at ${which}`))[0]?.n ?? 0;
