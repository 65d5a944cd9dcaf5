import type { LookAgain } from '@kevro/contract';
import type { Queries } from '../db/db';
import { newId } from './id';

const COLUMNS = `l.id, l.player_id as "playerId", l.fitting_id as "fittingId", l.due_on::text as "dueOn", l.why, l.note,
  l.set_at as "setAt", l.done_at as "doneAt", player.name as "playerName"`;
const FROM = 'look_again l join player on player.id = l.player_id';

export const findLookAgain = async (db: Queries, id: string): Promise<LookAgain | undefined> =>
  (await db.query<LookAgain>(`select ${COLUMNS} from ${FROM} where l.id = $1`, [id]))[0];

export async function addLookAgain(
  db: Queries,
  {
    playerId,
    fittingId,
    dueOn,
    why,
    note,
  }: Pick<LookAgain, 'playerId' | 'fittingId' | 'dueOn' | 'why' | 'note'>,
  now: string,
): Promise<LookAgain> {
  const id = newId();
  await db.query(
    'insert into look_again (id, player_id, fitting_id, due_on, why, note, set_at) values ($1, $2, $3, $4, $5, $6, $7)',
    [id, playerId, fittingId, dueOn, why, note, now],
  );
  return (await findLookAgain(db, id)) as LookAgain;
}

export const setLookedAgain = (db: Queries, id: string, doneAt: string | null): Promise<unknown> =>
  db.query('update look_again set done_at = $2 where id = $1', [id, doneAt]);

/** Those of a player, done ones too, the last to come first. */
export const lookAgainOf = (db: Queries, playerId: string): Promise<LookAgain[]> =>
  db.query<LookAgain>(
    `select ${COLUMNS} from ${FROM} where l.player_id = $1 order by l.due_on desc, l.seq desc limit 100`,
    [playerId],
  );

/** How long before its day somebody comes up, days; and how many are listed. */
const AHEAD_DAYS = 14;
const LISTED = 50;

/** Those that are due by a day or soon, the longest due first. */
export async function lookAgainBy(db: Queries, today: string): Promise<{ rows: LookAgain[]; total: number }> {
  const where = `l.done_at is null and l.due_on <= $1::date + ${AHEAD_DAYS}`;
  const rows = await db.query<LookAgain>(
    `select ${COLUMNS} from ${FROM} where ${where} order by l.due_on, l.seq limit ${LISTED}`,
    [today],
  );
  const [counted] = await db.query<{ n: number }>(`select count(*) as n from look_again l where ${where}`, [
    today,
  ]);
  return { rows, total: counted?.n ?? 0 };
}
