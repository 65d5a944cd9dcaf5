import { clockOf, type Frame } from '../frame';
import { placementPlace, type Materials, type Placement } from '../plan';

/** One kind of piece to cut or weigh, and where it goes. */
export interface Cut {
  zone: Placement['zone'];
  material: string;
  /** How many pieces of this length: sides times layers. */
  pieces: number;
  layers: number;
  /** Each side. */
  sides: 1 | 2;
  massG: number;
  pieceG: number;
  widthMm?: number;
  lengthCm: number;
  /** Start and end. On the hoop measured along it from the tip; elsewhere from the butt along the long axis, cm. */
  measuredFrom: 'tip' | 'butt';
  startCm: number;
  endCm: number;
  /** Clock hour of the middle of a piece on the hoop, right side. */
  clock?: number;
}

/**
 * The cut list of a plan: for each placement the pieces with length, layers, and start and end along the frame.
 * @param materials the shop's; a placement without a span is laid as one dab at its place
 * @example cutList(frame, placements, materials)[0].startCm // 8.5
 */
export function cutList(frame: Frame, placements: readonly Placement[], materials: Materials): Cut[] {
  return placements.map((placement): Cut => {
    const place = placementPlace(frame, placement);
    const inHandle = place.on === 'handle';
    const sides = placement.mirrored ? 2 : 1;
    const layers = placement.layers ?? 1;
    const span = placement.spanCm ?? 0;
    const middle = place.on === 'rim' ? Math.abs(place.arcCm()) : placement.xCm;
    return {
      zone: placement.zone,
      material: inHandle ? materials.filling.name : materials.tape.name,
      pieces: sides * layers,
      layers,
      sides,
      massG: placement.massG,
      pieceG: placement.massG / (sides * layers),
      ...(inHandle ? {} : { widthMm: materials.tape.widthMm }),
      lengthCm: span,
      measuredFrom: place.on === 'rim' ? 'tip' : 'butt',
      startCm: middle - span / 2,
      endCm: middle + span / 2,
      ...(place.on === 'rim' ? { clock: clockOf(frame, place) } : {}),
    };
  });
}
