import type { Db, Queries } from '../db/db';
import { LIVE } from './setup';

/** Which of these were stored before. */
export async function knownPrints(db: Queries, prints: readonly string[]): Promise<Set<string>> {
  const rows = await db.query<{ fingerprint: string }>(
    `select fingerprint from setup where fingerprint in (select jsonb_array_elements_text($1::jsonb)) and ${LIVE}`,
    [JSON.stringify(prints)],
  );
  return new Set(rows.map((row) => row.fingerprint));
}

export async function newBatch(db: Queries): Promise<number> {
  const [row] = await db.query<{ id: number }>('insert into setup_batch default values returning id');
  return (row as { id: number }).id;
}
export const makeLive = (tx: Queries, batch: number): Promise<unknown> =>
  tx.query('update setup_batch set live = true where id = $1', [batch]);
/** Nobody else tells the database how many there are now. */
export const countSetups = (db: Queries): Promise<void> => db.run('vacuum (analyze) public.setup');
/** Takes a batch away that did not come to its end, part by part. */
export async function dropBatch(db: Queries, batch: number): Promise<void> {
  for (;;) {
    const gone = await db.query(
      'delete from setup where id in (select id from setup where batch_id = $1 limit 5000) returning 1',
      [batch],
    );
    if (gone.length === 0) break;
  }
  await db.query('delete from setup_batch where id = $1 and not live', [batch]);
}
/** The lock of who reads a list in: one at a time at a database. */
const IMPORTING = 4_700_018;
/**
 * Does `work` while nobody else reads a list in, at this process or another.
 * @returns what it gives, or undefined where somebody does and nothing was done
 */
export const whileNobodyImports = <T>(db: Db, work: () => Promise<T>): Promise<T | undefined> =>
  db.session(async (one) => {
    const [{ taken } = { taken: false }] = await one.query<{ taken: boolean }>(
      'select pg_try_advisory_lock($1) as taken',
      [IMPORTING],
    );
    if (!taken) return undefined;
    try {
      return await work();
    } finally {
      await one.query('select pg_advisory_unlock($1)', [IMPORTING]);
    }
  });
/** What imports left that their process did not live to end. */
export async function dropUnfinishedBatches(db: Db): Promise<void> {
  await whileNobodyImports(db, async () => {
    const open = await db.query<{ id: number }>('select id from setup_batch where not live');
    for (const { id } of open) await dropBatch(db, id);
  });
}
