import type { NewPart, Parts } from '@kevro/contract';
import type { Queries } from '../db/db';
import { newId } from './id';

export async function listParts(db: Queries): Promise<Parts> {
  const rows = await db.query<{ id: string; kind: string; data: object }>(
    'select id, kind, data from part order by seq',
  );
  const of = (kind: string): object[] =>
    rows.filter((r) => r.kind === kind).map(({ id, data }) => ({ id, ...data }));
  return { tapes: of('tape') as Parts['tapes'], fillings: of('filling') as Parts['fillings'] };
}

export async function addPart(db: Queries, part: NewPart, id = newId()): Promise<void> {
  await db.query('insert into part (id, kind, data) values ($1, $2, $3)', [
    id,
    part.kind,
    JSON.stringify(part.data),
  ]);
}
