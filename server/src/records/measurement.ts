import type { AxisSpecs } from '@kevro/core';
import type { Measurement } from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';
import { newId } from './id';

interface Row extends Omit<Measurement, 'specs'> {
  key: string;
  massG: number;
  balanceCm: number;
  swingWeight: number;
  twistWeight: number | null;
  axisCm: number;
}

const table = tableOf<Row>('measurement', {
  id: 'id',
  key: 'key',
  frameId: 'frame_id',
  takenAt: 'taken_at',
  purpose: 'purpose',
  roundId: 'round_id',
  dress: 'dress',
  massG: 'mass_g',
  balanceCm: 'balance_cm',
  swingWeight: 'swing_weight',
  twistWeight: 'twist_weight',
  axisCm: 'axis_cm',
  uncertainty: 'uncertainty',
  estimated: 'estimated',
  leftRight: 'left_right',
  how: 'how',
  note: 'note',
});

function measurementOf({
  key: _,
  massG,
  balanceCm,
  swingWeight,
  twistWeight,
  axisCm,
  ...rest
}: Row): Measurement {
  const specs: AxisSpecs = {
    massG,
    balanceCm,
    swingWeight,
    ...(twistWeight === null ? {} : { twistWeight }),
    axisCm,
  };
  return { ...rest, specs };
}

/** In the order of arrival, the last first. */
export const listMeasurements = async (db: Queries, frameId: string): Promise<Measurement[]> =>
  (await table.find(db, 'where frame_id = $1 order by seq desc', [frameId])).map(measurementOf);

export const findMeasurements = async (db: Queries, ids: readonly string[]): Promise<Measurement[]> =>
  (await table.find(db, 'where id = any($1) order by seq', [ids])).map(measurementOf);

/** The measurements of rounds, in the order of arrival. */
export const measurementsOfRounds = async (
  db: Queries,
  roundIds: readonly string[],
): Promise<Measurement[]> =>
  (await table.find(db, 'where round_id = any($1) order by seq', [roundIds])).map(measurementOf);

/** What a frame was last, as it stands: trials and steps on the way are not it. */
export async function lastStanding(db: Queries, frameId: string): Promise<Measurement | undefined> {
  const [row] = await table.find(
    db,
    "where frame_id = $1 and purpose not in ('trial', 'step') order by seq desc limit 1",
    [frameId],
  );
  return row && measurementOf(row);
}

export type MeasurementToStore = Omit<Measurement, 'id'>;

/**
 * Stores a measurement once a key: a second one with the same key changes nothing and gives back the first.
 * @returns undefined where the key was used for another frame
 */
export async function addMeasurement(
  db: Queries,
  { specs, ...m }: MeasurementToStore,
  key: string,
): Promise<Measurement | undefined> {
  const stored = await table.insert(db, { id: newId(), key, ...m, ...specs }, 'on conflict (key) do nothing');
  if (!stored) {
    const [first] = await table.find(db, 'where key = $1', [key]);
    return first?.frameId === m.frameId ? measurementOf(first) : undefined;
  }
  // What is on the frame is what it was measured in; what it is, only where it was measured as it stands.
  const stands = m.purpose !== 'trial' && m.purpose !== 'step';
  await db.query(
    `update frame set on_it = $2, measured_at = $3,
       newest_measurement_id = case when $5 then $4 else newest_measurement_id end where id = $1`,
    [m.frameId, JSON.stringify(m.dress), m.takenAt, stored.id, stands],
  );
  return measurementOf(stored);
}
