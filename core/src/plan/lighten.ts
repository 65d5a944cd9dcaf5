import { Fault } from '../fault';
import type { Placement } from '../part';
import { aroundMiddle } from './edit';

/** What is left of some grams after a share of them was taken off in whole quanta. */
const left = (massG: number, share: number, quantumG: number): number =>
  massG - Math.min(massG, Math.round((share * massG) / quantumG) * quantumG);

function check(share: number, quantumG: number): void {
  if (!(share >= 0 && share <= 1)) throw new Fault({ code: 'share-out-of-range', path: 'share' });
  if (!(quantumG > 0)) throw new Fault({ code: 'not-positive', path: 'quantumG' });
}

const GONE_G = 1e-9;

/**
 * Takes the same share off every placement, in whole quanta, so that the feel stays: each keeps its place and loses its share rounded.
 * @param share 0 to 1 @param quantumG the least that can be taken off a placement, g
 * @throws Fault `share-out-of-range`, `not-positive`
 * @example lightenEvenly(placements, 0.3, 1) // 3, 6 and 9 g lose about 1, 2 and 3 g
 */
export function lightenEvenly(
  placements: readonly Placement[],
  share: number,
  quantumG: number,
): Placement[] {
  check(share, quantumG);
  return placements.flatMap((placement): Placement[] => {
    const massG = left(placement.massG, share, quantumG);
    // The grams are whole quanta, whatever rounding makes of their share.
    return massG < GONE_G ? [] : [{ ...aroundMiddle(placement, massG / placement.massG), massG }];
  });
}

/** The same for placements that are said by their spot: a strip gets shorter with its mass. @example lightenSpots([{ massG: 3 }], 0.3, 1)[0].massG // 2 */
export function lightenSpots<T extends { massG: number; spanCm?: number | undefined }>(
  spots: readonly T[],
  share: number,
  quantumG: number,
): T[] {
  check(share, quantumG);
  return spots.flatMap((spot): T[] => {
    const massG = left(spot.massG, share, quantumG);
    if (massG < GONE_G) return [];
    const { spanCm, ...rest } = spot;
    const shorter = spanCm === undefined ? 0 : (spanCm * massG) / spot.massG;
    return [{ ...rest, massG, ...(shorter > 0 ? { spanCm: shorter } : {}) } as T];
  });
}
