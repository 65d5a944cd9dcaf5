import { ALL_SPORTS, guideOf, guidesOf, type GuideName, type Sport } from '@kevro/core';
import type { GuideRow } from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';

type Stored = Omit<GuideRow, 'edited'>;
const table = tableOf<Stored>('guide', { sport: 'sport', name: 'name', bands: 'bands' });

/** Every guide that there is, as the shop has it. */
export async function listGuides(db: Queries): Promise<GuideRow[]> {
  const edited = await table.find(db, '');
  return ALL_SPORTS.flatMap((sport) =>
    guidesOf(sport).map((name): GuideRow => {
      const own = edited.find((row) => row.sport === sport && row.name === name);
      return { sport, name, bands: own?.bands ?? guideOf(sport, name), edited: own !== undefined };
    }),
  );
}

/** The sport and name that an id names; undefined where there is no such guide. */
export function guideNamed(id: string): { sport: Sport; name: GuideName } | undefined {
  const [of = '', ...rest] = id.split('-');
  const sport = ALL_SPORTS.find((one) => one === of);
  const name = sport && guidesOf(sport).find((one) => one === rest.join('-'));
  return sport && name ? { sport, name } : undefined;
}

export const setGuide = (db: Queries, row: Stored): Promise<unknown> =>
  table.put(db, row, '(sport, name, shop_id)', ['sport', 'name']);
export const dropGuide = (
  db: Queries,
  { sport, name }: { sport: Sport; name: GuideName },
): Promise<unknown> => db.query('delete from guide where sport = $1 and name = $2', [sport, name]);
