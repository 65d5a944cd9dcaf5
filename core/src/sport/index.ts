import { badminton } from './badminton';
import { padel } from './padel';
import { pickleball } from './pickleball';
import type { Sport, SportData } from './sport';
import { tennis } from './tennis';

export type { Family, ShapeLimit, Sport, SportData, Zone, ZoneName } from './sport';

export const SPORTS: Record<Sport, SportData> = { tennis, pickleball, padel, badminton };

/** The hand axis of every sport, cm from the butt. */
export const AXIS_CM: Record<Sport, number> = {
  tennis: tennis.axisCm,
  pickleball: pickleball.axisCm,
  padel: padel.axisCm,
  badminton: badminton.axisCm,
};

/** The data of a sport. @example sportData('tennis').axisCm // 10.16 */
export const sportData = (sport: Sport): SportData => SPORTS[sport];
