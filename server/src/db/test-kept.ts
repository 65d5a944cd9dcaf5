import type { Db } from './db';

/** Every table that rows are written to, with those of its columns that are. */
const tablesOf = (db: Db): Promise<{ name: string; columns: string }[]> =>
  db.query(`
    select format('%I', table_name) as name, string_agg(format('%I', column_name), ', ' order by ordinal_position) as columns
    from information_schema.columns join information_schema.tables using (table_schema, table_name)
    where table_schema = 'public' and table_type = 'BASE TABLE' and is_generated = 'NEVER'
    group by table_name`);

/** What a database is made of: whatever is made, dropped or made anew in it changes this. */
const makeOf = async (db: Db): Promise<string> => {
  const [row] = await db.query<{ made: string }>(`
    select md5(string_agg(oid || relname, ',' order by oid)) || (select count(*) from pg_trigger)
      || (select count(*) from pg_constraint) || (select count(*) from pg_attribute where not attisdropped) as made
    from pg_class where relnamespace = 'public'::regnamespace`);
  return row?.made ?? '';
};

/**
 * Keeps a shop as it is, and notes which tables are written to from then on: to open another engine takes longer than to bring one back.
 * @returns what brings the shop back; it tells whether it could, which it cannot where the tables themselves were changed
 */
export async function keepAll(db: Db): Promise<() => Promise<boolean>> {
  const tables = await tablesOf(db);
  const sequences = await db.query<{ name: string; value: number }>(
    `select format('%I', sequencename) as name, coalesce(last_value, 0) as value from pg_sequences where schemaname = 'public'`,
  );
  await db.run(`
    create schema kept;
    create table kept.written (name text primary key);
    create function kept.note() returns trigger language plpgsql as $$
      begin insert into kept.written values (format('%I', tg_table_name)) on conflict do nothing; return null; end $$;
    ${tables
      .map(
        ({ name }) => `
    create table kept.${name} as table public.${name};
    create trigger zz_kept after insert or update or delete or truncate on public.${name} for each statement execute function kept.note();`,
      )
      .join('')}`);
  const made = await makeOf(db);
  return async () => {
    if ((await makeOf(db)) !== made) return false;
    await db.transaction(async (tx) => {
      const written = new Set(
        (await tx.query<{ name: string }>('select name from kept.written')).map(({ name }) => name),
      );
      const changed = tables.filter(({ name }) => written.has(name));
      await tx.run(
        [
          // No key asks for its row meanwhile, and nothing is noted.
          'set local session_replication_role = replica',
          'delete from kept.written',
          ...changed.map(
            ({ name, columns }) =>
              `delete from ${name}; insert into ${name} (${columns}) overriding system value select ${columns} from kept.${name}`,
          ),
          ...sequences.map(
            ({ name, value }) => `select setval('${name}', ${Math.max(value, 1)}, ${value > 0})`,
          ),
        ].join(';\n'),
      );
    });
    return true;
  };
}
