import type { Dress } from '@kevro/core';
import type { CaptureRecord, ReadingRecord } from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';
import { newId } from './id';

interface Row {
  id: string;
  frameId: string;
  openedAt: string;
  dress: Dress;
  dressSaid: boolean;
  measurementId: string | null;
  dropped: boolean;
}
const captures = tableOf<Row>('capture', {
  id: 'id',
  frameId: 'frame_id',
  openedAt: 'opened_at',
  dress: 'dress',
  dressSaid: 'dress_said',
  measurementId: 'measurement_id',
  dropped: 'dropped',
});

interface ReadingRow {
  id: string;
  captureId: string;
  takenAt: string;
  instrumentId: string | null;
  calibrationId: string | null;
  setAside: boolean;
  data: Omit<ReadingRecord, 'id' | 'takenAt' | 'instrumentId' | 'calibrationId' | 'setAside'>;
}
const readings = tableOf<ReadingRow>('reading', {
  id: 'id',
  captureId: 'capture_id',
  takenAt: 'taken_at',
  instrumentId: 'instrument_id',
  calibrationId: 'calibration_id',
  setAside: 'set_aside',
  data: 'data',
});

async function withReadings(
  db: Queries,
  { measurementId: _, dropped: __, ...row }: Row,
): Promise<CaptureRecord> {
  const rows = await readings.find(db, 'where capture_id = $1 order by seq', [row.id]);
  return {
    ...row,
    readings: rows.map(({ data, captureId: ___, ...reading }) => ({ ...data, ...reading })),
  };
}

/** The open capture of a frame; one is begun where there is none. Two that ask at once get the same. */
export async function openCapture(
  db: Queries,
  frame: { id: string; onIt: Dress },
  now: string,
): Promise<CaptureRecord> {
  const open = 'where frame_id = $1 and measurement_id is null and not dropped';
  let [row] = await captures.find(db, open, [frame.id]);
  if (!row) {
    await captures.insert(
      db,
      { id: newId(), frameId: frame.id, openedAt: now, dress: frame.onIt },
      'on conflict do nothing',
    );
    [row] = await captures.find(db, open, [frame.id]);
  }
  return withReadings(db, row as Row);
}

/** A capture of a frame for storing or dropping: no one else can do either until the transaction ends. */
export async function lockCapture(
  tx: Queries,
  frameId: string,
  id: string,
): Promise<(CaptureRecord & Pick<Row, 'measurementId' | 'dropped'>) | undefined> {
  const [row] = await captures.find(tx, 'where id = $1 and frame_id = $2 for update', [id, frameId]);
  if (!row) return undefined;
  const { measurementId, dropped } = row;
  return { ...(await withReadings(tx, row)), measurementId, dropped };
}

export const setDress = (db: Queries, captureId: string, dress: Dress): Promise<unknown> =>
  captures.change(db, { dress, dressSaid: true }, 'id = $1', captureId);

/** Adds a reading once an id. @returns whether the reading of this id is one of this frame: the same again is, another frame's is not */
export async function addReading(
  db: Queries,
  capture: { id: string; frameId: string },
  { id, takenAt, instrumentId, calibrationId, setAside, ...data }: ReadingRecord,
): Promise<boolean> {
  const row = { id, captureId: capture.id, takenAt, instrumentId, calibrationId, setAside, data };
  if (await readings.insert(db, row, 'on conflict (id, shop_id) do nothing')) return true;
  return (await frameOfReading(db, id)) === capture.frameId;
}

/** The frame that a reading is of; undefined where there is none of this id. */
export async function frameOfReading(db: Queries, id: string): Promise<string | undefined> {
  const [found] = await db.query<{ frame_id: string }>(
    'select c.frame_id from reading r join capture c on c.id = r.capture_id where r.id = $1',
    [id],
  );
  return found?.frame_id;
}

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

export const closeCapture = (tx: Queries, id: string, measurementId: string): Promise<unknown> =>
  captures.change(tx, { measurementId }, 'id = $1', id);

export const dropCapture = (tx: Queries, id: string): Promise<unknown> =>
  captures.change(tx, { dropped: true }, 'id = $1', id);
