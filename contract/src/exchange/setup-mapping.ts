import { z } from 'zod';
import { SPECS, FIELD_UNITS, SETUP_FIELDS, guessColumns, parseNumber, type Column } from '@kevro/core';
import { confidence, sourceKind } from '../records/setup';
import { dress, sport } from '../shapes';

const field = z.enum(SETUP_FIELDS);

/** What the columns of a list are, by their names, and what holds where a row does not say. */
export const setupMapping = z.strictObject({
  columns: z
    .record(
      z.string().max(200),
      z.strictObject({
        field: field.nullable().describe('null leaves the column out'),
        unit: z.string().max(40).optional().describe('that of its plain numbers; one in a cell wins'),
      }),
    )
    .default({}),
  assume: z
    .strictObject({
      sport: sport.default('tennis'),
      sourceKind: sourceKind.default('published'),
      confidence: confidence.default('medium'),
      dress: dress.default({}),
      source: z.string().trim().max(200).default(''),
      axisCm: z
        .number()
        .min(0)
        .max(30)
        .optional()
        .describe(
          `what ${SPECS.swingWeight.name}s are about, in a sport that quotes them about more than one axis`,
        ),
    })
    .prefault({}),
});
export type SetupMapping = z.output<typeof setupMapping>;
export type Assumed = SetupMapping['assume'];

/** Most columns a list may have. */
export const MOST_COLUMNS = 200;

/** Names of columns, each once: a second of the same name is numbered, and one without a name is called by its place. */
export function columnNames(headers: readonly string[]): string[] {
  const seen = new Map<string, number>();
  return headers.map((header, i) => {
    const name = header.trim().slice(0, 150) || `column ${i + 1}`;
    const before = seen.get(name) ?? 0;
    seen.set(name, before + 1);
    return before === 0 ? name : `${name} (${before + 1})`;
  });
}

/**
 * The mapping of a list: what was said of its columns, and what they are guessed to be where nothing was.
 * @param headers as {@link columnNames} gives them @param rows some of the first rows
 */
export function mappingOf(
  headers: readonly string[],
  rows: readonly (readonly string[])[],
  said: SetupMapping,
): SetupMapping {
  const guessed = guessColumns(headers, rows, said.assume.sport);
  const taken = new Set(Object.values(said.columns).map(({ field }) => field));
  const columns = headers.map((header, i) => {
    const own = said.columns[header];
    if (own) return [header, own] as const;
    const { field = null, unit } = guessed[i] ?? {};
    const free = field !== null && taken.has(field) ? null : field;
    return [header, { field: free, ...(unit === undefined || free === null ? {} : { unit }) }] as const;
  });
  return { ...said, columns: Object.fromEntries(columns) };
}

/** The columns in the order of the headers. */
export const columnsOf = (headers: readonly string[], { columns }: SetupMapping): Column[] =>
  headers.map((header) => {
    const { field, unit } = columns[header] ?? { field: null };
    return field === null ? {} : { field, unit };
  });

/**
 * The columns whose unit has to be said before their numbers can be read: those with a plain number among the first rows and no unit of their own.
 */
export const columnsWithoutUnit = (
  headers: readonly string[],
  rows: readonly (readonly string[])[],
  { columns }: SetupMapping,
): string[] =>
  headers.filter((header, i) => {
    const { field, unit } = columns[header] ?? { field: null };
    if (!field || !FIELD_UNITS[field] || FIELD_UNITS[field].includes(unit ?? '')) return false;
    return rows.some((row) => parseNumber(row[i] ?? '') !== undefined);
  });
