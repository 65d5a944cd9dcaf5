import { ALL_SPEC_KEYS, type AnySpecKey, SPECS, type Dress } from '@kevro/core';
import type {
  FramePage,
  FrameQuery,
  FrameRecord,
  FrameRow,
  KnownModel,
  Measurement,
  NewFrame,
  Stringing,
} from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';
import { newId } from './id';
import { specsKnown } from './measurement';
import { Conditions, readListing, type Listing } from './listing';
import { together } from './together';

type Stored = Omit<FrameRecord, 'nominal'>;
const table = tableOf<Stored>('frame', {
  id: 'id',
  tag: 'tag',
  maker: 'maker',
  model: 'model',
  paint: 'paint',
  ownerId: 'owner_id',
  shape: 'shape',
  pattern: 'pattern',
  beam: 'beam',
  stiffness: 'stiffness',
  gripSize: 'grip_size',
  note: 'note',
  onIt: 'on_it',
  weights: 'weights',
  archived: 'archived',
});

/** Frames with what their maker states. */
export const framesOf = (db: Queries, ids: readonly string[]): Promise<FrameRecord[]> =>
  db.query<FrameRecord>(
    `select ${table.list('f')}, model.nominal from frame f
       left join model on model.sport = f.shape->>'sport' and model.maker = f.maker and model.name = f.model
     where f.id = any($1)`,
    [ids],
  );

export const findFrame = async (db: Queries, id: string): Promise<FrameRecord | undefined> =>
  (await framesOf(db, [id]))[0];

const ORDER: Record<FrameQuery['sort'], string> = {
  tag: 'lower(f.tag), f.id',
  model: 'lower(f.maker), lower(f.model), lower(f.tag), f.id',
  owner: 'f.owner_words nulls first, lower(f.tag), f.id',
  measured: 'f.measured_at desc nulls last, lower(f.tag), f.id',
};

type ListRow = Omit<FrameRow, 'newest'> & {
  measured_id: string | null;
  taken_at: string | null;
  dress: Dress;
  specs: Record<AnySpecKey | 'axisCm', number | null>;
  estimated: Measurement['estimated'];
};

const LIST = {
  id: 'f.id',
  find: 'frame f',
  columns: `f.id, f.tag, f.maker, f.model, f.paint, f.owner_id as "ownerId", p.name as "ownerName", f.shape, f.pattern,
    f.grip_size as "gripSize", f.note, f.archived, m.id as measured_id, m.taken_at, m.dress, m.estimated,
    json_build_object(${ALL_SPEC_KEYS.map((key) => `'${key}', m.${SPECS[key].column}`).join(', ')}, 'axisCm', m.axis_cm) as specs`,
  from: `frame f left join player p on p.id = f.owner_id left join measurement m on m.id = f.newest_measurement_id`,
};

function rowOf({ measured_id, taken_at, dress, specs, estimated, ...frame }: ListRow): FrameRow {
  if (measured_id === null || taken_at === null) return { ...frame, newest: null };
  return {
    ...frame,
    newest: { id: measured_id, takenAt: taken_at, dress, specs: specsKnown(specs), estimated },
  };
}

export async function listFrames(db: Queries, query: FrameQuery): Promise<Listing<FrameRow>> {
  const asked = new Conditions()
    .and('f.archived = ?', query.archived)
    .search(query.search, (has) => has('f.words'));
  if (query.ids) asked.and('f.id = any(?)', query.ids.split(','));
  if (query.tag) asked.and('lower(f.tag) = lower(?)', query.tag);
  if (query.sport) asked.and("f.shape->>'sport' = ?", query.sport);
  if (query.owner === 'stock') asked.and('f.owner_id is null');
  else if (query.owner) asked.and('f.owner_id = ?', query.owner);
  const { rows, ...inAll } = await readListing<ListRow>(
    db,
    { ...LIST, order: ORDER[query.sort] },
    asked,
    query,
  );
  return { rows: rows.map(rowOf), ...inAll };
}

type FrameToStore = Required<Omit<NewFrame, 'nominal'>> & Pick<NewFrame, 'nominal'>;

/** What the maker states goes to the model, so that every frame of it is judged by the same. */
async function putNominal(db: Queries, { shape, maker, model, nominal }: FrameToStore): Promise<void> {
  if (!nominal) return;
  await db.query(
    `insert into model (sport, maker, name, nominal) values ($1, $2, $3, $4)
     on conflict (sport, maker, name, shop_id) do update set nominal = excluded.nominal`,
    [shape.sport, maker, model, JSON.stringify(nominal)],
  );
}

const clearNominal = (db: Queries, { shape, maker, model }: FrameToStore): Promise<unknown[]> =>
  db.query('delete from model where sport = $1 and maker = $2 and name = $3', [shape.sport, maker, model]);

const rowToStore = ({ nominal: _, ...row }: FrameToStore): Omit<Stored, 'id' | 'archived'> =>
  row as Omit<Stored, 'id' | 'archived'>;

/** The frame stored, or undefined where the tag is taken. Without a statement of the maker's, the one of its model stays. */
export async function addFrame(db: Queries, f: FrameToStore, id = newId()): Promise<FrameRecord | undefined> {
  const stored = await table.insert(db, { id, ...rowToStore(f) }, 'on conflict (tag, shop_id) do nothing');
  if (!stored) return undefined;
  await putNominal(db, f);
  return findFrame(db, id);
}

/** The frame changed, or undefined where another has the tag. A statement of the maker's that is null is taken away; left out it stays. */
export async function changeFrame(
  db: Queries,
  id: string,
  f: FrameToStore,
): Promise<FrameRecord | undefined> {
  const [taken] = await db.query('select 1 from frame where tag = $1 and id <> $2', [f.tag, id]);
  if (taken) return undefined;
  await table.change(db, rowToStore(f), 'id = $1', id);
  if (f.nominal === null) await clearNominal(db, f);
  else await putNominal(db, f);
  return findFrame(db, id);
}

/** What is on a frame now, after a build. */
export const setOnFrame = (
  db: Queries,
  id: string,
  on: Pick<FrameRecord, 'onIt' | 'weights'>,
): Promise<unknown> => table.change(db, on, 'id = $1', id);

/** How a frame is shaped, and nothing else of it. */
export const setShape = (db: Queries, id: string, shape: FrameRecord['shape']): Promise<unknown> =>
  table.change(db, { shape }, 'id = $1', id);

/** One that was taken from a photo goes before one that was taken over, the later before the earlier. */
const SUREST_OUTLINE =
  "order by o.shape->'outline'->>'from' desc nulls last, o.shape->'outline'->>'takenOn' desc nulls last, o.id";
/** The outline of another frame of the same model. */
export const modelOutline = async (
  db: Queries,
  { id, maker, model, shape: { sport } }: FrameRecord,
): Promise<FramePage['modelOutline']> =>
  (
    await db.query<NonNullable<FramePage['modelOutline']>>(
      `select o.tag, o.shape->'outline' as outline from frame o
       where o.maker = $1 and o.model = $2 and o.shape->>'sport' = $3 and o.id <> $4 and o.shape->'outline' is not null
       ${SUREST_OUTLINE} limit 1`,
      [maker, model, sport, id],
    )
  )[0] ?? null;

export const archiveFrame = (db: Queries, id: string, archived: boolean): Promise<unknown> =>
  table.change(db, { archived }, 'id = $1', id);

interface StringingRow {
  id: string;
  frameId: string;
  strungOn: string;
  data: Omit<Stringing, 'id' | 'strungOn' | 'retired'>;
  retired: boolean;
}
const stringings = tableOf<StringingRow>('stringing', {
  id: 'id',
  frameId: 'frame_id',
  strungOn: 'strung_on',
  data: 'data',
  retired: 'retired',
});
/** What was not asked for once. */
const NOT_SAID = { mainsKind: null, crossesKind: null, by: '', hoursPlayed: null, readings: [] };
const stringingOf = ({ id, strungOn, data, retired }: StringingRow): Stringing => ({
  id,
  strungOn,
  ...NOT_SAID,
  ...data,
  retired,
});

/** The last strung first; of one day the last noted first. */
export const listStringings = async (db: Queries, frameId: string): Promise<Stringing[]> =>
  (await stringings.find(db, 'where frame_id = $1 order by strung_on desc, seq desc', [frameId])).map(
    stringingOf,
  );

export async function findStringing(db: Queries, id: string): Promise<Stringing | undefined> {
  const [row] = await stringings.find(db, 'where id = $1', [id]);
  return row && stringingOf(row);
}

/** The strings of several frames, the last strung first; a few dozen at the most. */
export const stringingsOfFrames = async (
  db: Queries,
  frameIds: readonly string[],
): Promise<{ frameId: string; stringing: Stringing }[]> =>
  (
    await stringings.find(
      db,
      'where frame_id = any($1) and not retired order by strung_on desc, seq desc limit 50',
      [frameIds],
    )
  ).map((row) => ({ frameId: row.frameId, stringing: stringingOf(row) }));

/** The strings that are in each of some frames now: the last that were strung and count. */
export const stringingsByFrame = async (
  db: Queries,
  frameIds: readonly string[],
): Promise<{ frameId: string; stringing: Stringing }[]> =>
  (
    await together<StringingRow>(
      db,
      `select distinct on (frame_id) ${stringings.list()} from stringing where frame_id = any($1) and not retired
       order by frame_id, strung_on desc, seq desc`,
      [frameIds],
    )
  ).map((row) => ({ frameId: row.frameId, stringing: stringingOf(row) }));

export async function addStringing(
  db: Queries,
  frameId: string,
  { strungOn, ...data }: Omit<Stringing, 'id' | 'retired'>,
): Promise<Stringing> {
  const row = await stringings.insert(db, { id: newId(), frameId, strungOn, data });
  return stringingOf(row as StringingRow);
}

/** The stringing changed, or undefined where there is none. */
export async function changeStringing(
  db: Queries,
  id: string,
  { strungOn, ...data }: Omit<Stringing, 'id' | 'retired'>,
): Promise<Stringing | undefined> {
  const row = await stringings.change(db, { strungOn, data }, 'id = $1', id);
  return row && stringingOf(row);
}
export async function retireStringing(
  db: Queries,
  id: string,
  retired: boolean,
): Promise<Stringing | undefined> {
  const row = await stringings.change(db, { retired }, 'id = $1', id);
  return row && stringingOf(row);
}

/** Makes that the shop has had: each as its newest frame is known, those it had most of first. */
export async function listModels(
  db: Queries,
  { search, limit, offset }: { search?: string | undefined; limit: number; offset: number },
): Promise<Listing<KnownModel>> {
  const { where, values } = new Conditions().search(search, (has) => has("lower(f.maker || ' ' || f.model)"));
  const groups = `select f.shape->>'sport' as sport, f.maker, f.model, count(*) as frames, max(f.id) as id
    from frame f ${where} group by 1, 2, 3`;
  const rows = await db.query<KnownModel>(
    `select g.sport, g.maker, g.model, g.frames, f.shape, f.pattern, f.beam, f.stiffness, model.nominal,
       (select json_build_object('tag', o.tag, 'outline', o.shape->'outline') from frame o
        where o.maker = g.maker and o.model = g.model and o.shape->>'sport' = g.sport and o.shape->'outline' is not null
        ${SUREST_OUTLINE} limit 1) as outline
     from (${groups}) g join frame f on f.id = g.id
       left join model on model.sport = g.sport and model.maker = g.maker and model.name = g.model
     order by g.frames desc, lower(g.maker), lower(g.model), g.sport limit ${limit} offset ${offset}`,
    values,
  );
  const [counted] = await db.query<{ n: number }>(`select count(*) as n from (${groups}) g`, values);
  return { rows, total: counted?.n ?? 0 };
}
