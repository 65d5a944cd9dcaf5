import { createHash } from 'node:crypto';
import { createInterface } from 'node:readline';
import { text } from 'node:stream/consumers';
import type { Readable } from 'node:stream';
import { promisify } from 'node:util';
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import { z } from 'zod';
import type { Queries } from '../db/db';
import { currentStep } from '../db/migrate';
import { listed, quoted, tablesOf, type Table } from './tables';
import { FORMAT, MANIFEST, entryOf, type Manifest } from './write';

/** The file is not what it should be. Its message is the sentence to show; nothing was changed. */
export class WrongBackup extends Error {
  constructor(message: string, options?: ErrorOptions) {
    super(`${message} Nothing was changed.`, options);
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
export class Zip {
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

/** What a backup says of itself. @throws WrongBackup */
export async function manifestOf(zip: Zip): Promise<Manifest> {
  let told: unknown;
  try {
    told = JSON.parse(await text(await zip.read(MANIFEST)));
  } catch {
    throw new WrongBackup('This is no backup of Kevro.');
  }
  const found = manifestSchema.safeParse(told);
  if (!found.success) throw new WrongBackup('This is no backup of Kevro.');
  const known = currentStep();
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

/**
 * Stores every row of a backup.
 * @param tx tables that are empty, as they were at the backup's step
 * @throws WrongBackup where a table or a row is not as it was written
 */
export async function fillTables(tx: Queries, zip: Zip, manifest: Manifest): Promise<void> {
  const tables = new Map((await tablesOf(tx)).map((table) => [table.name, table]));
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
}

/** Something in it names what is not there (PostgreSQL, appendix A). */
const FOREIGN_KEY = '23503';
/** Says of a row that names what is not there that the backup is damaged. */
export function nothingNamed(error: unknown): never {
  if ((error as { code?: string }).code !== FOREIGN_KEY) throw error;
  throw new WrongBackup('The backup is damaged: something in it names what is not there.');
}
