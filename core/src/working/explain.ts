import { dressParts, type DressChange } from '../dress';
import type { Frame } from '../frame';
import { additionSums, recoilWeight, swingAbout, type AxisSpecs, type MassSums, type SpecKey } from '../mass';
import { asAddition, specsWith, type Placement } from '../plan';
import type { Working, WorkingValue } from './working';

const PARALLEL_AXES = 'parallel-axes theorem (handbook mechanics)';

const EQUATION: Record<SpecKey, string> = {
  massG: 'M′ = M + Σ m',
  balanceCm: 'B′ = (M·B + Σ m·x) / M′',
  swingWeight: 'S′ = S + Σ [m·(x − a)² + i] / 1000',
  twistWeight: 'T′ = T + Σ [m·y² + i] / 1000',
};

const SYMBOL: Record<SpecKey, string> = { massG: 'M', balanceCm: 'B', swingWeight: 'S', twistWeight: 'T' };
export const SPEC_UNIT: Record<SpecKey, string> = {
  massG: 'g',
  balanceCm: 'cm',
  swingWeight: 'kg·cm²',
  twistWeight: 'kg·cm²',
};
const DIGITS: Record<SpecKey, number> = { massG: 1, balanceCm: 2, swingWeight: 1, twistWeight: 2 };

const start = (key: SpecKey, before: Partial<Record<SpecKey, number>>, meaning: string): WorkingValue[] => {
  const value = before[key];
  if (value === undefined) return [];
  return [{ symbol: SYMBOL[key], meaning, value, unit: SPEC_UNIT[key], digits: DIGITS[key] }];
};

/** What one part adds to a spec, as a row of the working: for balance its moment, for the rest its own share. */
function share(key: SpecKey, name: string, sums: MassSums, axisCm: number): WorkingValue {
  switch (key) {
    case 'massG':
      return { symbol: 'm', meaning: name, value: sums.massG, unit: 'g', digits: 2 };
    case 'balanceCm':
      return { symbol: 'm·x', meaning: name, value: sums.firstGCm, unit: 'g·cm', digits: 1 };
    case 'swingWeight':
      return { symbol: 'ΔS', meaning: name, value: swingAbout(sums, axisCm), unit: 'kg·cm²', digits: 2 };
    case 'twistWeight':
      return { symbol: 'ΔT', meaning: name, value: sums.twistGCm2 / 1000, unit: 'kg·cm²', digits: 3 };
  }
}

const outcome = (key: SpecKey, value: number | undefined, meaning: string, mark = '′'): WorkingValue => ({
  symbol: SYMBOL[key] + mark,
  meaning,
  value: value ?? Number.NaN,
  unit: SPEC_UNIT[key],
  digits: DIGITS[key],
});

const masses = (key: SpecKey, before: Partial<Record<SpecKey, number>>): WorkingValue[] =>
  key === 'balanceCm' ? start('massG', before, 'weight before') : [];

const axis = (key: SpecKey, axisCm: number): WorkingValue[] =>
  key === 'swingWeight'
    ? [{ symbol: 'a', meaning: 'hand axis from the butt', value: axisCm, unit: 'cm', digits: 2 }]
    : [];

/** The working of a planned spec: the measured value and what each placement adds. */
export function explainPlan(
  key: SpecKey,
  frame: Frame,
  before: AxisSpecs,
  placements: readonly Placement[],
  nameOf: (placement: Placement) => string,
): Working {
  return {
    equation: EQUATION[key],
    values: [
      ...start(key, before, 'measured'),
      ...masses(key, before),
      ...axis(key, before.axisCm),
      ...placements.map((p) => share(key, nameOf(p), additionSums(frame, asAddition(p)), before.axisCm)),
    ],
    result: outcome(key, specsWith(frame, before, placements)[key], 'planned'),
    source: PARALLEL_AXES,
    assumes: 'each strip lies evenly along its length; the place is right to ±4 mm and the density to ±4 %',
  };
}

/** The working of a spec brought to another dress: what came off and what went on. */
export function explainRedress(
  key: SpecKey,
  before: Partial<Record<SpecKey, number>>,
  brought: { specs: Partial<Record<SpecKey, number>>; change: DressChange },
  axisCm: number,
): Working {
  const { change, specs } = brought;
  const off = change.takenOff.map((part) =>
    share(key, `${part.name}, taken off`, negative(part.sums), axisCm),
  );
  const on = change.putOn.map((part) => share(key, `${part.name}, put on`, part.sums, axisCm));
  return {
    equation: EQUATION[key],
    values: [
      ...start(key, before, 'as published'),
      ...masses(key, before),
      ...axis(key, axisCm),
      ...off,
      ...on,
    ],
    result: outcome(key, specs[key], 'in the dress of this frame'),
    source: PARALLEL_AXES,
    assumes: 'typical masses of strings and grips where they were not weighed',
  };
}

const negative = (sums: MassSums): MassSums => ({
  massG: -sums.massG,
  firstGCm: -sums.firstGCm,
  secondGCm2: -sums.secondGCm2,
  twistGCm2: -sums.twistGCm2,
});

/** The working of a recoil weight. */
export const explainRecoil = (specs: AxisSpecs): Working => ({
  equation: 'R = S − M·(B − a)² / 1000',
  values: [
    ...start('swingWeight', specs, 'swing weight'),
    ...start('massG', specs, 'weight'),
    ...start('balanceCm', specs, 'balance'),
    ...axis('swingWeight', specs.axisCm),
  ],
  result: { symbol: 'R', meaning: 'recoil weight', value: recoilWeight(specs), unit: 'kg·cm²', digits: 1 },
  source: PARALLEL_AXES,
});

/** The working of a measured spec: the reading, its uncertainty and the dress it was taken in. */
export function explainReading(
  key: SpecKey,
  value: number,
  uncertainty: number,
  frame: Frame,
  dress: Parameters<typeof dressParts>[1],
  axisCm: number,
): Working {
  const parts = dressParts(frame, dress).map((part) => part.name);
  return {
    equation: `${SYMBOL[key]} as read`,
    values: [
      {
        symbol: 'u',
        meaning: 'standard uncertainty of the instrument',
        value: uncertainty,
        unit: SPEC_UNIT[key],
        digits: 2,
      },
      ...axis(key, axisCm),
    ],
    result: outcome(key, value, 'reading', ''),
    source: 'typed reading; ± shows twice the standard uncertainty (JCGM 100:2008)',
    assumes: parts.length > 0 ? `on the frame: ${parts.join(', ')}` : 'nothing on the frame',
  };
}
