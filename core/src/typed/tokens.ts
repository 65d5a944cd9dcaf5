/** A piece of a typed line: a number, a word (spelt one way, whatever way it was typed), or a mark between them. */
export interface Token {
  kind: 'number' | 'word' | 'mark';
  /** The word or mark as the reader knows it; of a number as it was typed. */
  is: string;
  /** Of a number. */
  value: number;
  /** Half of its last digit: as far as the number itself may be rounded. */
  half: number;
  /** It was written as a fraction: seven eighths are no count of points. */
  fraction: boolean;
  text: string;
  from: number;
  to: number;
  /** What it was understood as; a token that is not used stays as leftover. */
  used: boolean;
}

const VULGAR: Record<string, number> = {
  '½': 0.5,
  '¼': 0.25,
  '¾': 0.75,
  '⅛': 0.125,
  '⅜': 0.375,
  '⅝': 0.625,
  '⅞': 0.875,
};
const DENOMINATOR = '(?:2|4|8|16|32)';

/** Words that are typed in many ways, and how the reader knows them; what is longer or more particular first. */
const SPELT: readonly [source: string, is: string][] = [
  [String.raw`kg\s*[·*x-]?\s*cm\s*(?:\^?2|²)`, 'kgcm2'],
  [String.raw`(?:cm|in)\s?(?:\^?2|²)(?!\d)`, ''],
  [String.raw`sq(?:uare)?\.?\s*cm\b`, 'cm2'],
  [String.raw`sq(?:uare)?\.?\s*in(?:ch(?:es)?)?\b\.?`, 'in2'],
  [String.raw`swing[\s-]*(?:weight|wt\b\.?)?`, 'sw'],
  [String.raw`schwunggewicht`, 'sw'],
  [String.raw`s\.\s?w\.?(?!\w)|s\/w\b`, 'sw'],
  [String.raw`twist[\s-]*(?:weight|wt\b\.?)?`, 'tw'],
  [String.raw`t\.\s?w\.?(?!\w)|t\/w\b`, 'tw'],
  [String.raw`recoil[\s-]*(?:weight|wt\b\.?)?`, 'recoil'],
  [String.raw`balance\s*point|bal\.?\b|bp\b|balance`, 'balance'],
  [String.raw`(?:static\s+)?weight|wt\b\.?|mass\b|gewicht|peso\b|poids\b`, 'mass'],
  [String.raw`head[\s-]*light\b|h\.\s?l\.?(?!\w)|hl\b`, 'hl'],
  [String.raw`head[\s-]*heavy\b|h\.\s?h\.?(?!\w)|hh\b`, 'hh'],
  [String.raw`un-?strung\b|not\s+strung\b|(?:no|without|w/o)\s+strings\b`, 'unstrung'],
  [String.raw`strung\b|(?:with|w/)\s*strings\b`, 'strung'],
  [String.raw`over-?\s?grips?\b|o\.?g\.?s?(?!\w)`, 'overgrip'],
  [String.raw`(?:vibration\s+)?damp(?:e?n)er\b`, 'dampener'],
  [String.raw`leather(?:\s+(?:base\s*|replacement\s+)?grip)?\b`, 'leather'],
  [String.raw`synthetic(?:\s+(?:base\s*|replacement\s+)?grip)?\b`, 'synthetic'],
  [String.raw`(?:no|without|w/o)\s+(?:base\s*)?grip\b`, 'no-grip'],
  [String.raw`head\s+size\b`, 'area'],
  [String.raw`at\s+least\b|at\s+most\b|up\s+to\b`, 'limit'],
  [String.raw`w/o(?!\w)`, 'without'],
  [String.raw`w/`, 'with'],
  [String.raw`o['’]?clock\b`, 'oclock'],
];

const NUMBERS: readonly RegExp[] = [
  // Digits with several separators are no number that anybody could be sure of.
  /\d+(?:[.,]\d+){2,}/y,
  new RegExp(String.raw`(?<![\d.,/])(\d{1,2})\s*-?\s*(\d{1,2})/(${DENOMINATOR})(?![\d/.,])`, 'y'),
  new RegExp(String.raw`(?<![\d.,/])(\d{1,2})/(${DENOMINATOR})(?![\d/]|[.,]\d)`, 'y'),
  /(\d{0,3})\s?([½¼¾⅛⅜⅝⅞])/y,
  /\d+(?:[.,]\d+)?|(?<![\d.,])[.,]\d+/y,
];

const half = (digits: string): number => {
  const decimals = /[.,](\d+)$/.exec(digits)?.[1]?.length ?? 0;
  return 0.5 * 10 ** -decimals;
};

type NumberRead = Pick<Token, 'value' | 'half' | 'fraction'>;

function numberAt(text: string, at: number): (NumberRead & { text: string; junk: boolean }) | undefined {
  for (const [n, like] of NUMBERS.entries()) {
    like.lastIndex = at;
    const found = like.exec(text);
    if (!found) continue;
    const [all, a = '', b = '', c = ''] = found;
    const of = (value: number, fraction: boolean, exact: number) => ({
      text: all,
      value,
      fraction,
      half: exact,
      junk: false,
    });
    if (n === 0) return { ...of(Number.NaN, false, 0), junk: true };
    if (n === 1) {
      if (Number(b) < Number(c)) return of(Number(a) + Number(b) / Number(c), true, 0.5 / Number(c));
      continue;
    }
    if (n === 2) {
      if (Number(a) < Number(b)) return of(Number(a) / Number(b), true, 0.5 / Number(b));
      continue;
    }
    if (n === 3) return of(Number(a) + (VULGAR[b] ?? 0), true, 1 / 16);
    return of(Number(all.replace(',', '.')), false, half(all));
  }
  return undefined;
}

const WORD = /(?:\p{L}\.){2,}|\p{L}+(?:['’]\p{L}+)*\.?/uy;
const MARK = /\+\/?-|\+\/−|±|[^\s]/uy;
const MARKS: Record<string, string> = { '+-': '±', '+/-': '±', '+/−': '±', '–': '-', '—': '-', '−': '-' };
const MARKS_ALIKE: Record<string, string> = { '×': 'x', '″': '"', '”': '"', '“': '"', '≈': '~', '’': "'" };

/**
 * A typed line as tokens, in order.
 * @param names words of the sport's own that are more than one word, as they are known
 * @example tokensOf('11.5oz').map((t) => t.is) // ['11.5', 'oz']
 */
export function tokensOf(text: string, names: readonly string[] = []): Token[] {
  const spelt: (readonly [RegExp, string])[] = [
    ...names.map(
      (name) => [new RegExp(name.replace('-', String.raw`[\s-]?`) + String.raw`\b`, 'iy'), name] as const,
    ),
    ...SPELT.map(([source, is]) => [new RegExp(source, 'iy'), is] as const),
  ];
  const tokens: Token[] = [];
  const none: NumberRead = { value: Number.NaN, half: 0, fraction: false };
  let at = 0;
  const push = (kind: Token['kind'], found: string, is: string, number = none): void => {
    tokens.push({ kind, is, ...number, text: found, from: at, to: at + found.length, used: false });
    at += found.length;
  };
  while (at < text.length) {
    if (/\s/.test(text[at] as string)) {
      at++;
      continue;
    }
    const number = numberAt(text, at);
    if (number) {
      const { text: found, junk, ...read } = number;
      push(junk ? 'word' : 'number', found, found, read);
      continue;
    }
    const starts = !/\p{L}/u.test(text[at - 1] ?? '');
    const known = starts ? spelt.find(([like]) => ((like.lastIndex = at), like.test(text))) : undefined;
    if (known) {
      const [like, is] = known;
      like.lastIndex = at;
      const found = like.exec(text)?.[0] as string;
      push('word', found, is || found.toLowerCase().replace(/[\s^]/g, '').replace('²', '2'));
      continue;
    }
    WORD.lastIndex = at;
    const word = WORD.exec(text)?.[0];
    if (word) {
      push('word', word, word.toLowerCase().replaceAll('.', ''));
      continue;
    }
    MARK.lastIndex = at;
    const mark = MARK.exec(text)?.[0] ?? (text[at] as string);
    push('mark', mark, MARKS[mark] ?? MARKS_ALIKE[mark] ?? mark);
  }
  return tokens;
}
