import { tokensOf, type DecimalMark, type LinePattern, type LineWord, type Token } from './line';
import {
  PRINTED_UNITS,
  SPELT_UNITS,
  printedScale,
  usualSaying,
  type PrintedMeasure,
  type PrintedUnit,
} from './words';

/** How far what is shown of a known weight may be off before it is another number: zero, scale and the last digit of a kitchen scale (from memory). */
const NEAR = 0.02;

/** Why no pattern can be proposed: nothing came, nothing that can be read, or no number is the known one. */
export type NoPattern = 'no-lines' | 'no-numbers' | 'not-the-known';
export type Proposed = { pattern: LinePattern } | { why: NoPattern };

interface Candidate {
  decimal: DecimalMark;
  line: string;
  tokens: Token[];
  numbers: number;
  counts: number;
  unit: PrintedUnit;
  /** Whether the line names the unit behind the number. */
  named: boolean;
}

function candidatesIn(
  line: string,
  decimal: DecimalMark,
  measure: PrintedMeasure,
  known: number,
): Candidate[] {
  const tokens = tokensOf(line, decimal) ?? [];
  const places = tokens.flatMap((token, at) => (token.kind === 'number' ? [at] : []));
  return places.flatMap((at, counts) => {
    const number = tokens[at];
    const next = tokens[at + 1];
    const spelt = next?.kind === 'word' ? SPELT_UNITS[next.word] : undefined;
    const units = spelt ?? (Object.keys(PRINTED_UNITS[measure]) as PrintedUnit[]);
    return units.flatMap((unit) => {
      const scale = printedScale(measure, unit);
      if (scale === undefined || number?.kind !== 'number') return [];
      const off = Math.abs(number.value * scale - known);
      if (!(off <= Math.max(NEAR * known, scale / 2))) return [];
      return [{ decimal, line, tokens, numbers: places.length, counts, unit, named: spelt !== undefined }];
    });
  });
}

/** Blanks or noughts that fill a line up to its width. */
const isPadded = (line: string): boolean => /[ ]{2,}|[+\- ]0\d/.test(line);

/** What each word of the lines says, as far as the known weight shows it. */
function wordsIn(lines: readonly Token[][], found: Candidate): LineWord[] {
  const words = new Map<string, LineWord>();
  for (const tokens of lines) {
    const places = tokens.flatMap((token, at) => (token.kind === 'number' ? [at] : []));
    const at = places.length === found.numbers ? (places[found.counts] ?? -1) : -1;
    if (at < 0) continue;
    tokens.forEach((token, index) => {
      if (token.kind !== 'word') return;
      const where = index < at ? 'before' : 'after';
      const units = index === at + 1 ? SPELT_UNITS[token.word] : undefined;
      const unit = units?.includes(found.unit) ? found.unit : units?.length === 1 ? units[0] : undefined;
      const isOfKnown = found.tokens.some((one) => one.kind === 'word' && one.word === token.word);
      // What a reading of the known weight says is no warning; what only other lines say may be one.
      const says = unit ?? usualSaying(token.word, where) ?? (isOfKnown ? 'other' : 'useless');
      words.set(`${where} ${token.word}`, { word: token.word, where, says });
    });
  }
  return [...words.values()];
}

/**
 * How the lines of a device are to be read, found from lines that it sent while something known lay on it.
 * @param lines as they came, without what ends them; some may be of before, or of moving
 * @param known what lies on it, in g, cm or kg·cm², more than 0
 * @example proposePattern(['ST,GS,+  200.1 g'], 'mass', 200) // { pattern: { decimal: '.', numbers: 1, counts: 0, unit: null, width: 16, words: […] } }
 */
export function proposePattern(lines: readonly string[], measure: PrintedMeasure, known: number): Proposed {
  const full = lines.filter((line) => line.trim() !== '');
  if (full.length === 0) return { why: 'no-lines' };
  const marks: readonly DecimalMark[] = ['.', ','];
  const candidates = full.flatMap((line) =>
    marks.flatMap((mark) => candidatesIn(line, mark, measure, known)),
  );
  const hasNumbers = full.some((line) => tokensOf(line, '.')?.some(({ kind }) => kind === 'number'));
  if (candidates.length === 0) return { why: hasNumbers ? 'not-the-known' : 'no-numbers' };
  // The one that explains most lines; of two a number with its unit, then the one that is further behind, as a net weight is behind the gross one.
  const same = (a: Candidate, b: Candidate): boolean =>
    a.decimal === b.decimal && a.numbers === b.numbers && a.counts === b.counts && a.unit === b.unit;
  const weight = (one: Candidate): number =>
    10 * candidates.filter((other) => same(one, other)).length + (one.named ? 5 : 0) + one.counts / 10;
  const [found] = candidates.toSorted((a, b) => weight(b) - weight(a));
  if (!found) return { why: 'no-numbers' };
  const tokens = full.flatMap((line) => {
    const read = tokensOf(line, found.decimal);
    return read ? [read] : [];
  });
  const alike = full.filter(
    (line) => tokensOf(line, found.decimal)?.filter(({ kind }) => kind === 'number').length === found.numbers,
  );
  const widths = new Set(alike.map(({ length }) => length));
  const pattern: LinePattern = {
    decimal: found.decimal,
    numbers: found.numbers,
    counts: found.counts,
    unit: found.named ? null : found.unit,
    words: wordsIn([found.tokens, ...tokens], found),
    width: widths.size === 1 && alike.every(isPadded) ? found.line.length : null,
  };
  return { pattern };
}
