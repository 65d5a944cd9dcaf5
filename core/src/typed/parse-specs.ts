import type { Dress } from '../dress';
import type { Specs } from '../mass';
import { sportData, type Sport } from '../sport';
import { CM_PER_INCH, G_PER_OUNCE, balanceFromPoints } from '../units';

export interface ParsedShape {
  sport: Sport;
  lengthCm?: number;
  headAreaCm2?: number;
  pattern?: string;
  shape?: string;
}

export interface ParsedLine {
  specs: Partial<Specs>;
  dress: Dress;
  shape: ParsedShape;
  /** What was not understood, in the order typed; nothing in it was guessed at. */
  leftover: string;
}

const NUMBER = String.raw`(\d+(?:[.,]\d+)?)`;
/** No digit or letter may touch a value from outside. */
const START = String.raw`(?<![\w.,])`;
const END = String.raw`(?![\w²])`;
const pattern = (source: string): RegExp => new RegExp(START + source + END, 'i');
const value = (text: string | undefined): number => Number((text ?? '').replace(',', '.'));

/** Longer than this share of the sport's usual length is a length, shorter is a balance. */
const LENGTH_SHARE = 0.75;
const IN2 = CM_PER_INCH * CM_PER_INCH;

interface Reading {
  text: string;
  result: ParsedLine;
  points?: number;
}

/** One kind of word: what it looks like and what it sets. Returns false where the value is already there: then it stays as leftover. */
interface Rule {
  like: RegExp;
  take: (found: RegExpExecArray, reading: Reading) => boolean;
}

const setOnce = <K extends keyof Specs>(reading: Reading, key: K, number: number): boolean => {
  const { specs } = reading.result;
  if (specs[key] !== undefined || (key === 'balanceCm' && reading.points !== undefined)) return false;
  specs[key] = number;
  return true;
};

function lengthOrBalance(cm: number, reading: Reading): boolean {
  const { shape } = reading.result;
  if (cm >= LENGTH_SHARE * sportData(shape.sport).lengthCm) {
    if (shape.lengthCm !== undefined) return false;
    shape.lengthCm = cm;
    return true;
  }
  return setOnce(reading, 'balanceCm', cm);
}

function setPoints(points: number, reading: Reading): boolean {
  if (reading.points !== undefined || reading.result.specs.balanceCm !== undefined) return false;
  reading.points = points;
  return true;
}

function setDress<K extends keyof Dress>({ result: { dress } }: Reading, key: K, to: Dress[K]): boolean {
  if (dress[key] !== undefined) return false;
  dress[key] = to;
  return true;
}

const COUNT: Record<string, number> = { no: 0, one: 1, an: 1, two: 2, three: 3 };

/** In this order: what is longer or more particular first, so that it is not taken apart by what is shorter. */
const RULES: Rule[] = [
  {
    like: pattern(String.raw`(?:swing\s*-?\s*weight|sw)\s*[:=]?\s*${NUMBER}`),
    take: (f, r) => setOnce(r, 'swingWeight', value(f[1])),
  },
  {
    like: pattern(String.raw`(?:twist\s*-?\s*weight|twist|tw)\s*[:=]?\s*${NUMBER}`),
    take: (f, r) => setOnce(r, 'twistWeight', value(f[1])),
  },
  {
    like: pattern(String.raw`${NUMBER}\s*(?:sw|swing\s*-?\s*weight)`),
    take: (f, r) => setOnce(r, 'swingWeight', value(f[1])),
  },
  {
    like: pattern(String.raw`${NUMBER}\s*(?:tw|twist\s*-?\s*weight|twist)`),
    take: (f, r) => setOnce(r, 'twistWeight', value(f[1])),
  },
  {
    like: pattern(String.raw`axis\s*[:=]?\s*(?:at\s*)?${NUMBER}\s*cm`),
    take: (f, r) => setOnce(r, 'axisCm', value(f[1])),
  },
  {
    like: pattern(String.raw`axis\s*[:=]?\s*(?:at\s*)?${NUMBER}\s*in(?:ch(?:es)?)?`),
    take: (f, r) => setOnce(r, 'axisCm', value(f[1]) * CM_PER_INCH),
  },
  {
    like: pattern(String.raw`${NUMBER}\s*(?:in2|in²|sq\.?\s*in(?:ch(?:es)?)?|square\s+inch(?:es)?)`),
    take: (f, { result: { shape } }) => {
      if (shape.headAreaCm2 !== undefined) return false;
      shape.headAreaCm2 = value(f[1]) * IN2;
      return true;
    },
  },
  {
    like: pattern(String.raw`${NUMBER}\s*(?:cm2|cm²|sq\.?\s*cm)`),
    take: (f, { result: { shape } }) => {
      if (shape.headAreaCm2 !== undefined) return false;
      shape.headAreaCm2 = value(f[1]);
      return true;
    },
  },
  {
    like: pattern(String.raw`(\d{2})\s*[x×]\s*(\d{2})`),
    take: (f, { result: { shape } }) => {
      if (shape.pattern !== undefined) return false;
      shape.pattern = `${f[1]}×${f[2]}`;
      return true;
    },
  },
  {
    like: pattern(String.raw`${NUMBER}\s*(?:pts?\.?|points?)?\s*(?:hl|head[\s-]*light)`),
    take: (f, r) => setPoints(value(f[1]), r),
  },
  {
    like: pattern(String.raw`${NUMBER}\s*(?:pts?\.?|points?)?\s*(?:hh|head[\s-]*heavy)`),
    take: (f, r) => setPoints(-value(f[1]), r),
  },
  { like: pattern('(?:even(?:\\s+balance)?|balanced)'), take: (_, r) => setPoints(0, r) },
  {
    like: pattern(String.raw`${NUMBER}\s*(?:g|gr|grams?)`),
    take: (f, r) => setOnce(r, 'massG', value(f[1])),
  },
  {
    like: pattern(String.raw`${NUMBER}\s*(?:oz|ounces?)`),
    take: (f, r) => setOnce(r, 'massG', value(f[1]) * G_PER_OUNCE),
  },
  { like: pattern(String.raw`${NUMBER}\s*mm`), take: (f, r) => lengthOrBalance(value(f[1]) / 10, r) },
  { like: pattern(String.raw`${NUMBER}\s*cm`), take: (f, r) => lengthOrBalance(value(f[1]), r) },
  {
    like: pattern(String.raw`${NUMBER}\s*(?:in(?:ch(?:es)?)?|")`),
    take: (f, r) => lengthOrBalance(value(f[1]) * CM_PER_INCH, r),
  },
  { like: pattern('(?:unstrung|not strung|no strings)'), take: (_, r) => setDress(r, 'strings', false) },
  { like: pattern('strung'), take: (_, r) => setDress(r, 'strings', true) },
  {
    like: pattern(String.raw`(?:(\d|no|one|an|two|three)\s+)?overgrips?`),
    take: (f, r) => {
      const word = f[1]?.toLowerCase();
      return setDress(r, 'overgrips', word === undefined ? 1 : (COUNT[word] ?? Number(word)));
    },
  },
  {
    like: pattern(String.raw`leather(?:\s+(?:base\s+)?grip)?`),
    take: (_, r) => setDress(r, 'baseGrip', 'leather'),
  },
  {
    like: pattern(String.raw`synthetic(?:\s+(?:base\s+)?grip)?`),
    take: (_, r) => setDress(r, 'baseGrip', 'synthetic'),
  },
  { like: pattern(String.raw`no\s+(?:base\s+)?grip`), take: (_, r) => setDress(r, 'baseGrip', 'none') },
  { like: pattern(String.raw`no\s+dampener`), take: (_, r) => setDress(r, 'dampener', false) },
  { like: pattern('dampener'), take: (_, r) => setDress(r, 'dampener', true) },
];

/** How far from the sport's usual swing weight a number without a unit may lie and still be one. */
const BARE_SWING = [0.6, 1.5] as const;

/** Taken text leaves this behind, so that what stood around it does not grow together. */
const TAKEN = '\u0000';

/** A single number without any unit is the swing weight where it can be one, and only where no other was typed. */
function takeBareSwing(reading: Reading): void {
  const { specs, shape } = reading.result;
  // Alone between commas, ends, or words that were understood: next to a strange word its meaning is doubtful.
  const alone = `(?<=^\\s*|[,;${TAKEN}]\\s*)(?<![\\w.])${NUMBER}(?=\\s*(?:$|[,;${TAKEN}]))`;
  const bare = [...reading.text.matchAll(new RegExp(alone, 'g'))];
  const [only] = bare;
  if (specs.swingWeight !== undefined || !only || bare.length !== 1) return;
  const share = value(only[1]) / sportData(shape.sport).usual.swingWeight;
  if (share < BARE_SWING[0] || share > BARE_SWING[1]) return;
  specs.swingWeight = value(only[1]);
  reading.text = reading.text.replace(only[0], TAKEN);
}

/**
 * Understands one typed line in any order and unit: weight in g or oz; balance in cm, mm, in, or points HL/HH; `sw`/swing weight; twist; axis; strung or
 * unstrung, grips, overgrips, dampener; length, head size, string pattern, named shape. One number without a unit is the swing weight where it can be.
 * @param sport tennis if left out @param lengthCm of the frame in hand, from which points count where the line names no length
 * @returns specs in g, cm, kg·cm²; what was not understood as `leftover`
 * @example parseSpecs('327 g 31.3 cm sw 299 unstrung').specs // { massG: 327, balanceCm: 31.3, swingWeight: 299 }
 */
export function parseSpecs(text: string, sport: Sport = 'tennis', lengthCm?: number): ParsedLine {
  const reading: Reading = { text, result: { specs: {}, dress: {}, shape: { sport }, leftover: '' } };
  const { result } = reading;
  for (const { like, take } of RULES) {
    // A kind of word may come twice (a balance and a length in cm); what is there already stays as leftover.
    for (
      let found = like.exec(reading.text);
      found && take(found, reading);
      found = like.exec(reading.text)
    ) {
      reading.text =
        reading.text.slice(0, found.index) + TAKEN + reading.text.slice(found.index + found[0].length);
    }
  }
  for (const name of Object.keys(sportData(sport).shapes)) {
    const found = pattern(name.replace('-', '[\\s-]')).exec(reading.text);
    if (found && result.shape.shape === undefined) {
      result.shape.shape = name;
      reading.text = reading.text.replace(found[0], TAKEN);
    }
  }
  takeBareSwing(reading);
  if (reading.points !== undefined) {
    const named = sportData(sport).shapes[result.shape.shape ?? '']?.lengthCm;
    const from = result.shape.lengthCm ?? lengthCm ?? named ?? sportData(sport).lengthCm;
    result.specs.balanceCm = balanceFromPoints(reading.points, from);
  }
  result.leftover = reading.text
    .split(new RegExp(`[${TAKEN}\\s]+`))
    .map((word) => word.replace(/^[,;/|]+|[,;/|]+$/g, ''))
    .filter(Boolean)
    .join(' ');
  return result;
}
