import {
  type RatingKey,
  type Specs,
  ratingsBy,
  ALL_SPEC_KEYS,
  type AnySpecKey,
  ESTIMATE_PARTS,
  SPECS,
  STANDING_PURPOSES,
  byAnySpec,
  bySpec,
  parted,
  wholesOf,
  type AxisSpecs,
  type Parted,
  type SpecKey,
  type SpecParted,
} from '@kevro/core';
import type { Measurement } from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';
import { newId } from './id';

interface Row extends Omit<Measurement, 'specs' | 'uncertainty'>, Record<AnySpecKey, number | null> {
  key: string;
  place: number | null;
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
  ...byAnySpec((key) => SPECS[key].column),
  axisCm: 'axis_cm',
  parts: 'parts',
  estimated: 'estimated',
  leftRight: 'left_right',
  how: 'how',
  note: 'note',
  counts: 'counts',
  why: 'why',
  supersedes: 'supersedes',
  supersededBy: 'superseded_by',
  place: 'place',
});

/** What a row of SQL knows of a frame's specs: a spec that was not measured is left out, and weight, balance and swing weight always were. */
export const specsKnown = (row: Record<AnySpecKey | 'axisCm', number | null>): AxisSpecs =>
  Object.fromEntries(
    [...ALL_SPEC_KEYS, 'axisCm' as const].flatMap((key) => (row[key] === null ? [] : [[key, row[key]]])),
  ) as unknown as AxisSpecs;

function measurementOf({ key: _, place: __, ...row }: Row): Measurement {
  const specs = specsKnown(row);
  const rest = Object.fromEntries(
    Object.entries(row).filter(([key]) => !(key in SPECS) && key !== 'axisCm'),
  ) as Omit<Measurement, 'specs' | 'uncertainty'>;
  return { ...rest, specs, uncertainty: wholesOf(rest.parts) };
}

/** What a measurement that came in whole is uncertain by, in its parts: what is said whole is split as is usual, and an estimate is wrong the same way each time. */
export function partsSaid(
  said: Record<SpecKey, number | Parted> & Partial<Record<RatingKey, number | Parted>>,
  specs: Specs,
  estimated: readonly string[],
): SpecParted {
  const partsOf = (key: AnySpecKey, one: number | Parted): Parted =>
    typeof one === 'number' ? parted(one, estimated.includes(key) ? ESTIMATE_PARTS : undefined) : one;
  return {
    ...bySpec((key) => partsOf(key, said[key])),
    ...ratingsBy((key) => {
      const one = specs[key] === undefined ? undefined : said[key];
      return one === undefined ? undefined : partsOf(key, one);
    }),
  };
}

/** What a frame was as it is used, by the core's own rule: neither a trial or step on the way, nor what was discarded. */
const STANDING = `counts and purpose in (${STANDING_PURPOSES.map((purpose) => `'${purpose}'`).join(', ')})`;
/** The order of arrival: a correction has the place of what it corrects. */
export const ARRIVAL = 'coalesce(place, seq), seq';
/** The same, the last first. */
const LAST_FIRST = 'coalesce(place, seq) desc, seq desc';

/** In the order of arrival, the last first. */
export const listMeasurements = async (db: Queries, frameId: string): Promise<Measurement[]> =>
  (await table.find(db, `where frame_id = $1 order by ${LAST_FIRST}`, [frameId])).map(measurementOf);

export const findMeasurements = async (db: Queries, ids: readonly string[]): Promise<Measurement[]> =>
  (await table.find(db, `where id = any($1) order by ${ARRIVAL}`, [ids])).map(measurementOf);

/** The measurements of rounds, in the order of arrival. */
export const measurementsOfRounds = async (
  db: Queries,
  roundIds: readonly string[],
): Promise<Measurement[]> =>
  (await table.find(db, `where round_id = any($1) order by ${ARRIVAL}`, [roundIds])).map(measurementOf);

/** What a frame was last, as it stands: trials and steps on the way are not it. */
export async function lastStanding(db: Queries, frameId: string): Promise<Measurement | undefined> {
  const [row] = await table.find(db, `where frame_id = $1 and ${STANDING} order by ${LAST_FIRST} limit 1`, [
    frameId,
  ]);
  return row && measurementOf(row);
}

export type MeasurementToStore = Omit<
  Measurement,
  'id' | 'counts' | 'why' | 'supersedes' | 'supersededBy' | 'uncertainty'
>;

/**
 * Stores a measurement once a key: a second one with the same key changes nothing and gives back the first.
 * @returns undefined where the key was used for another frame
 */
export async function addMeasurement(
  db: Queries,
  { specs, ...m }: MeasurementToStore,
  key: string,
): Promise<Measurement | undefined> {
  const stored = await table.insert(
    db,
    { id: newId(), key, ...m, ...specs },
    'on conflict (key, shop_id) do nothing',
  );
  if (!stored) {
    const [first] = await table.find(db, 'where key = $1', [key]);
    return first?.frameId === m.frameId ? measurementOf(first) : undefined;
  }
  // What is on the frame is what it was measured in; what it is, only where it was measured as it stands.
  const stands = STANDING_PURPOSES.includes(m.purpose);
  await db.query(
    `update frame set on_it = $2, measured_at = $3,
       newest_measurement_id = case when $5 then $4 else newest_measurement_id end where id = $1`,
    [m.frameId, JSON.stringify(m.dress), m.takenAt, stored.id, stands],
  );
  return measurementOf(stored);
}

/** What a frame was measured as last, whatever for. */
async function lastCounted(db: Queries, frameId: string): Promise<Measurement | undefined> {
  const [row] = await table.find(db, `where frame_id = $1 and counts order by ${LAST_FIRST} limit 1`, [
    frameId,
  ]);
  return row && measurementOf(row);
}

/** Says anew what a frame was measured as last. */
async function refreshFrame(db: Queries, frameId: string): Promise<void> {
  const [last, standing] = [await lastCounted(db, frameId), await lastStanding(db, frameId)];
  await db.query('update frame set measured_at = $2, newest_measurement_id = $3 where id = $1', [
    frameId,
    last?.takenAt ?? null,
    standing?.id ?? null,
  ]);
}

async function mark(db: Queries, id: string, at: string, counts: boolean, why: string): Promise<void> {
  await table.change(db, { counts, why }, 'id = $1', id);
  await db.query(
    'insert into measurement_mark (measurement_id, at, counts, reason) values ($1, $2, $3, $4)',
    [id, at, counts, why],
  );
}

/**
 * Puts a measurement right: the new one has the time, the purpose and the place of the first, which stays and counts no more. Rounds that start
 * from the first start from the new one.
 * @returns undefined where the key was used for something else
 */
export async function correctMeasurement(
  db: Queries,
  first: Measurement,
  { specs, ...m }: Pick<Measurement, 'specs' | 'dress' | 'parts' | 'estimated' | 'leftRight' | 'note'>,
  { key, reason, at }: { key: string; reason: string; at: string },
): Promise<Measurement | undefined> {
  const isLast = (await lastCounted(db, first.frameId))?.id === first.id;
  const [{ place } = { place: null }] = await db.query<{ place: number }>(
    `select coalesce(place, seq) as place from measurement where id = $1`,
    [first.id],
  );
  const { frameId, takenAt, purpose, roundId, how } = first;
  const stored = await table.insert(
    db,
    // What was not measured in the first place has no way in which it was found.
    {
      id: newId(),
      key,
      frameId,
      takenAt,
      purpose,
      roundId,
      how,
      ...m,
      ...specs,
      why: reason,
      supersedes: first.id,
      place,
    },
    'on conflict (key, shop_id) do nothing',
  );
  if (!stored) {
    const [same] = await table.find(db, 'where key = $1', [key]);
    return same?.supersedes === first.id ? measurementOf(same) : undefined;
  }
  await mark(db, first.id, at, false, reason);
  await table.change(db, { supersededBy: stored.id }, 'id = $1', first.id);
  await db.query(
    `update round set start_id = $2 where start_id = $1 and fitting_id in (select id from fitting where closed_at is null)`,
    [first.id, stored.id],
  );
  if (isLast) await db.query('update frame set on_it = $2 where id = $1', [frameId, JSON.stringify(m.dress)]);
  await refreshFrame(db, frameId);
  return measurementOf(stored);
}

/**
 * Where an open round starts after a measurement was marked as wrong or counts again: from the last that was found for it, else from what the
 * frame stood as otherwise.
 */
async function refreshStarts(db: Queries, { id, frameId, roundId, purpose }: Measurement): Promise<void> {
  const found = purpose === 'found' ? roundId : null;
  const open = await db.query<{ id: string }>(
    `select round.id from round join fitting on fitting.id = fitting_id
     where closed_at is null and (start_id = $1 or round.id = $2)`,
    [id, found],
  );
  for (const round of open) {
    const [start] = await table.find(
      db,
      // What was measured later in the same round is what the work made of it.
      `where frame_id = $1 and ${STANDING} and (purpose = 'found' or round_id is distinct from $2)
       order by (round_id is not distinct from $2) desc, ${LAST_FIRST} limit 1`,
      [frameId, round.id],
    );
    await db.query('update round set start_id = $2 where id = $1', [round.id, start?.id ?? null]);
  }
}

/** Marks a measurement as wrong, or counts it again. */
export async function countMeasurement(
  db: Queries,
  measurement: Measurement,
  counts: boolean,
  reason: string,
  at: string,
): Promise<Measurement> {
  const { id, frameId } = measurement;
  await mark(db, id, at, counts, reason);
  await refreshFrame(db, frameId);
  await refreshStarts(db, measurement);
  const [row] = await table.find(db, 'where id = $1', [id]);
  return measurementOf(row as Row);
}
