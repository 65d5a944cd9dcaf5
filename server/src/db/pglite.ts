import { PGlite, types } from '@electric-sql/pglite';
import type { Db, Queries } from './db';
import { migrate } from './migrate';

/** 8-byte integers come as numbers (counts and sequence numbers stay far below 2^53), days and times as ISO text. */
const PARSERS = {
  [types.INT8]: Number,
  [types.DATE]: (text: string) => text,
  [types.TIMESTAMPTZ]: (text: string) => new Date(text).toISOString(),
};

/**
 * Opens the database in a folder, or in memory without one, and brings it up to date.
 * @param folder made when missing
 */
export async function openPglite(folder?: string): Promise<Db> {
  const pg = await PGlite.create({ ...(folder ? { dataDir: folder } : {}), parsers: PARSERS });
  const queries = (on: Pick<PGlite, 'query'>): Queries => ({
    query: async <Row>(sql: string, values: readonly unknown[] = []) =>
      (await on.query<Row>(sql, [...values])).rows,
  });
  const db: Db = {
    ...queries(pg),
    transaction: (work) => pg.transaction((tx) => work(queries(tx as unknown as Pick<PGlite, 'query'>))),
    close: () => pg.close(),
  };
  await migrate(db);
  return db;
}
