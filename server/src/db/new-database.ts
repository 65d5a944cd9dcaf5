import { existsSync, readFileSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { tablesHash } from './migrate';

// Databases that are made when the program is built: to copy one takes a quarter of the time of making it, and a tenth of making it with its tables.

/** One in which nothing is yet, and one with the tables of this Kevro and no shop in them: those of another source are not taken for it. */
const EMPTY = 'new-database.tar.gz';
const withTables = (): string => `new-tables-${tablesHash()}.tar.gz`;

/** Makes both, into the folder of the built program. @param migrate makes the tables */
export async function makeNewDatabases(
  folder: string,
  migrate: (engine: PGlite) => Promise<void>,
): Promise<void> {
  const engine = await PGlite.create();
  const dump = async (name: string): Promise<void> =>
    writeFile(join(folder, name), new Uint8Array(await (await engine.dumpDataDir('gzip')).arrayBuffer()));
  await dump(EMPTY);
  await migrate(engine);
  await dump(withTables());
  await engine.close();
}

/** One of them, where something is built: beside the program, above its parts, or where the program of this source was built. */
function made(name: string): Blob | undefined {
  const path = ['.', '..', '../../dist']
    .map((at) => join(import.meta.dirname, at, name))
    .find((one) => existsSync(one));
  return path === undefined ? undefined : new Blob([readFileSync(path)], { type: 'application/gzip' });
}
export const newDatabase = (): Blob | undefined => made(EMPTY);
/** It spares a new shop its migrations, which find nothing left to do. */
export const newTables = (): Blob | undefined => made(withTables()) ?? newDatabase();
