import { CM_PER_INCH, G_PER_OUNCE } from './constants';
import { balanceFromPoints } from './points';

export type MassUnit = 'g' | 'oz';
export type LengthUnit = 'cm' | 'in';
export type BalanceUnit = LengthUnit | 'mm' | 'points';

const NUMBER = /^([+-]?\d+(?:[.,]\d+)?)\s*(.*)$/;

function split(text: string): { value: number; suffix: string } | undefined {
  const found = NUMBER.exec(text.trim().toLowerCase());
  if (!found) return undefined;
  return { value: Number((found[1] ?? '').replace(',', '.')), suffix: (found[2] ?? '').trim() };
}

/**
 * A plain number as people type it, with a point or a comma; undefined when there is anything else in the text.
 * @example parseNumber('31,5') // 31.5
 */
export function parseNumber(text: string): number | undefined {
  const found = split(text);
  return found && found.suffix === '' ? found.value : undefined;
}

/**
 * A typed weight in grams. A unit in the text wins over `unit`.
 * @returns grams, or undefined when the text is not a weight
 * @example parseMass('11.5oz', 'g') // 326.0195…
 */
export function parseMass(text: string, unit: MassUnit): number | undefined {
  const found = split(text);
  if (!found) return undefined;
  const named = found.suffix || unit;
  if (named === 'g' || named === 'gram' || named === 'grams') return found.value;
  if (named === 'oz' || named === 'ounce' || named === 'ounces') return found.value * G_PER_OUNCE;
  return undefined;
}

/**
 * A typed balance in cm from the butt. A unit in the text wins over `unit`; `HL` and `HH` are points from the middle.
 * @param lengthCm the frame's own length, needed for points
 * @returns cm from the butt, or undefined when the text is not a balance
 * @example parseBalance('6 HL', 'cm', 68.58) // 32.385
 */
export function parseBalance(text: string, unit: BalanceUnit, lengthCm: number): number | undefined {
  const found = split(text);
  if (!found) return undefined;
  const suffix = found.suffix.replace(/^(?:pts?|points?)\s*/, '') || (found.suffix ? 'points' : unit);
  switch (suffix) {
    case 'cm':
      return found.value;
    case 'mm':
      return found.value / 10;
    case 'in':
    case '"':
      return found.value * CM_PER_INCH;
    case 'hl':
    case 'points':
      return balanceFromPoints(found.value, lengthCm);
    case 'hh':
      return balanceFromPoints(-found.value, lengthCm);
    default:
      return undefined;
  }
}
