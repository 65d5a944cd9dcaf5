import type { Role, StaffMember } from '@kevro/contract';
import type { Queries } from '../db/db';
import type { Kept } from '../safety/passphrase';
import { newId } from './id';

/** People of the shop who sign in by name. */
const LISTED = 'id, name, role, has_left as "left"';
type WithKept = StaffMember & Kept;

export const listStaff = (db: Queries): Promise<StaffMember[]> =>
  db.query<StaffMember>(`select ${LISTED} from staff order by has_left, lower(name)`);
export const hasStaff = async (db: Queries): Promise<boolean> =>
  (await db.query('select 1 from staff where not has_left limit 1')).length > 0;

const one = async <R>(rows: Promise<R[]>): Promise<R | undefined> => (await rows)[0];
/** Somebody who may come in, by the name as it is typed. */
export const staffByName = (db: Queries, name: string): Promise<WithKept | undefined> =>
  one(
    db.query<WithKept>(
      `select ${LISTED}, salt, hash from staff where lower(name) = lower($1) and not has_left`,
      [name],
    ),
  );
export const staffById = (db: Queries, id: string): Promise<WithKept | undefined> =>
  one(db.query<WithKept>(`select ${LISTED}, salt, hash from staff where id = $1`, [id]));

/** @returns undefined where the name is somebody else's */
export const addStaff = (
  tx: Queries,
  { name, role }: { name: string; role: Role },
  { salt, hash }: Kept,
  now: string,
): Promise<StaffMember | undefined> =>
  one(
    tx.query<StaffMember>(
      `insert into staff (id, name, role, salt, hash, set_at) values ($1, $2, $3, $4, $5, $6)
       on conflict ((lower(name)), shop_id) do nothing returning ${LISTED}`,
      [newId(), name, role, salt, hash, now],
    ),
  );
export const nameOfAnother = async (db: Queries, name: string, id: string): Promise<boolean> =>
  (await db.query('select 1 from staff where lower(name) = lower($1) and id <> $2', [name, id])).length > 0;
export const changeStaff = (
  tx: Queries,
  id: string,
  { name, role, left }: Omit<StaffMember, 'id'>,
): Promise<StaffMember | undefined> =>
  one(
    tx.query<StaffMember>(
      `update staff set name = $2, role = $3, has_left = $4 where id = $1 returning ${LISTED}`,
      [id, name, role, left],
    ),
  );

/** A new passphrase signs its owner out everywhere. */
export async function setPassphraseOf(
  tx: Queries,
  id: string,
  { salt, hash }: Kept,
  now: string,
): Promise<StaffMember | undefined> {
  const set = await one(
    tx.query<StaffMember>(
      `update staff set salt = $2, hash = $3, set_at = $4 where id = $1 returning ${LISTED}`,
      [id, salt, hash, now],
    ),
  );
  await signOutStaff(tx, id);
  return set;
}
export const signOutStaff = (tx: Queries, id: string): Promise<unknown> =>
  tx.query('delete from device where staff_id = $1', [id]);
