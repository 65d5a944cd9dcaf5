import { SPEC_KEYS, type KnownSpecs, type SpecKey } from '../spec';
import { G_CM2_PER_KG_CM2 } from '../units';
import { swingAbout, type MassSums } from './sums';

/** Something that is put on (or, with negative sums, taken off), with what it is. */
export interface Joined<T> {
  of: T;
  sums: MassSums;
}

/** What one thing adds to each spec: its mass, its moment about the butt, and its inertias. */
export interface Contribution<T> {
  of: T;
  massG: number;
  momentGCm: number;
  swingWeight: number;
  twistWeight: number;
}

/** Specs after things were put on, with the very terms that gave them. */
export interface Outcome<T> {
  before: KnownSpecs & { axisCm: number };
  contributions: Contribution<T>[];
  /** The axis that the swing weight stands about afterwards, and what moving it there added. */
  axisCm: number;
  axisShift: number;
  specs: KnownSpecs & { axisCm: number };
  /** Specs that were known before and could not be worked out, since another one is missing. */
  lost: SpecKey[];
}

/**
 * Puts things on a frame and moves its swing weight to an axis, as far as its values allow. M' = M + Σm; B' = (M·B + Σm·x)/M';
 * S' = S + ΣΔS + M' [(B' − b)² − (B' − a)²]/1000; T' = T + ΣΔT (parallel axes). Weight and twist weight need only themselves, balance the weight too,
 * another axis weight and balance.
 * @param before g, cm, kg·cm² about `axisCm`; a spec that is not known stays unknown
 * @example joinParts({ massG: 300, axisCm: 10 }, [{ of: 'tape', sums: point(4, 68) }], 10).specs.massG // 304
 */
export function joinParts<T>(
  before: KnownSpecs & { axisCm: number },
  parts: readonly Joined<T>[],
  toAxisCm: number,
): Outcome<T> {
  const { massG, balanceCm, swingWeight, twistWeight, axisCm } = before;
  const contributions = parts.map(({ of, sums }): Contribution<T> => ({
    of,
    massG: sums.massG,
    momentGCm: sums.firstGCm,
    swingWeight: swingAbout(sums, axisCm),
    twistWeight: sums.twistGCm2 / G_CM2_PER_KG_CM2,
  }));
  const sum = (key: keyof Omit<Contribution<T>, 'of'>): number =>
    contributions.reduce((all, one) => all + one[key], 0);
  const specs: Outcome<T>['specs'] = { axisCm: toAxisCm };
  const lost: SpecKey[] = [];
  let axisShift = 0;
  if (massG !== undefined) specs.massG = massG + sum('massG');
  if (balanceCm !== undefined) {
    if (massG === undefined || specs.massG === undefined) lost.push('balanceCm');
    else specs.balanceCm = (massG * balanceCm + sum('momentGCm')) / specs.massG;
  }
  if (swingWeight !== undefined) {
    const here = swingWeight + sum('swingWeight');
    if (toAxisCm === axisCm) specs.swingWeight = here;
    else if (specs.massG === undefined || specs.balanceCm === undefined) lost.push('swingWeight');
    else {
      const away = specs.balanceCm;
      axisShift = (specs.massG * ((away - toAxisCm) ** 2 - (away - axisCm) ** 2)) / G_CM2_PER_KG_CM2;
      specs.swingWeight = here + axisShift;
    }
  }
  if (twistWeight !== undefined) specs.twistWeight = twistWeight + sum('twistWeight');
  return { before, contributions, axisCm: toAxisCm, axisShift, specs, lost };
}

/** The four specs of an outcome without its axis. */
export const knownOf = (specs: KnownSpecs): KnownSpecs => {
  const known: KnownSpecs = {};
  for (const key of SPEC_KEYS) if (specs[key] !== undefined) known[key] = specs[key];
  return known;
};

/**
 * Known specs with the swing weight about another axis: that needs weight and balance too, and without them the swing weight is not known there.
 * @param usualAxisCm about which it stands where it says none
 * @example shiftKnown({ swingWeight: 320 }, 10, 10.16).swingWeight // undefined
 */
export function shiftKnown(
  { axisCm, ...given }: KnownSpecs & { axisCm?: number },
  toAxisCm: number,
  usualAxisCm: number,
): KnownSpecs {
  const known = knownOf(given);
  if (known.swingWeight === undefined || (axisCm ?? usualAxisCm) === toAxisCm) return known;
  const { specs } = joinParts({ ...known, axisCm: axisCm ?? usualAxisCm }, [], toAxisCm);
  return knownOf(specs);
}
