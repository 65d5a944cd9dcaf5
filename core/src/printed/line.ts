import {
  SPELT_UNITS,
  printedScale,
  usualSaying,
  type PrintedMeasure,
  type PrintedUnit,
  type Saying,
} from './words';

export type DecimalMark = '.' | ',';

/** A word or sign of a line, and what it says there. */
export interface LineWord {
  word: string;
  /** Before or after the number that counts. */
  where: 'before' | 'after';
  says: Saying | PrintedUnit;
}

/** How the lines of one device are read. */
export interface LinePattern {
  decimal: DecimalMark;
  /** How many numbers a line has, and which of them counts, from 0. */
  numbers: number;
  counts: number;
  /** The unit of a number without one behind it; null where a line without a unit is no reading. */
  unit: PrintedUnit | null;
  words: LineWord[];
  /** How many characters a line has, where the device pads them: any other number is a damaged line. */
  width: number | null;
}

/** Why a line is no reading. */
export type Unread = 'empty' | 'characters' | 'numbers' | 'width' | 'word' | 'unit' | 'useless' | 'range';
/** What a line says. */
export type LineRead =
  | {
      kind: 'value';
      /** In g, cm or kg·cm². */
      value: number;
      unit: PrintedUnit;
      /** Undefined where the device does not tell. */
      steady: boolean | undefined;
      tared: boolean;
    }
  | { kind: 'over' | 'under' }
  | { kind: 'unread'; why: Unread; word?: string };

export type Token = { kind: 'number'; value: number; text: string } | { kind: 'word'; word: string };

/** What stands between words and says nothing. */
const BETWEEN = /^[\s:;,()[\]]+/;
const INERTIA = /^kg[·.*]?cm(?:²|\^?2)/i;
const LETTERS = /^[\p{L}%°]+/u;
const SIGNS = /^(?:([?*#!^_=~<>&@$|/\\+-])\1*)/;
/** Thousands in groups of three, or none; with the sign before, from which blanks may part it. */
const NUMBERS: Record<DecimalMark, RegExp> = {
  '.': /^[+-]?\s*(?:\d{1,3}(?:,\d{3})+(?!\d)(?:\.\d+)?|\d+(?:\.\d+)?|\.\d+)/,
  ',': /^[+-]?\s*(?:\d{1,3}(?:\.\d{3})+(?!\d)(?:,\d+)?|\d+(?:,\d+)?)/,
};

/** The numbers, words and signs of a line, in their order; undefined where it has characters that no device prints. @example tokensOf('ST, 312.4 g', '.')?.length // 3 */
export function tokensOf(line: string, decimal: DecimalMark): Token[] | undefined {
  // eslint-disable-next-line no-control-regex
  if (/[\u0000-\u0008\u000b-\u001f\u007f-\u009f\ufffd]/.test(line)) return undefined;
  const found: Token[] = [];
  let rest = line.replaceAll('−', '-');
  while (rest !== '') {
    const between = BETWEEN.exec(rest)?.[0];
    const number = NUMBERS[decimal].exec(rest)?.[0];
    const inertia = INERTIA.exec(rest)?.[0];
    const word = inertia ?? LETTERS.exec(rest)?.[0] ?? SIGNS.exec(rest)?.[0];
    if (number !== undefined) {
      const plain = number
        .replace(/\s/g, '')
        .replaceAll(decimal === '.' ? ',' : '.', '')
        .replace(',', '.');
      found.push({ kind: 'number', value: Number(plain), text: number });
      rest = rest.slice(number.length);
    } else if (between !== undefined) rest = rest.slice(between.length);
    else if (word !== undefined) {
      found.push({ kind: 'word', word: inertia ? 'KG·CM²' : word.toUpperCase() });
      rest = rest.slice(word.length);
    } else return undefined;
  }
  return found;
}

/** The greatest and least that a device can read, in the unit of its measure: a scale may show less than nothing when something was taken off its tare. */
const RANGE: Record<PrintedMeasure, [number, number]> = {
  mass: [-1000, 5000],
  length: [0, 150],
  inertia: [-100, 2000],
};

/** The words of a line with what each says; a unit that stands right behind the number is one. */
function wordsOf(tokens: readonly Token[], at: number, { words }: LinePattern) {
  return tokens.flatMap((token, index) => {
    if (token.kind !== 'word') return [];
    const where = index < at ? ('before' as const) : ('after' as const);
    const own = words.find((one) => one.word === token.word && one.where === where)?.says;
    const units = index === at + 1 ? SPELT_UNITS[token.word] : undefined;
    const unit = units?.length === 1 ? units[0] : undefined;
    return [{ word: token.word, says: own ?? unit ?? usualSaying(token.word, where) }];
  });
}
const SAYS_NO_UNIT: ReadonlySet<string> = new Set<Saying>([
  'steady',
  'moving',
  'tared',
  'over',
  'under',
  'other',
  'useless',
]);

/**
 * What a line of a device says: a value with what is said about it, overload, or why it is no reading. A line that is not wholly understood is none: a
 * word that nobody explained may mean anything.
 * @param line without what ends it @param measure what the device reads
 * @example readLine(pattern, 'mass', 'ST,NT,+  0.3124 kg') // { kind: 'value', value: 312.4, unit: 'kg', steady: true, tared: true }
 */
export function readLine(pattern: LinePattern, measure: PrintedMeasure, line: string): LineRead {
  if (line.trim() === '') return { kind: 'unread', why: 'empty' };
  const tokens = tokensOf(line, pattern.decimal);
  if (!tokens) return { kind: 'unread', why: 'characters' };
  const places = tokens.flatMap((token, at) => (token.kind === 'number' ? [at] : []));
  const at = places[pattern.counts] ?? tokens.length;
  const said = wordsOf(tokens, at, pattern);
  for (const kind of ['over', 'under'] as const) if (said.some(({ says }) => says === kind)) return { kind };
  if (places.length !== pattern.numbers) return { kind: 'unread', why: 'numbers' };
  if (pattern.width !== null && line.length !== pattern.width) return { kind: 'unread', why: 'width' };
  const unknown = said.find(({ says }) => says === undefined);
  if (unknown) return { kind: 'unread', why: 'word', word: unknown.word };
  const says = (what: Saying): boolean => said.some((one) => one.says === what);
  if (says('useless')) return { kind: 'unread', why: 'useless' };
  const units = said.flatMap((one) =>
    one.says === undefined || SAYS_NO_UNIT.has(one.says) ? [] : [one.says as PrintedUnit],
  );
  const unit = units.length === 0 ? pattern.unit : units[0];
  const scale = unit ? printedScale(measure, unit) : undefined;
  if (!unit || scale === undefined || units.length > 1) return { kind: 'unread', why: 'unit' };
  const token = tokens[at];
  // Digits that only the conversion makes are cut off.
  const value = token?.kind === 'number' ? Number((token.value * scale).toPrecision(12)) : NaN;
  const [least, most] = RANGE[measure];
  if (!(value >= least && value <= most)) return { kind: 'unread', why: 'range' };
  const tells = (what: Saying): boolean => says(what) || pattern.words.some((one) => one.says === what);
  const steady = says('moving') ? false : tells('steady') ? says('steady') : tells('moving') || undefined;
  return { kind: 'value', value, unit, steady, tared: says('tared') };
}
