import {
  MOST_COLUMNS,
  columnNames,
  columnsOf,
  columnsWithoutUnit,
  fieldErrors,
  mappingOf,
  newSetup,
  readSetupCells,
  sentence,
  setupProblems,
  type CellProblem,
  type ImportProblem,
  type SetupImport,
  type SetupMapping,
  type SetupToStore,
} from '@kevro/contract';
import { FIELD_UNITS, type Column } from '@kevro/core';
import type { Db } from '../db/db';
import { ApiProblem, badInput } from '../problem';
import { storeSetups } from '../records/setup';
import { dropBatch, knownPrints, makeLive, newBatch } from '../records/setup-batch';
import { rowsOfSetups } from '../records/setup-row';
import { tableRows } from './table-text';

/** As many problems are listed one by one; more are counted. */
const MOST_PROBLEMS = 1000;
/** How many rows are read between two looks at whatever else the server has to do. */
const PART = 400;

/** A row that was read, or what is wrong with it. */
type ReadRow = { line: number } & (
  { setup: SetupToStore } | { problems: (CellProblem & { column?: string })[] }
);

interface Source {
  mapping: SetupMapping | null;
  parts: Iterable<ReadRow[]>;
  /** How far it is, 0 to 1, once so many rows were read. */
  size: number;
}

/** A list as a source of rows: its columns are mapped by its first row. @throws ApiProblem where it is no list of setups */
function fromTable(text: string, said: SetupMapping): Source {
  const parts = tableRows(text, PART);
  const first = parts.next().value ?? [];
  const [head, ...rest] = first;
  if (!head || head.cells.every((cell) => cell.trim() === '')) throw new ApiProblem('not-a-table');
  if (head.cells.length > MOST_COLUMNS) throw new ApiProblem('too-many-columns', [], { most: MOST_COLUMNS });
  const headers = columnNames(head.cells);
  const looked = rest.slice(0, 50).map(({ cells }) => cells);
  const mapping = mappingOf(headers, looked, said);
  const columns = columnsOf(headers, mapping);
  if (columns.every(({ field }) => field === undefined)) throw new ApiProblem('no-columns-known');
  const unclear = columnsWithoutUnit(headers, looked, mapping);
  if (unclear.length > 0) {
    throw badInput(
      unclear.map((header) => {
        const units = FIELD_UNITS[mapping.columns[header]?.field ?? 'line'] ?? [];
        const message = sentence('no-unit', { choices: units.join(', ') });
        return { path: `mapping.columns.${header}.unit`, code: 'no-unit' as const, message };
      }),
    );
  }
  const read = (lines: { line: number; cells: string[] }[]): ReadRow[] =>
    lines.flatMap(({ line, cells }): ReadRow[] => {
      if (cells.slice(columns.length).some((cell) => cell.trim() !== '')) {
        return [
          {
            line,
            problems: [
              { code: 'too-many-cells', message: sentence('too-many-cells', { most: columns.length }) },
            ],
          },
        ];
      }
      const found = readSetupCells(cells, columns, mapping.assume);
      if (!found) return [];
      return 'setup' in found
        ? [{ line, ...found }]
        : [{ line, problems: found.problems.map((p) => named(p, headers, columns)) }];
    });
  function* all(): Generator<ReadRow[]> {
    yield read(rest);
    for (const lines of parts) yield read(lines);
  }
  return { mapping, parts: all(), size: (text.match(/\n/g)?.length ?? 0) + 1 };
}

/** Which column of the list a problem's field stands in. */
function named(problem: CellProblem, headers: readonly string[], columns: readonly Column[]) {
  const at = columns.findIndex(({ field }) => field !== undefined && field === problem.field);
  const line = columns.findIndex(({ field }) => field === 'line');
  const column = headers[at >= 0 ? at : line];
  return column === undefined ? problem : { ...problem, column };
}

/** A file of setups in JSON. @throws ApiProblem where it is none */
function fromJson(text: string): Source {
  let data: unknown;
  try {
    data = JSON.parse(text.replace(/^\ufeff/, ''));
  } catch {
    throw new ApiProblem('not-json');
  }
  const given = Array.isArray(data) ? (data as unknown[]) : (data as { setups?: unknown } | null)?.setups;
  if (!Array.isArray(given)) throw new ApiProblem('not-setups-file');
  const list = given as unknown[];
  function* all(): Generator<ReadRow[]> {
    for (let at = 0; at < list.length; at += PART) {
      yield list.slice(at, at + PART).map((item: unknown, i): ReadRow => {
        const line = at + i + 1;
        const found = newSetup.safeParse(item, { reportInput: true });
        if (!found.success) {
          const problems = fieldErrors(found.error.issues);
          return {
            line,
            problems: problems.map(({ path, code, message }) => ({ column: path, code, message })),
          };
        }
        const problems = setupProblems(found.data);
        return problems.length > 0
          ? { line, problems: problems.map((p) => ({ ...p, ...(p.field ? { column: p.field } : {}) })) }
          : { line, setup: found.data };
      });
    }
  }
  return { mapping: null, parts: all(), size: list.length };
}

/** What an import is to do, and how it is watched. */
export interface ImportOptions {
  format: 'csv' | 'json';
  store: boolean;
  skipBad: boolean;
  mapping: SetupMapping;
  /** Whether whoever asked has gone away. */
  cancelled: () => boolean;
  progress: (done: number, of: number) => void;
}

/** Lets the server answer others between two parts. */
const breathe = (): Promise<void> => new Promise((done) => setImmediate(done));

/**
 * Reads a file of setups, and stores it where that is asked for: all of it or nothing. What was stored before, in this file or in the library, is not stored
 * again. Rows are stored part by part in a batch that counts only once it is whole, so that the library can be used meanwhile.
 * @throws ApiProblem `import-cancelled` where whoever asked went away
 */
export async function importSetups(db: Db, text: string, options: ImportOptions): Promise<SetupImport> {
  const source = options.format === 'csv' ? fromTable(text, options.mapping) : fromJson(text);
  const problems: ImportProblem[] = [];
  const seen = new Set<string>();
  const shapes = new Set<string>();
  let rows = 0;
  let bad = 0;
  let already = 0;
  let stored = 0;
  let batch: number | undefined;
  try {
    for (const part of source.parts) {
      if (options.cancelled()) throw new ApiProblem('import-cancelled');
      rows += part.length;
      const good: SetupToStore[] = [];
      for (const row of part) {
        if ('setup' in row) {
          good.push(row.setup);
          continue;
        }
        bad++;
        for (const { field: _, ...problem } of row.problems) {
          if (problems.length < MOST_PROBLEMS) problems.push({ line: row.line, ...problem });
        }
      }
      const prints = rowsOfSetups(good);
      const known = await knownPrints(
        db,
        prints.map(({ fingerprint }) => fingerprint),
      );
      const fresh = prints.filter(({ fingerprint }) => {
        const again = known.has(fingerprint) || seen.has(fingerprint);
        seen.add(fingerprint);
        return !again;
      });
      already += prints.length - fresh.length;
      // A bad row in a file that is stored whole or not at all: nothing more is stored, the rest is only read.
      if (options.store && fresh.length > 0 && (bad === 0 || options.skipBad)) {
        batch ??= await newBatch(db);
        await storeSetups(db, fresh, batch, { shapes });
        stored += fresh.length;
      }
      options.progress(rows, source.size);
      await breathe();
    }
    if (batch !== undefined && (bad === 0 || options.skipBad)) {
      await makeLive(db, batch);
      batch = undefined;
    } else stored = 0;
  } finally {
    if (batch !== undefined) await dropBatch(db, batch);
  }
  return { rows, stored, skipped: bad, already, problems, mapping: source.mapping };
}
