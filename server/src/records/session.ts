import type { AnswerOf } from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';
import { ApiProblem } from '../problem';

export type Session = AnswerOf<'addSession'>;
type Felt = Omit<Session, 'id' | 'at' | 'roundId' | 'playedOn' | 'counts' | 'why'>;

interface Row {
  id: string;
  key: string;
  roundId: string;
  playedOn: string;
  at: string;
  data: Felt;
  counts: boolean;
  why: string;
}
const table = tableOf<Row>('session', {
  id: 'id',
  key: 'key',
  roundId: 'round_id',
  playedOn: 'played_on',
  at: 'at',
  data: 'data',
  counts: 'counts',
  why: 'why',
});
const sessionOf = ({ key: _, data, ...row }: Row): Session => ({ ...row, ...data });

export const sessionsOf = async (db: Queries, roundIds: readonly string[]): Promise<Session[]> =>
  (await table.find(db, 'where round_id = any($1) order by seq', [roundIds])).map(sessionOf);

export async function addSession(
  db: Queries,
  { id, roundId, playedOn, at, ...data }: Omit<Session, 'counts' | 'why'>,
  key: string,
): Promise<void> {
  await table.insert(db, { id, key, roundId, playedOn, at, data });
}

/** @throws ApiProblem where there is no such session */
export async function sessionOrNone(db: Queries, id: string): Promise<Session> {
  const [row] = await table.find(db, 'where id = $1', [id]);
  if (!row) throw new ApiProblem('not-found');
  return sessionOf(row);
}

/** Marks a session as noted by mistake, or counts it again; undefined where there is none. */
export async function countSession(
  db: Queries,
  id: string,
  { counts, reason }: { counts: boolean; reason: string },
): Promise<Session | undefined> {
  const row = await table.change(db, { counts, why: counts ? '' : reason }, 'id = $1', id);
  return row && sessionOf(row);
}
