import { clockOf, pointOnLine, type Frame } from '../frame';
import { middleOf, partNamed, partRule, spanCmOf, spanOf, zoneOf, type Part, type Placement } from '../part';
import type { ZoneName } from '../sport';

/** One kind of piece to cut or weigh, and where it goes. */
export interface Cut {
  placementId: string;
  zone: ZoneName;
  /** What it is made of; undefined where the part is not known any more. */
  part: Part | undefined;
  /** It is cut to a length, or it is weighed and filled in. */
  cut: boolean;
  /** How many pieces of this length: sides times layers. */
  pieces: number;
  layers: number;
  /** Strips lie beside one another on every other bevel of the handle, not in layers. */
  onBevels: boolean;
  sides: 1 | 2;
  massG: number;
  pieceG: number;
  lengthCm: number;
  /** Start and end. On the hoop measured along it from the tip; elsewhere from the butt along the long axis, cm. */
  measuredFrom: 'tip' | 'butt';
  startCm: number;
  endCm: number;
  /** Clock hour of the middle of a piece on the hoop, right side. */
  clock?: number;
  /** Clock hours of its start and end, right side. */
  clocks?: [number, number];
  slot?: number;
}

/**
 * The cut list of placements: for each the pieces with length, layers, and start and end along the frame.
 * @param parts what the placements are made of; a point is laid as one dab at its place
 * @example cutList(frame, placements, parts)[0].startCm // 8.5
 */
export function cutList(frame: Frame, placements: readonly Placement[], parts: readonly Part[]): Cut[] {
  return placements.map((placement): Cut => {
    const part = partNamed(parts, placement.partId);
    const { line, startCm, endCm } = spanOf(frame, placement);
    const { id, massG, layers, sides } = placement;
    const clockAt = (cm: number): number => clockOf(frame, pointOnLine(frame, 'rim', cm));
    const along = (cm: number): number => (line === 'rim' ? cm : pointOnLine(frame, line, cm).xCm);
    const pieces = sides * layers;
    return {
      placementId: id,
      zone: zoneOf(frame, placement),
      part,
      cut: part ? partRule(part).lie !== 'column' && partRule(part).lie !== 'point' : line !== 'handle',
      pieces,
      layers,
      onBevels: line === 'handle' && part !== undefined && partRule(part).onHandle !== undefined,
      sides,
      massG,
      pieceG: massG / pieces,
      lengthCm: spanCmOf(placement),
      measuredFrom: line === 'rim' ? 'tip' : 'butt',
      startCm: along(startCm),
      endCm: along(endCm),
      ...(line === 'rim'
        ? {
            clock: clockOf(frame, middleOf(frame, placement)),
            clocks: [clockAt(startCm), clockAt(endCm)],
          }
        : {}),
      ...(placement.path === 'slot' ? { slot: placement.slot } : {}),
    };
  });
}
