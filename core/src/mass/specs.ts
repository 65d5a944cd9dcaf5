import { Fault, type Problem } from '../fault';
import { G_CM2_PER_KG_CM2 } from '../units';
import { SPECS, RATING_KEYS, SPEC_KEYS, type Ratings, type SpecKey } from '../spec';
import { DERIVED, DERIVED_KEYS, recoilWeight, type Derived } from './derived';
import { swingAbout, type MassSums } from './sums';

/** The four specs of a frame. Swing and twist weight in kg·cm². `axisCm` is the sport's own axis if left out. */
export interface Specs extends Ratings {
  massG: number;
  balanceCm: number;
  swingWeight: number;
  twistWeight?: number;
  axisCm?: number;
}

export { SPEC_KEYS, type SpecKey } from '../spec';

/** Specs with the axis settled. */
export type AxisSpecs = Specs & { axisCm: number };

export const withAxis = (specs: Specs, axisCm: number): AxisSpecs => ({
  ...specs,
  axisCm: specs.axisCm ?? axisCm,
});

/**
 * Sums of a body with these specs. Twist weight counts as 0 where it is not known: differences stay right.
 */
export function sumsOf(specs: AxisSpecs): MassSums {
  const { massG, balanceCm, swingWeight, axisCm } = specs;
  const firstGCm = massG * balanceCm;
  return {
    massG,
    firstGCm,
    secondGCm2: swingWeight * G_CM2_PER_KG_CM2 + 2 * axisCm * firstGCm - axisCm * axisCm * massG,
    twistGCm2: (specs.twistWeight ?? 0) * G_CM2_PER_KG_CM2,
  };
}

/** Specs of sums about an axis; twist weight only where `twistKnown`. */
export function specsOf(sums: MassSums, axisCm: number, twistKnown: boolean): AxisSpecs {
  return {
    massG: sums.massG,
    balanceCm: sums.firstGCm / sums.massG,
    swingWeight: swingAbout(sums, axisCm),
    ...(twistKnown ? { twistWeight: sums.twistGCm2 / G_CM2_PER_KG_CM2 } : {}),
    axisCm,
  };
}

/**
 * The same specs with the swing weight about another axis: S(b) = R + M (B − b)²/1000.
 * @example shiftAxis(specs, 10).axisCm // 10
 */
export const shiftAxis = (specs: AxisSpecs, toAxisCm: number): AxisSpecs => ({
  ...specs,
  swingWeight: recoilWeight(specs) + (specs.massG * (specs.balanceCm - toAxisCm) ** 2) / G_CM2_PER_KG_CM2,
  axisCm: toAxisCm,
});

/**
 * A spec as something that is linear in what is put on: mass, swing and twist weight are; of the balance the moment about one, Σ m (x − B), which is zero where the frame balances there.
 * @param balanceCm the balance that moments count about
 */
export function linearSpec(key: SpecKey, sums: MassSums, balanceCm: number, axisCm: number): number {
  switch (key) {
    case 'massG':
      return sums.massG;
    case 'balanceCm':
      return sums.firstGCm - balanceCm * sums.massG;
    case 'swingWeight':
      return swingAbout(sums, axisCm);
    case 'twistWeight':
      return sums.twistGCm2 / G_CM2_PER_KG_CM2;
  }
}

/** Where the wrist lies, from the middle of the hand toward the butt, cm (from memory). */
const WRIST_BEHIND_HAND_CM = 7;

/**
 * Swing weight about every place that people speak of: the butt, the hand's axis, the wrist and the balance point (there it is the recoil weight). S(b) = R + M (B − b)²/1000.
 * @param handCm the hand's axis, cm from the butt
 * @example swingAtPlaces(specs, 10.16).balance // recoilWeight(specs)
 */
export function swingAtPlaces(
  specs: AxisSpecs,
  handCm: number,
): Record<'butt' | 'hand' | 'wrist' | 'balance', number> {
  const about = (axisCm: number): number => shiftAxis(specs, axisCm).swingWeight;
  return {
    butt: about(0),
    hand: about(handCm),
    wrist: about(handCm - WRIST_BEHIND_HAND_CM),
    balance: recoilWeight(specs),
  };
}

/** All derived numbers of whole specs. @example derive(specs, 68.58).pointsHeadLight // 6 */
export function derive(specs: AxisSpecs, lengthCm: number): Derived {
  const { massG, balanceCm, swingWeight, axisCm } = specs;
  const put = { massG, balanceCm, swingWeight, axisCm, lengthCm };
  const derived = {} as Derived;
  // A plain loop: a what-if works these out at every move of the hand.
  for (const key of DERIVED_KEYS) derived[key] = DERIVED[key].of(put);
  return derived;
}

/**
 * What is wrong with specs on a frame of this length: not finite, mass not positive, balance off the frame,
 * recoil weight not positive, twist weight not positive. Empty when nothing is.
 */
export function specProblems(specs: AxisSpecs, lengthCm: number, path = 'specs'): Problem[] {
  const problems: Problem[] = [];
  for (const key of [...SPEC_KEYS, 'axisCm'] as const) {
    const value = specs[key];
    if (value !== undefined && !Number.isFinite(value)) {
      problems.push({ code: 'not-a-number', path: `${path}.${key}` });
    }
  }
  if (problems.length > 0) return problems;
  if (!(specs.massG > 0)) problems.push({ code: 'mass-negative', path: `${path}.massG` });
  if (!(specs.balanceCm > 0 && specs.balanceCm < lengthCm)) {
    problems.push({ code: 'balance-off-frame', path: `${path}.balanceCm`, values: { lengthCm } });
  }
  if (problems.length === 0 && !(recoilWeight(specs) > 0)) {
    const least = specs.swingWeight - recoilWeight(specs);
    problems.push({ code: 'swing-weight-impossible', path: `${path}.swingWeight`, values: { least } });
  }
  if (specs.twistWeight !== undefined && !(specs.twistWeight > 0)) {
    problems.push({ code: 'twist-weight-impossible', path: `${path}.twistWeight` });
  }
  for (const key of RATING_KEYS) {
    const value = specs[key];
    const [least, most] = SPECS[key].within;
    if (value === undefined || (value >= least && value <= most)) continue;
    const range = `between ${least} and ${most}`;
    problems.push({ code: 'unlikely', path: `${path}.${key}`, values: { range } });
  }
  return problems;
}

/** @throws Fault with every problem of the specs */
export function requireSpecs(specs: AxisSpecs, lengthCm: number, path = 'specs'): AxisSpecs {
  const problems = specProblems(specs, lengthCm, path);
  if (problems.length > 0) throw new Fault(...problems);
  return specs;
}
