import { parseBalance, parseMass, parseNumber, type SpecKey } from '@kevro/core';
import type { WAYS } from '../stores/units';

type Way = Pick<(typeof WAYS)[number], 'mass' | 'balance'>;

/** What was typed for a spec, in g, cm or kg·cm²; undefined where it is not a value. */
export function readSpec(key: SpecKey, text: string, way: Way, lengthCm: number): number | undefined {
  if (key === 'massG') return parseMass(text, way.mass);
  if (key === 'balanceCm') return parseBalance(text, way.balance, lengthCm);
  return parseNumber(text);
}
