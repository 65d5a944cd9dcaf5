import type { Aim } from '@kevro/core';
import type { AimRecord } from '@kevro/contract';
import type { Queries } from '../db/db';
import { newId } from './id';

const COLUMNS = 'id, created_at as "createdAt", way, setup_id as "setupId", target';

export async function newestAim(db: Queries, fittingId: string): Promise<AimRecord | undefined> {
  const sql = `select ${COLUMNS} from aim where fitting_id = $1 order by seq desc limit 1`;
  return (await db.query<AimRecord>(sql, [fittingId]))[0];
}

export async function addAim(
  db: Queries,
  fittingId: string,
  aim: { way: AimRecord['way']; setupId: string | null; target: Aim },
  createdAt: string,
): Promise<AimRecord> {
  const rows = await db.query<AimRecord>(
    `insert into aim (id, fitting_id, created_at, way, setup_id, target)
     values ($1, $2, $3, $4, $5, $6) returning ${COLUMNS}`,
    [newId(), fittingId, createdAt, aim.way, aim.setupId, JSON.stringify(aim.target)],
  );
  return rows[0] as AimRecord;
}
