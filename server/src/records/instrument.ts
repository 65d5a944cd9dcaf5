import type { Calibration, InstrumentNow } from '@kevro/core';
import type { z } from 'zod';
import type { CalibrationRecord, newInstrument } from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';
import { newId } from './id';

export type InstrumentRecord = Required<z.output<typeof newInstrument>> & {
  id: string;
  retired: boolean;
  /** The bench machine that it is plugged into; empty where the shop has but one. */
  bench: string;
};
const instruments = tableOf<InstrumentRecord>('instrument', {
  id: 'id',
  name: 'name',
  kind: 'kind',
  driver: 'driver',
  sheet: 'sheet',
  note: 'note',
  link: 'link',
  retired: 'retired',
  bench: 'bench',
});

export const listInstruments = (db: Queries): Promise<InstrumentRecord[]> =>
  instruments.find(db, 'order by seq');

/** The instrument stored, or undefined where the name is taken. */
export const addInstrument = (
  db: Queries,
  instrument: Omit<InstrumentRecord, 'id' | 'retired' | 'bench'> & { bench?: string },
  id = newId(),
): Promise<InstrumentRecord | undefined> =>
  instruments.insert(db, { id, ...instrument }, 'on conflict (name, shop_id) do nothing');

/** Those of which nobody said where they are plugged in are at this bench. */
export const claimInstruments = (db: Queries, bench: string): Promise<unknown> =>
  db.query("update instrument set bench = $1 where bench = ''", [bench]);

/** Whether another instrument has the name. */
export const nameTaken = async (db: Queries, name: string, id: string): Promise<boolean> =>
  (await instruments.find(db, 'where name = $1 and id <> $2', [name, id])).length > 0;
export const changeInstrument = (
  db: Queries,
  id: string,
  change: Partial<InstrumentRecord>,
): Promise<InstrumentRecord | undefined> => instruments.change(db, change, 'id = $1', id);

const calibrations = tableOf<CalibrationRecord & { key: string }>('calibration', {
  id: 'id',
  key: 'key',
  instrumentId: 'instrument_id',
  takenAt: 'taken_at',
  rods: 'rods',
  slope: 'slope',
  offset: 'off_by',
  residuals: 'residuals',
  refused: 'refused',
});
const calibrationOf = ({ key: _, ...row }: CalibrationRecord & { key: string }): CalibrationRecord => row;

/** In the order of arrival, the last first: a clock that was set back hides none. */
export const listCalibrations = async (db: Queries, instrumentId: string): Promise<CalibrationRecord[]> =>
  (await calibrations.find(db, 'where instrument_id = $1 order by seq desc', [instrumentId])).map(
    calibrationOf,
  );

/** The calibration of each instrument that arrived last. */
export async function lastCalibrations(db: Queries): Promise<Map<string, CalibrationRecord>> {
  const rows = await db.query<CalibrationRecord & { key: string }>(
    `select distinct on (instrument_id) ${calibrations.list()} from calibration order by instrument_id, seq desc`,
  );
  return new Map(rows.map((row) => [row.instrumentId, calibrationOf(row)]));
}

/** Every instrument with the calibration that counts: a refused one does not. */
export async function instrumentsNow(db: Queries): Promise<InstrumentNow[]> {
  const [all, last] = [await listInstruments(db), await lastCalibrations(db)];
  return all.map(({ id, retired }) => {
    const calibration = last.get(id);
    return { id, retired, calibrationId: calibration?.refused === null ? calibration.id : null };
  });
}

/** Stores a calibration, one that is refused too. */
export async function addCalibration(
  db: Queries,
  {
    found,
    ...c
  }: Pick<CalibrationRecord, 'instrumentId' | 'takenAt' | 'rods'> & {
    key: string;
    found: Calibration;
  },
): Promise<CalibrationRecord> {
  const { slope, offset, residuals, refused = null } = found;
  const row = { id: newId(), ...c, slope, offset, residuals, refused };
  await calibrations.insert(db, row);
  return calibrationOf(row);
}

export async function findCalibration(db: Queries, id: string): Promise<CalibrationRecord | undefined> {
  const [row] = await calibrations.find(db, 'where id = $1', [id]);
  return row && calibrationOf(row);
}
