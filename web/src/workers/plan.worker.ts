import { expose } from 'comlink';
import {
  SCHOOLS,
  makePlans,
  matchFrames,
  trimPlans,
  type MatchRequest,
  type Matched,
  type Plan,
  type PlanRequest,
  type Trim,
  type TrimRequest,
} from '@kevro/core';
import { answered } from './answered';

const plans = {
  /** Plans school by school, so that the page can show how far it is. */
  make: (request: PlanRequest, onPart: (plans: Plan[], share: number) => void) =>
    answered((): Plan[] => {
      let made: Plan[] = [];
      const schools = request.schools ?? SCHOOLS;
      for (const [i, school] of schools.entries()) {
        made = [...made, ...makePlans({ ...request, schools: [school] })];
        onPart(made, (i + 1) / schools.length);
      }
      return made;
    }),
  /** Frames of a set brought to one target. */
  match: (request: MatchRequest) => answered((): Matched => matchFrames(request)),
  /** The smallest corrections of a build that was checked. */
  trim: (request: TrimRequest) => answered((): Trim[] => trimPlans(request)),
};
export type PlanWorker = typeof plans;
expose(plans);
