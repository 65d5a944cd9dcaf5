import type { Shop } from '@kevro/contract';
import type { Queries } from '../db/db';

/** The shop; a new database has none yet and gets a plain one. */
export async function theShop(db: Queries): Promise<Shop> {
  const rows = await db.query<Shop>(
    'select name, town, demo, calibration_hours as "calibrationHours" from shop',
  );
  return rows[0] ?? { name: 'Your shop', town: '', demo: false, calibrationHours: 72 };
}

export const setShop = (db: Queries, { name, town, demo, calibrationHours }: Shop): Promise<unknown[]> =>
  db.query(
    `insert into shop (name, town, demo, calibration_hours) values ($1, $2, $3, $4)
     on conflict (only_row) do update set name = excluded.name, town = excluded.town, demo = excluded.demo,
       calibration_hours = excluded.calibration_hours`,
    [name, town, demo, calibrationHours],
  );
