import type { PartRecord, PartRow } from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';

interface Row {
  id: string;
  kind: string;
  data: Omit<PartRecord, 'id' | 'kind'>;
  retired: boolean;
}
const table = tableOf<Row>('part', { id: 'id', kind: 'kind', data: 'data', retired: 'retired' });

// The kind tells what its data are: they were checked by the kind's schema when they were stored.
const rowOf = ({ id, kind, data, retired }: Row): PartRow => ({
  // Parts of the earlier shape have no note.
  part: { ...data, note: data.note ?? '', id, kind } as PartRecord,
  retired,
});

/** All parts, retired ones too: builds are made of them. */
export const listParts = async (db: Queries): Promise<PartRow[]> =>
  (await table.find(db, 'order by seq')).map(rowOf);

/** The parts of these ids. */
export const partsOf = async (db: Queries, ids: readonly string[]): Promise<PartRecord[]> =>
  (await table.find(db, 'where id = any($1) order by seq', [ids])).map((row) => rowOf(row).part);

export async function addPart(db: Queries, { id, kind, ...data }: PartRecord): Promise<PartRecord> {
  const row = await table.insert(db, { id, kind, data });
  return rowOf(row as Row).part;
}

/** The part changed, or undefined where there is none. Plans keep it as it was. */
export async function changePart(
  db: Queries,
  { id, kind, ...data }: PartRecord,
): Promise<PartRecord | undefined> {
  const row = await table.change(db, { kind, data }, 'id = $1', id);
  return row && rowOf(row).part;
}

export async function retirePart(db: Queries, id: string, retired: boolean): Promise<PartRow | undefined> {
  const row = await table.change(db, { retired }, 'id = $1', id);
  return row && rowOf(row);
}
