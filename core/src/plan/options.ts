import type { MassSums } from '../mass';
import { lineLength, zoneMiddle, type Frame } from '../frame';
import { hasTwin, partRule, placementSums, type Amount, type Part, type Placement } from '../part';
import type { Zone, ZoneName } from '../sport';
import type { Removal, Swap } from './change';

/** A placement that has no name of its own yet. */
export type Unnamed = Placement extends infer P ? (P extends unknown ? Omit<P, 'id'> : never) : never;

/** One way to fill a zone, or one swap or removal, and what it adds up to. */
export interface ZoneOption {
  massG: number;
  sums: MassSums;
  placement?: Unnamed;
  swap?: Swap;
  removal?: Removal;
}

/** All ways to fill a zone except leaving it empty, lightest first. */
export interface ZoneColumn {
  /** The zone it fills; undefined for a swap or a removal. */
  zone: ZoneName | undefined;
  options: ZoneOption[];
  /** Each piece adds the same, so a solver may count pieces instead of choosing among options. */
  linear: boolean;
}

const EPS = 1e-9;
/** What pieces are called that are no part of a shop's: plain grams at a point. */
const PLAIN_GRAMS = 'grams';

/** An amount laid around the middle of a zone. */
function laid(frame: Frame, zone: Zone, partId: string, sides: 1 | 2, amount: Amount): Unnamed {
  const { massG, spanCm, layers } = amount;
  const base = { partId, sides, layers, massG };
  if (zone.slot !== undefined) return { ...base, path: 'slot', slot: zone.slot };
  const middle = zoneMiddle(frame, zone);
  const length = lineLength(frame, zone.path);
  const low = zone.path === 'rim' && sides === 1 ? -length : 0;
  const startCm = Math.max(low, Math.min(length - spanCm, middle - spanCm / 2));
  return { ...base, path: zone.path, startCm, endCm: startCm + spanCm };
}

/**
 * All ways to fill a zone.
 * @param pieces the parts that may be used, or the quantum in g of a placement (both sides together) where weight is taken as a point
 * @param capG the most the zone takes, both sides together
 */
export function zoneColumn(
  frame: Frame,
  zone: Zone,
  pieces: readonly Part[] | number,
  capG: number,
): ZoneColumn {
  const none = laid(frame, zone, '', 1, { massG: 0, spanCm: 0, layers: 1 });
  const sides = hasTwin(frame, { ...none, id: '' }) ? 2 : 1;
  const option = (partId: string, amount: Amount, part?: Part): ZoneOption => {
    const placement = laid(frame, zone, partId, sides, amount);
    return {
      massG: amount.massG,
      placement,
      sums: placementSums(frame, { ...placement, id: '' }, part),
    };
  };
  if (typeof pieces === 'number') {
    const most = Math.floor(capG / pieces + EPS);
    const options = Array.from({ length: most }, (_, i) =>
      option(PLAIN_GRAMS, { massG: (i + 1) * pieces, spanCm: 0, layers: 1 }),
    );
    return { zone: zone.name, options, linear: true };
  }
  const path = zone.slot === undefined ? zone.path : 'slot';
  const options = pieces.flatMap((part) => {
    const rule = partRule(part);
    if (!rule.paths.includes(path)) return [];
    return rule
      .amounts(part, { capG, roomCm: zone.roomCm, sides })
      .map((amount) => option(part.id, amount, part));
  });
  return { zone: zone.name, options: options.toSorted((a, b) => a.massG - b.massG), linear: false };
}
