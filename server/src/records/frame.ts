import type { FrameRecord, NewFrame } from '@kevro/contract';
import type { Queries } from '../db/db';
import { newId } from './id';

const COLUMNS = 'id, tag, maker, model, owner_id as "ownerId", shape, pattern, grip_size as "gripSize", note';

export const listFrames = (db: Queries): Promise<FrameRecord[]> =>
  db.query<FrameRecord>(`select ${COLUMNS} from frame order by lower(tag), id`);

export async function findFrame(db: Queries, id: string): Promise<FrameRecord | undefined> {
  return (await db.query<FrameRecord>(`select ${COLUMNS} from frame where id = $1`, [id]))[0];
}

/** The frame stored, or undefined where the tag is taken. */
export async function addFrame(
  db: Queries,
  f: Required<NewFrame>,
  id = newId(),
): Promise<FrameRecord | undefined> {
  const rows = await db.query<FrameRecord>(
    `insert into frame (id, tag, maker, model, owner_id, shape, pattern, grip_size, note)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9) on conflict (tag) do nothing returning ${COLUMNS}`,
    [id, f.tag, f.maker, f.model, f.ownerId, JSON.stringify(f.shape), f.pattern, f.gripSize, f.note],
  );
  return rows[0];
}
