import { Fault } from '../fault';
import type { Sport, SportData } from './sport';
import { tennis } from './tennis';

export type { Sport, SportData, Zone, ZoneName } from './sport';

/** The hand axis of every sport, cm from the butt (physics.md; common practice). */
export const AXIS_CM: Record<Sport, number> = { tennis: 10.16, badminton: 10.16, padel: 10, pickleball: 5 };

const KNOWN: Partial<Record<Sport, SportData>> = { tennis };

/**
 * The data of a sport.
 * @throws Fault `sport-not-computed` for a sport whose outline is not known yet
 * @example sportData('tennis').axisCm // 10.16
 */
export function sportData(sport: Sport): SportData {
  const data = KNOWN[sport];
  if (!data) throw new Fault({ code: 'sport-not-computed', path: 'shape.sport', values: { sport } });
  return data;
}
