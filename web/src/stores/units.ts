import { defineStore } from 'pinia';
import { computed } from 'vue';
import {
  CM_PER_INCH,
  CM_PER_POINT,
  G_PER_OUNCE,
  pointsHeadLight,
  sportData,
  type FrameShape,
  type MassUnit,
  type SpecKey,
  type Sport,
} from '@kevro/core';
import { useKept } from '../parts/kept';

export type ShownBalance = 'cm' | 'in' | 'points';
/** The frame that a number is of: its sport says the decimals, its length what a balance is in points. */
export type OfFrame = Pick<FrameShape, 'sport' | 'lengthCm'>;

interface Way {
  mass: MassUnit;
  balance: ShownBalance;
  label: string;
}

/** The ways a fitter thinks, in the order in which `u` goes through them. */
export const WAYS: readonly [Way, ...Way[]] = [
  { mass: 'g', balance: 'cm', label: 'g · cm' },
  { mass: 'g', balance: 'points', label: 'g · points' },
  { mass: 'oz', balance: 'in', label: 'oz · in' },
  { mass: 'oz', balance: 'points', label: 'oz · points' },
];

const minus = (text: string): string => text.replace('-', '−');

/** How values are shown. They are stored one way: g, cm, kg·cm². */
export const useUnits = defineStore('units', () => {
  const index = useKept('kevro-units', 0);
  const way = computed<Way>(() => WAYS[index.value % WAYS.length] ?? WAYS[0]);
  const next = (): void => {
    index.value = (index.value + 1) % WAYS.length;
  };

  const balancePerCm = computed(
    () => ({ cm: 1, in: 1 / CM_PER_INCH, points: 1 / CM_PER_POINT })[way.value.balance],
  );

  const unit = (key: SpecKey): string => {
    if (key === 'massG') return way.value.mass;
    if (key === 'balanceCm') return way.value.balance;
    return 'kg·cm²';
  };

  /** Decimals of a spec: the sport's own, one more where the unit is coarser. */
  const digits = (key: SpecKey, sport: Sport): number => {
    const own = sportData(sport).decimals[key];
    if (key === 'massG') return way.value.mass === 'oz' ? own + 1 : own;
    return key === 'balanceCm' && way.value.balance === 'in' ? own + 1 : own;
  };

  /** A value as shown, without its unit; balance in points is followed by HL or HH. */
  function show(key: SpecKey, value: number, { sport, lengthCm }: OfFrame, extraDigits = 0): string {
    const places = digits(key, sport) + extraDigits;
    if (key === 'massG') return (way.value.mass === 'oz' ? value / G_PER_OUNCE : value).toFixed(places);
    if (key !== 'balanceCm') return value.toFixed(places);
    if (way.value.balance === 'points') {
      const points = Number(pointsHeadLight(value, lengthCm).toFixed(places));
      if (points === 0) return 'even';
      return `${Math.abs(points).toFixed(places)} ${points < 0 ? 'HH' : 'HL'}`;
    }
    return (value * balancePerCm.value).toFixed(places);
  }

  const scale = (key: SpecKey): number => {
    if (key === 'massG') return way.value.mass === 'oz' ? 1 / G_PER_OUNCE : 1;
    return key === 'balanceCm' ? balancePerCm.value : 1;
  };
  /** Decimals of a difference or a width: at least one, and for a balance in cm one more than the value has. */
  const fine = (key: SpecKey, sport: Sport): number =>
    Math.max(1, digits(key, sport)) + (key === 'balanceCm' && way.value.balance === 'cm' ? 1 : 0);

  /** A width (an uncertainty, a tolerance) as shown. */
  const showWidth = (key: SpecKey, width: number, sport: Sport): string =>
    (width * scale(key)).toFixed(fine(key, sport));

  /** A difference with its sign. In points, toward the butt is plus head-light. */
  function showChange(key: SpecKey, change: number, sport: Sport): string {
    const signed = way.value.balance === 'points' && key === 'balanceCm' ? -change : change;
    const places = key === 'balanceCm' ? 2 : fine(key, sport);
    const text = (signed * scale(key)).toFixed(places);
    const zero = Number(text) === 0;
    return zero ? (0).toFixed(places) : minus(signed > 0 ? `+${text}` : text);
  }

  return { way, index, next, unit, digits, show, showWidth, showChange };
});
