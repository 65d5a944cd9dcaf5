import { atAngle, lineLength, pointOnLine, type Frame, type Point } from '../frame';
import { partRule, spanCmOf, type Part, type Placement } from '../part';

/** What a fitter does by hand to a placement. Each function gives a new placement, kept on the frame. */

/** A strip across the tip lies on both sides at once: it stays where it is. */
const acrossTip = (placement: Placement): boolean =>
  placement.path === 'rim' && placement.sides === 1 && placement.startCm < 0 && placement.endCm > 0;

/** The placement with its middle at a length along its line, stopped where it would leave it. */
function toMiddle(frame: Frame, placement: Placement, middleCm: number): Placement {
  if (placement.path === 'slot') return placement;
  const spanCm = spanCmOf(placement);
  const most = lineLength(frame, placement.path) - spanCm;
  const startCm = Math.max(0, Math.min(most, middleCm - spanCm / 2));
  return { ...placement, startCm, endCm: startCm + spanCm };
}

/** A placement around its middle with a share of its mass and length. @example aroundMiddle(strip, 0.5).massG // half of it */
export function aroundMiddle(placement: Placement, share: number): Placement {
  const massG = placement.massG * share;
  if (placement.path === 'slot') return { ...placement, massG };
  const middle = (placement.startCm + placement.endCm) / 2;
  const half = (spanCmOf(placement) / 2) * share;
  return { ...placement, massG, startCm: middle - half, endCm: middle + half };
}

/**
 * Moves a placement toward the tip (positive) or the butt (negative): along the hoop, the throat or the handle.
 * @param byCm how far, cm @returns the placement moved, stopped where it would leave its part of the frame
 * @example nudge(frame, butt, 0.5).startCm // butt.startCm + 0.5
 */
export function nudge(frame: Frame, placement: Placement, byCm: number): Placement {
  if (placement.path === 'slot' || acrossTip(placement)) return placement;
  const middle = (placement.startCm + placement.endCm) / 2;
  // The rim is measured from the tip.
  return toMiddle(frame, placement, middle + (placement.path === 'rim' ? -byCm : byCm));
}

/** Moves a placement as near as it can go to a point: what dragging does. */
export function dragTo(frame: Frame, placement: Placement, to: Point): Placement {
  if (placement.path === 'slot' || acrossTip(placement)) return placement;
  if (placement.path === 'rim') {
    const angle = Math.atan2(Math.abs(to.yCm), to.xCm - frame.rim.centreXCm);
    return toMiddle(frame, placement, atAngle(frame.rim, angle).arcCm());
  }
  const length = lineLength(frame, placement.path);
  const [from, end] = [pointOnLine(frame, placement.path, 0), pointOnLine(frame, placement.path, length)];
  const share = (to.xCm - from.xCm) / Math.max(1e-9, end.xCm - from.xCm);
  return toMiddle(frame, placement, share * length);
}

/**
 * One piece more or less: a step of tape length on each side, or a dab.
 * @param by 1 or −1 @returns the placement changed, or undefined where nothing is left of it
 * @example changePieces(frame, strip, tape, 1)?.massG // a step of tape more on each side
 */
export function changePieces(
  frame: Frame,
  placement: Placement,
  part: Part,
  by: 1 | -1,
): Placement | undefined {
  const { massG, layers, sides } = placement;
  const next = partRule(part).step(part, { massG, layers, spanCm: spanCmOf(placement) }, by, sides);
  if (!next) return undefined;
  const changed = { ...placement, massG: next.massG, layers: next.layers };
  if (changed.path === 'slot') return changed;
  const middle = (changed.startCm + changed.endCm) / 2;
  const longest = lineLength(frame, changed.path) * (acrossTip(placement) ? 2 : 1);
  if (next.spanCm > longest) return placement;
  const resized = { ...changed, startCm: middle - next.spanCm / 2, endCm: middle + next.spanCm / 2 };
  return acrossTip(placement) ? resized : toMiddle(frame, resized, middle);
}
