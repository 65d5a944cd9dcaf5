import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { systemClock } from '../clock';
import type { Db, Queries } from '../db/db';
import { currentStep, migrate } from '../db/migrate';
import { newTables } from '../db/new-database';
import { dbOf, openEngine } from '../db/pglite';
import { NoDatabase } from '../db/no-database';
import { openBare } from '../db/postgres';
import { FIRST_SHOP, ShopRefused, addShop, renameShop } from '../shops/list';
import { isSystemError, nameShop, placeToMake } from '../start/open-shop';
import { WrongBackup, Zip, fillTables, manifestOf, nothingNamed } from './read';
import { quoted, tablesOf } from './tables';
import { writeWhole } from './whole-file';
import { backupOf, type Manifest } from './write';

/** Columns that count the rows of a table. */
const countedIn = (tx: Queries): Promise<{ table: string; column: string }[]> =>
  tx.query(
    `select table_name as "table", column_name as "column" from information_schema.columns
     where table_schema = 'public' and is_identity = 'YES'`,
  );

/** Goes on counting where the rows that came in end. */
async function goOnCounting(tx: Queries): Promise<void> {
  for (const { table, column } of await countedIn(tx))
    await tx.query(
      `select setval(pg_get_serial_sequence($1, $2), (select coalesce(max(${quoted(column)}), 0) + 1 from ${quoted(table)}), false)`,
      [quoted(table), column],
    );
}

/** Counts on to where the rows of the shop that came in end. Others count meanwhile: nothing is set, which might set them back. */
async function countOn(tx: Queries): Promise<void> {
  for (const { table, column } of await countedIn(tx)) {
    const ends = await tx.query<{ sequence: string; most: number }>(
      `select pg_get_serial_sequence($1, $2) as sequence, coalesce(max(${quoted(column)}), 0) as most from ${quoted(table)}`,
      [quoted(table), column],
    );
    for (const { sequence, most } of ends)
      await tx.query(
        `select count(nextval($1)) from generate_series((select last_value from ${sequence}), $2::bigint)`,
        [sequence, most],
      );
  }
}

/** Takes away what binds rows of one table to those of another. @returns binds them again: each row that names another must find it */
async function unbind(tx: Queries): Promise<() => Promise<void>> {
  const bound = await tx.query<{ table: string; name: string; rule: string }>(
    `select conrelid::regclass::text as "table", quote_ident(conname) as name, pg_get_constraintdef(oid) as rule
     from pg_constraint where contype = 'f' and connamespace = 'public'::regnamespace`,
  );
  for (const { table, name } of bound) await tx.run(`alter table ${table} drop constraint ${name}`);
  return async () => {
    for (const { table, name, rule } of bound)
      await tx.run(`alter table ${table} add constraint ${name} ${rule}`).catch(nothingNamed);
  };
}

/** A backup that is being read. */
interface Backup {
  zip: Zip;
  manifest: Manifest;
}

async function fillAll(db: Db, { zip, manifest }: Backup): Promise<void> {
  // The tables as they were when it was taken: what changed since is changed by the same steps that change a shop.
  await migrate(db, manifest.version);
  await db.transaction(async (tx) => {
    // Rows come table by table: what they name may come later, and is looked for at the end.
    const bind = await unbind(tx);
    // What a new shop begins with.
    for (const { name } of await tablesOf(tx)) await tx.run(`delete from ${quoted(name)}`);
    await fillTables(tx, zip, manifest);
    await goOnCounting(tx);
    await bind();
  });
  await migrate(db);
}

/** Reads a backup and makes a shop of it. @throws WrongBackup with the sentence to show */
async function readInto(file: string, make: (backup: Backup) => Promise<void>): Promise<Manifest> {
  const zip = await Zip.open(file).catch(() => {
    throw new WrongBackup(`${file} cannot be read as a backup: it is not there, damaged, or something else.`);
  });
  try {
    const manifest = await manifestOf(zip);
    await make({ zip, manifest });
    return manifest;
  } catch (error) {
    if (
      [WrongBackup, NoDatabase, ShopRefused].some((known) => error instanceof known) ||
      isSystemError(error)
    )
      throw error;
    throw new WrongBackup('The backup is damaged: what it holds cannot be stored.', { cause: error });
  } finally {
    zip.close();
  }
}

/**
 * Makes a shop from a backup.
 * @param database where it is to be: a folder that is not there yet @param last what is to be done in it before it has its name
 * @throws WrongBackup with the sentence to show; then nothing is there that was not before
 */
export async function restore(
  file: string,
  database: string,
  last: (db: Db) => Promise<void> = async () => undefined,
): Promise<Manifest> {
  if (existsSync(database))
    throw new WrongBackup(
      `There is a shop in ${database} already. Name another folder for the restored one.`,
    );
  return readInto(file, async (backup) => {
    const making = placeToMake(database);
    try {
      const db = dbOf(
        await openEngine(making, backup.manifest.version === currentStep() ? newTables : undefined),
      );
      try {
        await fillAll(db, backup);
        await last(db);
      } finally {
        await db.close();
      }
      nameShop(making, database);
    } catch (error) {
      rmSync(making, { recursive: true, force: true });
      throw error;
    }
  });
}

/**
 * Makes a shop from a backup in an empty database on a PostgreSQL server.
 * @param code by which its people ask for it, where it is not to be alone there
 * @throws WrongBackup, NoDatabase with the sentence to show; then nothing is there that was not before
 */
export const restoreOnServer = (file: string, url: string, code?: string): Promise<Manifest> =>
  readInto(file, async (backup) => {
    const db = await openBare(url);
    try {
      const tables = () =>
        db.query<{ name: string }>(
          `select quote_ident(tablename) as name from pg_tables where schemaname = 'public'`,
        );
      if ((await tables()).length > 0)
        throw new WrongBackup(
          'There are tables in that database already. Name an empty one in DATABASE_URL, or say in KEVRO_SHOP what the shop is to be called beside those that are there.',
        );
      try {
        await db.session((own) => fillAll(own, backup));
        if (code) await renameShop(db, FIRST_SHOP, code);
      } catch (error) {
        for (const { name } of await tables()) await db.run(`drop table if exists ${name} cascade`);
        throw error;
      }
    } finally {
      await db.close();
    }
  });

/** Does something with a backup as this Kevro would write it: one of an earlier step is made a shop for that, in a folder that is gone afterwards. */
async function withUpToDate(file: string, work: (newer: string) => Promise<unknown>): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'kevro-beside-'));
  const newer = join(folder, 'newer.zip');
  try {
    await restore(file, join(folder, 'shop'), async (db) =>
      writeWhole((await backupOf(db, systemClock)).zip, newer),
    );
    await work(newer);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/**
 * Makes a shop from a backup beside the others of a database, while those are at work.
 * @param code by which its people will ask for it
 * @throws WrongBackup, NoDatabase, ShopRefused with the sentence to show; then nothing is there that was not before
 */
export const restoreBeside = (file: string, database: Db, code: string): Promise<Manifest> =>
  readInto(file, async ({ zip, manifest }) => {
    if (manifest.version < currentStep())
      return withUpToDate(file, (newer) => restoreBeside(newer, database, code));
    await addShop(database, code, async (tx) => {
      // What its rows name may come later.
      await tx.run('set constraints all deferred');
      await fillTables(tx, zip, manifest);
      await countOn(tx);
      await tx.run('set constraints all immediate').catch(nothingNamed);
    });
  });
