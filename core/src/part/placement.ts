import { Fault } from '../fault';
import {
  lineLength,
  pointAtArc,
  pointOnLine,
  rimLine,
  slotsOf,
  zoneAt,
  zoneMiddle,
  type Frame,
  type Line,
  type Point,
} from '../frame';
import {
  handleColumn,
  handleWrap,
  point,
  rimStrip,
  segmentStrip,
  straightStrip,
  type MassSums,
} from '../mass';
import type { HoopPlace, ZoneName } from '../sport';
import { lyingOn, partNamed, partRule, type Part } from './part';
import type { Lie } from './rule';

interface OfPart {
  id: string;
  /** The part it is made of. */
  partId: string;
  /** 2: half of it on each side of the long axis. */
  sides: 1 | 2;
  layers: number;
  /** The whole mass, both sides and all layers, g. */
  massG: number;
}

/**
 * Weight at a place of the frame: of a plan, of a build, or what is on it. Along a line from `startCm` to `endCm`: on the rim from the tip (negative on
 * the side with negative y), on the throat from the handle, in the handle from the butt; equal for a point. Or in a slot, by its number.
 */
export type Placement = OfPart &
  (
    | {
        path: Line;
        startCm: number;
        endCm: number;
        /** Where on the hoop, of what lies on the rim; the sport's usual place if left out. */
        hoop?: HoopPlace | undefined;
      }
    | { path: 'slot'; slot: number }
  );

/** Radius that a filling of the handle takes up, cm: inside of the shell, under the grip. */
const FILLING_RADIUS_CM = 1;
const GRIP_THICKNESS_CM = 0.15;

/** The line a placement lies on and from where to where; of a slot its middle. @throws Fault `spot-off-frame` for a slot that the frame lacks */
export function spanOf(frame: Frame, placement: Placement): { line: Line; startCm: number; endCm: number } {
  if (placement.path !== 'slot') {
    const { path, startCm, endCm } = placement;
    return { line: path, startCm, endCm };
  }
  const zone = slotsOf(frame).find(({ slot }) => slot === placement.slot);
  if (!zone) throw new Fault({ code: 'spot-off-frame', path: 'placement', values: { slot: placement.slot } });
  const middle = zoneMiddle(frame, zone);
  return { line: zone.path, startCm: middle, endCm: middle };
}

/** The middle of a placement, on its side with positive y. */
export function middleOf(frame: Frame, placement: Placement): Point & { line: Line; alongCm: number } {
  const { line, startCm, endCm } = spanOf(frame, placement);
  const alongCm = (startCm + endCm) / 2;
  return { line, alongCm, ...pointOnLine(frame, line, alongCm) };
}

export const spanCmOf = (placement: Placement): number =>
  placement.path === 'slot' ? 0 : placement.endCm - placement.startCm;

/** What a placement is called: the zone in which its middle lies now, or its slot. */
export function zoneOf(frame: Frame, placement: Placement): ZoneName {
  if (placement.path === 'slot') {
    return slotsOf(frame).find(({ slot }) => slot === placement.slot)?.name ?? 'throat';
  }
  return zoneAt(frame, placement.path, (placement.startCm + placement.endCm) / 2);
}

/** How pieces of an unknown part lie: as strips, and in the handle as a filling. */
const usualLie = (line: Line): Lie => (line === 'handle' ? 'column' : 'strip');

/**
 * What a placement adds: a strip along the rim or the throat, a filling or a wrap of the handle, or a point. Both sides of a pair add the same.
 * @param part what it is made of; without one it lies as is usual on its line
 * @example placementSums(frame, { path: 'rim', startCm: -5, endCm: 5, massG: 4, … }, tape).massG // 4
 */
export function placementSums(frame: Frame, placement: Placement, part?: Part): MassSums {
  const { line, startCm, endCm } = spanOf(frame, placement);
  const hoop = placement.path === 'rim' ? placement.hoop : undefined;
  return pieceSums(frame, line, startCm, endCm, placement.massG, part, hoop);
}

/** What so many grams from one length of a line to another add. */
export function pieceSums(
  frame: Frame,
  line: Line,
  startCm: number,
  endCm: number,
  massG: number,
  part?: Part,
  hoop?: HoopPlace,
): MassSums {
  const lie = part ? lyingOn(part, line).lie : usualLie(line);
  const spanCm = endCm - startCm;
  const middle = (startCm + endCm) / 2;
  const rim = hoop === undefined ? frame.rim : rimLine(frame, hoop);
  // Another line of the hoop is as much longer or shorter all along.
  const scale = rim.sideCm / frame.rim.sideCm;
  if (lie === 'point' || !(spanCm > 0)) {
    const at = line === 'rim' ? pointAtArc(rim, scale * middle) : pointOnLine(frame, line, middle);
    return point(massG, at.xCm, at.yCm);
  }
  if (line === 'rim') return rimStrip(massG, rim, scale * startCm, scale * endCm);
  if (line === 'throat') {
    return segmentStrip(massG, pointOnLine(frame, line, startCm), pointOnLine(frame, line, endCm));
  }
  if (lie === 'column') return handleColumn(massG, middle, spanCm, FILLING_RADIUS_CM);
  // What lies on the bevels lies under the grip, a wound strip as thick as one around them.
  const over = part && partRule(part).onHandle ? 0 : GRIP_THICKNESS_CM;
  if (lie === 'wrap') return handleWrap(massG, middle, spanCm, frame.handleRadiusCm + over);
  return straightStrip(massG, middle, frame.handleRadiusCm, spanCm);
}

/**
 * What weight on one side only makes of left and right: Σ m y over the head's half width, as grams at its widest part. Positive where the side with positive
 * y is heavier; pairs and what lies on the axis count nothing.
 * @example leftRightOf(frame, [{ path: 'rim', sides: 1, startCm: 22, endCm: 24, massG: 2, … }]) // nearly 2
 */
export function leftRightOf(frame: Frame, placements: readonly Placement[]): number {
  return placements.reduce((sum, placement) => {
    if (placement.sides === 2) return sum;
    const { yCm } = middleOf(frame, placement);
    return sum + (placement.massG * yCm) / frame.rim.acrossCm;
  }, 0);
}

/** What is wrong with placements on a frame: parts that are not named, places off the frame, masses that are none. */
export function placementProblems(
  frame: Frame,
  placements: readonly Placement[],
  parts: readonly Part[],
  path = 'placements',
): { code: 'spot-off-frame' | 'not-positive' | 'part-unknown' | 'span-not-positive'; path: string }[] {
  return placements.flatMap((p, i) => {
    const at = `${path}.${i}`;
    const problems: ReturnType<typeof placementProblems> = [];
    if (!partNamed(parts, p.partId)) problems.push({ code: 'part-unknown', path: `${at}.partId` });
    if (!(p.massG > 0)) problems.push({ code: 'not-positive', path: `${at}.massG` });
    if (p.path === 'slot') {
      if (!slotsOf(frame).some(({ slot }) => slot === p.slot))
        problems.push({ code: 'spot-off-frame', path: `${at}.slot` });
      return problems;
    }
    const length = lineLength(frame, p.path);
    const low = p.path === 'rim' ? -length : 0;
    const slack = 1e-6;
    if (!(p.startCm >= low - slack && p.endCm <= length + slack))
      problems.push({ code: 'spot-off-frame', path: `${at}.startCm` });
    if (!(p.endCm >= p.startCm)) problems.push({ code: 'span-not-positive', path: `${at}.endCm` });
    return problems;
  });
}
