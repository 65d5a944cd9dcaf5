import type { Frame, FrameShape } from '../frame';
import type { Part } from '../part';
import type { Zone } from '../sport';
import { zoneColumn, type ZoneColumn } from './options';
import { USUAL_QUANTUM_G } from './settle';

/** What columns are made of. */
export interface Pieces {
  shape: FrameShape;
  quantumG?: number | undefined;
  parts?: readonly Part[] | undefined;
  atMiddle?: boolean | undefined;
}

/**
 * Columns made before, by what they are made of: a fitter plans again and again for one frame and its parts, and every school uses the same zones.
 */
const made = new Map<string, Map<string, ZoneColumn>>();
const MOST_MADE = 8;
/** Caps of zones vary with what is locked: of each frame so many columns are kept. */
const MOST_COLUMNS = 60;

function columnsFor({ shape, parts, quantumG, atMiddle }: Pieces): Map<string, ZoneColumn> {
  const key = JSON.stringify([shape, parts, quantumG, atMiddle]);
  const known = made.get(key) ?? new Map<string, ZoneColumn>();
  made.delete(key);
  made.set(key, known);
  const [oldest] = made.keys();
  if (made.size > MOST_MADE && oldest !== undefined) made.delete(oldest);
  return known;
}

/** The column of each zone, made once. @param capOf the most that a zone takes, g */
export function zoneColumns(
  frame: Frame,
  zones: readonly Zone[],
  of: Pieces,
  capOf: (zone: Zone) => number,
): ZoneColumn[] {
  const columns = columnsFor(of);
  const pieces = of.parts ?? of.quantumG ?? USUAL_QUANTUM_G;
  return zones.map((zone) => {
    const capG = Math.max(0, capOf(zone));
    const key = `${zone.name} ${capG}`;
    const known = columns.get(key);
    if (known) return known;
    if (columns.size >= MOST_COLUMNS) columns.clear();
    const column = zoneColumn(frame, zone, { pieces, capG, atMiddle: of.atMiddle });
    columns.set(key, column);
    return column;
  });
}
