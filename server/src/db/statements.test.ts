import type { PGlite } from '@electric-sql/pglite';
import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest';
import { openEngine } from './pglite';
import { Statements } from './statements';

let pg: PGlite;
let statements: Statements;
beforeAll(async () => {
  pg = await openEngine();
});
beforeEach(() => {
  statements = new Statements(pg);
  statements.run('deallocate all; drop table if exists weighed');
  statements.run('create table weighed (id int primary key, grams double precision)');
});
afterAll(() => pg.close());
const kept = () =>
  statements.query<{ statement: string; custom: number; generic: number }>(
    `select statement, custom_plans as custom, generic_plans as generic from pg_prepared_statements
     where statement not like '%pg_prepared_statements%'`,
  );

it('values and rows of every type are those of the engine itself', async () => {
  const asked: [string, unknown[]][] = [
    ['select $1::int as a, $2::text as b, $3::boolean as c, $4::float8 as d', [7, "o'clock", true, 0.1]],
    ['select $1::jsonb as a, $2::text[] as b, $3::bigint as c', [{ a: [1, 'zwei'] }, ['x', 'y "z"'], 9]],
    [
      'select $1::timestamptz as a, $2::date as b, $3::text as c',
      ['2026-11-23T09:00:00Z', '2026-11-23', null],
    ],
    ['select id from weighed where id = any($1::int[])', [[1, 2]]],
    ['insert into weighed values ($1, $2) on conflict do nothing', [1, 312.5]],
    ['select * from weighed', []],
  ];
  for (const [sql, values] of [...asked, ...asked])
    expect(statements.query(sql, values)).toEqual((await pg.query(sql, values)).rows);
});

it('a statement is read once, and planned by its values each time', () => {
  for (let id = 1; id <= 20; id++) statements.query('insert into weighed values ($1, 300)', [id]);
  expect(kept()).toEqual([{ statement: 'insert into weighed values ($1, 300)', custom: 20, generic: 0 }]);
});

it('gives the columns that a table has by now', () => {
  statements.run('insert into weighed values (1, 312.5)');
  expect(statements.query('select * from weighed')).toEqual([{ id: 1, grams: 312.5 }]);
  statements.run("alter table weighed add column said text default 'dry'");
  expect(statements.query('select * from weighed')).toEqual([{ id: 1, grams: 312.5, said: 'dry' }]);
});

it('a cursor of the same name may be another one', () => {
  const fetched = (of: string): unknown[] => {
    statements.run(`begin; declare here cursor for ${of}`);
    const rows = statements.query('fetch 10 from here');
    statements.run('commit');
    return rows;
  };
  expect(fetched('select 1 as a')).toEqual([{ a: 1 }]);
  expect(fetched("select 'b' as b, 2 as c")).toEqual([{ b: 'b', c: 2 }]);
});

it('a refused statement says why by its code, and those after it are answered', () => {
  statements.query('insert into weighed values ($1, 1)', [1]);
  for (const [sql, code] of [
    ['insert into weighed values ($1, 1)', '23505'],
    ['select $1 from nowhere', '42P01'],
    ['select 1 / ($1::int - 1)', '22012'],
  ] as const)
    expect(() => statements.query(sql, [1])).toThrow(expect.objectContaining({ code }));
  expect(() => statements.run('select 1 / 0')).toThrow(expect.objectContaining({ code: '22012' }));
  expect(statements.query('select $1::int as n', [3])).toEqual([{ n: 3 }]);
});

it('keeps what is asked often, and lets go what is not, so that the memory does not fill', () => {
  for (let i = 0; i < 1000; i++) {
    statements.query(`select ${i} as n`);
    expect(statements.query('select $1::text as often', ['yes'])).toEqual([{ often: 'yes' }]);
  }
  const now = kept();
  expect(now.length).toBeLessThanOrEqual(300);
  expect(now.find(({ statement }) => statement.includes('often'))?.custom).toBe(1000);
});
