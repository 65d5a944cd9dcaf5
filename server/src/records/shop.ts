import type { Shop } from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';

const table = tableOf<Shop>('shop', {
  name: 'name',
  town: 'town',
  demo: 'demo',
  calibrationHours: 'calibration_hours',
});

/** The shop; a new database has none yet and gets a plain one. */
export const theShop = async (db: Queries): Promise<Shop> =>
  (await table.find(db, ''))[0] ?? { name: 'Your shop', town: '', demo: false, calibrationHours: 72 };

export const setShop = (db: Queries, shop: Shop): Promise<unknown> =>
  table.insert(
    db,
    shop,
    `on conflict (only_row) do update set name = excluded.name, town = excluded.town, demo = excluded.demo,
       calibration_hours = excluded.calibration_hours`,
  );
