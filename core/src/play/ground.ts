import type { AxisSpecs, Specs } from '../mass';
import type { AnySport } from '../sport';
import type { Day, Noted } from './felt';
import type { Played, ProgrammeRequest, ZoneChange } from './programme';

/** What the rules of a programme look at. */
export interface Ground {
  history: readonly Played[];
  last: Played;
  felt: Noted;
  sport: AnySport;
  bed: ProgrammeRequest['bed'];
  /** All that lies on by now, what was there before the programme too. */
  on: readonly ZoneChange[];
  there: readonly ZoneChange[];
  towards: ProgrammeRequest['towards'];
  happiest: ProgrammeRequest['happiest'];
  day: Day;
  steps: { tipG: number; pairG: number; handleG: number };
  specsWith: (more: readonly ZoneChange[]) => AxisSpecs;
  /** Before the first change. */
  start: Specs;
  /** The highest swing weight that was carried without getting tired. */
  carried: number;
  /** Whether a change makes the frame heavier or harder to swing. */
  loads: (change: readonly ZoneChange[]) => boolean;
  /** What makes it lighter: the last change back, what the programme put on, or a share of all. */
  lighter: () => ZoneChange[];
}
