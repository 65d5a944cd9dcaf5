import { Fault, type Problem } from '../fault';
import { outlineArea, type Frame } from '../frame';
import type { STRING_MATERIALS } from '../part';
import type { TypicalPart } from '../sport';

export type StringMaterial = (typeof STRING_MATERIALS)[number];

/** Density of string materials, g/cm³ (physics of the trade; from memory). */
export const STRING_DENSITY: Record<StringMaterial, number> = { polyester: 1.38, nylon: 1.14, gut: 1.3 };

export interface StringJob {
  mains: number;
  crosses: number;
  gaugeMm: number;
  material: StringMaterial;
}

/** What runs along the hoop between holes and into knots, as a share of what spans the face; from memory. */
const OUTSIDE_SHARE = 0.15;
/** How far pattern, stretch and trimming put the mass off, as a share. */
const MASS_SHARE = 0.06;

/**
 * Length of string in a frame, cm: mains and crosses evenly spread, so that a main is on average area / width long and a cross area / length,
 * and what runs along the hoop.
 * @example stringLength(frame, { mains: 16, crosses: 19 }) // about 900
 */
export function stringLength(frame: Frame, { mains, crosses }: Pick<StringJob, 'mains' | 'crosses'>): number {
  const { head } = frame;
  const area = outlineArea(head);
  const inside = (mains * area) / (2 * head.acrossCm) + (crosses * area) / (2 * head.alongCm);
  return inside * (1 + OUTSIDE_SHARE);
}

/**
 * Mass of strings from pattern, head size, gauge and material: length · π d²/4 · density.
 * @throws Fault `not-positive`
 * @example stringMass(frame, { mains: 16, crosses: 19, gaugeMm: 1.25, material: 'polyester' }).massG // about 15
 */
export function stringMass(frame: Frame, job: StringJob): TypicalPart {
  const keys = ['mains', 'crosses', 'gaugeMm'] as const;
  const problems = keys
    .filter((key) => !(job[key] > 0))
    .map((path): Problem => ({ code: 'not-positive', path }));
  if (problems.length > 0) throw new Fault(...problems);
  const diameterCm = job.gaugeMm / 10;
  const massG = stringLength(frame, job) * ((Math.PI * diameterCm ** 2) / 4) * STRING_DENSITY[job.material];
  return { massG, massUncertaintyG: MASS_SHARE * massG };
}

/** One handle size is an eighth of an inch of circumference; an overgrip makes about half a size (common practice). */
const SIZES_PER_OVERGRIP = 0.5;

/** How many handle sizes overgrips add. @example handleSizesAdded(2) // 1 */
export const handleSizesAdded = (overgrips: number): number => SIZES_PER_OVERGRIP * overgrips;
