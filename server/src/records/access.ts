import { createHash, randomBytes } from 'node:crypto';
import type { Role } from '@kevro/contract';
import type { Queries } from '../db/db';
import type { Kept } from '../safety/passphrase';

/** The lock of the shop and the devices that have come through it. */
export async function lockOf(db: Queries): Promise<Kept | undefined> {
  return (await db.query<Kept>('select salt, hash from shop_lock'))[0];
}

/** Whether other devices are listened for. */
export const isLetIn = async (db: Queries): Promise<boolean> =>
  (await db.query<{ letIn: boolean }>('select let_in as "letIn" from shop_lock'))[0]?.letIn ?? false;
export const setLetIn = (tx: Queries, letIn: boolean): Promise<unknown> =>
  tx.query('update shop_lock set let_in = $1', [letIn]);

/** A new passphrase signs every device out. */
export async function setLock(tx: Queries, { salt, hash }: Kept, now: string): Promise<void> {
  await tx.query(
    `insert into shop_lock (salt, hash, set_at) values ($1, $2, $3)
     on conflict (only_row, shop_id) do update set salt = excluded.salt, hash = excluded.hash, set_at = excluded.set_at`,
    [salt, hash, now],
  );
  await tx.query('delete from device');
}

/** Of what lets somebody in only this is kept. */
export const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');

/** Lets a device in, or a browser of the bench itself, or somebody by name. @returns the token that it is to show */
export async function addDevice(
  db: Queries,
  { name, bench = false, staffId = null }: { name: string; bench?: boolean; staffId?: string | null },
  now: string,
): Promise<string> {
  const token = randomBytes(32).toString('base64url');
  await db.query(
    'insert into device (token_hash, name, bench, staff_id, signed_in_at) values ($1, $2, $3, $4, $5)',
    [hashOf(token), name, bench, staffId, now],
  );
  return token;
}

interface Device {
  name: string;
  bench: boolean;
  signedInAt: string;
  staffId: string | null;
  role: Role | null;
  left: boolean | null;
}
/** The device that holds this token, for however long it may still come in; of somebody who signed in by name, as they are called and may do now. */
export const deviceOf = async (db: Queries, token: string): Promise<Device | undefined> =>
  (
    await db.query<Device>(
      `select coalesce(s.name, d.name) as name, d.bench, d.signed_in_at as "signedInAt", d.staff_id as "staffId", s.role,
         s.has_left as left
       from device d left join staff s on s.id = d.staff_id where d.token_hash = $1`,
      [hashOf(token)],
    )
  )[0];

/** Takes a device's sign-in back. @returns whether there was one */
export const dropDevice = async (db: Queries, token: string): Promise<boolean> =>
  (await db.query('delete from device where token_hash = $1 returning 1', [hashOf(token)])).length > 0;

/** Those that may still come in, the newest first. The bench's own browsers are not among them. */
export const devicesOf = (
  db: Queries,
  hours: number,
  now: string,
): Promise<{ name: string; signedInAt: string; until: string }[]> =>
  db.query(
    `select coalesce(s.name, d.name) as name, signed_in_at as "signedInAt", signed_in_at + make_interval(hours => $1) as until
     from device d left join staff s on s.id = d.staff_id where not bench and signed_in_at > $2::timestamptz - make_interval(hours => $1)
     order by signed_in_at desc`,
    [hours, now],
  );

/** Forgets devices that cannot come in any more. */
export const forgetDevices = (db: Queries, hours: number, now: string): Promise<unknown> =>
  db.query(
    'delete from device where not bench and signed_in_at <= $1::timestamptz - make_interval(hours => $2)',
    [now, hours],
  );

/** The lock, and who has come through it: this machine's own, which no backup holds. */
const ACCESS = [
  ['shop_lock', 'salt, hash, set_at, let_in'],
  ['staff', 'id, name, role, salt, hash, set_at, has_left'],
  ['device', 'token_hash, name, bench, signed_in_at, staff_id'],
] as const;
/** Takes lock and sign-ins over from one database into another that has none: a restored shop must not stand open where the one before was locked. */
export async function carryAccess(from: Queries, to: Queries): Promise<void> {
  for (const [table, columns] of ACCESS) {
    const [{ rows } = { rows: '[]' }] = await from.query<{ rows: string }>(
      `select coalesce(json_agg(t), '[]')::text as rows from (select ${columns} from ${table}) t`,
    );
    await to.query(
      `insert into ${table} (${columns}) select ${columns} from json_populate_recordset(null::${table}, $1::json)`,
      [rows],
    );
  }
}
