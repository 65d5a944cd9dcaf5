import {
  lineLength,
  lineStart,
  placeOf,
  pointOnLine,
  slotsOf,
  type Frame,
  type Line,
  type Spot,
} from '../frame';
import { zoneOf, type Placement } from '../part';
import { middleOf, spanCmOf } from '../part';
import type { ZoneName } from '../sport';

/** A placement as the computation over HTTP says it: a point with its zone, mirrored or not. */
export interface SpotPlacement {
  zone: ZoneName;
  massG: number;
  xCm: number;
  yCm: number;
  mirrored: boolean;
  spanCm?: number;
  layers?: number;
}

/** A placement as a spot. @example asSpot(frame, placement).zone // 'sides' */
export function asSpot(frame: Frame, placement: Placement): SpotPlacement {
  const { xCm, yCm } = middleOf(frame, placement);
  const spanCm = spanCmOf(placement);
  return {
    zone: zoneOf(frame, placement),
    massG: placement.massG,
    xCm,
    yCm,
    mirrored: placement.sides === 2,
    ...(spanCm > 0 ? { spanCm, layers: placement.layers } : {}),
  };
}

/** The line that a spot lies on, and how far along. */
function onLine(frame: Frame, spot: Spot): { line: Line; alongCm: number } {
  const place = placeOf(frame, spot);
  if (place.on === 'rim') return { line: 'rim', alongCm: Math.abs(place.arcCm()) };
  if (place.on === 'handle') return { line: 'handle', alongCm: place.xCm };
  const [from, to] = [
    pointOnLine(frame, 'throat', 0),
    pointOnLine(frame, 'throat', lineLength(frame, 'throat')),
  ];
  if (frame.sport.throat !== 'none' && place.xCm <= to.xCm) {
    const share = (place.xCm - from.xCm) / (to.xCm - from.xCm);
    return { line: 'throat', alongCm: Math.min(1, Math.max(0, share)) * lineLength(frame, 'throat') };
  }
  // Somewhere on the face: it is held by the rim beside it.
  const angle = Math.atan2(Math.abs(place.yCm), place.xCm - frame.rim.centreXCm);
  const edge = placeOf(frame, { clock: (angle / (Math.PI / 6)) % 12 });
  return { line: 'rim', alongCm: edge.on === 'rim' ? Math.abs(edge.arcCm()) : 0 };
}

/** A weight that is said by its spot, as a placement along the frame's lines. @throws Fault `spot-off-frame` */
export function fromSpot(
  frame: Frame,
  {
    at,
    massG,
    mirrored,
    spanCm = 0,
    layers = 1,
  }: { at: Spot; massG: number; mirrored?: boolean; spanCm?: number; layers?: number },
  named: { id: string; partId: string },
): Placement {
  const slot = 'zone' in at ? slotsOf(frame).find(({ name }) => name === at.zone)?.slot : undefined;
  const twin = Math.abs(placeOf(frame, at).yCm) > 1e-9 && (mirrored ?? true);
  const base = { ...named, sides: twin ? (2 as const) : (1 as const), layers, massG };
  if (slot !== undefined) return { ...base, path: 'slot', slot };
  const { line, alongCm } = onLine(frame, at);
  const length = lineLength(frame, line);
  // Across the tip a strip lies on both sides at once.
  const low = lineStart(frame, line, base.sides);
  const startCm = Math.max(low, Math.min(length - spanCm, alongCm - spanCm / 2));
  return { ...base, path: line, startCm, endCm: startCm + Math.min(spanCm, length - low) };
}

/** The inverse of {@link asSpot}: a slot is its zone, anything else lies where it is said. @throws Fault `spot-off-frame` */
export function ofSpot(frame: Frame, { zone, xCm, yCm, ...rest }: SpotPlacement, id: string): Placement {
  const inSlot = slotsOf(frame).some(({ name }) => name === zone);
  return fromSpot(frame, { ...rest, at: inSlot ? { zone } : { xCm, yCm } }, { id, partId: 'spot' });
}
