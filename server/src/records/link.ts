import { createHash, randomInt } from 'node:crypto';
import type { Queries } from '../db/db';

/** A link by which a player notes one session. Of its code only the hash is kept. */
export interface Link {
  roundId: string;
  endsAt: string;
  sessionId: string | null;
}

/** No letter that is read as another. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';
const hashOf = (code: string): string => createHash('sha256').update(code).digest('hex');

/** A new link; those of the round that were not used end. @returns its code */
export async function makeLink(
  tx: Queries,
  { roundId, endsAt }: Omit<Link, 'sessionId'>,
  now: string,
): Promise<string> {
  const code = Array.from({ length: 16 }, () => LETTERS[randomInt(LETTERS.length)]).join('');
  await tx.query('delete from session_link where round_id = $1 and session_id is null', [roundId]);
  await tx.query('insert into session_link (code_hash, round_id, made_at, ends_at) values ($1, $2, $3, $4)', [
    hashOf(code),
    roundId,
    now,
    endsAt,
  ]);
  return code;
}

export const findLink = async (db: Queries, code: string): Promise<Link | undefined> =>
  (
    await db.query<Link>(
      `select round_id as "roundId", ends_at as "endsAt", session_id as "sessionId" from session_link where code_hash = $1`,
      [hashOf(code)],
    )
  )[0];

export const useLink = (tx: Queries, code: string, sessionId: string): Promise<unknown> =>
  tx.query('update session_link set session_id = $2 where code_hash = $1', [hashOf(code), sessionId]);
