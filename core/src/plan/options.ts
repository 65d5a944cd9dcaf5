import { isMirrored, additionSums, type MassSums } from '../mass';
import { placeOf, type Frame } from '../frame';
import type { Zone, ZoneName } from '../sport';
import type { Materials } from './material';

/** One way to fill a zone, or one swap: whole pieces, their whole mass and what they add up to. */
export interface ZoneOption {
  massG: number;
  pieces: number;
  /** Length of a strip on each side, or of the filling; a point when left out. */
  spanCm?: number;
  layers: number;
  sums: MassSums;
  /** What a swap does. */
  name?: string;
}

/** All ways to fill a zone except leaving it empty, lightest first. */
export interface ZoneColumn {
  /** The zone it fills; undefined for a swap. */
  zone: ZoneName | undefined;
  xCm: number;
  yCm: number;
  mirrored: boolean;
  options: ZoneOption[];
  /** Each piece adds the same, so a solver may count pieces instead of choosing among options. */
  linear: boolean;
}

const EPS = 1e-9;

function pointOptions(frame: Frame, zone: Zone, quantumG: number, capG: number): ZoneOption[] {
  const most = Math.floor(capG / quantumG + EPS);
  return Array.from({ length: most }, (_, i) => {
    const massG = (i + 1) * quantumG;
    return { massG, pieces: i + 1, layers: 1, sums: additionSums(frame, { massG, at: { zone: zone.name } }) };
  });
}

function tapeOptions(
  frame: Frame,
  zone: Zone,
  { gPerCm, stepCm }: Materials['tape'],
  capG: number,
  sides: number,
): ZoneOption[] {
  const longest = Math.floor(zone.roomCm / stepCm + EPS);
  const options: ZoneOption[] = [];
  // Longer than the zone has room for: another layer of equal length on top, so lengths stay whole steps.
  for (let layers = 1, steps = 1; ; steps++) {
    if (steps > longest) {
      steps = Math.floor((longest * layers) / (layers + 1)) + 1;
      layers++;
    }
    const spanCm = steps * stepCm;
    const massG = sides * layers * gPerCm * spanCm;
    if (massG > capG + EPS) return options;
    options.push({
      massG,
      pieces: sides * layers,
      spanCm,
      layers,
      sums: additionSums(frame, { massG, at: { zone: zone.name }, spanCm }),
    });
  }
}

function fillingOptions(
  frame: Frame,
  zone: Zone,
  { dabG, gPerCm }: Materials['filling'],
  capG: number,
): ZoneOption[] {
  const most = Math.floor(Math.min(capG, zone.roomCm * gPerCm) / dabG + EPS);
  return Array.from({ length: most }, (_, i) => {
    const massG = (i + 1) * dabG;
    const spanCm = massG / gPerCm;
    return {
      massG,
      pieces: i + 1,
      spanCm,
      layers: 1,
      sums: additionSums(frame, { massG, at: { zone: zone.name }, spanCm }),
    };
  });
}

/**
 * All ways to fill a zone.
 * @param pieces the shop's materials, or the quantum in g of a placement (both sides together) where weight is taken as a point
 * @param capG the most the zone takes, both sides together
 */
export function zoneColumn(frame: Frame, zone: Zone, pieces: Materials | number, capG: number): ZoneColumn {
  const place = placeOf(frame, { zone: zone.name });
  const mirrored = isMirrored(place, undefined);
  let options: ZoneOption[];
  if (typeof pieces === 'number') options = pointOptions(frame, zone, pieces, capG);
  else if (zone.path === 'handle') options = fillingOptions(frame, zone, pieces.filling, capG);
  else options = tapeOptions(frame, zone, pieces.tape, capG, mirrored ? 2 : 1);
  return {
    zone: zone.name,
    xCm: place.xCm,
    yCm: place.yCm,
    mirrored,
    options,
    linear: typeof pieces === 'number',
  };
}
