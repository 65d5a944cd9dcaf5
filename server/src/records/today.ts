import { roundState, type RoundRecords } from '@kevro/core';
import type { FittingRow, TodayQuery } from '@kevro/contract';
import type { Queries } from '../db/db';

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
  const read = <T>(columns: string, from: string): Promise<OfRound<T>[]> =>
    together(
      db,
      `select round_id as "roundId", ${columns} from ${from} where round_id = any($1) order by t.seq`,
      [list.map(({ roundId }) => roundId)],
    );
  const [measurements, aimed, planned, marks, signed, sessions] = await Promise.all([
    read<RoundRecords['measurements'][number]>('t.id, t.purpose, t.counts', 'measurement t'),
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
