import type { NewPlayer, Player, PlayerQuery } from '@kevro/contract';
import type { Queries } from '../db/db';
import { newId } from './id';
import { Conditions, readListing, type Listing } from './listing';

/** The arm history is not among them: it is read by itself, where it is asked for. */
const COLUMNS = `id, name, sports, birth_year as "birthYear", height_cm as "heightCm", build, level,
  level_scale as "levelScale", handedness, style, puts_first as "putsFirst", bothers, bother_note as "botherNote",
  ceiling_swing_weight as "ceilingSwingWeight", sessions_a_week as "sessionsAWeek", guide,
  arm_history <> '' as "hasArmHistory", archived`;

const ORDER: Record<PlayerQuery['sort'], string> = {
  name: 'lower(name), id',
  age: 'birth_year desc nulls last, lower(name), id',
  level: 'level_scale desc nulls last, lower(name), id',
};

export function listPlayers(db: Queries, query: PlayerQuery): Promise<Listing<Player>> {
  const asked = new Conditions().and('archived = ?', query.archived).search(query.search, 'words');
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

/** Adds a player, or changes the one of this id. An arm history left out stays as it is. */
export async function putPlayer(db: Queries, p: PlayerToStore, id = newId()): Promise<Player> {
  const rows = await db.query<Player>(
    `insert into player (id, name, sports, birth_year, height_cm, build, level, level_scale, handedness, style,
       puts_first, bothers, bother_note, ceiling_swing_weight, sessions_a_week, guide, arm_history)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, coalesce($17, ''))
     on conflict (id) do update set name = excluded.name, sports = excluded.sports, birth_year = excluded.birth_year,
       height_cm = excluded.height_cm, build = excluded.build, level = excluded.level,
       level_scale = excluded.level_scale, handedness = excluded.handedness, style = excluded.style,
       puts_first = excluded.puts_first, bothers = excluded.bothers, bother_note = excluded.bother_note,
       ceiling_swing_weight = excluded.ceiling_swing_weight, sessions_a_week = excluded.sessions_a_week,
       guide = excluded.guide, arm_history = coalesce($17, player.arm_history)
     returning ${COLUMNS}`,
    [
      id,
      p.name,
      JSON.stringify(p.sports),
      p.birthYear,
      p.heightCm,
      p.build,
      p.level,
      p.levelScale,
      p.handedness,
      p.style,
      p.putsFirst,
      JSON.stringify(p.bothers),
      p.botherNote,
      p.ceilingSwingWeight,
      p.sessionsAWeek,
      p.guide,
      p.armHistory ?? null,
    ],
  );
  return rows[0] as Player;
}

export async function archivePlayer(db: Queries, id: string, archived: boolean): Promise<Player | undefined> {
  const sql = `update player set archived = $2 where id = $1 returning ${COLUMNS}`;
  return (await db.query<Player>(sql, [id, archived]))[0];
}
