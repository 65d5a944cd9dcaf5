import type { ImportProblem, SetupImport } from '@kevro/contract';
import type { Db, Queries } from '../db/db';
import { ApiProblem } from '../problem';
import { storeSetups } from '../records/setup';
import { countSetups, dropBatch, knownPrints, makeLive, newBatch } from '../records/setup-batch';
import type { OpenFile } from './setup-reading';

/** As many problems are listed one by one; more are counted. */
const MOST_PROBLEMS = 1000;

/** What an import is to do, and how it is watched. */
export interface ImportOptions {
  store: boolean;
  skipBad: boolean;
  /** Whether whoever asked has gone away. */
  cancelled: () => boolean;
  progress: (done: number, of: number) => void;
  /** Writes the line of the change log, with what was stored. */
  line: (tx: Queries) => Promise<unknown>;
}

/** Lets the server answer others between two parts. */
const breathe = (): Promise<void> => new Promise((done) => setImmediate(done));

/**
 * Takes in a file of setups that is open, and stores it where that is asked for: all of it or nothing. What was stored before, in this file or in the library, is
 * not stored again. Rows are stored part by part in a batch that counts only once it is whole, so that the library can be used meanwhile.
 * @throws ApiProblem `import-cancelled` where whoever asked went away
 */
export async function importSetups(db: Db, file: OpenFile, options: ImportOptions): Promise<SetupImport> {
  const problems: ImportProblem[] = [];
  const seen = new Set<string>();
  const shapes = new Set<string>();
  let rows = 0;
  let bad = 0;
  let already = 0;
  let stored = 0;
  let batch: number | undefined;
  const whole = (): boolean => bad === 0 || options.skipBad;
  try {
    for (let part = await file.next(); part; part = await file.next()) {
      if (options.cancelled()) throw new ApiProblem('import-cancelled');
      rows += part.rows;
      bad += part.bad;
      problems.push(...part.problems.slice(0, MOST_PROBLEMS - problems.length));
      const known = await knownPrints(
        db,
        part.good.map(({ fingerprint }) => fingerprint),
      );
      const fresh = part.good.filter(({ fingerprint }) => {
        const again = known.has(fingerprint) || seen.has(fingerprint);
        seen.add(fingerprint);
        return !again;
      });
      already += part.good.length - fresh.length;
      // A bad row in a file that is stored whole or not at all: nothing more is stored, the rest is only read.
      if (options.store && fresh.length > 0 && whole()) {
        batch ??= await newBatch(db);
        await storeSetups(db, fresh, batch, { shapes });
        stored += fresh.length;
      }
      options.progress(rows, file.size);
      await breathe();
    }
    if (batch !== undefined && whole()) {
      const own = batch;
      await db.transaction(async (tx) => {
        await makeLive(tx, own);
        await options.line(tx);
      });
      batch = undefined;
      await countSetups(db);
    } else stored = 0;
  } finally {
    if (batch !== undefined) await dropBatch(db, batch);
  }
  return { rows, stored, skipped: bad, already, problems, mapping: file.mapping };
}
