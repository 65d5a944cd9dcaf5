import { WANTED_CHANCE, dayIn } from '@kevro/core';
import type { Shop } from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';

const table = tableOf<Shop>('shop', {
  name: 'name',
  town: 'town',
  demo: 'demo',
  timeZone: 'time_zone',
  calibrationHours: 'calibration_hours',
  backupsKept: 'backups_kept',
  signedInHours: 'signed_in_hours',
  wantedChance: 'wanted_chance',
  partUnit: 'part_unit',
  sports: 'sports',
});

/** Where the server stands, until the shop says where it is. */
const hereZone = (): string => new Intl.DateTimeFormat().resolvedOptions().timeZone;

/** As the database has it where nothing was said. */
export const KEPT: Pick<Shop, 'backupsKept' | 'signedInHours' | 'wantedChance' | 'partUnit' | 'sports'> = {
  backupsKept: 14,
  signedInHours: 12,
  wantedChance: WANTED_CHANCE,
  partUnit: 'g',
  sports: {},
};

/** The shop; a new database has none yet and gets a plain one. */
export async function theShop(db: Queries): Promise<Shop> {
  const [shop] = await table.find(db, '');
  const plain = {
    name: 'Your shop',
    town: '',
    demo: false,
    timeZone: '',
    calibrationHours: 72,
    ...KEPT,
  };
  const { timeZone, ...rest } = shop ?? plain;
  return { ...rest, timeZone: timeZone || hereZone() };
}

export const setShop = (db: Queries, shop: Shop): Promise<unknown> =>
  table.insert(
    db,
    shop,
    `on conflict (only_row) do update set name = excluded.name, town = excluded.town, demo = excluded.demo,
       time_zone = excluded.time_zone, calibration_hours = excluded.calibration_hours, backups_kept = excluded.backups_kept,
       signed_in_hours = excluded.signed_in_hours, wanted_chance = excluded.wanted_chance,
       part_unit = excluded.part_unit, sports = excluded.sports`,
  );

/** A moment, and the day that it is in the shop. */
export interface Moment {
  now: string;
  day: string;
}
/** The one clock of the shop: its day decides who is growing, what is due, what a note says and what can have been played. */
export async function momentOf(db: Queries, now: string): Promise<Moment> {
  const { timeZone } = await theShop(db);
  return { now, day: dayIn(timeZone, now) };
}
export const yearOf = ({ day }: Moment): number => Number(day.slice(0, 4));
