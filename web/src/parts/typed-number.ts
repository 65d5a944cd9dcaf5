import { parseNumber } from '@kevro/core';

/**
 * What was typed, as a number for a request. What is no number is sent as it stands: the server then refuses it with the
 * sentence for that field, and nothing is guessed here.
 */
export function typedNumber(text: string): number {
  return parseNumber(text) ?? (text as unknown as number);
}
export const typedOrNull = (text: string): number | null => (text.trim() === '' ? null : typedNumber(text));
export const typedOrNone = (text: string): number | undefined =>
  text.trim() === '' ? undefined : typedNumber(text);
