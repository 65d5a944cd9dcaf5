import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { currentStep, migrate } from './migrate';
import { makeNewDatabases } from './new-database';
import { dbOf, openEngine } from './pglite';

const folder = mkdtempSync(join(tmpdir(), 'kevro-new-'));
beforeAll(() => makeNewDatabases(folder, (engine) => migrate(dbOf(engine))));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** One of those that were made. */
const made = (name: RegExp) => (): Blob => {
  const file = readdirSync(folder).find((one) => name.test(one)) ?? '';
  return new Blob([readFileSync(join(folder, file))], { type: 'application/gzip' });
};

/** What a database is from its making on, and what cannot be changed in it later. */
const MADE_WITH = `
  select current_setting('server_version') as version, current_setting('server_encoding') as encoding,
    current_setting('data_checksums') as checksums, datcollate, datctype, datlocprovider,
    (select count(*)::int from pg_class) as relations,
    (select count(*)::int from pg_class where relnamespace = 'public'::regnamespace) as own
  from pg_database where datname = current_database()`;

it('a new database that is copied is as one that is made, and has nothing in it', async () => {
  const [copied, usual] = [
    await openEngine(join(folder, 'database'), made(/new-database/)),
    await PGlite.create(),
  ];
  const [mine, other] = [await copied.query(MADE_WITH), await usual.query(MADE_WITH)];
  await Promise.all([copied.close(), usual.close()]);
  expect(mine.rows).toEqual(other.rows);
  expect(mine.rows[0]).toMatchObject({ encoding: 'UTF8', own: 0 });
  // Opened again it is that shop, not a copy of the new one once more.
  const again = await openEngine(join(folder, 'database'));
  await again.exec('create table kept (a int)');
  await again.close();
  const later = await openEngine(join(folder, 'database'), made(/new-database/));
  expect((await later.query('select * from kept')).rows).toEqual([]);
  await later.close();
});

/** Every table, index, rule and function, and every row but when a step was run. */
async function allOf(engine: PGlite): Promise<unknown> {
  const rowsOf = async (sql: string): Promise<unknown[]> => (await engine.query(sql)).rows;
  const tables = (await rowsOf(
    `select relname as name from pg_class where relkind = 'r' and relnamespace = 'public'::regnamespace order by 1`,
  )) as { name: string }[];
  const rows: Record<string, unknown> = {};
  for (const { name } of tables)
    rows[name] = await rowsOf(
      `select to_jsonb(t) - 'run_at' as row from "${name}" t order by (to_jsonb(t) - 'run_at')::text`,
    );
  return {
    rows,
    columns: await rowsOf(
      `select table_name, column_name, data_type, column_default, is_nullable, generation_expression
       from information_schema.columns where table_schema = 'public' order by 1, 2`,
    ),
    indexes: await rowsOf(`select indexdef from pg_indexes where schemaname = 'public' order by 1`),
    rules: await rowsOf(
      `select conrelid::regclass::text as on, conname, pg_get_constraintdef(oid) as rule, condeferrable
       from pg_constraint where connamespace = 'public'::regnamespace order by 1, 2`,
    ),
    triggers: await rowsOf(
      `select pg_get_triggerdef(oid) as def from pg_trigger where not tgisinternal order by 1`,
    ),
    functions: await rowsOf(
      `select prosrc from pg_proc where pronamespace = 'public'::regnamespace order by 1`,
    ),
    sequences: await rowsOf(`select sequencename, last_value from pg_sequences order by 1`),
  };
}

it('one with its tables is as if each step had been run, and none is left to do', async () => {
  const copied = await openEngine(undefined, made(/new-tables-\w{12}/));
  const stood = await copied.query<{ step: number; at: string }>(
    'select max(number) as step, max(run_at)::text as at from migration',
  );
  expect(stood.rows[0]?.step).toBe(currentStep());
  await migrate(dbOf(copied));
  expect((await copied.query('select max(run_at)::text as at from migration')).rows).toEqual([
    { at: stood.rows[0]?.at },
  ]);
  const usual = await openEngine();
  await migrate(dbOf(usual));
  expect(await allOf(copied)).toEqual(await allOf(usual));
  await Promise.all([copied.close(), usual.close()]);
});
