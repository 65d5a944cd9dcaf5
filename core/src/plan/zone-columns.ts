import type { Frame, FrameShape } from '../frame';
import { lyingOn, partRule, type Part } from '../part';
import type { Zone } from '../sport';
import { zoneColumn, type ZoneColumn } from './options';
import { USUAL_QUANTUM_G } from './settle';

/** What columns are made of. */
export interface Pieces {
  shape: FrameShape;
  quantumG?: number | undefined;
  parts?: readonly Part[] | undefined;
  atMiddle?: boolean | undefined;
  /** No piece is smaller, g. */
  leastG?: number | undefined;
}

/**
 * Columns made before, by what they are made of: a fitter plans again and again for one frame and its parts, and every school uses the same zones.
 */
const made = new Map<string, Map<string, ZoneColumn>>();
const MOST_MADE = 8;
/** Caps of zones vary with what is locked: of each frame so many columns are kept. */
const MOST_COLUMNS = 60;

function columnsFor({ shape, parts, quantumG, atMiddle, leastG }: Pieces): Map<string, ZoneColumn> {
  const key = JSON.stringify([shape, parts, quantumG, atMiddle, leastG]);
  const known = made.get(key) ?? new Map<string, ZoneColumn>();
  made.delete(key);
  made.set(key, known);
  const [oldest] = made.keys();
  if (made.size > MOST_MADE && oldest !== undefined) made.delete(oldest);
  return known;
}

/** What lies inside the handle, and what lies around it: a part of the handle takes both. */
const HANDLE_LAYERS = [
  (part: Part): boolean => lyingOn(part, 'handle').lie !== 'wrap',
  (part: Part): boolean => lyingOn(part, 'handle').lie === 'wrap',
];

/** With what each zone is filled: one column for each, and for a part of the handle two where parts go inside it and around it. */
function fillings(
  { path, capG, aroundG = capG }: Zone,
  pieces: readonly Part[] | number,
): { layer: number; pieces: readonly Part[] | number; share: number }[] {
  if (path !== 'handle' || typeof pieces === 'number') return [{ layer: 0, pieces, share: 1 }];
  const able = pieces.filter((part) => partRule(part).paths.includes('handle'));
  return HANDLE_LAYERS.map((lies, layer) => ({
    layer,
    pieces: able.filter(lies),
    share: layer === 0 ? 1 : aroundG / capG,
  })).filter(({ pieces: own }) => own.length > 0);
}

/** The columns of each zone, made once. @param capOf the most that a zone takes, g */
export function zoneColumns(
  frame: Frame,
  zones: readonly Zone[],
  of: Pieces,
  capOf: (zone: Zone) => number,
): ZoneColumn[] {
  const columns = columnsFor(of);
  const pieces = of.parts ?? of.quantumG ?? USUAL_QUANTUM_G;
  const all = zones.flatMap((zone) => fillings(zone, pieces).map((filling) => ({ zone, ...filling })));
  return all.map(({ zone, layer, pieces: own, share }) => {
    const capG = Math.max(0, capOf(zone)) * share;
    const key = `${zone.name} ${layer} ${capG}`;
    const known = columns.get(key);
    if (known) return known;
    if (columns.size >= MOST_COLUMNS) columns.clear();
    const column = zoneColumn(frame, zone, { pieces: own, capG, atMiddle: of.atMiddle, leastG: of.leastG });
    columns.set(key, column);
    return column;
  });
}
