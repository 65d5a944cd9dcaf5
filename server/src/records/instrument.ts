import type { Calibration } from '@kevro/core';
import type { CalibrationRecord, NewInstrument } from '@kevro/contract';
import type { Queries } from '../db/db';
import { newId } from './id';

export type InstrumentRecord = Required<NewInstrument> & { id: string };

export const listInstruments = (db: Queries): Promise<InstrumentRecord[]> =>
  db.query<InstrumentRecord>('select id, name, kind, driver, sheet, note from instrument order by seq');

/** The instrument stored, or undefined where the name is taken. */
export async function addInstrument(
  db: Queries,
  instrument: Required<NewInstrument>,
  id = newId(),
): Promise<InstrumentRecord | undefined> {
  const { name, kind, driver, sheet, note } = instrument;
  const rows = await db.query(
    `insert into instrument (id, name, kind, driver, sheet, note) values ($1, $2, $3, $4, $5, $6)
     on conflict (name) do nothing returning id`,
    [id, name, kind, driver, JSON.stringify(sheet), note],
  );
  return rows.length > 0 ? { id, ...instrument } : undefined;
}

const COLUMNS = `id, instrument_id as "instrumentId", taken_at as "takenAt", rods, slope, off_by as "offset", residuals,
  refused`;

export const listCalibrations = (db: Queries, instrumentId: string): Promise<CalibrationRecord[]> =>
  db.query<CalibrationRecord>(
    `select ${COLUMNS} from calibration where instrument_id = $1 order by taken_at desc, seq desc limit 500`,
    [instrumentId],
  );

export async function newestCalibration(
  db: Queries,
  instrumentId: string,
): Promise<CalibrationRecord | undefined> {
  const sql = `select ${COLUMNS} from calibration where instrument_id = $1 order by taken_at desc, seq desc limit 1`;
  return (await db.query<CalibrationRecord>(sql, [instrumentId]))[0];
}

/** Stores a calibration once a key, one that is refused too. */
export async function addCalibration(
  db: Queries,
  c: {
    key: string;
    instrumentId: string;
    takenAt: string;
    rods: CalibrationRecord['rods'];
    found: Calibration;
  },
): Promise<CalibrationRecord> {
  const { slope, offset, residuals, refused = null } = c.found;
  await db.query(
    `insert into calibration (id, key, instrument_id, taken_at, rods, slope, off_by, residuals, refused)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9) on conflict (key) do nothing`,
    [
      newId(),
      c.key,
      c.instrumentId,
      c.takenAt,
      JSON.stringify(c.rods),
      slope,
      offset,
      JSON.stringify(residuals),
      refused,
    ],
  );
  const rows = await db.query<CalibrationRecord>(`select ${COLUMNS} from calibration where key = $1`, [
    c.key,
  ]);
  return rows[0] as CalibrationRecord;
}
