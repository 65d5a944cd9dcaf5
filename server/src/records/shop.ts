import type { Shop } from '@kevro/contract';
import type { Queries } from '../db/db';

/** The shop; a new database has none yet and gets a plain one. */
export async function theShop(db: Queries): Promise<Shop> {
  const rows = await db.query<Shop>('select name, town, demo from shop');
  return rows[0] ?? { name: 'Your shop', town: '', demo: false };
}

export const setShop = (db: Queries, { name, town, demo }: Shop): Promise<unknown[]> =>
  db.query(
    `insert into shop (name, town, demo) values ($1, $2, $3)
     on conflict (only_row) do update set name = excluded.name, town = excluded.town, demo = excluded.demo`,
    [name, town, demo],
  );
