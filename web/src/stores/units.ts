import { defineStore } from 'pinia';
import { computed } from 'vue';
import {
  CM_PER_INCH,
  CM_PER_POINT,
  SPECS,
  G_PER_OUNCE,
  inchFraction,
  pointsHeadLight,
  sportData,
  unitScale,
  type LengthUnit,
  type Measure,
  type AnySpecKey,
  type Sport,
} from '@kevro/core';
import { useKept } from '../ui/kept';
import { measureWriting, specWriting, widthWriting, type OfFrame, type Way, type Writing } from '../ui/typed';

/** The ways a fitter thinks, in the order in which `u` goes through them. */
export const WAYS: readonly [Way, ...Way[]] = [
  { mass: 'g', length: 'cm', balance: 'cm', label: 'g · cm' },
  { mass: 'g', length: 'cm', balance: 'points', label: 'g · points' },
  { mass: 'oz', length: 'in', balance: 'in', label: 'oz · in' },
  { mass: 'oz', length: 'in', balance: 'points', label: 'oz · points' },
];

/** The unit of each measure, the way the fitter thinks. */
const UNITS: Partial<Record<Measure, (way: Way) => string>> = {
  mass: ({ mass }) => mass,
  length: ({ length }) => length,
  shift: ({ balance }) => balance,
  area: ({ length }) => (length === 'in' ? 'in²' : 'cm²'),
  thickness: () => 'mm',
  inertia: () => 'kg·cm²',
  massPerCm: () => 'g/cm',
  time: () => 's',
  minutes: () => 'min',
  hours: () => 'h',
  angle: () => '°',
  share: () => '%',
  percent: () => '%',
};

const minus = (text: string): string => text.replace('-', '−');

/** How values are shown. They are stored one way: g, cm, kg·cm². */
export const useUnits = defineStore('units', () => {
  const index = useKept('kevro-units', 0);
  /** Lengths and head sizes may be said otherwise than weights are, whatever the sport. */
  const sizes = useKept<'as weights' | LengthUnit>('kevro-sizes', 'as weights');
  const way = computed<Way>(() => {
    const chosen = WAYS[index.value % WAYS.length] ?? WAYS[0];
    return sizes.value === 'as weights' ? chosen : { ...chosen, length: sizes.value };
  });
  const next = (): void => {
    index.value = (index.value + 1) % WAYS.length;
  };

  const balancePerCm = computed(
    () => ({ cm: 1, in: 1 / CM_PER_INCH, points: 1 / CM_PER_POINT })[way.value.balance],
  );

  const unit = (key: AnySpecKey): string => {
    if (key === 'massG') return way.value.mass;
    return key === 'balanceCm' ? way.value.balance : SPECS[key].unit;
  };

  /** Decimals of a spec: the sport's own, one more where the unit is coarser. */
  const digits = (key: AnySpecKey, sport: Sport): number => {
    const own = sportData(sport).decimals[key] ?? 0;
    if (key === 'massG') return way.value.mass === 'oz' ? own + 1 : own;
    return key === 'balanceCm' && way.value.balance === 'in' ? own + 1 : own;
  };

  /** A value as shown, without its unit; balance in points is followed by HL or HH. */
  function show(key: AnySpecKey, value: number, { sport, lengthCm }: OfFrame, extraDigits = 0): string {
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

  const scale = (key: AnySpecKey): number => {
    if (key === 'massG') return way.value.mass === 'oz' ? 1 / G_PER_OUNCE : 1;
    return key === 'balanceCm' ? balancePerCm.value : 1;
  };
  /** Decimals of a difference or a width: at least one, and for a balance in cm one more than the value has. */
  const fine = (key: AnySpecKey, sport: Sport): number =>
    Math.max(1, digits(key, sport)) + (key === 'balanceCm' && way.value.balance === 'cm' ? 1 : 0);

  /** A width (an uncertainty, a tolerance) as shown. */
  const showWidth = (key: AnySpecKey, width: number, sport: Sport): string =>
    (width * scale(key)).toFixed(fine(key, sport));

  /** A difference with its sign. In points, toward the butt is plus head-light. */
  function showChange(key: AnySpecKey, change: number, sport: Sport): string {
    const signed = way.value.balance === 'points' && key === 'balanceCm' ? -change : change;
    const places = key === 'balanceCm' ? 2 : fine(key, sport);
    const text = (signed * scale(key)).toFixed(places);
    const zero = Number(text) === 0;
    return zero ? (0).toFixed(places) : minus(signed > 0 ? `+${text}` : text);
  }

  /** How a spec is typed, and a width of it. */
  const writing = (key: AnySpecKey, shape: OfFrame): Writing =>
    specWriting(key, shape, way.value, digits(key, shape.sport) + 1);
  const widthWritingOf = (key: AnySpecKey, sport: Sport): Writing =>
    widthWriting(key, way.value, fine(key, sport) + 1);
  /** The unit in which a measure is shown, unless it is always shown in one. */
  const unitOf = (measure: Measure): string => UNITS[measure]?.(way.value) ?? '';
  const writingOf = (measure: Measure, unit = unitOf(measure)): Writing => measureWriting(measure, unit, 3);
  /** A width or an amount by which something misses, with its unit: «9 kg·cm²», «0.5 points». */
  const sayWidth = (key: AnySpecKey, width: number, sport: Sport): string =>
    `${showWidth(key, width, sport)} ${unit(key)}`;
  /** A length at the bench, without its unit: a tenth of a cm, or a sixteenth of an inch. */
  const benchLength = (cm: number): string => (way.value.length === 'in' ? inchFraction(cm) : cm.toFixed(1));
  const bench = computed(() => ({ say: benchLength, unit: way.value.length }));
  /** A measure as shown, with its unit: «68.58 cm», «27 in». */
  const showMeasure = (measure: 'length' | 'area', value: number): string => {
    const { unit: said, write } = writingOf(measure);
    return `${write(value)} ${said}`;
  };

  /** A size that was worked out, no finer than it can be known: a millimetre, a square centimetre. */
  const showFound = (measure: 'length' | 'area', value: number): string => {
    const said = unitOf(measure);
    const inches = said.startsWith('in');
    const digits = (measure === 'length' ? 1 : 0) + (inches ? 1 : 0);
    return `${(value / (unitScale(measure, said) ?? 1)).toFixed(digits)} ${said}`;
  };

  return {
    way,
    sizes,
    index,
    next,
    unit,
    digits,
    show,
    showWidth,
    showChange,
    sayWidth,
    benchLength,
    bench,
    showMeasure,
    showFound,
    writing,
    widthWriting: widthWritingOf,
    measureWriting: writingOf,
  };
});
