import type { NewPlayer, Player } from '@kevro/contract';
import type { Queries } from '../db/db';
import { newId } from './id';

const COLUMNS = `id, name, sport, birth_year as "birthYear", level, style, bothers,
  ceiling_swing_weight as "ceilingSwingWeight", guide`;

export const listPlayers = (db: Queries): Promise<Player[]> =>
  db.query<Player>(`select ${COLUMNS} from player order by lower(name), id`);

export async function findPlayer(db: Queries, id: string): Promise<Player | undefined> {
  return (await db.query<Player>(`select ${COLUMNS} from player where id = $1`, [id]))[0];
}

export async function addPlayer(db: Queries, p: Required<NewPlayer>, id = newId()): Promise<Player> {
  const rows = await db.query<Player>(
    `insert into player (id, name, sport, birth_year, level, style, bothers, ceiling_swing_weight,
       guide)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9) returning ${COLUMNS}`,
    [id, p.name, p.sport, p.birthYear, p.level, p.style, p.bothers, p.ceilingSwingWeight, p.guide],
  );
  return rows[0] as Player;
}
