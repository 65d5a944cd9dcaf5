import { Fault, type Problem } from '../fault';
import { placeOf, pointOfSpot, type Frame, type Place, type Spot } from '../frame';
import { handleColumn, point, rimStrip, straightStrip } from './element';
import type { MassSums } from './sums';

/**
 * Weight put on a frame. `massG` is the whole mass (negative takes off); `mirrored` (default true off the long axis) puts half
 * on each side; `spanCm` is the length of each strip along the hoop, or of the filling along the handle; without it the weight is a point.
 */
export interface Addition {
  massG: number;
  at: Spot;
  spanCm?: number;
  mirrored?: boolean;
}

/** Radius that a filling of the handle takes up, cm: inside of the shell, under the grip. */
const FILLING_RADIUS_CM = 1;
const ON_AXIS_CM = 1e-9;

function stripAt(frame: Frame, place: Place, massG: number, spanCm: number): MassSums {
  if (place.on === 'rim') {
    const arcCm = place.arcCm();
    return rimStrip(massG, frame.rim, arcCm - spanCm / 2, arcCm + spanCm / 2);
  }
  if (place.on === 'handle' && Math.abs(place.yCm) <= ON_AXIS_CM) {
    return handleColumn(massG, place.xCm, spanCm, FILLING_RADIUS_CM);
  }
  return straightStrip(massG, place.xCm, place.yCm, spanCm);
}

/**
 * Sums of an addition. A mirrored pair has the same sums as the whole mass on one side, since they depend on y² only.
 * @throws Fault `spot-off-frame`, `span-not-positive`
 * @example additionSums(frame, { massG: 4, at: { clock: 12 } }).firstGCm // 274.32
 */
export function additionSums(frame: Frame, addition: Addition): MassSums {
  if (addition.spanCm === undefined) {
    const { xCm, yCm } = pointOfSpot(frame, addition.at);
    return point(addition.massG, xCm, yCm);
  }
  const place = placeOf(frame, addition.at);
  if (!(addition.spanCm > 0)) throw new Fault({ code: 'span-not-positive', path: 'spanCm' });
  return stripAt(frame, place, addition.massG, addition.spanCm);
}

/** Problems of a list of additions, each with its place in the list; the sums where there are none. */
export function sumsOfAdditions(frame: Frame, additions: readonly Addition[]): MassSums[] {
  const problems: Problem[] = [];
  const sums = additions.flatMap((addition, i) => {
    try {
      return [additionSums(frame, addition)];
    } catch (fault) {
      if (!(fault instanceof Fault)) throw fault;
      problems.push(...fault.problems.map((p) => ({ ...p, path: `additions.${i}.${p.path}` })));
      return [];
    }
  });
  if (problems.length > 0) throw new Fault(...problems);
  return sums;
}
