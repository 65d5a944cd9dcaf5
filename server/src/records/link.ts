import { createHash, createHmac, randomBytes } from 'node:crypto';
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

/** Of this run of the server: a link's code comes of it and of the key of the form, so that the same form sent again has the same link. */
const RUN = randomBytes(32);
/** The code of the link that a form makes. */
export const codeOf = (key: string): string =>
  [...createHmac('sha256', RUN).update(key).digest()]
    // No letter comes up more often than another.
    .filter((byte) => byte < LETTERS.length * Math.floor(256 / LETTERS.length))
    .map((byte) => LETTERS[byte % LETTERS.length])
    .join('')
    .slice(0, 16);

/** A new link; those of the round that were not used end. @returns what it is kept by */
export async function makeLink(
  tx: Queries,
  code: string,
  { roundId, endsAt }: Omit<Link, 'sessionId'>,
  now: string,
): Promise<string> {
  const hash = hashOf(code);
  await tx.query('delete from session_link where round_id = $1 and session_id is null', [roundId]);
  await tx.query('insert into session_link (code_hash, round_id, made_at, ends_at) values ($1, $2, $3, $4)', [
    hash,
    roundId,
    now,
    endsAt,
  ]);
  return hash;
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
