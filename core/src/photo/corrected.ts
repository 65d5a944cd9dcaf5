import {
  faceOf,
  outlineArea,
  polygon,
  settleFrame,
  type Frame,
  type Outline,
  type OutlinePoint,
} from '../frame';
import type { Sport } from '../sport';
import { outlineFigures, type Figure, type Marked, type OutlineFigures } from './figures';
import { alongOf, placeOn } from './silhouette';
import { backFrom, seenAt, type Spot2 } from './projection';
import type { OutlineRead } from './read-photo';

/** An outline that was read, as it is corrected by hand. */
export type OnPhoto = Pick<OutlineRead, 'seen' | 'axis' | 'lengthCm' | 'points' | 'hoopCm'>;

const seenOn = ({ seen, axis }: OnPhoto, along: number, across: number): Spot2 =>
  seenAt(seen, placeOn(axis, along, across));

/** Where the ends of a frame and the points of its outline are seen in its photo. */
export function markedOf(on: OnPhoto): Marked {
  const side = (sign: 1 | -1): Spot2[] =>
    on.points.map(([fromTip, half]) => seenOn(on, on.lengthCm - fromTip, sign * half));
  return { butt: seenOn(on, 0, 0), tip: seenOn(on, on.lengthCm, 0), sides: [side(1), side(-1)] };
}

/** @throws Fault `outline-not-a-head`, `outline-hoop-too-wide`, `head-too-large` */
const frameOf = (
  sport: Sport,
  { lengthCm, points, hoopCm }: Pick<OnPhoto, 'lengthCm' | 'points' | 'hoopCm'>,
): Frame => settleFrame({ sport, lengthCm, handleLengthCm: 1, outline: { points, hoopCm } });

const CURVE = 160;
/** The outer edge and the edge of the bed or face as they are seen in the photo. @throws Fault as {@link settleFrame} does */
export function curvesOn(on: OnPhoto, sport: Sport): { outer: Spot2[]; inner: Spot2[] } {
  const { head, bed } = frameOf(sport, on);
  const seen = (outline: Outline): Spot2[] =>
    polygon(outline, CURVE).map(({ xCm, yCm }) => seenOn(on, xCm, yCm));
  return { outer: seen(head), inner: seen(bed) };
}

/** What is taken hold of: a point of the outline by its number, or the butt. */
export type Hold = number | 'butt';
const LEAST_HALF_CM = 0.05;

/**
 * The outline with one of its points, or the butt, moved to a place of the photo; both sides move alike. Both ends stay on the long axis, the others between their neighbours.
 * @example movedTo(on, 3, { x: 812, y: 401 }).points[3]
 */
export function movedTo<T extends OnPhoto>(on: T, hold: Hold, place: Spot2): T {
  const [along, across] = alongOf(on.axis, seenAt(backFrom(on.seen), place));
  return movedBy(on, hold, along, Math.abs(across));
}
function movedBy<T extends OnPhoto>(on: T, hold: Hold, along: number, half: number): T {
  const { axis, lengthCm, points } = on;
  if (hold === 'butt') {
    const { x, y } = placeOn(axis, along, 0);
    return { ...on, axis: { ...axis, buttX: x, buttY: y }, lengthCm: lengthCm - along };
  }
  const fromTip = lengthCm - along;
  if (hold === 0) {
    // The tip moves: all others keep their place on the frame.
    const shifted = points.map(([from, h], i): OutlinePoint => (i === 0 ? [0, 0] : [from - fromTip, h]));
    const isBelow = shifted.every(([from], i) => i === 0 || from > -LEAST_HALF_CM);
    return isBelow ? { ...on, lengthCm: along, points: shifted.map(([f, h]) => [Math.max(0, f), h]) } : on;
  }
  const isLast = hold === points.length - 1;
  const before = points[hold - 1]?.[0] ?? 0;
  const after = isLast ? lengthCm - 1 : (points[hold + 1]?.[0] ?? lengthCm);
  const kept: OutlinePoint = [
    Math.min(after, Math.max(before, fromTip)),
    isLast ? 0 : Math.max(LEAST_HALF_CM, half),
  ];
  return { ...on, points: points.with(hold, kept) };
}

/**
 * The same by a step: a point out or in along its own direction from the middle of the head, the butt along the axis.
 * @param byCm outward is positive
 */
export function steppedOut<T extends OnPhoto>(on: T, hold: Hold, byCm: number): T {
  const { lengthCm, points } = on;
  if (hold === 'butt') return movedBy(on, 'butt', -byCm, 0);
  const [fromTip, half] = points[hold] ?? [0, 0];
  const middle = (points.at(-1)?.[0] ?? 0) / 2;
  const [along, across] = [middle - fromTip, half];
  const far = Math.max(1e-6, Math.hypot(along, across));
  return movedBy(on, hold, lengthCm - fromTip + (byCm * along) / far, half + (byCm * across) / far);
}

/**
 * What an outline that was read, and corrected, comes to.
 * @param knownLengthCm of the frame, where it was measured otherwise: the outline is scaled to it
 * @throws Fault `outline-not-a-head` … where it was dragged into none
 * @example figuresOf(read, 'tennis', 68.6).bed // { value: 642, uncertainty: 4 }
 */
export function figuresOf(
  read: OutlineRead,
  sport: Sport,
  knownLengthCm?: number,
): OutlineFigures & { face: Figure; points: OutlinePoint[] } {
  const scale = knownLengthCm === undefined ? 1 : knownLengthCm / read.lengthCm;
  const rounded = (cm: number): number => Math.round(1000 * scale * cm) / 1000;
  const points = read.points.map(([fromTip, half]): OutlinePoint => [rounded(fromTip), rounded(half)]);
  const lengthCm = scale * read.lengthCm;
  const frame = frameOf(sport, { lengthCm, points, ...(read.hoopCm ? { hoopCm: read.hoopCm } : {}) });
  const of = {
    points,
    lengthCm,
    wholeCm2: outlineArea(frame.head),
    bedCm2: outlineArea(frame.bed),
    bottomSeen: read.bottomSeen,
    hoopSeen: read.hoopCm !== undefined,
  };
  const figures = outlineFigures(read.taken, markedOf(read), of, knownLengthCm);
  return { ...figures, face: faceOf(frame) === frame.bed ? figures.bed : figures.whole, points };
}
