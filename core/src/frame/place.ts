import { Fault } from '../fault';
import type { Zone, ZoneName } from '../sport';
import { angleOfClock, atAngle, type OnOutline, type Outline } from './outline';
import type { Point } from './segment';
import type { Frame } from './shape';

/** A place that a fitter can name: a clock hour of the head, a point in cm, or a zone. */
export type Spot = { clock: number } | { xCm: number; yCm?: number } | { zone: ZoneName };

/** Where weight lies: on the head's edge at an arc length from the tip, in the handle, or at a free point. */
export type Place =
  ({ on: 'rim'; arcCm: () => number } & Point) | ({ on: 'handle' } & Point) | ({ on: 'free' } & Point);

/** A point this near to the edge is taken to lie on it, so that a strip there follows it, cm. */
const ON_RIM_CM = 0.5;

/** Where the throat's limb meets the hoop, as a clock hour; a drawing and placing convention. */
const LIMB_TOP_CLOCK = 4.5;

export function zoneNamed(frame: Frame, name: ZoneName): Zone {
  const zone = frame.sport.zones.find((z) => z.name === name);
  if (!zone) throw new Fault({ code: 'spot-off-frame', path: 'at.zone', values: { zone: name } });
  return zone;
}

/** Where the limb meets the hoop, kept by head: every place on the throat asks for it. */
const tops = new WeakMap<Outline, Point>();
function limbTop({ head }: Frame): Point {
  let top = tops.get(head);
  if (!top) tops.set(head, (top = atAngle(head, angleOfClock(LIMB_TOP_CLOCK))));
  return top;
}

function limbPoint(frame: Frame, share: number): Point {
  const top = limbTop(frame);
  return {
    xCm: frame.handleLengthCm + share * (top.xCm - frame.handleLengthCm),
    yCm: frame.handleRadiusCm + share * (top.yCm - frame.handleRadiusCm),
  };
}

/** The point of the throat at a share of the way from the handle to the head: on a limb, or on the shaft. */
export function throatPoint(frame: Frame, share: number): Point {
  if (frame.sport.throat === 'limbs') return limbPoint(frame, share);
  const { head, handleLengthCm } = frame;
  const bottom = head.centreXCm - head.alongCm;
  return { xCm: handleLengthCm + share * (bottom - handleLengthCm), yCm: 0 };
}

const onRim = ({ xCm, yCm, arcCm }: OnOutline): Place => ({ on: 'rim', xCm, yCm, arcCm });

function zonePlace(frame: Frame, zone: Zone): Place {
  switch (zone.path) {
    case 'rim':
      return onRim(atAngle(frame.rim, angleOfClock(zone.at)));
    case 'throat':
      return { on: 'free', ...throatPoint(frame, zone.at) };
    case 'handle':
      return { on: 'handle', xCm: zone.at * frame.handleLengthCm, yCm: 0 };
  }
}

function requireOnFrame({ head, lengthCm }: Frame, xCm: number, yCm: number): void {
  if (!(xCm >= 0 && xCm <= lengthCm) || !(Math.abs(yCm) <= head.acrossCm + ON_RIM_CM)) {
    throw new Fault({ code: 'spot-off-frame', path: 'at', values: { xCm, yCm, lengthCm } });
  }
}

function pointPlace(frame: Frame, xCm: number, yCm: number): Place {
  const { rim } = frame;
  requireOnFrame(frame, xCm, yCm);
  if (xCm <= frame.handleLengthCm && Math.abs(yCm) <= 2 * frame.handleRadiusCm)
    return { on: 'handle', xCm, yCm };
  const edge = atAngle(rim, Math.atan2(yCm, xCm - rim.centreXCm));
  // The point given is kept; only a strip's path is taken from the edge. All of the hoop's width is on the hoop.
  const near = ON_RIM_CM + frame.hoopCm / 2;
  if (Math.hypot(edge.xCm - xCm, edge.yCm - yCm) <= near) return { on: 'rim', xCm, yCm, arcCm: edge.arcCm };
  return { on: 'free', xCm, yCm };
}

/** Only the point of a spot: quicker than its place, where nothing follows the edge. @throws Fault `spot-off-frame` */
export function pointOfSpot(frame: Frame, spot: Spot): Point {
  if (!('xCm' in spot)) return placeOf(frame, spot);
  const { xCm, yCm = 0 } = spot;
  requireOnFrame(frame, xCm, yCm);
  return { xCm, yCm };
}

/**
 * Turns a spot into a place on the frame.
 * @param spot clock hour 0–12 (12 is the tip, a polar angle from the middle of the head), cm from the butt and the long axis, or a zone
 * @throws Fault `spot-off-frame`
 * @example placeOf(settleFrame({ sport: 'tennis', lengthCm: 68.58 }), { clock: 12 }).xCm // 68.58
 */
export function placeOf(frame: Frame, spot: Spot): Place {
  if ('zone' in spot) return zonePlace(frame, zoneNamed(frame, spot.zone));
  if ('clock' in spot) {
    if (!(spot.clock >= 0 && spot.clock <= 12)) {
      throw new Fault({ code: 'spot-off-frame', path: 'at.clock', values: { clock: spot.clock } });
    }
    return onRim(atAngle(frame.rim, angleOfClock(spot.clock)));
  }
  return pointPlace(frame, spot.xCm, spot.yCm ?? 0);
}

/** Clock hour of a place on the edge, 0 (the tip) to 12; 3 has positive y. */
export function clockOf(frame: Frame, place: Point): number {
  const angle = Math.atan2(place.yCm, place.xCm - frame.rim.centreXCm);
  return (angle / (Math.PI / 6) + 12) % 12 || 12;
}

/** The limb of the throat on the side with positive y, from the handle to the hoop, for drawing. */
export const limb = (frame: Frame): [Point, Point] => [limbPoint(frame, 0), limbPoint(frame, 1)];

/** The zone whose middle lies nearest to a distance from the butt, whatever side it is on: how a fitter would say where that is. */
export function zoneAlong(frame: Frame, xCm: number): ZoneName {
  const [first, ...rest] = frame.sport.zones;
  const far = (zone: Zone): number => Math.abs(zonePlace(frame, zone).xCm - xCm);
  return rest.reduce((best, zone) => (far(zone) < far(best) ? zone : best), first as Zone).name;
}
