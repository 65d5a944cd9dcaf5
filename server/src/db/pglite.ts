import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { PGlite, types } from '@electric-sql/pglite';
import type { Db } from './db';
import { DurableNodeFS } from './durable-fs';
import { migrate } from './migrate';
import { newDatabase, newTables } from './new-database';
import { oneConnection, type Question } from './one-connection';
import { Statements } from './statements';

/** 8-byte integers come as numbers (counts and sequence numbers stay far below 2^53), days and times as ISO text. */
const PARSERS = {
  [types.INT8]: Number,
  [types.DATE]: (text: string) => text,
  [types.TIMESTAMPTZ]: (text: string) => new Date(text).toISOString(),
};

/** PGlite starts without `fsync` unless it is told otherwise; see docs/decisions/0003. */
const DURABLE_START = [
  ...PGlite.defaultStartParams.filter((parameter) => parameter !== '-F'),
  '-c',
  'fsync=on',
  '-c',
  'wal_sync_method=fsync',
  // Files of the log that are done are deleted, not kept for later: what was erased must not lie in them.
  '-c',
  'wal_recycle=off',
  // Pages of an index lie in memory or on a disk without a head to move: reading them here and there costs hardly more than in a row.
  '-c',
  'random_page_cost=1.1',
];

/** Answers what an engine in this thread is asked for. */
export function answererOf(pg: PGlite): (question: Question) => Promise<unknown[]> {
  const statements = new Statements(pg);
  return async (question) => {
    if (question.kind === 'query') return statements.query(question.sql, question.values);
    if (question.kind === 'run') statements.run(question.sql);
    else await pg.close();
    return [];
  };
}

/** A database over an engine that is open already. */
export const dbOf = (pg: PGlite): Db => oneConnection(answererOf(pg));

/** An engine in a folder (made when missing), or in memory without one. @param newOne what one that is made begins with; nothing if left out */
export function openEngine(folder?: string, newOne: () => Blob | undefined = newDatabase): Promise<PGlite> {
  const isNew = folder === undefined || !existsSync(join(folder, 'PG_VERSION'));
  const first = isNew ? newOne() : undefined;
  return PGlite.create({
    parsers: PARSERS,
    ...(first ? { loadDataDir: first } : {}),
    ...(folder ? { fs: new DurableNodeFS(folder), startParams: DURABLE_START } : {}),
  });
}

/**
 * Opens the database in a folder, or in memory without one, and brings it up to date.
 * @param folder made when missing
 */
export async function openPglite(folder?: string): Promise<Db> {
  const db = dbOf(await openEngine(folder, newTables));
  await migrate(db);
  return db;
}
