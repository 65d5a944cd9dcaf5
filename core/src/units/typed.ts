import {
  CM_PER_INCH,
  CM_PER_POINT,
  G_PER_GRAIN,
  G_PER_OUNCE,
  KG_PER_POUND,
  STANDARD_GRAVITY,
} from './constants';
import { balanceFromPoints } from './points';

export type MassUnit = 'g' | 'oz';
export type LengthUnit = 'cm' | 'in';
export type BalanceUnit = LengthUnit | 'mm' | 'points';

/** What a typed number measures. Each is kept in the first of its units. */
export type Measure = keyof typeof MEASURES;

const LENGTHS = { cm: 1, mm: 0.1, m: 100, in: CM_PER_INCH } as const;
/** The units of each measure, and what one of them is in the first (NIST SP 811, appendix B). */
const MEASURES = {
  mass: { g: 1, oz: G_PER_OUNCE, grains: G_PER_GRAIN },
  length: LENGTHS,
  /** A difference of balances: points may be said. */
  shift: { ...LENGTHS, points: CM_PER_POINT },
  thickness: { mm: 1, cm: 10, in: 10 * CM_PER_INCH },
  area: { 'cm²': 1, 'mm²': 0.01, 'in²': CM_PER_INCH * CM_PER_INCH },
  tension: { kg: 1, lb: KG_PER_POUND, N: 100 / STANDARD_GRAVITY },
  inertia: { 'kg·cm²': 1, 'g·cm²': 0.001 },
  massPerCm: { 'g/cm': 1, 'g/m': 0.01, 'g/in': 1 / CM_PER_INCH },
  time: { s: 1, min: 60 },
  minutes: { min: 1, h: 60 },
  hours: { h: 1, days: 24 },
  angle: { '°': 1 },
  share: { share: 1, '%': 0.01 },
  percent: { '%': 1 },
  number: {},
} as const satisfies Record<string, Record<string, number>>;

/** Other ways in which people write a unit. */
const SPELT: Record<string, string> = {
  gr: 'g',
  gram: 'g',
  grams: 'g',
  ounce: 'oz',
  ounces: 'oz',
  grain: 'grains',
  lbs: 'lb',
  pound: 'lb',
  pounds: 'lb',
  kilo: 'kg',
  kilos: 'kg',
  '"': 'in',
  '″': 'in',
  inch: 'in',
  inches: 'in',
  pt: 'points',
  pts: 'points',
  point: 'points',
  cm2: 'cm²',
  'sq cm': 'cm²',
  mm2: 'mm²',
  'sq mm': 'mm²',
  in2: 'in²',
  'sq in': 'in²',
  'sq inch': 'in²',
  'sq inches': 'in²',
  'square inches': 'in²',
  kgcm2: 'kg·cm²',
  'kgcm²': 'kg·cm²',
  'kg cm2': 'kg·cm²',
  'kg cm²': 'kg·cm²',
  n: 'N',
  sec: 's',
  seconds: 's',
  minutes: 'min',
  hours: 'h',
  hour: 'h',
  day: 'days',
  d: 'days',
  deg: '°',
  degrees: '°',
};

const NUMBER = /^([+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+))\s*(.*)$/;

function split(text: string): { value: number; unit: string } | undefined {
  // The minus sign that is shown may be typed back, and copied text may bring spaces of its own.
  const plain = text
    .replace(/[\u00a0\u2009\u202f]/g, ' ')
    .replace('−', '-')
    .trim()
    .toLowerCase();
  const found = NUMBER.exec(plain);
  if (!found) return undefined;
  const unit = (found[2] ?? '').replace(/\.$|(?<=sq)\./g, '').trim();
  return { value: Number((found[1] ?? '').replace(',', '.')), unit: unitSpelt(unit) };
}

/**
 * A plain number as people type it, with a point or a comma; undefined when there is anything else in the text.
 * @example parseNumber('31,5') // 31.5
 */
export const parseNumber = (text: string): number | undefined => parseMeasure(text, 'number');

/**
 * A typed number of a measure, in the first unit of it. A unit in the text wins over `unit`; nothing is guessed at.
 * @param unit what a number without one is in; the measure's first if left out
 * @returns undefined where the text is not a number of that measure
 * Source of the conversions: NIST SP 811, appendix B.
 * @example parseMeasure('98 sq in', 'area') // 632.2568
 */
export function parseMeasure(text: string, measure: Measure, unit?: string): number | undefined {
  const found = split(text);
  if (!found) return undefined;
  const scale = unitScale(measure, found.unit || unit);
  return scale === undefined ? undefined : found.value * scale;
}

/**
 * What one of a unit is in the first unit of a measure; undefined where it is none of it.
 * @example unitScale('mass', 'oz') // 28.349523125
 */
export function unitScale(measure: Measure, unit?: string): number | undefined {
  const units: Record<string, number> = MEASURES[measure];
  return unit === undefined ? 1 : units[unit];
}

/** A unit as it stands in this application, however it is spelt; what is no unit stays. @example unitSpelt('ounces') // 'oz' */
export const unitSpelt = (text: string): string => SPELT[text] ?? text;

/**
 * What one of a unit is in the first unit of a measure, however the unit is spelt; undefined where it is none of it.
 * @example spelledScale('mass', 'ounces') // 28.349523125
 */
export const spelledScale = (measure: Measure, text: string): number | undefined =>
  unitScale(measure, unitSpelt(text));

/**
 * A typed weight in grams. A unit in the text wins over `unit`.
 * @returns grams, or undefined when the text is not a weight
 * @example parseMass('11.5oz', 'g') // 326.0195…
 */
export const parseMass = (text: string, unit: MassUnit): number | undefined =>
  parseMeasure(text, 'mass', unit);

/**
 * A typed balance in cm from the butt. A unit in the text wins over `unit`; `HL` and `HH` are points from the middle, `even` is the middle.
 * @param lengthCm the frame's own length, needed for points
 * @returns cm from the butt, or undefined when the text is not a balance
 * @example parseBalance('6 HL', 'cm', 68.58) // 32.385
 */
export function parseBalance(text: string, unit: BalanceUnit, lengthCm: number): number | undefined {
  if (/^\s*even\s*$/i.test(text)) return lengthCm / 2;
  const found = split(text);
  if (!found) return undefined;
  const said = found.unit.replace(/^(?:pts?|points?)\s*(?=h[lh]$)/, '') || unit;
  if (said === 'hl' || said === 'points') return balanceFromPoints(found.value, lengthCm);
  if (said === 'hh') return balanceFromPoints(-found.value, lengthCm);
  const scale = unitScale('length', said);
  return scale === undefined ? undefined : found.value * scale;
}
