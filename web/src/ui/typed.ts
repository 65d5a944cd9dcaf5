import {
  SPECS,
  parseBalance,
  parseMass,
  parseMeasure,
  unitScale,
  type FrameShape,
  type LengthUnit,
  type MassUnit,
  type Measure,
  type AnySpecKey,
} from '@kevro/core';

/**
 * What a number field holds: the number in the unit it is stored in, exactly as it was typed or taken over; the text where it cannot be
 * read; null where the field is empty. It has no unit of its own, so it means the same whatever units are shown.
 */
export type Typed = number | string | null;

export type ShownBalance = 'cm' | 'in' | 'points';
/** The frame that a number is of: its sport says the decimals, its length what a balance is in points. */
export type OfFrame = Pick<FrameShape, 'sport' | 'lengthCm'>;

export interface Way {
  mass: MassUnit;
  length: LengthUnit;
  balance: ShownBalance;
  label: string;
}

/** How a number is read from a field and written into it. */
export interface Writing {
  unit: string;
  read: (text: string) => number | undefined;
  write: (value: number) => string;
}

/** Decimals beyond which a number that was typed is taken to be worked out, and is shown rounded. */
const TYPED_DIGITS = 4;
const bare = (text: string): string => (text.includes('.') ? text.replace(/\.?0+$/, '') : text);
const signed = (text: string): string => text.replace('-', '−');

/** A number for a field: as it was typed where it is short, else with `digits` decimals. */
export function shortNumber(value: number, digits: number): string {
  const exact = Math.abs(value - Number(value.toFixed(TYPED_DIGITS))) < 1e-9;
  return signed(bare(value.toFixed(exact ? TYPED_DIGITS : digits)));
}

/** How a plain measure is typed, in a unit of it. */
export function measureWriting(measure: Measure, unit: string, digits: number): Writing {
  const scale = unitScale(measure, unit) ?? 1;
  return {
    unit,
    read: (text) =>
      // A unit that is only a word beside the field ("swings") may be typed after the number too.
      parseMeasure(text, measure, unitScale(measure, unit) === undefined ? undefined : unit),
    // An area is told in whole units or tenths, whatever the unit that it was typed in comes to.
    write: (value) =>
      measure === 'area' ? bare((value / scale).toFixed(1)) : shortNumber(value / scale, digits),
  };
}

/** How a spec is typed, in the units that are shown. @param digits decimals of a value that was worked out */
export function specWriting(
  key: AnySpecKey,
  { lengthCm }: OfFrame,
  { mass, balance }: Way,
  digits: number,
): Writing {
  if (key === 'massG')
    return { ...measureWriting('mass', mass, digits), read: (text) => parseMass(text, mass) };
  if (key !== 'balanceCm') return measureWriting(SPECS[key].measure, SPECS[key].unit, digits);
  const plain = measureWriting('length', balance === 'points' ? 'cm' : balance, digits);
  return {
    unit: balance,
    read: (text) => parseBalance(text, balance, lengthCm),
    write: (value) => {
      if (balance !== 'points') return plain.write(value);
      const points = shortNumber((lengthCm / 2 - value) / (unitScale('shift', 'points') ?? 1), digits);
      if (Number(points.replace('−', '-')) === 0) return 'even';
      return points.startsWith('−') ? `${points.slice(1)} HH` : `${points} HL`;
    },
  };
}

/** How a width of a spec is typed: a tolerance, a give or take. */
export function widthWriting(key: AnySpecKey, { mass, balance }: Way, digits: number): Writing {
  if (key === 'massG') return measureWriting('mass', mass, digits);
  if (key === 'balanceCm') return measureWriting('shift', balance, digits);
  return measureWriting(SPECS[key].measure, SPECS[key].unit, digits);
}

/**
 * What a field holds, for a request. What is no number is sent as it stands: the server then refuses it with the sentence for that
 * field, and nothing is guessed here.
 */
export const sent = (typed: Typed | undefined): number => (typed ?? undefined) as unknown as number;
export const sentOrNull = (typed: Typed | undefined): number | null => (typed ?? null) as number | null;
export const sentOrNone = (typed: Typed | undefined): number | undefined =>
  (typed ?? undefined) as number | undefined;

/** The number that a field holds, where it holds one. */
export const numberOf = (typed: Typed | undefined): number | undefined =>
  typeof typed === 'number' ? typed : undefined;
/** Whether something stands in the field that is no number. */
export const isUnreadable = (typed: Typed | undefined): typed is string => typeof typed === 'string';
