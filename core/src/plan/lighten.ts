import { Fault } from '../fault';
import type { Placement } from '../part';

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
  if (!(share >= 0 && share <= 1)) throw new Fault({ code: 'share-out-of-range', path: 'share' });
  if (!(quantumG > 0)) throw new Fault({ code: 'not-positive', path: 'quantumG' });
  return placements.flatMap((placement): Placement[] => {
    const off = Math.min(placement.massG, Math.round((share * placement.massG) / quantumG) * quantumG);
    const left = placement.massG - off;
    if (left < 1e-9) return [];
    const stays = left / placement.massG;
    if (placement.path === 'slot') return [{ ...placement, massG: left }];
    const middle = (placement.startCm + placement.endCm) / 2;
    const half = ((placement.endCm - placement.startCm) / 2) * stays;
    return [{ ...placement, massG: left, startCm: middle - half, endCm: middle + half }];
  });
}
