import type { AxisSpecs } from '../mass';
import type { Placement } from '../part';
import type { KnownSpecs } from '../spec';
import type { Readings } from './instruments';
import type { Removal, Swap } from './change';
import type { Score } from './problem';
import type { School } from './schools';

/** A way to an aim, with what it makes of the frame and how good it is. */
export interface Plan {
  school: School;
  placements: Placement[];
  specs: AxisSpecs;
  deviation: KnownSpecs;
  withinTolerance: boolean;
  places: number;
  addedG: number;
  swaps: Swap[];
  removals: Removal[];
  /** Probability that the check passes with these readings, 0 to 1. */
  chance: number;
  /** Probability that the true values are in tolerance, 0 to 1. */
  truly: number;
  /** How often each spec is to be read at start and check. */
  readings: Readings;
  /** It keeps the tolerances less the errors of build and readings. */
  guarded: boolean;
  /** Nothing better exists in the programme that it was made by. */
  proven: boolean;
  /** Where not proven: the least that any plan could lie outside the tolerances, in tolerances. */
  bound?: number;
  /** By what it is ranked, outside the plain tolerances. */
  score: Score;
}
