import { atAngle, limb, rimPlace, type Frame, type Point } from '../frame';
import type { Materials } from './material';
import { placementPlace, type Placement } from './placement';

/** What a fitter does by hand to a placement. Each function gives a new placement, kept on the frame. */

const clamp = (value: number, low: number, high: number): number =>
  Math.min(Math.max(value, low), Math.max(low, high));

/** A strip across the tip lies on both sides at once: it stays where it is. */
const acrossTip = (placement: Placement): boolean =>
  !placement.mirrored && placement.yCm === 0 && placement.zone === 'tip';

function toArc(frame: Frame, placement: Placement, arcCm: number): Placement {
  const half = (placement.spanCm ?? 0) / 2;
  const { xCm, yCm } = rimPlace(frame, clamp(arcCm, half, frame.head.sideCm - half));
  return { ...placement, xCm, yCm };
}

function toX(frame: Frame, placement: Placement, xCm: number, onLimb: boolean): Placement {
  const half = (placement.spanCm ?? 0) / 2;
  if (!onLimb) return { ...placement, xCm: clamp(xCm, half, frame.handleLengthCm - half) };
  const [low, high] = limb(frame);
  // Just past the handle: on its end the place would count as one in the handle.
  const x = clamp(xCm, low.xCm + half + 0.1, high.xCm - half);
  const share = (x - low.xCm) / (high.xCm - low.xCm);
  return { ...placement, xCm: x, yCm: low.yCm + share * (high.yCm - low.yCm) };
}

/**
 * Moves a placement toward the tip (positive) or the butt (negative): along the hoop, the limb or the handle.
 * @param byCm how far, cm @returns the placement moved, stopped where it would leave its part of the frame
 * @example nudge(frame, butt, 0.5).xCm // butt.xCm + 0.5
 */
export function nudge(frame: Frame, placement: Placement, byCm: number): Placement {
  if (acrossTip(placement)) return placement;
  const place = placementPlace(frame, placement);
  if (place.on === 'rim') return toArc(frame, placement, Math.abs(place.arcCm()) - byCm);
  return toX(frame, placement, placement.xCm + byCm, place.on === 'free');
}

/** Moves a placement as near as it can go to a point: what dragging does. */
export function dragTo(frame: Frame, placement: Placement, to: Point): Placement {
  if (acrossTip(placement)) return placement;
  const { head } = frame;
  const place = placementPlace(frame, placement);
  if (place.on !== 'rim') return toX(frame, placement, to.xCm, place.on === 'free');
  const angle = Math.atan2(Math.abs(to.yCm), to.xCm - head.centreXCm);
  return toArc(frame, placement, atAngle(head, angle).arcCm());
}

/**
 * One piece more or less: a step of tape length on each side, or a dab.
 * @param by 1 or −1 @returns the placement changed, or undefined where nothing is left of it
 * @example changePieces(frame, strip, materials, 1)?.spanCm // strip.spanCm + tape.stepCm
 */
export function changePieces(
  frame: Frame,
  placement: Placement,
  { tape, filling }: Materials,
  by: 1 | -1,
): Placement | undefined {
  const place = placementPlace(frame, placement);
  if (place.on === 'handle') {
    const massG = placement.massG + by * filling.dabG;
    if (massG < filling.dabG / 2) return undefined;
    return nudge(frame, { ...placement, massG, spanCm: massG / filling.gPerCm }, 0);
  }
  const spanCm = (placement.spanCm ?? 0) + by * tape.stepCm;
  if (spanCm < tape.stepCm / 2) return undefined;
  const strips = (placement.mirrored ? 2 : 1) * (placement.layers ?? 1);
  return nudge(frame, { ...placement, spanCm, massG: strips * tape.gPerCm * spanCm }, 0);
}
