import type { MassSums } from '../mass';
import {
  angleOfClock,
  atAngle,
  lineLength,
  pointOnLine,
  zoneMiddle,
  type Frame,
  type Line,
  lineStart,
} from '../frame';
import { partRule, pieceSums, type Amount, type Part, type Placement } from '../part';
import type { Zone, ZoneName } from '../sport';
import type { Removal, Swap } from './change';

/** A placement that has no name of its own yet. */
export type Unnamed = Placement extends infer P ? (P extends unknown ? Omit<P, 'id'> : never) : never;

/** One way to fill a zone, or one swap or removal, and what it adds up to. */
export interface ZoneOption {
  massG: number;
  sums: MassSums;
  /** Where and what it would be; made when it is asked for, since few of many are chosen. */
  placement?: () => Unnamed;
  swap?: Swap;
  removal?: Removal;
}

/** All ways to fill a zone except leaving it empty, place by place, lightest first at each. */
export interface ZoneColumn {
  /** The zone it fills; undefined for a swap or a removal. */
  zone: ZoneName | undefined;
  options: ZoneOption[];
  /** Options that lie at one place, in whatever part. */
  lines: { from: number; to: number }[];
  /** Each piece adds the same, so a solver may count pieces instead of choosing among options. */
  linear: boolean;
}

const EPS = 1e-9;
/** What pieces are called that are no part of a shop's: plain grams at a point. */
const PLAIN_GRAMS = 'grams';

/** Pieces may lie every so many cm along their line. */
const POSITION_STEP_CM = 1;

/** What of a zone a piece may cover: along its line, both ends. */
function extentOf(frame: Frame, zone: Zone): [number, number] {
  const [from, to] = zone.extent;
  if (zone.path !== 'rim') return [from * lineLength(frame, zone.path), to * lineLength(frame, zone.path)];
  const arc = (hour: number): number =>
    hour >= 6 ? frame.rim.sideCm : atAngle(frame.rim, angleOfClock(hour)).arcCm();
  return [arc(from), arc(to)];
}

/** How far from the zone's middle pieces may lie: every centimetre both ways; the middle itself comes first. */
function shiftsOf([from, to]: readonly [number, number], middleCm: number): number[] {
  const count = (cm: number): number => Math.max(0, Math.floor(cm / POSITION_STEP_CM + EPS));
  const down = Array.from({ length: count(middleCm - from) }, (_, i) => -(i + 1) * POSITION_STEP_CM);
  const up = Array.from({ length: count(to - middleCm) }, (_, i) => (i + 1) * POSITION_STEP_CM);
  return [0, ...down, ...up];
}

/** Whether a place of a line lies off the long axis, so that pieces there come in pairs. */
export const sidesAt = (frame: Frame, line: Line, alongCm: number): 1 | 2 =>
  Math.abs(pointOnLine(frame, line, alongCm).yCm) > EPS ? 2 : 1;

/** What a zone is filled with. */
export interface Filling {
  /** The parts that may be used, or the quantum in g of a placement (both sides together) where weight is taken as a point. */
  pieces: readonly Part[] | number;
  /** The most the zone takes, both sides together, g. */
  capG: number;
  /** No piece is smaller, g; as the sport ships if left out. Grams at a point are no pieces. */
  leastG?: number | undefined;
  /** Only at the zone's middle. */
  atMiddle?: boolean | undefined;
}

/**
 * All ways to fill a zone: each part in each amount, at the zone's middle and every centimetre along its line as far as the piece lies within the zone.
 * @example zoneColumn(frame, zone, { pieces: [tape], capG: 8 }).options.length
 */
export function zoneColumn(
  frame: Frame,
  zone: Zone,
  { pieces, capG, leastG = frame.sport.smallestPieceG, atMiddle }: Filling,
): ZoneColumn {
  const extent = extentOf(frame, zone);
  const middleCm = zoneMiddle(frame, zone);
  const shifts = atMiddle || zone.slot !== undefined ? [0] : shiftsOf(extent, middleCm);
  const options: ZoneOption[] = [];
  const lines: ZoneColumn['lines'] = [];
  const lengthCm = lineLength(frame, zone.path);
  const amounts = ([1, 2] as const).map((sides) =>
    amountsOf(zone, pieces, capG, sides).filter(
      ({ part, amount }) => !part || amount.massG / sides >= leastG - EPS,
    ),
  );
  for (const shiftCm of shifts) {
    const middle = middleCm + shiftCm;
    const sides = sidesAt(frame, zone.path, middle);
    const low = lineStart(frame, zone.path, sides);
    const from = options.length;
    for (const { part, partId, amount } of amounts[sides - 1] ?? []) {
      const { massG, spanCm, layers } = amount;
      const half = spanCm / 2;
      // At the zone's own middle a piece may reach beyond it.
      if (shiftCm !== 0 && (middle - half < extent[0] - EPS || middle + half > extent[1] + EPS)) continue;
      const startCm = Math.max(low, Math.min(lengthCm - spanCm, middle - half));
      const slot = zone.slot;
      const sums =
        slot === undefined
          ? pieceSums(frame, zone.path, startCm, startCm + spanCm, massG, part)
          : pieceSums(frame, zone.path, middle, middle, massG, part);
      const placement = (): Unnamed => {
        const base = { partId, sides, layers, massG };
        return slot === undefined
          ? { ...base, path: zone.path, startCm, endCm: startCm + spanCm }
          : { ...base, path: 'slot', slot };
      };
      options.push({ massG, sums, placement });
    }
    if (options.length > from) lines.push({ from, to: options.length });
  }
  return { zone: zone.name, options, lines, linear: typeof pieces === 'number' && lines.length === 1 };
}

/** Every amount of every part that a zone takes. */
function amountsOf(
  zone: Zone,
  pieces: readonly Part[] | number,
  capG: number,
  sides: 1 | 2,
): { part?: Part; partId: string; amount: Amount }[] {
  if (typeof pieces === 'number') {
    const most = Math.floor(capG / pieces + EPS);
    return Array.from({ length: most }, (_, i) => ({
      partId: PLAIN_GRAMS,
      amount: { massG: (i + 1) * pieces, spanCm: 0, layers: 1 },
    }));
  }
  const path = zone.slot === undefined ? zone.path : 'slot';
  const all = pieces.flatMap((part) => {
    const rule = partRule(part);
    if (!rule.paths.includes(path)) return [];
    return rule
      .amounts(part, { capG, roomCm: zone.roomCm, sides, path })
      .map((amount) => ({ part, partId: part.id, amount }));
  });
  return all.toSorted((a, b) => a.amount.massG - b.amount.massG);
}
