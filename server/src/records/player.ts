import type { NewPlayer, Player, PlayerQuery } from '@kevro/contract';
import type { Sport } from '@kevro/core';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';
import { newId } from './id';
import { Conditions, readListing, type Listing } from './listing';

/** A player as stored: the arm history is read by itself, where it is asked for. */
type Stored = Omit<Player, 'hasArmHistory'> & { armHistory: string };
const table = tableOf<Stored>('player', {
  id: 'id',
  name: 'name',
  sports: 'sports',
  birthYear: 'birth_year',
  heightCm: 'height_cm',
  build: 'build',
  level: 'level',
  levelScale: 'level_scale',
  handedness: 'handedness',
  style: 'style',
  putsFirst: 'puts_first',
  bothers: 'bothers',
  botherNote: 'bother_note',
  ceilings: 'ceilings',
  guides: 'guides',
  sessionsAWeek: 'sessions_a_week',
  armHistory: 'arm_history',
  archived: 'archived',
});
const COLUMNS = `${table.list('', ['armHistory'])}, arm_history <> '' as "hasArmHistory"`;

const ORDER: Record<PlayerQuery['sort'], string> = {
  name: 'lower(name), id',
  age: 'birth_year desc nulls last, lower(name), id',
  level: 'level_scale desc nulls last, lower(name), id',
};

export function listPlayers(db: Queries, query: PlayerQuery): Promise<Listing<Player>> {
  const asked = new Conditions()
    .and('archived = ?', query.archived)
    .search(query.search, (has) => has('words'));
  if (query.sport) asked.and('sports @> ?', JSON.stringify([query.sport]));
  return readListing<Player>(
    db,
    { id: 'id', find: 'player', columns: COLUMNS, from: 'player', order: ORDER[query.sort] },
    asked,
    query,
  );
}

export async function findPlayer(db: Queries, id: string): Promise<Player | undefined> {
  return (await db.query<Player>(`select ${COLUMNS} from player where id = $1`, [id]))[0];
}

export async function armHistoryOf(db: Queries, id: string): Promise<string | undefined> {
  const rows = await db.query<{ arm_history: string }>('select arm_history from player where id = $1', [id]);
  return rows[0]?.arm_history;
}

type PlayerToStore = Required<Omit<NewPlayer, 'armHistory'>> & Pick<NewPlayer, 'armHistory'>;

const playerOf = ({ armHistory, ...row }: Stored): Player => ({ ...row, hasArmHistory: armHistory !== '' });

export async function addPlayer(db: Queries, p: PlayerToStore, id = newId()): Promise<Player> {
  return playerOf((await table.insert(db, { id, armHistory: '', ...p })) as Stored);
}

/** The player changed, or undefined where there is none. An arm history left out stays as it is. */
export async function changePlayer(db: Queries, id: string, p: PlayerToStore): Promise<Player | undefined> {
  const row = await table.change(db, p, 'id = $1', id);
  return row && playerOf(row);
}

export async function archivePlayer(db: Queries, id: string, archived: boolean): Promise<Player | undefined> {
  const row = await table.change(db, { archived }, 'id = $1', id);
  return row && playerOf(row);
}

/** Writes down what a player carries in a sport, with its standard uncertainty and the day on which it was found. */
export const setCeiling = (
  db: Queries,
  id: string,
  sport: Sport,
  found: { swingWeight: number; uncertainty: number; on: string },
): Promise<unknown> =>
  db.query(
    `update player set ceilings = ceilings || jsonb_build_object($2::text, $3::float8),
       ceiling_notes = ceiling_notes || jsonb_build_object($2::text, $4::jsonb) where id = $1`,
    [id, sport, found.swingWeight, JSON.stringify(found)],
  );
