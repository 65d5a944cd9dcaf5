import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import { ZipFile } from 'yazl';
import type { Clock } from '../clock';
import type { Db, Queries } from '../db/db';
import { ApiProblem } from '../problem';
import { listed, quoted, tablesOf, type Table } from './tables';

/** What a backup says of itself. See docs/backup.md. */
export interface Manifest {
  format: typeof FORMAT;
  /** How far the tables had come: the number of the last migration. */
  version: number;
  takenAt: string;
  tables: { name: string; rows: number; sha256: string }[];
}
export const FORMAT = 'kevro-shop';
export const MANIFEST = 'manifest.json';
export const entryOf = (table: string): string => `tables/${table}.jsonl`;
/** Rows that are read at once: between two such parts other work goes on. */
const PART = 500;

const cursorOf = (table: string): string => quoted(`backup of ${table}`);

/**
 * Takes hold of every row within one transaction, so that all are of one moment; the database keeps what was so held for this connection until it is let go.
 */
const holdRows = (db: Db, tables: readonly Table[]): Promise<void> =>
  db.transaction(async (tx) => {
    for (const { name, columns, key } of tables)
      await tx.run(
        `declare ${cursorOf(name)} no scroll cursor with hold for
         select row_to_json(t)::text as line
         from (select ${listed(columns)} from ${quoted(name)} order by ${listed(key)}) t`,
      );
  });
async function letGo(db: Queries, tables: readonly Table[]): Promise<void> {
  // One that was not reached is not there to be closed.
  for (const { name } of tables) await db.run(`close ${cursorOf(name)}`).catch(() => undefined);
}

/** Keeps one connection until it is let go: cursors belong to theirs. */
const keepOne = (db: Db): Promise<{ own: Db; release: () => void }> =>
  new Promise((kept, fail) => {
    db.session((own) => new Promise<void>((release) => kept({ own, release }))).catch(fail);
  });

let underWay = false;

/**
 * A backup as it is made: a zip of one file of JSON lines a table, with a manifest of counts and hashes at its end. All of it is of one moment, while work goes on.
 * @throws ApiProblem where another one is being made
 */
export async function backupOf(db: Db, now: Clock): Promise<{ zip: Readable; done: Promise<Manifest> }> {
  if (underWay) throw new ApiProblem('backup-under-way');
  underWay = true;
  const { own, release } = await keepOne(db).catch((error: unknown) => {
    underWay = false;
    throw error;
  });
  const [tables, [stands]] = await Promise.all([
    tablesOf(own),
    own.query<{ version: number }>('select max(number) as version from migration'),
  ]).catch((error: unknown) => {
    underWay = false;
    release();
    throw error;
  });
  const takenAt = now();
  const manifest: Manifest = { format: FORMAT, version: stands?.version ?? 0, takenAt, tables: [] };

  async function* linesOf(name: string): AsyncGenerator<Buffer> {
    const hash = createHash('sha256');
    let rows = 0;
    for (;;) {
      const part = await own.query<{ line: string }>(`fetch ${PART} from ${cursorOf(name)}`);
      if (part.length === 0) break;
      rows += part.length;
      const bytes = Buffer.from(part.map(({ line }) => `${line}\n`).join(''));
      hash.update(bytes);
      yield bytes;
    }
    manifest.tables.push({ name, rows, sha256: hash.digest('hex') });
  }

  const zip = new ZipFile();
  const out = zip.outputStream as Readable;
  const done = new Promise<Manifest>((resolve, reject) => {
    const end = (error?: Error | null): void => {
      void letGo(own, tables)
        .catch(() => undefined)
        .then(() => {
          underWay = false;
          release();
          if (error) reject(error);
          else resolve(manifest);
        });
    };
    out.once('end', () => end());
    // Whoever asked for it went away, or a part could not be read.
    out.once('close', () => end(out.readableEnded ? null : new Error('the backup was cut off')));
    zip.on('error', (error: Error) => out.destroy(error));
  });
  done.catch(() => undefined);
  try {
    await holdRows(own, tables);
  } catch (error) {
    out.destroy();
    throw error;
  }
  const lazily = (entry: string, source: () => Readable): void =>
    zip.addReadStreamLazy(entry, { mtime: new Date(takenAt) }, (give) => {
      const stream = source();
      stream.once('error', (error) => out.destroy(error));
      give(null, stream);
    });
  for (const { name } of tables) lazily(entryOf(name), () => Readable.from(linesOf(name)));
  lazily(MANIFEST, () => Readable.from([Buffer.from(JSON.stringify(manifest, null, 2))]));
  zip.end();
  return { zip: out, done };
}
