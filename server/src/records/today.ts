import {
  programmeOn,
  stateInFrame,
  type FrameRecords,
  type Programme,
  type ProgrammeRecords,
  type RoundRecords,
  type Sport,
} from '@kevro/core';
import type { FittingRow, TodayQuery } from '@kevro/contract';
import type { Queries } from '../db/db';
import { bedsOf } from './bed';
import { Conditions, readListing, type Listing } from './listing';
import { ARRIVAL } from './measurement';
import { together } from './together';

type TodayRecord = Omit<FittingRow, 'frames' | 'closed'> & {
  closedAt: string | null;
  closedHow: NonNullable<FittingRow['closed']>['how'] | null;
};

interface TodayFrame {
  fittingId: string;
  id: string;
  tag: string;
  name: string;
  sport: Sport;
  roundId: string;
  round: number;
  startId: string | null;
  compared: boolean;
}

/** The frames of fittings, each with the round that it is in. */
const framesInFittings = (db: Queries, fittingIds: readonly string[]): Promise<TodayFrame[]> =>
  together(
    db,
    `select ff.fitting_id as "fittingId", frame.id, frame.tag, frame.maker || ' ' || frame.model as name,
       frame.shape->>'sport' as sport, r.id as "roundId",
       r.number as round, r.start_id as "startId", x.fitting_id is not null as compared
     from fitting_frame ff join frame on frame.id = ff.frame_id
       join (select distinct on (fitting_id, frame_id) * from round where fitting_id = any($1)
         order by fitting_id, frame_id, number desc) r on r.fitting_id = ff.fitting_id and r.frame_id = ff.frame_id
       left join (select fitting_id from fitting_reference union select fitting_id from fitting_beside) x on x.fitting_id = ff.fitting_id
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
  const read = <T>(columns: string, from: string, order = 't.seq'): Promise<OfRound<T>[]> =>
    together(
      db,
      `select round_id as "roundId", ${columns} from ${from} where round_id = any($1) order by ${order}`,
      [list.map(({ roundId }) => roundId)],
    );
  const [measurements, aimed, planned, marks, signed, sessions] = await Promise.all([
    read<RoundRecords['measurements'][number]>(
      't.id, t.purpose, t.counts, t.superseded_by as "supersededBy"',
      'measurement t',
      ARRIVAL,
    ),
    read<RoundRecords['aims'][number]>('t.id', 'aim t'),
    read<RoundRecords['plans'][number]>(
      't.id, t.aim_id as "aimId", t.measurement_id as "startId", t.steps',
      'plan t',
    ),
    read<RoundRecords['marks'][number]>(
      't.plan_id as "planId", t.step, t.mark, t.at, t.measurement_id as "measurementId"',
      'step_mark t join plan on plan.id = t.plan_id',
    ),
    read<RoundRecords['signOffs'][number]>(
      't.plan_id as "planId", t.measurement_id as "measurementId", t.passed',
      'sign_off t join plan on plan.id = t.plan_id',
    ),
    read<RoundRecords['sessions'][number]>('t.id, t.counts', 'session t'),
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
  { closed, search, sport, limit, offset }: TodayQuery,
  now: string,
): Promise<Listing<FittingRow>> {
  const asked = new Conditions()
    .and(`f.closed_at is ${closed ? 'not null' : 'null'}`)
    .search(search, (has) => has('f.words'));
  if (sport)
    asked.and(
      "exists (select 1 from fitting_frame ff join frame fr on fr.id = ff.frame_id where ff.fitting_id = f.id and fr.shape->>'sport' = ?)",
      sport,
    );
  const { rows: found, ...inAll } = await readListing<TodayRecord>(
    db,
    {
      id: 'f.id',
      find: 'fitting f',
      from: 'fitting f join player on player.id = f.player_id',
      columns: `f.id, f.opened_at as "openedAt", f.closed_at as "closedAt", f.closed_how as "closedHow",
        player.name as "playerName"`,
      order: 'f.seq desc',
    },
    asked,
    { limit, offset },
  );
  const frames = await framesInFittings(
    db,
    found.map(({ id }) => id),
  );
  const [recordsFor, runningOn, beds] = await Promise.all([
    recordsOf(db, frames),
    programmesOn(
      db,
      found.map(({ id }) => id),
    ),
    // Of closed ones nobody strings anything.
    closed ? [] : bedsOf(db, [...new Set(frames.map(({ id }) => id))], now),
  ]);
  const dueOf = new Map(beds.map(({ frameId, due }) => [frameId, due]));
  const rows = found.map(({ openedAt, closedAt, closedHow, ...row }): FittingRow => ({
    ...row,
    openedAt,
    closed: closedAt && closedHow ? { at: closedAt, how: closedHow } : null,
    frames: frames
      .filter(({ fittingId }) => fittingId === row.id)
      .map((frame) => ({
        id: frame.id,
        tag: frame.tag,
        name: frame.name,
        sport: frame.sport,
        round: frame.round,
        ...nextOf(frame),
        stringsDue: dueOf.get(frame.id) ?? [],
      })),
  }));
  return { rows, ...inAll };

  function nextOf(frame: TodayFrame): Pick<FittingRow['frames'][number], 'programme' | 'next'> {
    const on = runningOn(frame);
    const found = on && programmeOn(on.programmes, on.rounds);
    const state = stateInFrame(recordsFor(frame), on && { frame: on, roundId: frame.roundId }, now, closed);
    return { programme: found?.programme.name ?? null, next: state.next ?? null };
  }
}

interface FrameWithProgrammes extends FrameRecords {
  programmes: (ProgrammeRecords & { name: Programme })[];
}

/** The programmes of frames in fittings, with the rounds that they count sessions in. */
async function programmesOn(
  db: Queries,
  fittingIds: readonly string[],
): Promise<(of: Pick<TodayFrame, 'fittingId' | 'id'>) => FrameWithProgrammes | undefined> {
  type OfFrame<T> = T & { fittingId: string; frameId: string };
  const [programmes, rounds] = await Promise.all([
    together<OfFrame<FrameWithProgrammes['programmes'][number]>>(
      db,
      `select p.fitting_id as "fittingId", p.frame_id as "frameId", p.name, p.round_id as "roundId",
         p.sessions_before as "sessionsBefore",
         (select coalesce(json_agg(json_build_object('what', e.what, 'sessions', e.sessions, 'day', e.day) order by e.seq), '[]')
            from programme_event e where e.programme_id = p.id) as events
       from programme p where p.fitting_id = any($1) order by p.seq`,
      [fittingIds],
    ),
    together<OfFrame<FrameRecords['rounds'][number]>>(
      db,
      `select r.fitting_id as "fittingId", r.frame_id as "frameId", r.id,
         (select coalesce(json_agg(json_build_object('id', s.id, 'counts', s.counts) order by s.seq), '[]')
            from session s where s.round_id = r.id) as sessions
       from round r where r.fitting_id = any($1)
         and exists (select 1 from programme p where p.fitting_id = r.fitting_id and p.frame_id = r.frame_id)
       order by r.number`,
      [fittingIds],
    ),
  ]);
  return ({ fittingId, id }) => {
    const of = <T extends OfFrame<unknown>>(rows: readonly T[]): T[] =>
      rows.filter((row) => row.fittingId === fittingId && row.frameId === id);
    const own = of(programmes);
    return own.length > 0 ? { programmes: own, rounds: of(rounds) } : undefined;
  };
}
