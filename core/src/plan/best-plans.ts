import { settleFrame } from '../frame';
import { zoneOf } from '../part';
import type { ZoneName } from '../sport';
import type { Plan } from './made-plan';
import { makePlans, type PlanRequest } from './plan';
import { bestFirst } from './ranking';
import type { School } from './schools';

/**
 * The best plan of a school and the next best ones that do without at least one of the places used before: distinct plans, best first.
 * @param count how many at most
 * @example bestPlans(request, 3).length // 3, or fewer where there is no other way
 */
export function bestPlans(request: PlanRequest, count = 3, school: School = 'free'): Plan[] {
  const frame = settleFrame(request.shape);
  const solved = (without: ReadonlySet<ZoneName>): { plan: Plan; without: ReadonlySet<ZoneName> } => {
    const caps = { ...request.caps };
    for (const zone of without) caps[zone] = 0;
    const [plan] = makePlans({ ...request, caps, schools: [school] });
    return { plan: plan as Plan, without };
  };
  const used = ({ placements }: Plan): ZoneName[] => placements.map((p) => zoneOf(frame, p));
  // Each plan found splits what is left: the next best does without one of its places (Lawler 1972; from memory).
  const open = [solved(new Set())];
  const found: Plan[] = [];
  const seen = new Set<string>();
  while (found.length < count && open.length > 0) {
    const [best] = bestFirst(
      open.map((candidate) => candidate.plan),
      request.margin,
    );
    const index = open.findIndex((candidate) => candidate.plan === best);
    const [candidate] = open.splice(index, 1);
    if (!candidate) break;
    const key = used(candidate.plan).toSorted().join(' ');
    if (!seen.has(key)) {
      seen.add(key);
      found.push(candidate.plan);
      for (const zone of used(candidate.plan)) open.push(solved(new Set([...candidate.without, zone])));
    }
  }
  return found;
}
