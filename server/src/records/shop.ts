import { WANTED_CHANCE, dayIn } from '@kevro/core';
import type { Shop } from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';

/** A new shop is one of which nothing was said and in which nothing was stored. */
type Row = Omit<Shop, 'begun'>;
const table = tableOf<Row>('shop', {
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
  learnsFromAll: 'learns_from_all',
  fits: 'fits',
  measuresWith: 'measures_with',
});

/** Where the server stands, until the shop says where it is. */
const hereZone = (): string => new Intl.DateTimeFormat().resolvedOptions().timeZone;

/** As the database has it where nothing was said. */
export const KEPT: Omit<Row, 'name' | 'town' | 'demo' | 'timeZone' | 'calibrationHours'> = {
  backupsKept: 14,
  signedInHours: 12,
  wantedChance: WANTED_CHANCE,
  partUnit: 'g',
  sports: {},
  learnsFromAll: true,
  fits: [],
  measuresWith: [],
};
const PLAIN: Row = { name: 'Your shop', town: '', demo: false, timeZone: '', calibrationHours: 72, ...KEPT };

/** The shop; a new database has none yet and gets a plain one. */
export async function theShop(db: Queries): Promise<Shop> {
  const [shop] = await table.find(db, '');
  const { timeZone, ...rest } = shop ?? PLAIN;
  return { ...rest, timeZone: timeZone || hereZone(), begun: shop !== undefined || (await isUsed(db)) };
}

/** Whether somebody stored something without ever having said anything of the shop itself. */
async function isUsed(db: Queries): Promise<boolean> {
  const [found] = await db.query<{ used: boolean }>(
    `select exists (select from player) or exists (select from frame) or exists (select from part)
       or exists (select from setup) as used`,
  );
  return found?.used ?? false;
}

/** Says the first things of a new shop. @returns whether it was new: else nothing is changed */
export async function beginShop(db: Queries, said: Partial<Row>): Promise<boolean> {
  const { begun } = await theShop(db);
  if (begun) return false;
  return (
    (await table.insert(db, { ...PLAIN, ...said }, 'on conflict (only_row, shop_id) do nothing')) !==
    undefined
  );
}

export const setShop = (db: Queries, shop: Row): Promise<void> => table.put(db, shop, '(only_row, shop_id)');

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
