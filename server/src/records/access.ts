import { createHash, randomBytes } from 'node:crypto';
import type { Queries } from '../db/db';
import type { Kept } from '../safety/passphrase';

/** The lock of the shop and the devices that have come through it. */
export async function lockOf(db: Queries): Promise<Kept | undefined> {
  return (await db.query<Kept>('select salt, hash from shop_lock'))[0];
}

/** A new passphrase signs every device out. */
export async function setLock(tx: Queries, { salt, hash }: Kept, now: string): Promise<void> {
  await tx.query(
    `insert into shop_lock (salt, hash, set_at) values ($1, $2, $3)
     on conflict (only_row) do update set salt = excluded.salt, hash = excluded.hash, set_at = excluded.set_at`,
    [salt, hash, now],
  );
  await tx.query('delete from device');
}

const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');

/** Lets a device in. @returns the token that it is to show */
export async function addDevice(db: Queries, name: string, now: string): Promise<string> {
  const token = randomBytes(32).toString('base64url');
  await db.query('insert into device (token_hash, name, signed_in_at) values ($1, $2, $3)', [
    hashOf(token),
    name,
    now,
  ]);
  return token;
}

/** Whether a device with this token came in within the last hours. */
export async function isSignedIn(db: Queries, token: string, hours: number, now: string): Promise<boolean> {
  const found = await db.query(
    'select 1 from device where token_hash = $1 and signed_in_at > $2::timestamptz - make_interval(hours => $3)',
    [hashOf(token), now, hours],
  );
  return found.length > 0;
}

export const dropDevice = (db: Queries, token: string): Promise<unknown> =>
  db.query('delete from device where token_hash = $1', [hashOf(token)]);

/** Those that may still come in, the newest first; the others are forgotten. */
export async function devicesOf(
  db: Queries,
  hours: number,
  now: string,
): Promise<{ name: string; signedInAt: string; until: string }[]> {
  await db.query('delete from device where signed_in_at <= $1::timestamptz - make_interval(hours => $2)', [
    now,
    hours,
  ]);
  return db.query(
    `select name, signed_in_at as "signedInAt", signed_in_at + make_interval(hours => $1) as until
     from device order by signed_in_at desc`,
    [hours],
  );
}

/** What the device with this token is called; undefined where there is none. */
export const deviceNamed = async (db: Queries, token: string): Promise<string | undefined> =>
  (await db.query<{ name: string }>('select name from device where token_hash = $1', [hashOf(token)]))[0]
    ?.name;
