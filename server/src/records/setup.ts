import type { Sport } from '@kevro/core';
import type { NewSetup, Setup, SetupQuery, SetupRow } from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';
import { newId } from './id';
import { Conditions, readListing, type Listing } from './listing';

type Specs = Required<Setup['specs']>;
type Row = Omit<SetupRow, 'specs'> & { [K in keyof Specs]: number | null };

const table = tableOf<Row>('setup', {
  id: 'id',
  name: 'name',
  frameName: 'frame_name',
  sourceKind: 'source_kind',
  source: 'source',
  year: 'year',
  shape: 'shape',
  dress: 'dress',
  massG: 'mass_g',
  balanceCm: 'balance_cm',
  swingWeight: 'swing_weight',
  twistWeight: 'twist_weight',
  axisCm: 'axis_cm',
  retired: 'retired',
});

const setupOf = (row: Row): Setup => {
  const { retired: _, ...setup } = rowOf(row);
  return setup;
};
function rowOf({ massG, balanceCm, swingWeight, twistWeight, axisCm, ...rest }: Row): SetupRow {
  // A value that was not published stays missing.
  const known = Object.entries({ massG, balanceCm, swingWeight, twistWeight, axisCm }).filter(
    ([, value]) => value !== null,
  );
  return { ...rest, specs: Object.fromEntries(known) as Setup['specs'] };
}

const ORDER: Record<SetupQuery['sort'], string> = {
  name: 'lower(name), year, id',
  year: 'year desc nulls last, lower(name), id',
  weight: 'mass_g nulls last, lower(name), id',
  swing: 'swing_weight nulls last, lower(name), id',
};

/** What a query asks for, as conditions. */
function asked({ search, sport, kind, ids }: Partial<SetupQuery>): Conditions {
  const conditions = new Conditions().search(search, "lower(name || ' ' || frame_name || ' ' || source)");
  if (sport) conditions.and("shape->>'sport' = ?", sport);
  if (kind) conditions.and('source_kind = ?', kind);
  if (ids) conditions.and('id = any(?)', ids.split(','));
  return conditions;
}

export async function listSetups(db: Queries, query: SetupQuery): Promise<Listing<SetupRow>> {
  const { rows, total } = await readListing<Row>(
    db,
    { id: 'id', find: 'setup', columns: table.list(), from: 'setup', order: ORDER[query.sort] },
    // Those asked for by name are found though they are retired: aims were taken from them.
    query.ids ? asked(query) : asked(query).and('retired = ?', query.retired),
    query,
  );
  return { rows: rows.map(rowOf), total };
}

/** Every setup that a query finds, for an order that the database does not know. */
export async function setupsFound(
  db: Queries,
  query: Pick<SetupQuery, 'search' | 'kind' | 'ids'> & { sport: Sport },
): Promise<Setup[]> {
  const { ids } = query;
  // One that is set beside a frame stays there when it is retired; it is offered to none.
  const { where, values } = ids ? asked(query) : asked(query).and('retired = ?', false);
  return (await table.find(db, `${where} order by lower(name), year, id`, values)).map(setupOf);
}

export async function knownSetups(db: Queries, ids: readonly string[]): Promise<Set<string>> {
  const rows = await db.query<{ id: string }>('select id from setup where id = any($1)', [ids]);
  return new Set(rows.map((row) => row.id));
}

export async function addSetup(
  db: Queries,
  { specs, ...setup }: Required<NewSetup>,
  id = newId(),
): Promise<Setup> {
  return setupOf((await table.insert(db, { id, ...setup, ...specs })) as Row);
}

/** The setup changed, or undefined where there is none. A value that is left out is not known any more. */
export async function changeSetup(
  db: Queries,
  id: string,
  { specs, ...setup }: Required<NewSetup>,
): Promise<Setup | undefined> {
  const unknown = { massG: null, balanceCm: null, swingWeight: null, twistWeight: null, axisCm: null };
  const row = await table.change(db, { ...setup, ...unknown, ...specs }, 'id = $1', id);
  return row && setupOf(row);
}

export async function retireSetup(db: Queries, id: string, retired: boolean): Promise<SetupRow | undefined> {
  const row = await table.change(db, { retired }, 'id = $1', id);
  return row && rowOf(row);
}
