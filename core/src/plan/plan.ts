import { PRIORITY_WEIGHT, aimProblems, deviationFrom, timesOff, withinTolerance, type Aim } from '../aim';
import type { KnownSpecs } from '../spec';
import { Fault } from '../fault';
import { settleFrame, type Frame, type FrameShape } from '../frame';
import { SPEC_KEYS, add, requireSpecs, specsOf, sumsOf, withAxis, type AxisSpecs, type Specs } from '../mass';
import type { ZoneName } from '../sport';
import type { Part, Placement } from '../part';
import type { Removal, Swap } from './change';
import { zoneColumn } from './options';
import { excessSteps, planRows, type PlanProblem } from './problem';
import { SCHOOLS, SCHOOL_RULES, type School } from './schools';
import { searchPlan, type Choice } from './search';
import { offerColumn, type Offer } from './swaps';

export interface PlanRequest {
  shape: FrameShape;
  specs: Specs;
  target: Aim;
  /** Empty or left out: the free optimum and every school. */
  schools?: readonly School[];
  /** The step of a placement's whole mass, g; 0.5 if left out. Not used where parts are given. */
  quantumG?: number;
  caps?: Partial<Record<ZoneName, number>>;
  /** What may be put on; without it, grams at a point. */
  parts?: readonly Part[];
  /** What may be changed beside putting weight on. */
  offers?: readonly Offer[];
}

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
}

const USUAL_QUANTUM_G = 0.5;

function settle(request: PlanRequest): { frame: Frame; before: AxisSpecs } {
  const frame = settleFrame(request.shape);
  const before = requireSpecs(withAxis(request.specs, frame.sport.axisCm), frame.lengthCm);
  const problems = aimProblems(request.target, frame.lengthCm, before);
  if (request.quantumG !== undefined && !(request.quantumG > 0)) {
    problems.push({ code: 'not-positive', path: 'quantumG' });
  }
  if (problems.length > 0) throw new Fault(...problems);
  return { frame, before };
}

/** The optimisation behind a plan of one school; tests compare its optimum with other solvers'. */
export function planProblem(request: PlanRequest, school: School): PlanProblem {
  const { frame, before } = settle(request);
  const rule = SCHOOL_RULES[school];
  const zones = frame.sport.zones.filter((zone) => rule.zones?.includes(zone.name) ?? true);
  const pieces = request.parts ?? request.quantumG ?? USUAL_QUANTUM_G;
  return {
    before,
    base: sumsOf(before),
    rows: planRows(before, request.target),
    columns: [
      ...zones.map((zone) => zoneColumn(frame, zone, pieces, request.caps?.[zone.name] ?? zone.capG)),
      ...(request.offers ?? []).map(offerColumn),
    ],
    rule,
  };
}

function planOf(request: PlanRequest, problem: PlanProblem, school: School, choice: Choice): Plan {
  const { before } = problem;
  const placements: Placement[] = [];
  const swaps: Swap[] = [];
  const removals: Removal[] = [];
  let sums = problem.base;
  problem.columns.forEach(({ options }, k) => {
    const index = choice[k];
    const option = index === undefined ? undefined : options[index];
    if (!option) return;
    sums = add(sums, option.sums);
    const { placement, swap, removal } = option;
    if (placement) placements.push({ ...placement, id: `p${placements.length + 1}` });
    if (swap) swaps.push(swap);
    if (removal) removals.push(removal);
  });
  const specs = specsOf(sums, before.axisCm, before.twistWeight !== undefined);
  return {
    school,
    placements,
    swaps,
    removals,
    specs,
    deviation: deviationFrom(request.target, specs),
    withinTolerance: withinTolerance(request.target, specs),
    places: placements.length + swaps.length + removals.length,
    addedG: sums.massG - problem.base.massG,
  };
}

/** How far outside its tolerances a plan lies, in tolerances; 0 inside. */
export const excessOf = (aim: Aim, deviation: KnownSpecs): number =>
  SPEC_KEYS.reduce((sum, key) => {
    const target = aim[key];
    const off = deviation[key];
    if (!target || off === undefined) return sum;
    return (
      sum + PRIORITY_WEIGHT[target.priority ?? 'want'] * Math.max(0, timesOff(target, target.value + off) - 1)
    );
  }, 0);

/**
 * Plans that bring a frame to an aim: for each school the proven optimum, best first
 * (least outside tolerance in hundredths of one, then fewest places, then least mass; the free optimum before an equal school).
 * @param request see {@link PlanRequest}
 * @throws Fault for impossible specs or aims, `twist-not-measured` where the aim names a twist weight and the frame has none
 * @example makePlans({ shape, specs, target: { massG: { value: 348, tolerance: 1 } } })[0].placements
 */
export function makePlans(request: PlanRequest): Plan[] {
  settle(request);
  const schools = request.schools && request.schools.length > 0 ? request.schools : SCHOOLS;
  const plans = schools.map((school) => {
    const problem = planProblem(request, school);
    return planOf(request, problem, school, searchPlan(problem));
  });
  return bestFirst(plans, request.target);
}

/** Plans in order: least outside tolerance in hundredths of one, then fewest places, then least mass; equal plans keep their order. */
export function bestFirst(plans: readonly Plan[], aim: Aim): Plan[] {
  // What is within tolerance counts as no step, whatever rounding says.
  const outside = (plan: Plan): number =>
    plan.withinTolerance ? 0 : Math.max(1, excessSteps(excessOf(aim, plan.deviation)));
  return [...plans].sort((a, b) => {
    const excess = outside(a) - outside(b);
    if (excess !== 0) return excess;
    return a.places - b.places || round(a.addedG) - round(b.addedG);
  });
}

const round = (massG: number): number => Math.round(massG * 1e6) / 1e6;

/** What a plan does, as text that is the same for plans that do the same. */
function doing({ placements, swaps, removals }: Plan): string {
  const puts = placements.map((p) => {
    const where = p.path === 'slot' ? p.slot : p.startCm.toFixed(4);
    return `${p.path} ${where} ${p.partId} ${p.massG.toFixed(6)}`;
  });
  return JSON.stringify([puts.toSorted(), swaps, removals]);
}

/** Plans of which no two do the same, in their order. */
export function distinctPlans(plans: readonly Plan[]): Plan[] {
  const seen = new Set<string>();
  return plans.filter((plan) => {
    const own = doing(plan);
    return !seen.has(own) && seen.add(own);
  });
}

/**
 * The best plan of a school and the next best ones that do without at least one of the places used before: distinct plans, best first.
 * @param count how many at most
 * @example bestPlans(request, 3).length // 3, or fewer where there is no other way
 */
export function bestPlans(request: PlanRequest, count = 3, school: School = 'free'): Plan[] {
  const problem = planProblem(request, school);
  const solved = (
    without: ReadonlySet<number>,
  ): { plan: Plan; used: number[]; without: ReadonlySet<number> } => {
    const columns = problem.columns.map((column, k) =>
      without.has(k) ? { ...column, options: [] } : column,
    );
    const choice = searchPlan({ ...problem, columns });
    const used = choice.flatMap((option, k) => (option === undefined ? [] : [k]));
    return { plan: planOf(request, problem, school, choice), used, without };
  };
  // Each plan found splits what is left: the next best does without one of its places (Lawler 1972; from memory).
  const open = [solved(new Set())];
  const found: Plan[] = [];
  const seen = new Set<string>();
  while (found.length < count && open.length > 0) {
    const [best] = bestFirst(
      open.map((candidate) => candidate.plan),
      request.target,
    );
    const index = open.findIndex((candidate) => candidate.plan === best);
    const [candidate] = open.splice(index, 1);
    if (!candidate) break;
    const key = candidate.used.join(' ');
    if (!seen.has(key)) {
      seen.add(key);
      found.push(candidate.plan);
      for (const k of candidate.used) open.push(solved(new Set([...candidate.without, k])));
    }
  }
  return found;
}
