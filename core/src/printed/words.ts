import { CM_PER_INCH, G_PER_GRAIN, G_PER_OUNCE, G_PER_POUND } from '../units';

/** What a device measures whose lines are read, each kept in the first of its units (NIST SP 811, appendix B). */
export const PRINTED_UNITS = {
  mass: { g: 1, kg: 1000, oz: G_PER_OUNCE, lb: G_PER_POUND, grains: G_PER_GRAIN },
  length: { cm: 1, mm: 0.1, in: CM_PER_INCH },
  inertia: { 'kg·cm²': 1 },
} as const satisfies Record<string, Record<string, number>>;
export type PrintedMeasure = keyof typeof PRINTED_UNITS;

export const PRINTED_UNIT_NAMES = ['g', 'kg', 'oz', 'lb', 'grains', 'cm', 'mm', 'in', 'kg·cm²'] as const;
export type PrintedUnit = (typeof PRINTED_UNIT_NAMES)[number];

/** What a printed number of this unit is in the unit of its measure; undefined for a unit of something else. @example printedScale('mass', 'kg') // 1000 */
export const printedScale = (measure: PrintedMeasure, unit: PrintedUnit): number | undefined =>
  (PRINTED_UNITS[measure] as Partial<Record<PrintedUnit, number>>)[unit];

/** What a word of a line can say, other than a unit. `other`: nothing that matters. `useless`: its line is not a reading. */
export const SAYINGS = ['steady', 'moving', 'tared', 'over', 'under', 'other', 'useless'] as const;
export type Saying = (typeof SAYINGS)[number];

/** The ways in which units are printed (common practice); `GR` may be grams or grains, which only a known weight tells. */
export const SPELT_UNITS: Record<string, readonly PrintedUnit[]> = {
  G: ['g'],
  GM: ['g'],
  GMS: ['g'],
  GRAM: ['g'],
  GRAMS: ['g'],
  GR: ['g', 'grains'],
  GN: ['grains'],
  GRN: ['grains'],
  GRAIN: ['grains'],
  GRAINS: ['grains'],
  KG: ['kg'],
  KGS: ['kg'],
  OZ: ['oz'],
  LB: ['lb'],
  LBS: ['lb'],
  CM: ['cm'],
  MM: ['mm'],
  IN: ['in'],
  INCH: ['in'],
  'KG·CM²': ['kg·cm²'],
};

/** What words and signs of scales mostly say (common practice, from memory). Before the number: behind it a letter may be a unit of something else. */
const BEFORE: Record<string, Saying> = {
  S: 'steady',
  ST: 'steady',
  STABLE: 'steady',
  STEADY: 'steady',
  D: 'moving',
  SD: 'moving',
  US: 'moving',
  DYN: 'moving',
  UNSTABLE: 'moving',
  N: 'tared',
  NT: 'tared',
  NET: 'tared',
  G: 'other',
  GS: 'other',
  GROSS: 'other',
  W: 'other',
  WT: 'other',
  WEIGHT: 'other',
};
/** Wherever they stand. */
const ANYWHERE: Record<string, Saying> = {
  '?': 'moving',
  OL: 'over',
  OVER: 'over',
  OVERLOAD: 'over',
  HH: 'over',
  HHH: 'over',
  HHHH: 'over',
  '^': 'over',
  '+': 'over',
  UL: 'under',
  UNDER: 'under',
  UNDERLOAD: 'under',
  LL: 'under',
  LLL: 'under',
  LLLL: 'under',
  _: 'under',
  '-': 'under',
};

/** What a word usually says; undefined where nobody knows without asking. @example usualSaying('US', 'before') // 'moving' */
export function usualSaying(word: string, where: 'before' | 'after'): Saying | undefined {
  const usual: Partial<Record<string, Saying>> = where === 'before' ? { ...ANYWHERE, ...BEFORE } : ANYWHERE;
  // A display full of one sign says what one of them does.
  const sign = /^([\^_])\1+$/.exec(word)?.[1];
  return usual[sign ?? word];
}
