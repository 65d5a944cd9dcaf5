/** What a device sends, cut into lines. */
export interface Received {
  lines: string[];
  /** Whether the end of a line, or its beginning, was missing: it is no line. */
  half: boolean;
  /** Whether it sends more than anybody can read, or never ends a line. */
  flood: boolean;
}

/** A line is printed in one go: after so long a gap in its middle its rest is another one's, ms (from memory; a line at 1200 baud takes 200 ms). */
const GAP_MS = 1000;
/** When a port is opened in the middle of a line, its rest comes at once: what comes later than this begins a line, ms (from memory). */
const QUIET_MS = 400;
/** No scale prints lines as long as this, or as many in a second (from memory). */
const LONGEST = 200;
const MOST_A_SECOND = 100;

/** What was sent, cut where its lines end: at one character, or at the usual ones. @example cutAtEnds('1 g\r2 g', '') // ['1 g', '2 g'] */
export const cutAtEnds = (text: string, ends: string): string[] =>
  ends === '' ? text.replaceAll('\u0003', '\n').split(/[\r\n]/) : text.split(ends);

/** Cuts what a serial device sends into whole lines; times come from outside. A line that is not whole is left out and said. */
export class LineCutter {
  private piece = '';
  private lastAt: number;
  /** Whether what comes belongs to a line whose beginning was not heard. */
  private headless: boolean | undefined;
  private recent: number[] = [];

  /** @param ends the one character that ends a line; empty for a carriage return, a line feed or an end of text @param openedAt ms */
  constructor(
    private readonly ends: string,
    openedAt: number,
  ) {
    this.lastAt = openedAt;
  }

  /** @param text what came, as Latin-1 @param at when, ms */
  push(text: string, at: number): Received {
    const waited = at - this.lastAt;
    let half = false;
    this.headless ??= waited < QUIET_MS;
    if (this.piece !== '' && waited > GAP_MS) {
      half = true;
      // The rest of the broken line may follow: what comes up to the next end cannot be told from it.
      this.headless = true;
      this.piece = '';
    }
    this.lastAt = at;
    const lines: string[] = [];
    const pieces = cutAtEnds(this.piece + text.replaceAll('\u0002', ''), this.ends);
    this.piece = pieces.pop() ?? '';
    for (const piece of pieces) {
      if (this.headless) {
        half ||= piece.trim() !== '';
        // An end alone says that the line before it was whole.
        this.headless = false;
      } else if (piece.trim() !== '') lines.push(piece);
    }
    this.recent = [...this.recent, ...lines.map(() => at)].filter((then) => at - then < 1000);
    const flood = this.piece.length > LONGEST || this.recent.length > MOST_A_SECOND;
    if (flood) {
      this.piece = '';
      this.headless = true;
      this.recent = [];
    }
    return { lines: flood ? [] : lines, half, flood };
  }
}

/** Signs that devices put between lines where they send no line ends (from memory). */
const MARKS = ['=', ';', '$', '#', '*', '&', '@'];
/** What ends the lines of a device, found from what it sent: empty for the usual ends. @example proposeEnd('=312.4=312.4=312.4') // '=' */
export function proposeEnd(text: string): string {
  if (cutAtEnds(text, '').length > 1) return '';
  const count = (mark: string): number => text.split(mark).length - 1;
  const best = MARKS.toSorted((a, b) => count(b) - count(a))[0] ?? '';
  return count(best) >= 3 ? best : '';
}

/** How many values in a row must agree, and for how long, where a device does not say when it is steady (from memory). */
const AGREE = 4;
const AGREE_MS = 600;
/** Where it does: one value may be damaged on the way, two alike are not. */
const ALIKE = 2;

/**
 * The value that a running display has come to rest at: of a device that says steady the last of two alike; of one that does not, of four in a row over at
 * least 0.6 s that agree within two steps of its display.
 * @param values the last ones, oldest first, with their times in ms @param resolution the step of the display
 * @example restingAt([{ value: 312.4, at: 0, steady: true }, { value: 312.4, at: 200, steady: true }], 0.1) // 312.4
 */
export function restingAt(
  values: readonly { value: number; at: number; steady: boolean | undefined }[],
  resolution: number,
): number | undefined {
  const last = values.at(-1);
  if (!last || last.steady === false) return undefined;
  const step = 2 * resolution + 1e-9;
  const within = (few: typeof values): boolean => {
    const all = few.map(({ value }) => value);
    return Math.max(...all) - Math.min(...all) <= step && few.every(({ steady }) => steady === last.steady);
  };
  if (last.steady) {
    const two = values.slice(-ALIKE);
    return two.length === ALIKE && within(two) ? last.value : undefined;
  }
  const since = values.findLastIndex(({ at }) => last.at - at >= AGREE_MS);
  if (since < 0) return undefined;
  const few = values.slice(since);
  return few.length >= AGREE && within(few) ? last.value : undefined;
}
