import {
  angleOfClock,
  atAngle,
  lineLength,
  pointOnLine,
  zoneNamed,
  type Frame,
  type Line,
  type Point,
} from '../frame';
import { middleOf, partRule, spanCmOf, type Part, type Placement } from '../part';
import type { ZoneName } from '../sport';
import { sidesAt, zoneColumn } from './options';

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

/** Grams on one cm of a placement, all sides and layers of it; undefined where it has no length, such as a dab. */
const gramsPerCm = (placement: Placement, part: Part | undefined): number | undefined =>
  part && 'gPerCm' in part && placement.path !== 'slot'
    ? placement.sides * placement.layers * part.gPerCm
    : undefined;

/** The placement with another length around its middle, kept on its line. */
function ofLength(frame: Frame, placement: Placement, spanCm: number): Placement {
  if (placement.path === 'slot') return placement;
  const middle = (placement.startCm + placement.endCm) / 2;
  const made = { ...placement, startCm: middle - spanCm / 2, endCm: middle + spanCm / 2 };
  return acrossTip(placement) ? made : toMiddle(frame, made, middle);
}

/**
 * So many grams of what it is made of: what is sold by length gets longer or shorter around its middle.
 * @returns the placement as it was where its line is too short for so much, or the grams are none
 * @example withGrams(frame, strip, tape, 4.24) // 8 cm on each side of a tape of 0.265 g/cm
 */
export function withGrams(
  frame: Frame,
  placement: Placement,
  part: Part | undefined,
  massG: number,
): Placement {
  if (!(massG > 0)) return placement;
  const perCm = gramsPerCm(placement, part);
  if (perCm === undefined) return { ...placement, massG };
  const spanCm = massG / perCm;
  if (placement.path === 'slot' || spanCm > lineLength(frame, placement.path)) return placement;
  return ofLength(frame, { ...placement, massG }, spanCm);
}

/** A strip of so many cm: as heavy as so much of it is. A dab, which has no length, stays as it is. @example withLength(frame, strip, tape, 8).massG // 4.24 */
export function withLength(
  frame: Frame,
  placement: Placement,
  part: Part | undefined,
  spanCm: number,
): Placement {
  const perCm = gramsPerCm(placement, part);
  return perCm === undefined ? placement : withGrams(frame, placement, part, perCm * spanCm);
}

/** With its middle at an hour of the clock, 12 is the tip; only on the hoop. @example atClock(frame, strip, 3) // at the widest part of the head */
export function atClock(frame: Frame, placement: Placement, hour: number): Placement {
  if (placement.path !== 'rim' || acrossTip(placement)) return placement;
  const angle = angleOfClock(hour > 6 ? 12 - hour : hour);
  return toMiddle(frame, placement, atAngle(frame.rim, angle).arcCm());
}

/**
 * The least piece of a part at the middle of a zone, as a pair where the zone lies off the axis.
 * @returns undefined where the part does not go there
 * @example newPiece(frame, 'shoulders', tape, 'p3')?.sides // 2
 */
export function newPiece(frame: Frame, zone: ZoneName, part: Part, id: string): Placement | undefined {
  const of = zoneNamed(frame, zone);
  const { options } = zoneColumn(frame, of, { pieces: [part], capG: of.capG, atMiddle: true });
  const [least] = options;
  return least?.placement ? ({ ...least.placement(), id } as Placement) : undefined;
}

/** Pieces are as heavy as wanted where they miss it by no more than this share (a convention: what cutting leaves). */
const NEAR_SHARE = 0.05;

/**
 * So many grams of a part at the middle of a zone, to its nearest piece: of the part that is named first among those that come as near as a bench works, else of the one
 * that comes nearest.
 * @returns undefined where no part goes there
 * @example nearestPiece(frame, 'tip', 2, [tape], 's1')?.massG // 1.99 of a tape of 0.265 g/cm that is cut in halves of a cm
 */
export function nearestPiece(
  frame: Frame,
  zone: ZoneName,
  massG: number,
  parts: readonly Part[],
  id: string,
): Placement | undefined {
  const of = zoneNamed(frame, zone);
  // In the handle what is made for it comes first; tape is laid there where there is nothing else.
  const own = parts.filter((part) => of.path !== 'handle' || !partRule(part).onHandle);
  const usable = own.some((part) => partRule(part).paths.includes(of.path)) ? own : parts;
  const { options } = zoneColumn(frame, of, { pieces: usable, capG: 2 * massG, atMiddle: true });
  const away = (option: { massG: number }): number => Math.abs(option.massG - massG);
  const made = options.flatMap((option) => {
    const placement = option.placement?.();
    return placement ? [{ placement: { ...placement, id } as Placement, away: away(option) }] : [];
  });
  const near = made.filter((one) => one.away <= NEAR_SHARE * massG);
  const rank = ({ placement }: { placement: Placement }): number =>
    parts.findIndex((part) => part.id === placement.partId);
  const [best] =
    near.length > 0
      ? near.toSorted((a, b) => rank(a) - rank(b) || a.away - b.away)
      : made.toSorted((a, b) => a.away - b.away);
  return best?.placement;
}

/** A hand that moves along one line goes over to another only where that is nearer by so much, cm. */
const STICKS_CM = 1.5;
const LINES: readonly Line[] = ['rim', 'throat', 'handle'];

/**
 * Moves a placement as near as it can go to a point on any line that its part goes on: along the hoop, over to the throat, into the handle. It keeps its grams; where a
 * pair becomes one piece, or the reverse, its length follows.
 * @example dragAcross(frame, strip, tape, { xCm: 30, yCm: 5 }).path // 'throat'
 */
export function dragAcross(frame: Frame, placement: Placement, part: Part | undefined, to: Point): Placement {
  if (placement.path === 'slot' || acrossTip(placement) || !part) return dragTo(frame, placement, to);
  const able = partRule(part).paths;
  const tries = LINES.filter((path) => path === placement.path || able.includes(path)).map((path) => {
    const at = dragTo(frame, onLine(frame, placement, part, path), to);
    const middle = middleOf(frame, at);
    // The nearer of its two sides.
    const away = Math.hypot(middle.xCm - to.xCm, Math.abs(middle.yCm) - Math.abs(to.yCm));
    return { at, away: path === placement.path ? away - STICKS_CM : away };
  });
  const [nearest] = tries.toSorted((a, b) => a.away - b.away);
  return nearest?.at ?? placement;
}

/** The same grams on another line. */
function onLine(frame: Frame, placement: Placement, part: Part, path: Line): Placement {
  if (placement.path === path || placement.path === 'slot') return placement;
  const { id, partId, massG } = placement;
  const sides = sidesAt(frame, path, lineLength(frame, path) / 2);
  const { onHandle } = partRule(part);
  // Layers on the hoop become strips on the bevels, and the reverse.
  const layers =
    path === 'handle'
      ? (onHandle?.strips ?? 1)
      : onHandle && placement.path === 'handle'
        ? 1
        : placement.layers;
  const moved: Placement = { id, partId, layers, massG, sides, path, startCm: 0, endCm: spanCmOf(placement) };
  return withGrams(frame, moved, part, massG);
}
