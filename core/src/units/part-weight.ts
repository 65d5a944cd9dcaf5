import { unitScale } from './typed';

/** The units that a shop may say the weights of parts in; frames are weighed in grams or ounces apart from that. */
export const PART_UNITS = ['g', 'oz', 'grains'] as const;
export type PartUnit = (typeof PART_UNITS)[number];

/** How many decimals more or less than grams a unit needs to be as fine. */
const MORE_DIGITS: Record<PartUnit, number> = { g: 0, oz: 2, grains: -1 };

/**
 * The weight of a part, of a piece of it or of what is put on, with its unit: the one way to say one.
 * @param massG g @param digits decimals that it has in grams @param short without the zeros at its end
 * Source of the conversions: NIST SP 811, appendix B.
 * @example partWeight(2.35, 'grains') // '36 grains'
 */
export function partWeight(massG: number, unit: PartUnit = 'g', digits = 1, short = false): string {
  const places = Math.max(0, digits + MORE_DIGITS[unit]);
  const text = (massG / (unitScale('mass', unit) ?? 1)).toFixed(places);
  return `${short ? Number(text) : text} ${unit}`.replace('-', '−');
}
