import type { Dress } from '@kevro/core';
import type { CaptureRecord, ReadingRecord } from '@kevro/contract';
import type { Queries } from '../db/db';
import { newId } from './id';

interface Row {
  id: string;
  frameId: string;
  openedAt: string;
  dress: Dress;
  dressSaid: boolean;
}
const COLUMNS = 'id, frame_id as "frameId", opened_at as "openedAt", dress, dress_said as "dressSaid"';

interface ReadingRow {
  id: string;
  taken_at: string;
  instrument_id: string | null;
  calibration_id: string | null;
  set_aside: boolean;
  data: Omit<ReadingRecord, 'id' | 'takenAt' | 'instrumentId' | 'calibrationId' | 'setAside'>;
}

async function withReadings(db: Queries, row: Row): Promise<CaptureRecord> {
  const rows = await db.query<ReadingRow>('select * from reading where capture_id = $1 order by seq', [
    row.id,
  ]);
  const readings = rows.map((r) => ({
    ...r.data,
    id: r.id,
    takenAt: r.taken_at,
    instrumentId: r.instrument_id,
    calibrationId: r.calibration_id,
    setAside: r.set_aside,
  }));
  return { ...row, readings };
}

/** The open capture of a frame; one is begun where there is none. Two that ask at once get the same. */
export async function openCapture(
  db: Queries,
  frame: { id: string; onIt: Dress },
  now: string,
): Promise<CaptureRecord> {
  const open = `select ${COLUMNS} from capture where frame_id = $1 and measurement_id is null and not dropped`;
  let [row] = await db.query<Row>(open, [frame.id]);
  if (!row) {
    await db.query(
      'insert into capture (id, frame_id, opened_at, dress) values ($1, $2, $3, $4) on conflict do nothing',
      [newId(), frame.id, now, JSON.stringify(frame.onIt)],
    );
    [row] = await db.query<Row>(open, [frame.id]);
  }
  return withReadings(db, row as Row);
}

/** A capture of a frame for storing or dropping: no one else can do either until the transaction ends. */
export async function lockCapture(
  tx: Queries,
  frameId: string,
  id: string,
): Promise<(CaptureRecord & { measurementId: string | null; dropped: boolean }) | undefined> {
  const [row] = await tx.query<Row & { measurementId: string | null; dropped: boolean }>(
    `select ${COLUMNS}, measurement_id as "measurementId", dropped from capture where id = $1 and frame_id = $2
     for update`,
    [id, frameId],
  );
  if (!row) return undefined;
  const { measurementId, dropped, ...own } = row;
  return { ...(await withReadings(tx, own)), measurementId, dropped };
}

export const setDress = (db: Queries, captureId: string, dress: Dress): Promise<unknown[]> =>
  db.query('update capture set dress = $2, dress_said = true where id = $1', [
    captureId,
    JSON.stringify(dress),
  ]);

/** Adds a reading once an id: the same again changes nothing. */
export const addReading = (
  db: Queries,
  captureId: string,
  { id, takenAt, instrumentId, calibrationId, setAside, ...data }: ReadingRecord,
): Promise<unknown[]> =>
  db.query(
    `insert into reading (id, capture_id, taken_at, instrument_id, calibration_id, set_aside, data)
     values ($1, $2, $3, $4, $5, $6, $7) on conflict (id) do nothing`,
    [id, captureId, takenAt, instrumentId, calibrationId, setAside, JSON.stringify(data)],
  );

/** Whether the reading is one of this capture. */
export async function setReadingAside(
  db: Queries,
  captureId: string,
  readingId: string,
  aside: boolean,
): Promise<boolean> {
  const rows = await db.query(
    'update reading set set_aside = $3 where id = $2 and capture_id = $1 returning id',
    [captureId, readingId, aside],
  );
  return rows.length > 0;
}

export const closeCapture = (tx: Queries, id: string, measurementId: string): Promise<unknown[]> =>
  tx.query('update capture set measurement_id = $2 where id = $1', [id, measurementId]);

export const dropCapture = (tx: Queries, id: string): Promise<unknown[]> =>
  tx.query('update capture set dropped = true where id = $1', [id]);
