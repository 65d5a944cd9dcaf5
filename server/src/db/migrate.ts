import { createHash } from 'node:crypto';
import type { Db, Queries } from './db';
import * as bringOver from './migrations/0004_bring_over';
import * as setupSums from './migrations/0008_setup_sums';
import { lowerWalls } from './walls';

const FILES = import.meta.glob<string>('./migrations/*.sql', {
  query: '?raw',
  import: 'default',
  eager: true,
});

interface Migration {
  number: number;
  name: string;
  run: (tx: Queries) => Promise<void>;
}

const numbered = (name: string, run: Migration['run']): Migration => ({
  number: Number.parseInt(name, 10),
  name,
  run,
});

/** Every migration, in order: SQL files, and what SQL alone cannot do. */
const MIGRATIONS: Migration[] = [
  ...Object.entries(FILES).map(([path, sql]) => numbered(path.replace(/^.*\//, ''), (tx) => tx.run(sql))),
  numbered(bringOver.name, bringOver.run),
  numbered(setupSums.name, setupSums.run),
].sort((a, b) => a.number - b.number);

/** How many there are, by their numbers. */
export const migrationNumbers = (): number[] => MIGRATIONS.map(({ number }) => number);

/** The last of them. */
export const currentStep = (): number => Math.max(...migrationNumbers());
/** What tells apart the tables that two Kevros make. */
export const tablesHash = (): string =>
  createHash('sha256')
    .update(JSON.stringify(Object.entries(FILES).toSorted()))
    .digest('hex')
    .slice(0, 12);

/** The database was opened by a later Kevro, whose tables this one does not know. Its message is the sentence to show. */
export class NewerDatabase extends Error {
  constructor(stands: number, known: number) {
    super(
      `It was opened by a newer Kevro (step ${stands} of the tables; this one knows ${known}). Nothing in it was changed. Start the newer one again.`,
    );
    this.name = 'NewerDatabase';
  }
}

/** Whether any Kevro has made its tables there. */
export async function isMigrated(db: Queries): Promise<boolean> {
  const [found] = await db.query<{ there: string | null }>("select to_regclass('migration')::text as there");
  return (found?.there ?? null) !== null;
}
const seenBy = async (db: Queries): Promise<Set<number>> =>
  new Set((await db.query<{ number: number }>('select number from migration')).map((m) => m.number));
function notNewer(seen: ReadonlySet<number>): void {
  const [stands, known] = [Math.max(0, ...seen), currentStep()];
  if (stands > known) throw new NewerDatabase(stands, known);
}

/** Whether a database has seen every migration. @throws NewerDatabase where it has seen more */
export async function areCurrent(db: Queries): Promise<boolean> {
  if (!(await isMigrated(db))) return false;
  const seen = await seenBy(db);
  notNewer(seen);
  return migrationNumbers().every((number) => seen.has(number));
}

/** Runs the migrations that the database has not seen, each in a transaction of its own. @param upTo the last one to run; all if left out */
export async function migrate(db: Db, upTo = Infinity): Promise<void> {
  await db.query(
    'create table if not exists migration (number integer primary key, name text not null, run_at timestamptz not null default now())',
  );
  const seen = await seenBy(db);
  notNewer(seen);
  // What a step changes it changes in the rows of every shop: their walls are for who serves them.
  const walls = await lowerWalls(db);
  for (const { number, name, run } of MIGRATIONS) {
    if (seen.has(number) || number > upTo) continue;
    await db.transaction(async (tx) => {
      await run(tx);
      await tx.query('insert into migration (number, name) values ($1, $2)', [number, name]);
    });
  }
  await walls.raise();
}
