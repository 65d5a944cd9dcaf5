import Papa from 'papaparse';
import { HEAD_ROWS, separatorOf } from '@kevro/contract';

/** Most bytes of a file that is read in. */
export const MOST_BYTES = 64 * 1024 * 1024;
const rowsBy = (head: string, delimiter: string): string[][] =>
  Papa.parse<string[]>(head, { delimiter, preview: HEAD_ROWS, skipEmptyLines: true }).data;

/** One row of a list with the line of the file that it begins on. */
export interface Line {
  line: number;
  cells: string[];
}

/** The rows of a list, part by part, so that a long one holds nothing up. */
export function* tableRows(text: string, part = 250): Generator<Line[], undefined> {
  const separator = separatorOf(text, rowsBy);
  let at = 0;
  let line = 1;
  while (at < text.length) {
    const lines: Line[] = [];
    let end = 0;
    const from = at;
    Papa.parse<string[]>(text.slice(from), {
      delimiter: separator,
      preview: part,
      step: ({ data, meta }) => {
        lines.push({ line, cells: data });
        for (
          let i = text.indexOf('\n', from + end);
          i >= 0 && i < from + meta.cursor;
          i = text.indexOf('\n', i + 1)
        )
          line++;
        end = meta.cursor;
      },
    });
    if (end === 0) return undefined;
    at += end;
    yield lines;
  }
  return undefined;
}
