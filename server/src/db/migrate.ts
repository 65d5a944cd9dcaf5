import type { Db } from './db';

const FILES = import.meta.glob<string>('./migrations/*.sql', {
  query: '?raw',
  import: 'default',
  eager: true,
});

interface Migration {
  number: number;
  name: string;
  sql: string;
}

const MIGRATIONS: Migration[] = Object.entries(FILES)
  .map(([path, sql]) => {
    const name = path.replace(/^.*\//, '');
    return { number: Number.parseInt(name, 10), name, sql };
  })
  .sort((a, b) => a.number - b.number);

/** Runs the migrations that the database has not seen, each in a transaction of its own. */
export async function migrate(db: Db): Promise<void> {
  await db.query(
    'create table if not exists migration (number integer primary key, name text not null, run_at timestamptz not null default now())',
  );
  const seen = new Set(
    (await db.query<{ number: number }>('select number from migration')).map((m) => m.number),
  );
  for (const { number, name, sql } of MIGRATIONS) {
    if (seen.has(number)) continue;
    await db.transaction(async (tx) => {
      await tx.run(sql);
      await tx.query('insert into migration (number, name) values ($1, $2)', [number, name]);
    });
  }
}
