import type { AxisSpecs, Dress } from '@kevro/core';
import type {
  FrameQuery,
  FrameRecord,
  FrameRow,
  Measurement,
  NewFrame,
  NewStringing,
  Stringing,
} from '@kevro/contract';
import type { Queries } from '../db/db';
import { newId } from './id';
import { Conditions, readListing, type Listing } from './listing';

const FROM = `frame f left join model on model.sport = f.shape->>'sport' and model.maker = f.maker
  and model.name = f.model`;
const COLUMNS = `f.id, f.tag, f.maker, f.model, f.paint, f.owner_id as "ownerId", f.shape, f.pattern, f.beam,
  f.stiffness, f.grip_size as "gripSize", f.note, f.on_it as "onIt", f.weights, f.archived, model.nominal`;

export async function findFrame(db: Queries, id: string): Promise<FrameRecord | undefined> {
  return (await db.query<FrameRecord>(`select ${COLUMNS} from ${FROM} where f.id = $1`, [id]))[0];
}

const ORDER: Record<FrameQuery['sort'], string> = {
  tag: 'lower(f.tag), f.id',
  model: 'lower(f.maker), lower(f.model), lower(f.tag), f.id',
  owner: 'lower(p.name) nulls first, lower(f.tag), f.id',
  measured: 'f.measured_at desc nulls last, lower(f.tag), f.id',
};

type ListRow = Omit<FrameRow, 'newest'> & {
  taken_at: string | null;
  dress: Dress;
  specs: AxisSpecs & { twistWeight: number | null };
  estimated: Measurement['estimated'];
};

const LIST = {
  id: 'f.id',
  find: 'frame f left join player p on p.id = f.owner_id',
  columns: `f.id, f.tag, f.maker, f.model, f.paint, f.owner_id as "ownerId", p.name as "ownerName", f.shape, f.pattern,
    f.grip_size as "gripSize", f.note, f.archived, m.taken_at, m.dress, m.estimated,
    json_build_object('massG', m.mass_g, 'balanceCm', m.balance_cm, 'swingWeight', m.swing_weight,
      'twistWeight', m.twist_weight, 'axisCm', m.axis_cm) as specs`,
  from: `frame f left join player p on p.id = f.owner_id left join measurement m on m.id = f.newest_measurement_id`,
};

function rowOf({ taken_at, dress, specs, estimated, ...frame }: ListRow): FrameRow {
  if (taken_at === null) return { ...frame, newest: null };
  const { twistWeight, ...three } = specs;
  const known = twistWeight === null ? three : { ...three, twistWeight };
  return { ...frame, newest: { takenAt: taken_at, dress, specs: known, estimated } };
}

export async function listFrames(db: Queries, query: FrameQuery): Promise<Listing<FrameRow>> {
  const asked = new Conditions()
    .and('f.archived = ?', query.archived)
    .search(query.search, "(f.words || ' ' || coalesce(p.name_words, 'stock'))");
  if (query.sport) asked.and("f.shape->>'sport' = ?", query.sport);
  if (query.owner === 'stock') asked.and('f.owner_id is null');
  else if (query.owner) asked.and('f.owner_id = ?', query.owner);
  const { rows, total } = await readListing<ListRow>(db, { ...LIST, order: ORDER[query.sort] }, asked, query);
  return { rows: rows.map(rowOf), total };
}

/** What the maker states goes to the model, so that every frame of it is judged by the same. */
async function putNominal(db: Queries, f: Required<NewFrame>): Promise<void> {
  const key = [f.shape.sport, f.maker, f.model];
  if (f.nominal === null) return;
  await db.query(
    `insert into model (sport, maker, name, nominal) values ($1, $2, $3, $4)
     on conflict (sport, maker, name) do update set nominal = excluded.nominal`,
    [...key, JSON.stringify(f.nominal)],
  );
}

const valuesOf = (f: Required<NewFrame>): unknown[] => [
  f.tag,
  f.maker,
  f.model,
  f.paint,
  f.ownerId,
  JSON.stringify(f.shape),
  f.pattern,
  f.beam,
  f.stiffness,
  f.gripSize,
  f.note,
  JSON.stringify(f.onIt),
  JSON.stringify(f.weights),
];
const STORED =
  'tag, maker, model, paint, owner_id, shape, pattern, beam, stiffness, grip_size, note, on_it, weights';
const PLACES = '$2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14';

/** The frame stored, or undefined where the tag is taken. */
export async function addFrame(
  db: Queries,
  f: Required<NewFrame>,
  id = newId(),
): Promise<FrameRecord | undefined> {
  const rows = await db.query(
    `insert into frame (id, ${STORED}) values ($1, ${PLACES}) on conflict (tag) do nothing returning id`,
    [id, ...valuesOf(f)],
  );
  if (rows.length === 0) return undefined;
  await putNominal(db, f);
  return findFrame(db, id);
}

/** The frame changed, or undefined where another has the tag. */
export async function changeFrame(
  db: Queries,
  id: string,
  f: Required<NewFrame>,
): Promise<FrameRecord | undefined> {
  const rows = await db.query(
    `update frame set (${STORED}) = (${PLACES}) where id = $1
       and not exists (select 1 from frame other where other.tag = $2 and other.id <> $1) returning id`,
    [id, ...valuesOf(f)],
  );
  if (rows.length === 0) return undefined;
  await putNominal(db, f);
  return findFrame(db, id);
}

export const archiveFrame = (db: Queries, id: string, archived: boolean): Promise<unknown[]> =>
  db.query('update frame set archived = $2 where id = $1', [id, archived]);

export async function listStringings(db: Queries, frameId: string): Promise<Stringing[]> {
  const rows = await db.query<{ id: string; strungOn: string; data: object }>(
    'select id, strung_on as "strungOn", data from stringing where frame_id = $1 order by strung_on desc, seq desc',
    [frameId],
  );
  return rows.map(({ data, ...row }) => ({ ...row, ...data }) as Stringing);
}

export async function addStringing(
  db: Queries,
  frameId: string,
  { strungOn, ...data }: Required<NewStringing>,
): Promise<Stringing> {
  const id = newId();
  await db.query('insert into stringing (id, frame_id, strung_on, data) values ($1, $2, $3, $4)', [
    id,
    frameId,
    strungOn,
    JSON.stringify(data),
  ]);
  return { id, strungOn, ...data };
}
