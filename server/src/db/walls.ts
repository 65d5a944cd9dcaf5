import type { Db, Queries } from './db';

// What keeps the rows of several shops apart in one database. The first wall: under the names of the tables a connection of a shop finds views of that shop's own
// rows, so that every query means these and no others, and what it stores is its own. The second stands behind it: row-level security, by which the tables
// themselves show a connection no other rows. Either is enough.

/** Where a shop's own rows stand, under the names of the tables. */
const OWN_ROWS = 'own_rows';
/** In which order a connection of a shop looks for what a query names. */
export const OWN_FIRST = `${OWN_ROWS},public`;

/** Tables between whose rows of several shops there is a wall now. */
const walled = (db: Queries): Promise<{ name: string }[]> =>
  db.query<{ name: string }>(
    `select relname as name from pg_class where relkind = 'r' and relnamespace = 'public'::regnamespace and relforcerowsecurity order by 1`,
  );

/** Takes down what is in the way of a change to the tables; `raise` puts up again what stood. */
export async function lowerWalls(db: Db): Promise<{ raise: () => Promise<void> }> {
  const before = await walled(db);
  for (const { name } of before) await db.run(`alter table "${name}" no force row level security`);
  await db.run(`drop schema if exists ${OWN_ROWS} cascade`);
  return { raise: async () => (before.length > 0 ? db.transaction(raiseWalls) : undefined) };
}

/** Tables of a shop's rows that lack something. @param lack what, of `c` */
const tablesThatLack = (tx: Queries, lack: string): Promise<{ name: string }[]> =>
  tx.query<{ name: string }>(
    `select c.relname as name from pg_class c join pg_attribute a on a.attrelid = c.oid and a.attname = 'shop_id'
     where c.relkind = 'r' and c.relnamespace = 'public'::regnamespace and c.relname <> 'shop_list' and ${lack} order by 1`,
  );

/** Makes the views of a shop's own rows that are not there. */
export async function raiseFirstWall(tx: Queries): Promise<void> {
  await tx.run(`create schema if not exists ${OWN_ROWS}`);
  const lacking = await tablesThatLack(
    tx,
    `not exists (select from pg_class v where v.relname = c.relname and v.relnamespace = '${OWN_ROWS}'::regnamespace)`,
  );
  for (const { name } of lacking)
    await tx.run(
      // Whose shop it is is asked once a query, and not once a row.
      `create view ${OWN_ROWS}."${name}" as select * from public."${name}" where shop_id = (select the_shop()) with check option`,
    );
}

/** Puts both walls between the rows of several shops: from then on a connection sees those of the shop that it names alone, its owner's too. */
export async function raiseWalls(tx: Queries): Promise<void> {
  const lacking = await tablesThatLack(tx, 'not (c.relrowsecurity and c.relforcerowsecurity)');
  for (const { name } of lacking)
    await tx.run(`alter table "${name}" enable row level security, force row level security`);
  await raiseFirstWall(tx);
}
