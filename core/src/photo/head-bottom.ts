import type { SportData } from '../sport';
import { edgeAlong } from './edge';
import { slopeThrough, type Seen } from './projection';
import type { Photo } from './sheet';
import { isMarked, placeOn, type Silhouette } from './silhouette';
import { CELL_CM } from './table';

/** Half the width of the squares at a length from the butt, cm, on the side that is wider. */
function halfAt({ table, filled, axis }: Silhouette, along: number): number {
  const reach = (side: 1 | -1): number => {
    let far = 0;
    for (let y = 0; y < 25; y += CELL_CM / 2)
      if (isMarked(table, filled, placeOn(axis, along, side * y))) far = y;
    return far;
  };
  return (reach(1) + reach(-1)) / 2;
}
/** How much of a row across the long axis is frame. */
function shareAt({ table, axis }: Silhouette, along: number, halfCm: number): number {
  let [marked, all] = [0, 0];
  for (let y = -halfCm; y <= halfCm; y += CELL_CM / 2) {
    all++;
    if (isMarked(table, table.lies, placeOn(axis, along, y))) marked++;
  }
  return marked / all;
}

const HANDLE_MORE_CM = 0.6;
const BRIDGE = { halfCm: 1.2, open: 0.35, closed: 0.65, leastCm: 0.5, openCm: 0.8 };
/** Half a shaft with room to spare, cm; and where above the butt there is nothing but handle, as a share of the length. */
const SHAFT_HALF_CM = 0.9;
const HANDLE_SHARE = 0.25;
export interface Bottom {
  along: number;
  isSeen: boolean;
  /** Whether the outer edge runs on past it, so that the lower head is hidden. */
  isHidden: boolean;
  /** How narrow the outer edge gets there, half, cm. */
  narrow: number;
}

/** The bridge above an opening, seen from the handle. */
function bridgeOf(seen: Silhouette): number | undefined {
  const step = 0.1;
  let open = 0;
  for (let along = 0.15 * seen.lengthCm; along < 0.72 * seen.lengthCm; along += step) {
    const share = shareAt(seen, along, BRIDGE.halfCm);
    if (share < BRIDGE.open) open += step;
    else if (share > BRIDGE.closed && open >= BRIDGE.openCm) {
      let closed = 0;
      while (shareAt(seen, along + closed, BRIDGE.halfCm) > BRIDGE.closed && closed < 3) closed += step;
      if (closed >= BRIDGE.leastCm) return along;
      along += closed;
    }
  }
  return undefined;
}
/** Where the outer edge gets as narrow as that, from the middle of the head toward the butt. */
function narrowAt(seen: Silhouette, narrow: number): number {
  const step = 0.05;
  let along = 0.8 * seen.lengthCm;
  while (along > 0 && halfAt(seen, along) > narrow) along -= step;
  return along;
}
/** Where the head ends toward the handle: where it is no wider than a shaft or the handle, or above the opening of a throat. */
export function bottomOf(seen: Silhouette, { throat, handleRadiusCm }: SportData): Bottom {
  const { lengthCm } = seen;
  if (throat === 'shaft') {
    const along = narrowAt(seen, SHAFT_HALF_CM);
    if (along > HANDLE_SHARE * lengthCm)
      return { along, isSeen: true, isHidden: false, narrow: SHAFT_HALF_CM };
  }
  if (throat !== 'none') {
    const along = bridgeOf(seen);
    if (along !== undefined) return { along, isSeen: true, isHidden: true, narrow: 0 };
  }
  // Heads end a little below half of the length.
  if (throat === 'limbs') return { along: 0.475 * lengthCm, isSeen: false, isHidden: true, narrow: 0 };
  const narrow = handleRadiusCm + HANDLE_MORE_CM;
  return { along: narrowAt(seen, narrow), isSeen: throat === 'none', isHidden: false, narrow };
}

/** The bridge’s lower edge on the long axis, to a fraction of a picture element. */
export function bridgeAt(photo: Photo, plane: Seen, { axis, table }: Silhouette, roughly: number): number {
  const found: [number, number][] = [];
  for (let across = -1.2; across <= 1.21; across += 0.3) {
    const way = { x: -axis.dx, y: -axis.dy };
    const out = edgeAlong(photo, plane, table, placeOn(axis, roughly, across), way);
    if (out !== undefined) found.push([across * across, roughly - out]);
  }
  if (found.length < 4) return roughly;
  // It bends away from the handle to both sides: a parabola's lowest point.
  return slopeThrough(found).at0;
}
