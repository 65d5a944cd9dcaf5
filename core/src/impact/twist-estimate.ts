import { arcMoments, areaIntegrals, type Frame } from '../frame';

/** Shares of a frame's mass that lie in the head: evenly along its edge, and evenly over its face. The rest lies near the long axis. From memory. */
const SHARES: Record<Frame['sport']['sport'], { edge: number; face: number }> = {
  tennis: { edge: 0.44, face: 0.05 },
  badminton: { edge: 0.27, face: 0.04 },
  padel: { edge: 0.25, face: 0.42 },
  pickleball: { edge: 0.22, face: 0.5 },
};

/** How far an estimate may be off, as a standard uncertainty: wide, since it knows nothing of the layup. */
const ESTIMATE_SHARE = 0.12;

/**
 * A twist weight guessed from the outline where none was measured: T ≈ M (e ⟨y²⟩ along the edge + f ⟨y²⟩ over the face) / 1000, with shares e and f of
 * the mass typical of the sport. An estimate must be shown as one.
 * @param massG whole mass, g @returns kg·cm², with its standard uncertainty
 * @example estimateTwist(settleFrame({ sport: 'tennis', lengthCm: 68.58 }), 320).twistWeight // about 13
 */
export function estimateTwist(frame: Frame, massG: number): { twistWeight: number; uncertainty: number } {
  const { edge, face } = SHARES[frame.sport.sport];
  const { head } = frame;
  const { area, yy } = areaIntegrals(head);
  const alongEdge = arcMoments(head, 0, head.sideCm).yy / head.sideCm;
  const twistWeight = (massG * (edge * alongEdge + (face * yy) / area)) / 1000;
  return { twistWeight, uncertainty: ESTIMATE_SHARE * twistWeight };
}
