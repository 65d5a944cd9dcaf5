import type { Path, Zone, ZoneName } from '../sport';
import { angleOfClock, atAngle, pointAtArc, tangentAtArc } from './outline';
import { clockOf, throatPoint } from './place';
import type { Point } from './segment';
import type { Frame } from './shape';

/** The lines of a frame that weight lies along; a slot is a place on one of them. */
export type Line = Exclude<Path, 'slot'>;

/**
 * How long a line is on one side, cm: the rim from the tip to the bottom of the head, the throat from the handle to the head, the handle from the butt.
 */
export function lineLength(frame: Frame, line: Line): number {
  switch (line) {
    case 'rim':
      return frame.rim.sideCm;
    case 'throat': {
      const [from, to] = [throatPoint(frame, 0), throatPoint(frame, 1)];
      return Math.hypot(to.xCm - from.xCm, to.yCm - from.yCm);
    }
    case 'handle':
      return frame.handleLengthCm;
  }
}

/** Where a piece may begin on a line, cm: one that lies alone across the tip reaches over to the other side of the rim. */
export const lineStart = (frame: Frame, line: Line, sides: 1 | 2): number =>
  line === 'rim' && sides === 1 ? -lineLength(frame, line) : 0;

/**
 * The point at a length along a line, cm: on the rim from the tip (negative on the side with negative y), on the throat from the handle, in the handle
 * from the butt.
 * @example pointOnLine(settleFrame({ sport: 'tennis', lengthCm: 68.58 }), 'rim', 0).xCm // 68.58
 */
export function pointOnLine(frame: Frame, line: Line, alongCm: number): Point {
  switch (line) {
    case 'rim':
      return pointAtArc(frame.rim, alongCm);
    case 'throat': {
      const length = lineLength(frame, 'throat');
      return throatPoint(frame, length > 0 ? alongCm / length : 0);
    }
    case 'handle':
      return { xCm: alongCm, yCm: 0 };
  }
}

/** The unit vector along a line at a length on its side with positive y: which way a piece slides that lies there. */
export function directionOnLine(frame: Frame, line: Line, alongCm: number): Point {
  if (line === 'rim') return tangentAtArc(frame.rim, alongCm);
  const [from, to] = [pointOnLine(frame, line, 0), pointOnLine(frame, line, lineLength(frame, line))];
  const length = Math.max(1e-9, lineLength(frame, line));
  return { xCm: (to.xCm - from.xCm) / length, yCm: (to.yCm - from.yCm) / length };
}

/** Where a zone's middle lies along its line, cm. */
export function zoneMiddle(frame: Frame, { path, at }: Zone): number {
  if (path === 'rim') return atAngle(frame.rim, angleOfClock(at)).arcCm();
  return at * lineLength(frame, path);
}

/** How far along a line a length is, as zones count it: a clock hour on the rim (0 is the tip), else a share of the way. */
function counted(frame: Frame, line: Line, alongCm: number): number {
  if (line !== 'rim') return alongCm / Math.max(1e-9, lineLength(frame, line));
  return clockOf(frame, pointAtArc(frame.rim, Math.abs(alongCm))) % 12;
}

/** The zone that a place on a line belongs to: what a weight that lies there is called. Slots are named by their number only. */
export function zoneAt(frame: Frame, line: Line, alongCm: number): ZoneName {
  const own = frame.sport.zones.filter((zone) => zone.path === line && zone.slot === undefined);
  const value = counted(frame, line, alongCm);
  const away = ({ extent: [from, to] }: Zone): number => Math.max(from - value, value - to, 0);
  const [first, ...rest] = own;
  const found = rest.reduce((best, zone) => (away(zone) < away(best ?? zone) ? zone : best), first);
  return found?.name ?? 'throat';
}

/** The slots of a frame, by their number. */
export const slotsOf = (frame: Frame): (Zone & { slot: number })[] =>
  frame.sport.zones.filter((zone): zone is Zone & { slot: number } => zone.slot !== undefined);
