import { ratingsOf, type Ratings } from '../spec';
import { G_CM2_PER_KG_CM2 } from '../units';
import { specsOf, sumsOf, swingAbout, add, type AxisSpecs, type MassSums, type SpecKey } from '../mass';

/** Standard uncertainty of each spec, in the spec's own unit. */
export type SpecUncertainty = Record<SpecKey, number> & Ratings;

/** A part of the dress put on or taken off, with the standard uncertainty of its mass and of where along the axis it lies. */
export interface UncertainPart {
  /** Sums of what is put on; negative sums take off. */
  sums: MassSums;
  massUncertaintyG: number;
  placeUncertaintyCm: number;
}

const root = (squares: number[]): number => Math.sqrt(squares.reduce((sum, s) => sum + s * s, 0));

/**
 * Standard uncertainty of the specs after parts are put on, by the law of propagation (JCGM 100:2008, eq. 10; inputs independent).
 * @param before specs before, with the standard uncertainty of each
 * @example afterParts(specs, readings, []) // readings
 */
export function afterParts(
  before: AxisSpecs,
  uncertainty: SpecUncertainty,
  parts: readonly UncertainPart[],
): SpecUncertainty {
  const start = sumsOf(before);
  const after = specsOf(
    parts.reduce((sums, part) => add(sums, part.sums), start),
    before.axisCm,
    true,
  );
  const mass: number[] = [uncertainty.massG];
  const balance: number[] = [
    (uncertainty.massG * (before.balanceCm - after.balanceCm)) / after.massG,
    (uncertainty.balanceCm * before.massG) / after.massG,
  ];
  const swing: number[] = [uncertainty.swingWeight];
  const twist: number[] = [uncertainty.twistWeight];
  for (const { sums, massUncertaintyG: uMass, placeUncertaintyCm: uPlace } of parts) {
    if (sums.massG === 0) continue;
    const xCm = sums.firstGCm / sums.massG;
    mass.push(uMass);
    balance.push((uMass * (xCm - after.balanceCm)) / after.massG, (uPlace * sums.massG) / after.massG);
    swing.push(
      (uMass * swingAbout(sums, before.axisCm)) / sums.massG,
      (uPlace * 2 * sums.massG * (xCm - before.axisCm)) / G_CM2_PER_KG_CM2,
    );
    // Parts of the dress lie evenly about the long axis and slip along it: that leaves the twist weight alone.
    twist.push((uMass * sums.twistGCm2) / sums.massG / G_CM2_PER_KG_CM2);
  }
  return {
    ...ratingsOf(uncertainty),
    massG: root(mass),
    balanceCm: root(balance),
    swingWeight: root(swing),
    twistWeight: root(twist),
  };
}
