import { dayAfter } from '@kevro/core';
import type { SeasonDateRecord } from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';
import { newId } from './id';

interface Row extends SeasonDateRecord {
  key: string;
  playerId: string;
  /** Of the calendar file that it came from; empty where somebody typed it. */
  uid: string;
}
export const seasonDates = tableOf<Row>('season_date', {
  id: 'id',
  key: 'key',
  playerId: 'player_id',
  kind: 'kind',
  fromDay: 'from_day',
  toDay: 'to_day',
  title: 'title',
  venue: 'venue',
  uid: 'uid',
});
/** Dates that are past by more than this are kept, and not shown, days. */
const SHOWN_BACK_DAYS = 30;
/** So many of a player are shown at the most. */
const MOST_DATES = 400;

export const findSeasonDate = async (db: Queries, id: string): Promise<Row | undefined> =>
  (await seasonDates.find(db, 'where id = $1', [id]))[0];

/** The dates of a player, from a month ago on, the first first. */
export async function datesOf(db: Queries, playerId: string, today: string): Promise<SeasonDateRecord[]> {
  const rows = await seasonDates.find(
    db,
    `where player_id = $1 and to_day >= $2 order by from_day, seq limit ${MOST_DATES}`,
    [playerId, dayAfter(today, -SHOWN_BACK_DAYS)],
  );
  return rows.map(({ key: _, playerId: __, uid: ___, ...date }) => date);
}

/**
 * Stores the dates of a calendar file. One of an earlier edition of it, or that Kevro itself wrote into it, is changed.
 * @returns how many were changed
 */
export async function storeFileDates(
  tx: Queries,
  playerId: string,
  key: string,
  dates: readonly (Omit<SeasonDateRecord, 'id'> & { uid: string })[],
): Promise<number> {
  const there = await tx.query<{ id: string; uid: string }>(
    'select id, uid from season_date where player_id = $1',
    [playerId],
  );
  const ids = new Set(there.map(({ id }) => id));
  const uids = new Set(there.map(({ uid }) => uid));
  let changed = 0;
  for (const [place, { uid, ...date }] of dates.entries()) {
    if (ids.has(uid) || uids.has(uid)) changed++;
    if (ids.has(uid)) await seasonDates.change(tx, date, 'id = $1', uid);
    else
      await seasonDates.put(
        tx,
        { id: newId(), key: `${key} ${place}`, playerId, uid, ...date },
        `(player_id, uid, shop_id) where uid <> ''`,
        ['id', 'key', 'playerId', 'uid'],
      );
    uids.add(uid);
  }
  return changed;
}

/** So long before its day a match comes up on Today, days; and how many of them. */
const SOON_DAYS = 14;
const SOON_LISTED = 20;
/** Matches that are near, the first first. */
export const matchesSoon = (
  db: Queries,
  today: string,
): Promise<{ playerId: string; playerName: string; fromDay: string; title: string }[]> =>
  db.query(
    `select d.player_id as "playerId", p.name as "playerName", d.from_day::text as "fromDay", d.title
     from season_date d join player p on p.id = d.player_id
     where d.kind = 'match' and d.from_day between $1 and $2 and not p.archived
     order by d.from_day, d.seq limit ${SOON_LISTED}`,
    [today, dayAfter(today, SOON_DAYS)],
  );
