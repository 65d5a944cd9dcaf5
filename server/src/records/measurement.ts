import type { Dress, SpecUncertainty } from '@kevro/core';
import type { Measurement } from '@kevro/contract';
import type { Queries } from '../db/db';
import { newId } from './id';

interface Row {
  id: string;
  frame_id: string;
  taken_at: string;
  dress: Dress;
  mass_g: number;
  balance_cm: number;
  swing_weight: number;
  twist_weight: number | null;
  axis_cm: number;
  uncertainty: SpecUncertainty;
  estimated: Measurement['estimated'];
  left_right: Measurement['leftRight'];
  how: Measurement['how'];
  note: string;
}

const measurementOf = (row: Row): Measurement => ({
  id: row.id,
  frameId: row.frame_id,
  takenAt: row.taken_at,
  dress: row.dress,
  specs: {
    massG: row.mass_g,
    balanceCm: row.balance_cm,
    swingWeight: row.swing_weight,
    ...(row.twist_weight === null ? {} : { twistWeight: row.twist_weight }),
    axisCm: row.axis_cm,
  },
  uncertainty: row.uncertainty,
  estimated: row.estimated,
  leftRight: row.left_right,
  how: row.how,
  note: row.note,
});

export async function listMeasurements(db: Queries, frameId: string): Promise<Measurement[]> {
  const rows = await db.query<Row>('select * from measurement where frame_id = $1 order by seq desc', [
    frameId,
  ]);
  return rows.map(measurementOf);
}

export async function findMeasurement(db: Queries, id: string): Promise<Measurement> {
  const [row] = await db.query<Row>('select * from measurement where id = $1', [id]);
  return measurementOf(row as Row);
}

export async function newestMeasurement(db: Queries, frameId: string): Promise<Measurement | undefined> {
  const rows = await db.query<Row>(
    'select * from measurement where frame_id = $1 order by seq desc limit 1',
    [frameId],
  );
  return rows[0] && measurementOf(rows[0]);
}

export type MeasurementToStore = Omit<Measurement, 'id' | 'how'> & {
  key: string;
  how?: Measurement['how'];
};

/** Stores a measurement once a key: a second one with the same key changes nothing and gives back the first. */
export async function addMeasurement(db: Queries, m: MeasurementToStore): Promise<Measurement> {
  const { massG, balanceCm, swingWeight, twistWeight = null, axisCm } = m.specs;
  const stored = await db.query<Row>(
    `insert into measurement (id, key, frame_id, taken_at, dress, mass_g, balance_cm, swing_weight, twist_weight,
       axis_cm, uncertainty, estimated, left_right, how, note)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15)
     on conflict (key) do nothing returning *`,
    [
      newId(),
      m.key,
      m.frameId,
      m.takenAt,
      JSON.stringify(m.dress),
      massG,
      balanceCm,
      swingWeight,
      twistWeight,
      axisCm,
      JSON.stringify(m.uncertainty),
      JSON.stringify(m.estimated),
      m.leftRight === null ? null : JSON.stringify(m.leftRight),
      JSON.stringify(m.how ?? {}),
      m.note,
    ],
  );
  const [row] = stored;
  if (!row) {
    const [first] = await db.query<Row>('select * from measurement where key = $1', [m.key]);
    return measurementOf(first as Row);
  }
  await db.query('update frame set newest_measurement_id = $2, on_it = $3, measured_at = $4 where id = $1', [
    m.frameId,
    row.id,
    JSON.stringify(m.dress),
    m.takenAt,
  ]);
  return measurementOf(row);
}
