import type { NewSetup, Setup, SourceKind } from '@kevro/contract';
import type { Dress, FrameShape } from '@kevro/core';
import type { Queries } from '../db/db';
import { newId } from './id';

interface Row {
  id: string;
  name: string;
  frame_name: string;
  source_kind: SourceKind;
  source: string;
  year: number | null;
  shape: FrameShape;
  dress: Dress;
  mass_g: number | null;
  balance_cm: number | null;
  swing_weight: number | null;
  twist_weight: number | null;
  axis_cm: number | null;
}

const setupOf = (row: Row): Setup => ({
  id: row.id,
  name: row.name,
  frameName: row.frame_name,
  sourceKind: row.source_kind,
  source: row.source,
  year: row.year,
  shape: row.shape,
  dress: row.dress,
  // A value that was not published stays missing.
  specs: {
    ...(row.mass_g === null ? {} : { massG: row.mass_g }),
    ...(row.balance_cm === null ? {} : { balanceCm: row.balance_cm }),
    ...(row.swing_weight === null ? {} : { swingWeight: row.swing_weight }),
    ...(row.twist_weight === null ? {} : { twistWeight: row.twist_weight }),
    ...(row.axis_cm === null ? {} : { axisCm: row.axis_cm }),
  },
});

export async function listSetups(db: Queries): Promise<Setup[]> {
  return (await db.query<Row>('select * from setup order by lower(name), year, id')).map(setupOf);
}

export async function knownSetups(db: Queries, ids: readonly string[]): Promise<Set<string>> {
  const rows = await db.query<{ id: string }>('select id from setup where id = any($1)', [ids]);
  return new Set(rows.map((row) => row.id));
}

export async function addSetup(db: Queries, s: Required<NewSetup>, id = newId()): Promise<Setup> {
  const { massG = null, balanceCm = null, swingWeight = null, twistWeight = null, axisCm = null } = s.specs;
  const rows = await db.query<Row>(
    `insert into setup (id, name, frame_name, source_kind, source, year, shape, dress, mass_g, balance_cm,
       swing_weight, twist_weight, axis_cm)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13) returning *`,
    [
      id,
      s.name,
      s.frameName,
      s.sourceKind,
      s.source,
      s.year,
      JSON.stringify(s.shape),
      JSON.stringify(s.dress),
      massG,
      balanceCm,
      swingWeight,
      twistWeight,
      axisCm,
    ],
  );
  return setupOf(rows[0] as Row);
}
