import type { Queries } from '../db/db';

/** Tables whose rows are this machine's own: what has run on it, and who may come in. */
const NOT_IN_BACKUPS = [
  'migration',
  'shop_list',
  'shop_lock',
  'staff',
  'device',
  'pairing',
  'wrong_tries',
  'unfinished',
];

export interface Table {
  name: string;
  /** What is stored of it: columns that the database works out itself are not. */
  columns: string[];
  /** The type of each, as the database calls it. */
  types: string[];
  /** By these its rows are told apart, in this order. */
  key: string[];
}

/** Every table that a backup holds, as the database knows them: a new one is in the next backup by itself. Whose shop a row is of is none of its content: a backup is made a shop again under whatever name. */
export const tablesOf = (db: Queries): Promise<Table[]> =>
  db.query<Table>(
    `select c.relname as name,
       (select json_agg(a.attname order by a.attnum) from pg_attribute a
         where a.attrelid = c.oid and a.attnum > 0 and not a.attisdropped and a.attgenerated = '' and a.attname <> 'shop_id') as columns,
       (select json_agg(t.typname order by a.attnum) from pg_attribute a join pg_type t on t.oid = a.atttypid
         where a.attrelid = c.oid and a.attnum > 0 and not a.attisdropped and a.attgenerated = '' and a.attname <> 'shop_id') as types,
       (select json_agg(a.attname order by k.at) from pg_index i, unnest(i.indkey) with ordinality k (num, at), pg_attribute a
         where i.indrelid = c.oid and i.indisprimary and a.attrelid = c.oid and a.attnum = k.num and a.attname <> 'shop_id') as key
     from pg_class c
     where c.relkind = 'r' and c.relnamespace = 'public'::regnamespace and c.relpersistence = 'p'
       and not (c.relname = any ($1))
     order by c.relname`,
    [NOT_IN_BACKUPS],
  );

/** A name as SQL takes it: only names that the database itself told come here. */
export const quoted = (name: string): string => `"${name.replaceAll('"', '""')}"`;
export const listed = (names: readonly string[]): string => names.map(quoted).join(', ');
