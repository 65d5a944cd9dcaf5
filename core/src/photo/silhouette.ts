import type { SportData } from '../sport';
import { axisThrough, type Spot2 } from './projection';
import { filled, isAtEdge, islands, joined } from './squares';
import { CELL_CM, placeOf, type Table } from './table';

/** Where the frame lies on the table: its butt, and the way to its tip. */
export interface Axis {
  buttX: number;
  buttY: number;
  /** Of length one, toward the tip. */
  dx: number;
  dy: number;
}
export const placeOn = ({ buttX, buttY, dx, dy }: Axis, along: number, across: number): Spot2 => ({
  x: buttX + along * dx - across * dy,
  y: buttY + along * dy + across * dx,
});
export const alongOf = ({ buttX, buttY, dx, dy }: Axis, { x, y }: Spot2): [along: number, across: number] => [
  (x - buttX) * dx + (y - buttY) * dy,
  (y - buttY) * dx - (x - buttX) * dy,
];

export type PhotoTrouble =
  | 'photo-no-sheet'
  | 'photo-other-sheet'
  | 'photo-no-frame'
  | 'photo-cut-off'
  | 'photo-over-sheet'
  | 'photo-too-slanted'
  | 'photo-too-small';

/** The frame as the squares show it: all that lies within its outer edge, and what of that is seen to be the frame. */
export interface Silhouette {
  table: Table;
  filled: Uint8Array;
  axis: Axis;
  lengthCm: number;
}

/** Frames are so much longer or shorter than any of the sport. */
const LONGER = 1.12;

/** What lies this near together is one thing, squares: a thin hoop may have gaps where it shines. */
const JOINED = 2;
/** No frame is smaller, cm². */
const LEAST_CM2 = 40;
/** So much of its length at either end says which of them is the handle. */
const END_SHARE = 0.3;

/** The frame on the table, which end is which, and where its long axis lies. */
export function silhouetteOf(table: Table, sport: SportData): Silhouette | { trouble: PhotoTrouble } {
  const { width, lies, beyond, onSheet } = table;
  const [largest] = islands(joined(lies, width, JOINED), width);
  if (!largest || largest.length * CELL_CM ** 2 < LEAST_CM2) return { trouble: 'photo-no-frame' };
  const touches = (p: number, of: Uint8Array): boolean =>
    Boolean(of[p - 1] || of[p + 1] || of[p - width] || of[p + width]);
  if (largest.some((p) => touches(p, onSheet))) return { trouble: 'photo-over-sheet' };
  const only = new Uint8Array(lies.length);
  for (const p of largest) only[p] = 1;
  const whole = filled(only, width);
  const squares: number[] = [];
  for (let p = 0; p < whole.length; p++) if (whole[p]) squares.push(p);
  if (squares.some((p) => touches(p, beyond) || isAtEdge(p, width, whole.length)))
    return { trouble: 'photo-cut-off' };

  const places = squares.map((p) => placeOf(table, p));
  const middle = {
    x: places.reduce((sum, { x }) => sum + x, 0) / places.length,
    y: places.reduce((sum, { y }) => sum + y, 0) / places.length,
  };
  const [dx, dy] = axisThrough(places, middle);
  const alongs = places.map((p) => (p.x - middle.x) * dx + (p.y - middle.y) * dy);
  const [low, high] = alongs.reduce(([l, h], a) => [Math.min(l, a), Math.max(h, a)], [Infinity, -Infinity]);
  const lengthCm = high - low;
  const [shortest, longest] = sport.plausible.lengthCm;
  if (lengthCm < shortest / LONGER || lengthCm > longest * LONGER) return { trouble: 'photo-no-frame' };
  // The handle's end is the narrower one.
  const near = (end: number): number => alongs.filter((a) => Math.abs(a - end) < END_SHARE * lengthCm).length;
  const [butt, sign] = near(low) > near(high) ? [high, -1] : [low, 1];
  const axis: Axis = {
    buttX: middle.x + butt * dx,
    buttY: middle.y + butt * dy,
    dx: sign * dx,
    dy: sign * dy,
  };
  return { table, filled: whole, axis, lengthCm };
}

/** Whether a place of the table lies in marked squares. */
export function isMarked(
  { width, height, fromX, fromY }: Table,
  marked: Uint8Array,
  { x, y }: Spot2,
): boolean {
  const [i, j] = [Math.floor((x - fromX) / CELL_CM), Math.floor((y - fromY) / CELL_CM)];
  return i >= 0 && j >= 0 && i < width && j < height && marked[j * width + i] === 1;
}
