import { ALL_SPEC_KEYS, SPECS, byAnySpec, tensionSpread, type Sport, type TensionSpread } from '@kevro/core';
import {
  boundsOf,
  type Setup,
  type SetupFileQuery,
  type SetupPage,
  type SetupQuery,
  type SetupRow,
  type SetupToStore,
} from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';
import { newId } from './id';
import { Conditions, readListing, type Listing } from './listing';
import { rowOfSetup, rowsOfSetups, type StoredSetup } from './setup-row';

type Row = Omit<StoredSetup, 'shapeKey'> & Pick<SetupRow, 'id' | 'retired' | 'standsBack' | 'averaged'>;

const COLUMNS: { [K in keyof Row]-?: string } = {
  id: 'id',
  name: 'name',
  frameName: 'frame_name',
  paint: 'paint',
  sourceKind: 'source_kind',
  source: 'source',
  link: 'link',
  year: 'year',
  reportedOn: 'reported_on',
  confidence: 'confidence',
  style: 'style',
  shape: 'shape',
  dress: 'dress',
  asReported: 'as_reported',
  facts: 'facts',
  strings: 'strings',
  ...byAnySpec((key) => SPECS[key].column),
  axisCm: 'axis_cm',
  sport: 'sport',
  bareMass: 'bare_mass',
  bareMoment: 'bare_moment',
  bareSwing: 'bare_swing',
  bareTwist: 'bare_twist',
  bareAxis: 'bare_axis',
  fingerprint: 'fingerprint',
  retired: 'retired',
  standsBack: 'stands_back',
  averaged: 'averaged',
};
const table = tableOf<Row>('setup', COLUMNS);

/** What is stored beside what was told: for finding a setup, not for showing it. */
const BESIDE = [
  'sport',
  'bareMass',
  'bareMoment',
  'bareSwing',
  'bareTwist',
  'bareAxis',
  'fingerprint',
] as const;
const IN_SPECS = [...ALL_SPEC_KEYS, 'axisCm'] as const;

function rowOf(row: Row): SetupRow {
  const left: readonly string[] = [...BESIDE, ...IN_SPECS];
  const told = Object.entries(row).filter(([key]) => !left.includes(key));
  // A value that was not published stays missing.
  const known = IN_SPECS.map((key) => [key, row[key]] as const).filter(([, value]) => value !== null);
  return {
    ...(Object.fromEntries(told) as Omit<Row, (typeof BESIDE)[number] | (typeof IN_SPECS)[number]>),
    specs: Object.fromEntries(known) as Setup['specs'],
  };
}
const setupOf = (row: Row): Setup => {
  const { retired: _, standsBack: __, averaged: ___, ...setup } = rowOf(row);
  return setup;
};

/** The rows of an import that is not whole count for nothing. Mostly there is none: then no row is looked at for it. */
export const LIVE = `((select coalesce(bool_and(live), true) from setup_batch)
  or batch_id is null or batch_id in (select id from setup_batch where live))`;

const SORTED = new Map<SetupQuery['sort'], string>([
  ['year', 'year'],
  ...ALL_SPEC_KEYS.map((key) => [SPECS[key].short, SPECS[key].column] as const),
]);
/** What is not known comes last, whichever way the rest goes. */
function orderOf({ sort, down }: Pick<SetupQuery, 'sort' | 'down'>): string {
  // The newest year is what is looked for.
  const way = down !== (sort === 'year') ? 'desc' : 'asc';
  if (sort === 'name') return `lower(name) ${way}, year, id`;
  return `${SORTED.get(sort)} ${way} nulls last, lower(name), id`;
}

const RANGES = ALL_SPEC_KEYS.flatMap((key) => {
  const [least, most] = boundsOf(key);
  const { column } = SPECS[key];
  return [[least, `${column} >= ?`] as const, [most, `${column} <= ?`] as const];
});

/** What a query asks for, as conditions. */
export function askedOf(query: Partial<SetupQuery>): Conditions {
  const { search, sport, kind, style, ids } = query;
  const conditions = new Conditions();
  if (sport) conditions.and('sport = ?', sport);
  // Those asked for by name are found though they are retired: aims were taken from them.
  if (ids) conditions.and('id = any(?)', ids.split(','));
  else conditions.and('retired = ?', query.retired ?? false);
  conditions.search(search, (has) => has('words'));
  if (kind) conditions.and('source_kind = ?', kind);
  if (style) conditions.narrow('strpos(lower(style), lower(?)) > 0', style);
  for (const [key, sql] of RANGES) if (query[key] !== undefined) conditions.narrow(sql, query[key]);
  return conditions.and(LIVE);
}

export async function listSetups(db: Queries, query: SetupQuery): Promise<Listing<SetupRow>> {
  const { rows, ...inAll } = await readListing<Row>(
    db,
    { id: 'id', find: 'setup', columns: table.list(), from: 'setup', order: orderOf(query) },
    askedOf(query),
    query,
  );
  return { rows: rows.map(rowOf), ...inAll };
}

/** Everything that a query finds, part by part in the order of their ids: for a file, however many there are. */
export async function* allSetups(db: Queries, query: SetupFileQuery, part = 1000): AsyncGenerator<Setup[]> {
  let after = '';
  for (;;) {
    const { where, values } = askedOf(query).and('id > ?', after);
    const rows = await table.find(db, `${where} order by id limit ${part}`, values);
    if (rows.length === 0) return;
    yield rows.map(setupOf);
    after = rows.at(-1)?.id ?? '';
  }
}

/** Setups by their ids, in the order of the ids. */
export async function setupsById(db: Queries, ids: readonly string[]): Promise<Setup[]> {
  const rows = await table.find(db, 'where id = any($1)', [ids]);
  const byId = new Map(rows.map((row) => [row.id, setupOf(row)]));
  return ids.flatMap((id) => byId.get(id) ?? []);
}

export async function findSetup(db: Queries, id: string): Promise<SetupRow | undefined> {
  const [row] = await table.find(db, `where id = $1 and ${LIVE}`, [id]);
  return row && rowOf(row);
}

/** A setup with every report of the same player's frame in its sport. */
export async function setupPageOf(db: Queries, id: string): Promise<SetupPage | undefined> {
  const setup = await findSetup(db, id);
  if (!setup) return undefined;
  const rows = await table.find(
    db,
    `where sport = $1 and lower(name) = lower($2) and not retired and ${LIVE} order by year desc nulls last, id limit 50`,
    [setup.shape.sport, setup.name],
  );
  const reports = rows.map(rowOf);
  return { setup, reports: reports.some((report) => report.id === id) ? reports : [setup, ...reports] };
}

/** Which of several reports of one frame are offered: one of them, or all. */
export async function chooseReport(
  db: Queries,
  reports: readonly string[],
  standing: string | null,
): Promise<void> {
  await db.query('update setup set stands_back = ($2::text is not null and id <> $2) where id = any($1)', [
    reports,
    standing,
  ]);
}

export async function knownSetups(db: Queries, ids: readonly string[]): Promise<Set<string>> {
  const rows = await db.query<{ id: string }>(`select id from setup where id = any($1) and ${LIVE}`, [ids]);
  return new Set(rows.map((row) => row.id));
}

const STORED = (Object.keys(COLUMNS) as (keyof Row)[]).filter(
  (key) => !['retired', 'standsBack', 'averaged'].includes(key),
);
const TYPES: Partial<Record<keyof Row, string>> = {
  ...Object.fromEntries(['shape', 'dress', 'asReported', 'facts', 'strings'].map((key) => [key, 'jsonb'])),
  ...Object.fromEntries(
    [...ALL_SPEC_KEYS, 'axisCm', 'bareMass', 'bareMoment', 'bareSwing', 'bareTwist', 'bareAxis'].map(
      (key) => [key, 'float8'],
    ),
  ),
  year: 'integer',
  reportedOn: 'date',
};

/** Makes sure that every shape is there that setups are of. */
async function storeShapes(db: Queries, setups: readonly StoredSetup[]): Promise<void> {
  if (setups.length === 0) return;
  const shapes = [
    ...new Map(
      setups.map(({ shapeKey, sport, shape }) => [shapeKey, { key: shapeKey, sport, shape }]),
    ).values(),
  ];
  await db.query(
    `insert into setup_shape (key, sport, shape)
     select key, sport, shape from jsonb_to_recordset($1::jsonb) as x (key text, sport text, shape jsonb) on conflict (key, shop_id) do nothing`,
    [JSON.stringify(shapes)],
  );
}

/** Stores many setups at once. @param batch the import that they count with; at once if left out @param shapes those that are stored already */
export async function storeSetups(
  db: Queries,
  setups: readonly StoredSetup[],
  batch: number | null = null,
  { ids, shapes = new Set() }: { ids?: readonly string[]; shapes?: Set<string> } = {},
): Promise<void> {
  await storeShapes(
    db,
    setups.filter(({ shapeKey }) => !shapes.has(shapeKey)),
  );
  for (const { shapeKey } of setups) shapes.add(shapeKey);
  const columns = STORED.map((key) => COLUMNS[key]).join(', ');
  const fields = STORED.map((key) => `"${key}" ${TYPES[key] ?? 'text'}`).join(', ');
  await db.query(
    `insert into setup (${columns}, shape_id, batch_id)
     select ${STORED.map((key) => `x."${key}"`).join(', ')}, s.id, $2::int
     from jsonb_to_recordset($1::jsonb) as x (${fields}, "shapeKey" text) join setup_shape s on s.key = x."shapeKey"`,
    [JSON.stringify(setups.map((setup, i) => ({ ...setup, id: ids?.[i] ?? newId() }))), batch],
  );
}

export async function addSetup(db: Queries, setup: SetupToStore, id = newId()): Promise<Setup> {
  await storeSetups(db, rowsOfSetups([setup]), null, { ids: [id] });
  return { ...setup, id };
}

/** The setup changed, or undefined where there is none. A value that is left out is not known any more. */
export async function changeSetup(db: Queries, id: string, setup: SetupToStore): Promise<Setup | undefined> {
  const stored = rowOfSetup(setup);
  await storeShapes(db, [stored]);
  const { shapeKey, ...row } = stored;
  const nulls = Object.fromEntries(
    Object.entries(row).map(([key, value]) => [key, value ?? null]),
  ) as unknown as Row;
  const changed = await table.change(db, nulls, 'id = $1', id);
  if (!changed) return undefined;
  await db.query('update setup set shape_id = (select id from setup_shape where key = $2) where id = $1', [
    id,
    shapeKey,
  ]);
  return setupOf(changed);
}

/** Marks a setup as the average of the other reports of its frame. */
export const markAveraged = (db: Queries, id: string): Promise<unknown> =>
  table.change(db, { averaged: true }, 'id = $1', id);

export async function retireSetup(db: Queries, id: string, retired: boolean): Promise<SetupRow | undefined> {
  const row = await table.change(db, { retired }, 'id = $1', id);
  return row && rowOf(row);
}

/** Of so many setups the tensions are read: more of them change no quarter by a hair. */
const TENSIONS_READ = 5000;
/** How the tensions of a sport's setups spread, as far as they are told. */
export async function tensionsOf(db: Queries, sport: Sport): Promise<TensionSpread | undefined> {
  const rows = await db.query<{ told: string }>(
    `select strings->>'tension' as told from setup
     where sport = $1 and not retired and not stands_back and strings->>'tension' <> '' limit ${TENSIONS_READ}`,
    [sport],
  );
  return tensionSpread(
    rows.map(({ told }) => told),
    sport,
  );
}
