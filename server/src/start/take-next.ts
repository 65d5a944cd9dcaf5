import { existsSync, renameSync, rmSync } from 'node:fs';
import { dirname } from 'node:path';
import { sync } from '../db/durable-fs';
import { beforeOf, nextTo } from './demo-folder';

/**
 * Puts a restored shop in the place of the one that was there, in two renamings. Cut off between them, the next start does the second: there is never a start
 * without a shop, and the one that was there stays until {@link dropBefore}.
 * @param database the folder of the database, which this process holds
 * @returns whether a restored shop was waiting
 */
export function takeNext(database: string): boolean {
  const next = nextTo(database);
  if (!existsSync(next)) return false;
  if (existsSync(database)) {
    rmSync(beforeOf(database), { recursive: true, force: true });
    renameSync(database, beforeOf(database));
  }
  renameSync(next, database);
  sync(dirname(database));
  return true;
}

/** Drops the shop that a restored one took the place of, once that one has opened: it is among the backups. */
export function dropBefore(database: string): void {
  rmSync(beforeOf(database), { recursive: true, force: true });
}
