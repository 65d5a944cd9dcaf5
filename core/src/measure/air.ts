import { pointAtArc, type Frame, type Outline } from '../frame';
import { G_CM2_PER_KG_CM2 } from '../units';

/** Density of air at sea level, g/cm³ (ICAO Standard Atmosphere). */
const AIR_DENSITY = 1.225e-3;

/** What a face does to the air is worked out from these integrals over its half width a along the frame: of a², a² x, a² x² and a⁴. */
interface FaceMoments {
  a2: number;
  a2x: number;
  a2xx: number;
  a4: number;
}

const SLICES = 800;
/** Once a face: whatever axis is asked about, the integrals are the same. */
const known = new WeakMap<Outline, FaceMoments>();

function momentsOf(face: Outline): FaceMoments {
  const before = known.get(face);
  if (before) return before;
  const sum: FaceMoments = { a2: 0, a2x: 0, a2xx: 0, a4: 0 };
  let from = pointAtArc(face, 0);
  for (let i = 1; i <= SLICES; i++) {
    const to = pointAtArc(face, (face.sideCm * i) / SLICES);
    const stepCm = Math.abs(to.xCm - from.xCm);
    const xCm = (from.xCm + to.xCm) / 2;
    const a2 = ((from.yCm + to.yCm) / 2) ** 2;
    sum.a2 += a2 * stepCm;
    sum.a2x += a2 * xCm * stepCm;
    sum.a2xx += a2 * xCm * xCm * stepCm;
    sum.a4 += a2 * a2 * stepCm;
    from = to;
  }
  known.set(face, sum);
  return sum;
}

/** Strings let the air through. */
const isSolid = ({ sport }: Frame): boolean => !sport.dress.components.includes('strings');

/**
 * What the air that a solid face moves adds to a swing weight read face-on: π ρ a² a cm of length for a plate of half width a (added mass of a flat plate across its
 * face, potential flow, handbook), at its distance from the axis squared.
 * @param axisCm of the reading @returns kg·cm²; 0 where there are strings
 * @example airFaceOn(settleFrame({ sport: 'pickleball', lengthCm: 40.64 }), 5) // about 4
 */
export function airFaceOn(frame: Frame, axisCm: number): number {
  if (!isSolid(frame)) return 0;
  const { a2, a2x, a2xx } = momentsOf(frame.bed);
  return (Math.PI * AIR_DENSITY * (a2xx - 2 * axisCm * a2x + axisCm ** 2 * a2)) / G_CM2_PER_KG_CM2;
}

/**
 * What the air that a paddle turns with adds to a twist weight that is timed: (π/8) ρ a⁴ a cm of length for a plate of half width a that turns about its middle, edge
 * and all (added moment of inertia, potential flow, handbook).
 * @returns kg·cm²; 0 where there are strings
 * @example airTwisting(settleFrame({ sport: 'pickleball', lengthCm: 40.64 })) // about 0.13
 */
export const airTwisting = (frame: Frame): number =>
  isSolid(frame) ? ((Math.PI / 8) * AIR_DENSITY * momentsOf(frame.head).a4) / G_CM2_PER_KG_CM2 : 0;
