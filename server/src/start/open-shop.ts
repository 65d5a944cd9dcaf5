import { chmodSync, existsSync, lstatSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { Db } from '../db/db';
import { sync } from '../db/durable-fs';
import { dbOf, openEngine } from '../db/pglite';
import { NewerDatabase, migrate } from '../db/migrate';
import { newTables } from '../db/new-database';
import { finishErasing } from '../records/person';
import { WrongFolder } from './demo-folder';
import { makeFolder } from './make-folder';

/** Every file and folder in a folder, itself last. */
function* within(path: string): Generator<{ path: string; folder: boolean }> {
  const info = lstatSync(path);
  if (info.isDirectory()) for (const name of readdirSync(path)) yield* within(join(path, name));
  if (info.isDirectory() || info.isFile()) yield { path, folder: info.isDirectory() };
}

/** Brings all that lies in a folder to the disk. */
function syncAll(folder: string): void {
  for (const { path } of within(folder)) sync(path);
}

/** Takes from everybody but the owner what may be done with a folder: health notes are in it. */
function ownersOnly(folder: string): void {
  for (const { path, folder: isFolder } of within(folder)) {
    const mode = isFolder ? 0o700 : 0o600;
    if ((lstatSync(path).mode & 0o777) !== mode) chmodSync(path, mode);
  }
}

/** Where a shop is made before it has its name; whatever an earlier try left there is gone. */
export function placeToMake(database: string): string {
  const making = `${database}.making`;
  makeFolder(dirname(database));
  rmSync(making, { recursive: true, force: true });
  return making;
}

/** Gives a shop that was made its name, whole and on the disk. */
export function nameShop(making: string, database: string): void {
  ownersOnly(making);
  syncAll(making);
  renameSync(making, database);
  sync(dirname(database));
}

const damaged = (database: string, why: string): WrongFolder =>
  new WrongFolder(
    `The shop in ${database} cannot be opened: ${why}. Nothing in it was changed. Put a copy of the folder back, or restore a backup into an empty folder (npm run restore).`,
  );

/** What the system says of a disk: full, not to be written to. It is no fault of what lies there. */
export const isSystemError = (error: unknown): error is NodeJS.ErrnoException =>
  error instanceof Error && typeof (error as NodeJS.ErrnoException).syscall === 'string';

/** Opens the engine in a folder, made when missing. */
export type OpenEngine = (folder: string) => Promise<Db>;
const openHere: OpenEngine = async (folder) => dbOf(await openEngine(folder, newTables));

async function open(database: string, engineIn: OpenEngine): Promise<Db> {
  // Left by a server that was cut off. The folder is held already, so that it is nobody's; an empty one would keep the shop shut.
  rmSync(join(database, 'postmaster.pid'), { force: true });
  const db = await engineIn(database).catch((error: unknown) => {
    throw isSystemError(error) ? error : damaged(database, 'its files are damaged');
  });
  try {
    await migrate(db);
    // Somebody was erased, and the server did not live to clear the old pages away.
    await finishErasing(db);
    return db;
  } catch (error) {
    await db.close();
    throw error instanceof NewerDatabase ? new WrongFolder(`${database}: ${error.message}`) : error;
  }
}

/**
 * Opens the shop in a folder that this process holds, or begins one. A shop is begun beside its place, brought to the disk whole and then named: a first start
 * that is cut off leaves nothing that would have to be judged, and is begun again. What is there but is no shop is left alone.
 * @param database the folder of the database itself @param first what a new shop begins with @param engineIn how the engine is opened; in this thread if left out
 * @throws WrongFolder with the sentence to show
 */
export async function openShop(
  database: string,
  first: (db: Db) => Promise<void> = async () => undefined,
  engineIn: OpenEngine = openHere,
): Promise<Db> {
  if (!existsSync(database)) {
    const making = placeToMake(database);
    const db = await engineIn(making);
    await migrate(db);
    await first(db);
    await db.close();
    nameShop(making, database);
  } else if (!existsSync(join(database, 'PG_VERSION')))
    throw damaged(database, 'PG_VERSION is missing, so that part of it is gone');
  ownersOnly(database);
  const db = await open(database, engineIn);
  // What the database writes as it opens, it writes for everybody.
  ownersOnly(database);
  return db;
}
