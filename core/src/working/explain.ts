import { SPECS, type KnownSpecs } from '../spec';
import type { Means } from '../capture';
import {
  DERIVED,
  type AxisSpecs,
  type Contribution,
  type DerivedInput,
  type DerivedKey,
  type DerivedPut,
  type Outcome,
  type SpecKey,
} from '../mass';
import type { Working, WorkingValue } from './working';

const PARALLEL_AXES = 'parallel-axes theorem (handbook mechanics)';

interface SpecRow {
  symbol: string;
  unit: string;
  digits: number;
  /** How the spec follows from what was there and what is put on. */
  equation: string;
}

const SPEC: Record<SpecKey, SpecRow> = {
  massG: { symbol: 'M', unit: 'g', digits: 1, equation: 'M′ = M + Σ m' },
  balanceCm: { symbol: 'B', unit: 'cm', digits: 2, equation: 'B′ = (M·B + Σ m·x) / (M + Σ m)' },
  swingWeight: {
    symbol: 'S',
    unit: 'kg·cm²',
    digits: 1,
    equation: 'S′ = S + Σ [m·(x − a)² + i] / 1000',
  },
  twistWeight: { symbol: 'T', unit: 'kg·cm²', digits: 2, equation: 'T′ = T + Σ [m·y² + i] / 1000' },
};
const SHIFTED = `${SPEC.swingWeight.equation} + M′·[(B′ − b)² − (B′ − a)²] / 1000`;

const value = (key: SpecKey, of: number, meaning: string, mark = ''): WorkingValue => {
  const { symbol, unit, digits } = SPEC[key];
  return { symbol: symbol + mark, meaning, value: of, unit, digits };
};
const axisRow = (axisCm: number, symbol = 'a', meaning = 'hand axis from the butt'): WorkingValue => ({
  symbol,
  meaning,
  value: axisCm,
  unit: 'cm',
  digits: 2,
});

type Names<T> = (of: T) => string;

function shareRows<T>(key: SpecKey, one: Contribution<T>, nameOf: Names<T>): WorkingValue[] {
  const meaning = nameOf(one.of);
  switch (key) {
    case 'massG':
      return [{ symbol: 'm', meaning, value: one.massG, unit: 'g', digits: 2, role: 'term' }];
    case 'balanceCm':
      return [
        { symbol: 'm', meaning, value: one.massG, unit: 'g', digits: 2, role: 'mass' },
        { symbol: 'm·x', meaning, value: one.momentGCm, unit: 'g·cm', digits: 1, role: 'moment' },
      ];
    case 'swingWeight':
      return [{ symbol: 'ΔS', meaning, value: one.swingWeight, unit: 'kg·cm²', digits: 2, role: 'term' }];
    case 'twistWeight':
      return [{ symbol: 'ΔT', meaning, value: one.twistWeight, unit: 'kg·cm²', digits: 3, role: 'term' }];
  }
}

function startRows(key: SpecKey, before: KnownSpecs, meaning: string): WorkingValue[] {
  const own = before[key];
  if (own === undefined) return [];
  if (key !== 'balanceCm') return [{ ...value(key, own, meaning), role: 'term' }];
  const massG = before.massG ?? 0;
  return [
    value(key, own, meaning),
    { ...value('massG', massG, 'weight before'), role: 'mass' },
    { symbol: 'M·B', meaning, value: massG * own, unit: 'g·cm', digits: 1, role: 'moment' },
  ];
}

/** The words of an outcome: what the start is, what the result is, what each thing is called, and what is taken for granted. */
export interface OutcomeWords<T> {
  before: string;
  after: string;
  nameOf: Names<T>;
  assumes: string;
}

/**
 * The working of a spec that came from putting things on or off and moving the axis: reads the terms of the outcome and computes nothing.
 * @returns undefined where the outcome does not give this spec
 */
export function explainOutcome<T>(
  key: SpecKey,
  outcome: Outcome<T>,
  words: OutcomeWords<T>,
): Working | undefined {
  const result = outcome.specs[key];
  if (result === undefined) return undefined;
  const { before, contributions, axisCm, axisShift } = outcome;
  const shifted = key === 'swingWeight' && axisCm !== before.axisCm;
  const axes: WorkingValue[] =
    key !== 'swingWeight'
      ? []
      : shifted
        ? [axisRow(before.axisCm, 'a', 'axis before'), axisRow(axisCm, 'b', 'axis after')]
        : [axisRow(axisCm)];
  const shift: WorkingValue[] = shifted
    ? [
        {
          symbol: 'ΔS',
          meaning: 'moving the axis',
          value: axisShift,
          unit: 'kg·cm²',
          digits: 2,
          role: 'term',
        },
      ]
    : [];
  return {
    equation: shifted ? SHIFTED : SPEC[key].equation,
    values: [
      ...startRows(key, before, words.before),
      ...axes,
      ...contributions.flatMap((one) => shareRows(key, one, words.nameOf)),
      ...shift,
    ],
    result: value(key, result, words.after, '′'),
    source: PARALLEL_AXES,
    assumes: words.assumes,
  };
}

const PUT: Record<DerivedPut, Omit<WorkingValue, 'value'>> = {
  massG: { symbol: 'M', meaning: 'weight', unit: 'g', digits: 1 },
  balanceCm: { symbol: 'B', meaning: 'balance', unit: 'cm', digits: 2 },
  swingWeight: { symbol: 'S', meaning: SPECS.swingWeight.name, unit: 'kg·cm²', digits: 1 },
  axisCm: { symbol: 'a', meaning: 'hand axis from the butt', unit: 'cm', digits: 2 },
  lengthCm: { symbol: 'L', meaning: 'length of the frame', unit: 'cm', digits: 2 },
};

/** The working of a derived number: its entry's own equation, with what was put in. */
export function explainDerived(
  key: DerivedKey,
  specs: AxisSpecs,
  lengthCm: number,
  meaning: string,
): Working {
  const { equation, source, unit, digits, puts, of, symbol } = DERIVED[key];
  const put: DerivedInput = { ...specs, lengthCm };
  return {
    equation,
    values: puts.map((name) => ({ ...PUT[name], value: put[name] })),
    result: { symbol, meaning, value: of(put), unit, digits },
    source,
  };
}

/** How a reading of each kind becomes a value. */
const BY: Record<Means, { equation: string; source: string }> = {
  instrument: {
    equation: 'mean of the readings, each (read − offset) / slope of the calibration',
    source: 'instrument, corrected by its calibration (straight line, JCGM 100:2008, H.3)',
  },
  typed: { equation: 'mean of what was typed', source: 'typed by hand' },
  'edge-on': {
    equation: 'T = S edge-on − S face-on + what the frame’s depth and the air it moves take off',
    source: 'perpendicular axes of a flat body (handbook mechanics); depth and air from memory, ±30 %',
  },
  pendulum: {
    equation: 'S = M·g·d·T₀² / 4π² − M·d² + M·(B − a)²',
    source: 'physical pendulum (handbook mechanics), timed',
  },
  threads: {
    equation: 'T = M·g·D²·T₀² / (16·π²·h)',
    source: 'two threads (bifilar pendulum, handbook mechanics), timed',
  },
  'filmed-swing': {
    equation: 'S = M·g·d·T₀² / 4π² − M·d² + M·(B − a)²',
    source: 'physical pendulum (handbook mechanics), timed by a film of it',
  },
  'filmed-twist': {
    equation: 'T = M·g·D²·T₀² / (16·π²·h)',
    source: 'two threads (bifilar pendulum, handbook mechanics), timed by a film of it',
  },
  estimate: { equation: 'from the usual frame of the sport', source: 'an estimate: not measured' },
};

/** How a value was found: what a measurement keeps of it. */
export interface FoundBy {
  means: readonly Means[];
  count: number;
}

/**
 * The working of a measured spec: how it was really found, by how many readings, and what they leave uncertain.
 * @param found undefined where the measurement came in whole, without its readings
 */
export function explainReading(
  key: SpecKey,
  measured: { specs: AxisSpecs; uncertainty: Record<SpecKey, number> },
  found: FoundBy | undefined,
  assumes: string,
): Working | undefined {
  const own = measured.specs[key];
  if (own === undefined) return undefined;
  const by = found?.means.map((means) => BY[means]) ?? [];
  return {
    equation:
      by.length > 0
        ? by.map(({ equation }) => equation).join('; ')
        : `${SPEC[key].symbol} as it came in, without its readings`,
    values: [
      ...(found
        ? [{ symbol: 'n', meaning: 'readings that count', value: found.count, unit: '', digits: 0 }]
        : []),
      {
        symbol: 'u',
        meaning: 'standard uncertainty',
        value: measured.uncertainty[key],
        unit: SPEC[key].unit,
        digits: 2,
      },
      ...(key === 'swingWeight' ? [axisRow(measured.specs.axisCm)] : []),
    ],
    result: value(key, own, 'measured'),
    source: `${by.length > 0 ? by.map(({ source }) => source).join('; ') : 'entered whole'}; ± shows twice the standard uncertainty (JCGM 100:2008)`,
    assumes,
  };
}
