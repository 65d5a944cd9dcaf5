import { arcMoments, areaIntegrals, type Frame } from '../frame';

/** How far an estimate may be off, as a standard uncertainty: wide, since it knows nothing of the layup. */
const ESTIMATE_SHARE = 0.12;

/**
 * A twist weight guessed from the outline where none was measured: T ≈ M (e ⟨y²⟩ along the edge + f ⟨y²⟩ over the face) / 1000, with shares e and f of
 * the mass typical of the sport. An estimate must be shown as one.
 * @param massG whole mass, g @returns kg·cm², with its standard uncertainty
 * @example estimateTwist(settleFrame({ sport: 'tennis', lengthCm: 68.58 }), 320).twistWeight // about 13
 */
export function estimateTwist(frame: Frame, massG: number): { twistWeight: number; uncertainty: number } {
  const { edge, face } = frame.sport.massShares;
  const { rim, bed } = frame;
  const { area, yy } = areaIntegrals(bed);
  const alongEdge = arcMoments(rim, 0, rim.sideCm).yy / rim.sideCm;
  const twistWeight = (massG * (edge * alongEdge + (face * yy) / area)) / 1000;
  return { twistWeight, uncertainty: ESTIMATE_SHARE * twistWeight };
}
