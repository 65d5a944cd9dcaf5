import { badminton } from './badminton';
import { padel } from './padel';
import { pickleball } from './pickleball';
import type { Dress } from './kit';
import type { Sport, SportData } from './sport';
import { tennis } from './tennis';

export { GUIDES, type Guide, type GuideName } from './guide';
export { withOwn, type OwnNumbers } from './own-numbers';
export { BASE_GRIPS, type BaseGrip, type Dress, type TypicalPart, type TypicalParts } from './kit';
export {
  type GuideChoice,
  ALL_SPORTS,
  ALL_ZONES,
  HOOP_PLACES,
  type Family,
  type HoopPlace,
  type Path,
  type ShapeLimit,
  type Sport,
  type Stringing,
  type SportData,
  type Stroke,
  type StrokeName,
  type Zone,
  type ZoneName,
} from './sport';

/** Every sport there is; a new one is one file and one entry here. */
export const SPORTS: Record<Sport, SportData> = { tennis, pickleball, padel, badminton };

/** The data of a sport. @example sportData('tennis').axisCm // 10.16 */
export const sportData = (sport: Sport): SportData => SPORTS[sport];

/** A sport by its name, or its data as a shop has them. */
export type AnySport = Sport | SportData;
export const dataOf = (sport: AnySport): SportData => (typeof sport === 'string' ? sportData(sport) : sport);

/** What frames of a sport are usually measured and published with: a base grip, and strings where it has any (common practice). @example usualDress('padel') // { baseGrip: 'synthetic' } */
export const usualDress = (sport: Sport): Dress => ({
  ...SPORTS[sport].dress.bare,
  ...(isStrung(sport) ? { strings: true } : {}),
});

/** Whether frames of a sport have strings. @example isStrung('padel') // false */
export const isStrung = (sport: Sport): boolean => SPORTS[sport].dress.components.includes('strings');
