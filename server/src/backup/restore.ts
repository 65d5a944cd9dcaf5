import { createHash } from 'node:crypto';
import { existsSync, rmSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { text } from 'node:stream/consumers';
import type { Readable } from 'node:stream';
import { promisify } from 'node:util';
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import { z } from 'zod';
import type { Db, Queries } from '../db/db';
import { migrate, migrationNumbers } from '../db/migrate';
import { dbOf, openEngine } from '../db/pglite';
import { NoDatabase } from '../db/no-database';
import { openBare } from '../db/postgres';
import { isSystemError, nameShop, placeToMake } from '../start/open-shop';
import { listed, quoted, tablesOf, type Table } from './tables';
import { FORMAT, MANIFEST, entryOf, type Manifest } from './write';

/** The file is not what it should be. Its message is the sentence to show; nothing was changed. */
export class WrongBackup extends Error {
  constructor(message: string) {
    super(`${message} Nothing was changed.`);
    this.name = 'WrongBackup';
  }
}

const manifestSchema = z.object({
  format: z.literal(FORMAT),
  version: z.int().min(1),
  takenAt: z.string(),
  tables: z.array(z.object({ name: z.string(), rows: z.int().min(0), sha256: z.string() })),
});

/** The entries of a zip by their names, read one at a time. */
class Zip {
  private constructor(
    private readonly file: ZipFile,
    private readonly entries: ReadonlyMap<string, Entry>,
  ) {}
  static async open(path: string): Promise<Zip> {
    const file = await promisify<string, yauzl.Options, ZipFile>(yauzl.open)(path, {
      lazyEntries: true,
      autoClose: false,
    });
    const entries = new Map<string, Entry>();
    await new Promise<void>((done, fail) => {
      file.on('entry', (entry: Entry) => {
        entries.set(entry.fileName, entry);
        file.readEntry();
      });
      file.once('end', () => done());
      file.once('error', fail);
      file.readEntry();
    });
    return new Zip(file, entries);
  }
  async read(name: string): Promise<Readable> {
    const entry = this.entries.get(name);
    if (!entry) throw new WrongBackup(`The backup is damaged: ${name} is missing in it.`);
    return promisify<Entry, Readable>(this.file.openReadStream.bind(this.file))(entry);
  }
  close(): void {
    this.file.close();
  }
}

async function manifestOf(zip: Zip): Promise<Manifest> {
  let told: unknown;
  try {
    told = JSON.parse(await text(await zip.read(MANIFEST)));
  } catch {
    throw new WrongBackup('This is no backup of Kevro.');
  }
  const found = manifestSchema.safeParse(told);
  if (!found.success) throw new WrongBackup('This is no backup of Kevro.');
  const known = Math.max(...migrationNumbers());
  if (found.data.version > known)
    throw new WrongBackup(
      `This backup is of a newer Kevro (step ${found.data.version} of the tables; this one knows ${known}). Restore it with that one.`,
    );
  return found.data;
}

/** Rows that are stored at once. */
const PART = 500;

/** What a value of a column is in JSON; anything where it is kept as JSON itself. */
const KINDS: Record<string, 'number' | 'boolean' | 'string' | 'any'> = {
  int2: 'number',
  int4: 'number',
  int8: 'number',
  float4: 'number',
  float8: 'number',
  numeric: 'number',
  bool: 'boolean',
  json: 'any',
  jsonb: 'any',
};

/** Whether a line is a row with just these columns, each with a value of its kind: the database would make one out of almost anything. */
export function isRowOf(line: string, kinds: ReadonlyMap<string, string>): boolean {
  let row: unknown;
  try {
    row = JSON.parse(line);
  } catch {
    return false;
  }
  if (typeof row !== 'object' || row === null || Array.isArray(row)) return false;
  const entries = Object.entries(row);
  return (
    entries.length === kinds.size &&
    entries.every(([column, value]) => {
      const type = kinds.get(column);
      const kind = type && (KINDS[type] ?? 'string');
      return kind !== undefined && (value === null || kind === 'any' || typeof value === kind);
    })
  );
}

async function fill(
  tx: Queries,
  zip: Zip,
  { name, columns, types }: Table,
  told: Manifest['tables'][number],
): Promise<void> {
  const store = (lines: readonly string[]): Promise<unknown> =>
    tx.query(
      `insert into ${quoted(name)} (${listed(columns)}) overriding system value
       select ${listed(columns)} from json_populate_recordset(null::${quoted(name)}, $1::json)`,
      [`[${lines.join(',')}]`],
    );
  const kinds = new Map(columns.map((column, i) => [column, types[i] ?? '']));
  const hash = createHash('sha256');
  let rows = 0;
  let waiting: string[] = [];
  const input = await zip.read(entryOf(name));
  // Told by the stream, perhaps after its last line: more or less came than the zip says of itself.
  let broken: Error | undefined;
  input.on('error', (error) => (broken = error));
  try {
    for await (const line of createInterface({ input, crlfDelay: Infinity })) {
      hash.update(`${line}\n`);
      rows++;
      if (!isRowOf(line, kinds))
        throw new WrongBackup(`The backup is damaged: row ${rows} of “${name}” is no such row.`);
      waiting.push(line);
      if (waiting.length < PART) continue;
      await store(waiting);
      waiting = [];
    }
  } finally {
    input.destroy();
  }
  if (broken) throw broken;
  if (waiting.length > 0) await store(waiting);
  if (rows !== told.rows || hash.digest('hex') !== told.sha256)
    throw new WrongBackup(`The backup is damaged: what it holds of “${name}” is not what was written.`);
}

/** Goes on counting where the rows that came in end. */
async function goOnCounting(tx: Queries): Promise<void> {
  const counted = await tx.query<{ table: string; column: string }>(
    `select table_name as "table", column_name as "column" from information_schema.columns
     where table_schema = 'public' and is_identity = 'YES'`,
  );
  for (const { table, column } of counted)
    await tx.query(
      `select setval(pg_get_serial_sequence($1, $2), (select coalesce(max(${quoted(column)}), 0) + 1 from ${quoted(table)}), false)`,
      [quoted(table), column],
    );
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
      await tx.run(`alter table ${table} add constraint ${name} ${rule}`).catch((error: unknown) => {
        if ((error as { code?: string }).code !== FOREIGN_KEY) throw error;
        throw new WrongBackup('The backup is damaged: something in it names what is not there.');
      });
  };
}
/** A row names what is not there (PostgreSQL, appendix A). */
const FOREIGN_KEY = '23503';

async function fillAll(db: Db, zip: Zip, manifest: Manifest): Promise<void> {
  // The tables as they were when it was taken: what changed since is changed by the same steps that change a shop.
  await migrate(db, manifest.version);
  await db.transaction(async (tx) => {
    const tables = new Map((await tablesOf(tx)).map((table) => [table.name, table]));
    // Rows come table by table: what they name may come later, and is looked for at the end.
    const bind = await unbind(tx);
    for (const name of tables.keys()) await tx.run(`delete from ${quoted(name)}`);
    const lacking = [...tables.keys()].find((name) => !manifest.tables.some((told) => told.name === name));
    if (lacking)
      throw new WrongBackup(`The backup is damaged: what it should hold of “${lacking}” is missing.`);
    if (new Set(manifest.tables.map(({ name }) => name)).size < manifest.tables.length)
      throw new WrongBackup('The backup is damaged: a table is in it twice.');
    for (const told of manifest.tables) {
      const table = tables.get(told.name);
      if (!table) throw new WrongBackup(`The backup holds “${told.name}”, which no Kevro of its step has.`);
      await fill(tx, zip, table, told);
    }
    await goOnCounting(tx);
    await bind();
  });
  await migrate(db);
}

/** Reads a backup and makes a shop of it. @throws WrongBackup with the sentence to show */
async function readInto<T>(
  file: string,
  make: (fill: (db: Db) => Promise<void>) => Promise<T>,
): Promise<Manifest> {
  const zip = await Zip.open(file).catch(() => {
    throw new WrongBackup(`${file} cannot be read as a backup: it is not there, damaged, or something else.`);
  });
  try {
    const manifest = await manifestOf(zip);
    await make((db) => fillAll(db, zip, manifest));
    return manifest;
  } catch (error) {
    if (error instanceof WrongBackup || error instanceof NoDatabase || isSystemError(error)) throw error;
    throw new WrongBackup(`The backup is damaged: what it holds cannot be stored.`);
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
  return readInto(file, async (fill) => {
    const making = placeToMake(database);
    try {
      const db = dbOf(await openEngine(making));
      try {
        await fill(db);
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
 * @throws WrongBackup, NoDatabase with the sentence to show; then nothing is there that was not before
 */
export const restoreOnServer = (file: string, url: string): Promise<Manifest> =>
  readInto(file, async (fill) => {
    const db = await openBare(url);
    try {
      const tables = () =>
        db.query<{ name: string }>(
          `select quote_ident(tablename) as name from pg_tables where schemaname = 'public'`,
        );
      if ((await tables()).length > 0)
        throw new WrongBackup(
          'There are tables in that database already. Name an empty one in DATABASE_URL.',
        );
      try {
        await db.session(fill);
      } catch (error) {
        for (const { name } of await tables()) await db.run(`drop table if exists ${name} cascade`);
        throw error;
      }
    } finally {
      await db.close();
    }
  });
