import {
  withRatings,
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
  textOf,
  type CellProblem,
  type ImportProblem,
  type SetupMapping,
  type SetupToStore,
} from '@kevro/contract';
import { FIELD_UNITS, type Column } from '@kevro/core';
import { ApiProblem, badInput } from '../problem';
import { rowsOfSetups, type StoredSetup } from '../records/setup-row';
import { tableRows } from './table-text';

/** How many rows are read between two looks at whatever else there is to do. */
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
        const found = newSetup.safeParse(withRatings(item), { reportInput: true });
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

/** A file of setups as it came in. */
export interface SetupFile {
  bytes: Uint8Array;
  format: 'csv' | 'json';
  /** What the fitter said about its columns. */
  mapping: SetupMapping;
}
/** Some rows of a file, read. */
export interface ReadPart {
  rows: number;
  good: StoredSetup[];
  bad: number;
  problems: ImportProblem[];
}
/** A file that is read part by part. */
export interface OpenFile {
  mapping: SetupMapping | null;
  size: number;
  next: () => Promise<ReadPart | undefined>;
  close: () => Promise<unknown>;
}
/** Opens a file of setups for reading. @throws ApiProblem where it is none */
export type ReadFile = (file: SetupFile) => Promise<OpenFile>;

function partOf(rows: readonly ReadRow[]): ReadPart {
  const good = rows.flatMap((row) => ('setup' in row ? row.setup : []));
  const bad = rows.flatMap((row) => ('problems' in row ? row : []));
  return {
    rows: rows.length,
    good: rowsOfSetups(good),
    bad: bad.length,
    problems: bad.flatMap(({ line, problems }) =>
      problems.map(({ field: _, ...problem }) => ({ line, ...problem })),
    ),
  };
}

/** In this thread. */
export const readHere: ReadFile = async ({ bytes, format, mapping }) => {
  const read = textOf(bytes);
  if ('code' in read) throw new ApiProblem(read.code);
  const source = format === 'csv' ? fromTable(read.text, mapping) : fromJson(read.text);
  const parts = source.parts[Symbol.iterator]();
  return {
    mapping: source.mapping,
    size: source.size,
    next: () => {
      const { value, done } = parts.next();
      return Promise.resolve(done ? undefined : partOf(value));
    },
    close: () => Promise.resolve(),
  };
};
