/** What a file is that holds no list: packed, or no text at all. */
export type NoText = 'compressed-file' | 'not-a-table';

/**
 * The text of a file, whatever it was written in: by its mark, else UTF-8 where it is that, else Windows-1252, which most spreadsheets write (WHATWG Encoding).
 */
export function textOf(bytes: Uint8Array): { text: string } | { code: NoText } {
  const begins = (...mark: number[]): boolean => mark.every((byte, i) => bytes[i] === byte);
  if (begins(0x50, 0x4b, 0x03, 0x04) || begins(0x1f, 0x8b)) return { code: 'compressed-file' };
  const decode = (encoding: string): { text: string } => ({ text: new TextDecoder(encoding).decode(bytes) });
  if (begins(0xff, 0xfe)) return decode('utf-16le');
  if (begins(0xfe, 0xff)) return decode('utf-16be');
  const head = bytes.subarray(0, 1000);
  const zeros = head.reduce((count, byte, i) => count + (byte === 0 && i % 2 === 1 ? 1 : 0), 0);
  if (zeros > head.length / 4) return decode('utf-16le');
  if (head.includes(0)) return { code: 'not-a-table' };
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes) };
  } catch {
    return decode('windows-1252');
  }
}

/** How much of the start of a list is looked at to find its separator. */
const HEAD_CHARACTERS = 200_000;
export const HEAD_ROWS = 30;

/**
 * The separator that cuts the first rows of a list into the most cells, as many in each.
 * @param parse cuts text into rows, no more than {@link HEAD_ROWS}, without empty ones
 */
export function separatorOf(text: string, parse: (head: string, separator: string) => string[][]): string {
  const head = text.slice(0, HEAD_CHARACTERS);
  const judged = [',', ';', '\t', '|'].map((separator) => {
    const all = parse(head, separator);
    // The last row may be cut off by the head's end.
    const rows = all.length > 2 ? all.slice(0, -1) : all;
    const cells = rows[0]?.length ?? 0;
    const alike = rows.filter((row) => row.length === cells).length / Math.max(1, rows.length);
    return { separator, score: cells > 1 ? alike * 1000 + cells : 0 };
  });
  return judged.toSorted((a, b) => b.score - a.score)[0]?.separator ?? ',';
}
