import { deviationFrom, withinTolerance } from '../aim';
import { add, specsOf, sumsOf, type AxisSpecs, type MassSums, type SpecKey } from '../mass';
import { dressChange, signedParts } from '../dress';
import type { Dress, ZoneName } from '../sport';
import { partNamed, placementSums, zoneOf, type Part, type Placement } from '../part';
import { NO_CHANGE, dressAfter, type Change, type Removal, type Swap } from './change';
import { chanceWithEnough } from './chance';
import { CheckVariance, WANTED_CHANCE, asAimed, chanceByParts, enoughReadings, type ToCheck } from './enough';
import { errorSources, specErrors, type Care, type SpecError } from './errors';
import type { Plan } from './made-plan';
import { guardShares, withinShares } from './guard';
import { bySpec } from '../spec';
import { BENCH_READINGS, everySpec, usualInstruments, withTaken, type Instruments } from './instruments';
import { chosenSums, planRows, scoreOf, type PlanProblem, type Shares } from './problem';
import { bestFirst } from './ranking';
import { SCHOOLS, SCHOOL_RULES, type School } from './schools';
import { searchPlan, type Choice, type Searched } from './search';
import { settleAim, type Aimed, type Settled } from './settle';
import { offerColumn, type Offer } from './swaps';
import { tableFor, tableOf } from './table';
import { zoneColumns } from './zone-columns';

export interface PlanRequest extends Aimed {
  /** Empty or left out: the free optimum and every school. */
  schools?: readonly School[];
  caps?: Partial<Record<ZoneName, number>>;
  /** What may be put on; without it, grams at a point in steps of the quantum. */
  parts?: readonly Part[];
  /** What may be changed beside putting weight on. */
  offers?: readonly Offer[];
  /** Plan inside the tolerances by the errors of build and readings, where that can be; true if left out. */
  margin?: boolean;
  /** Placements that stay as they are: the rest is planned around them, and they belong to the plan. */
  locked?: readonly Placement[];
  /** What is put on, changed or taken off of the dress in any case: the rest is planned around it, and it belongs to the plan. */
  swaps?: readonly Swap[];
  /** What is on the frame, so that the errors of swaps count. */
  dress?: Dress;
  /** How the build is made. */
  care?: Care;
  /** What the start was and the check is measured with; the sport's typical ones if left out. */
  instruments?: Instruments;
  /** How often the check is to pass, 0 to 1; nine in ten if left out. */
  wanted?: number;
  /** Pieces lie only at the middle of their zones. */
  atMiddle?: boolean;
  /** No piece is smaller, g; as the sport ships if left out. */
  leastG?: number;
  /** Choices that may be judged for each school. */
  work?: number;
}

/** Whether an offer changes the same part of the dress as what is changed in any case. */
const offersAny = ({ ways }: Offer, swaps: readonly Swap[]): boolean =>
  ways.some(({ change }) => 'swap' in change && swaps.some(({ what }) => what === change.swap.what));

const partsOf = ({ parts }: PlanRequest): readonly Part[] => parts ?? [];

function problemOf(
  { frame, before }: Settled,
  request: PlanRequest,
  school: School,
  shares: Shares,
): PlanProblem {
  const rule = SCHOOL_RULES[school];
  const zones = frame.sport.zones.filter((zone) => rule.zones?.includes(zone.name) ?? true);
  const locked = request.locked ?? [];
  const swaps = request.swaps ?? [];
  const dress = request.dress ?? {};
  const changed = signedParts(dressChange(frame, dress, dressAfter(dress, swaps)));
  const dressed = changed.reduce<MassSums>((sums, part) => add(sums, part.sums), sumsOf(before));
  const base = locked.reduce<MassSums>(
    (sums, p) => add(sums, placementSums(frame, p, partNamed(partsOf(request), p.partId))),
    dressed,
  );
  const lockedIn = (name: ZoneName): number =>
    locked.reduce((sum, p) => (zoneOf(frame, p) === name ? sum + p.massG : sum), 0);
  return {
    before,
    base,
    rows: planRows(before, request.target, shares),
    columns: [
      ...zoneColumns(
        frame,
        zones,
        request,
        ({ name, capG }) => (request.caps?.[name] ?? capG) - lockedIn(name),
      ),
      ...(request.offers ?? []).filter((offer) => !offersAny(offer, swaps)).map(offerColumn),
    ],
    rule,
  };
}

/** The optimisation behind a plan of one school, by shares of the tolerances; tests compare its optimum with other solvers'. */
export const planProblem = (request: PlanRequest, school: School, shares: Shares = {}): PlanProblem =>
  problemOf(settleAim(request), request, school, shares);

/** What a choice does to the frame. */
function changeOf(request: PlanRequest, problem: PlanProblem, choice: Choice): Change {
  const placements: Placement[] = [...(request.locked ?? [])];
  const swaps: Swap[] = [...(request.swaps ?? [])];
  const removals: Removal[] = [];
  const named = new Set(placements.map(({ id }) => id));
  problem.columns.forEach(({ options }, k) => {
    const index = choice[k];
    const option = index === undefined ? undefined : options[index];
    if (!option) return;
    const { placement, swap, removal } = option;
    if (placement) {
      let n = placements.length + 1;
      while (named.has(`p${n}`)) n++;
      named.add(`p${n}`);
      placements.push({ ...placement(), id: `p${n}` });
    }
    if (swap) swaps.push(swap);
    if (removal) removals.push(removal);
  });
  return { ...NO_CHANGE, placements, swaps, removals, parts: partsOf(request) };
}

interface Worked {
  change: Change;
  specs: AxisSpecs;
  addedG: number;
  /** Errors of the build alone. */
  build: SpecError[];
}

function workOut(
  { frame, before }: Settled,
  request: PlanRequest,
  problem: PlanProblem,
  choice: Choice,
): Worked {
  const sums = chosenSums(problem, choice);
  const specs = specsOf(sums, before.axisCm, before.twistWeight !== undefined);
  const change = changeOf(request, problem, choice);
  const build = specErrors(specs, errorSources(frame, request.dress ?? {}, change, request.care));
  return { change, specs, addedG: sums.massG - sumsOf(before).massG, build };
}

/** Nothing outside: what may be used is kept. */
const inside = ({ score }: Searched): boolean => score.mustSteps === 0 && score.wantSteps === 0;

/** A plan that passes so often as this share of one that came out exactly is as good as it can be. */
const NEARLY = 0.97;

interface Attempt {
  searched: Searched;
  worked: Worked;
}

/**
 * The best plan of one school. With a margin, it keeps so far inside the tolerances that its check passes as often as wanted with two readings of each: a place more
 * is taken for that, but none where the plan with the fewest passes as often. Where no margin can be kept the plain tolerances stay.
 */
function planOf(settled: Settled, request: PlanRequest, school: School): Plan {
  const { target, work, wanted = WANTED_CHANCE } = request;
  const { before } = settled;
  const instruments = request.instruments ?? usualInstruments(settled.frame.sport);
  const readings = withTaken(instruments, everySpec(BENCH_READINGS));
  const plain = problemOf(settled, request, school, {});
  const table = tableOf(plain);
  const attempt = (shares: Shares | undefined): Attempt => {
    const problem = shares ? { ...plain, rows: planRows(before, target, shares) } : plain;
    const own = shares ? tableFor(table, problem) : table;
    const searched = searchPlan(problem, { work, table: own, insideOnly: shares !== undefined });
    return { searched, worked: workOut(settled, request, plain, searched.choice) };
  };
  const checkOf = ({ worked: { specs, build } }: Attempt): ToCheck => ({
    aim: target,
    before,
    after: specs,
    build,
    instruments,
  });
  const sharesOf = (of: Attempt): Record<SpecKey, number> => {
    const variance = new CheckVariance(checkOf(of));
    const spread = bySpec((key) => variance.of(key, readings));
    return guardShares(target, spread, wanted);
  };
  /** Whether it passes as often as wanted, or hardly less often than one that came out exactly as aimed. */
  const isGood = (of: Attempt): boolean => {
    const check = checkOf(of);
    const exact = { ...check, after: asAimed(check.after, target) };
    // With two readings of each, and with as many as it takes.
    return [readings, enoughReadings(check, wanted).readings].every(
      (times) => chanceByParts(check, times) >= Math.min(wanted, NEARLY * chanceByParts(exact, times)),
    );
  };

  let best = attempt(undefined);
  // The plain plan is the nearest with the fewest places: where that is good, no margin asks for anything else.
  if ((request.margin ?? true) && inside(best.searched) && !isGood(best)) {
    const guarded = attempt(sharesOf(best));
    if (inside(guarded.searched)) best = guarded;
  }
  return finished(request, school, plain, best, checkOf(best), sharesOf(best));
}

function finished(
  { target, wanted }: PlanRequest,
  school: School,
  plain: PlanProblem,
  { searched, worked }: Attempt,
  check: ToCheck,
  shares: Record<SpecKey, number>,
): Plan {
  const { change, specs, addedG } = worked;
  // Ranked by the plain tolerances, whatever margin it was made with.
  const score = scoreOf(plain, searched.choice);
  const { chance, truly, readings } = chanceWithEnough(check, wanted);
  return {
    school,
    placements: [...change.placements],
    swaps: [...change.swaps],
    removals: [...change.removals],
    specs,
    deviation: deviationFrom(target, specs),
    withinTolerance: withinTolerance(target, specs),
    places: change.placements.length + change.swaps.length + change.removals.length,
    addedG,
    chance,
    truly,
    readings,
    guarded: withinShares(target, specs, shares),
    proven: searched.proven,
    ...(searched.proven ? {} : { bound: searched.bound }),
    score,
  };
}

/** The schools that are asked for: all where none is named. */
export const schoolsOf = ({ schools }: Pick<PlanRequest, 'schools'>): readonly School[] =>
  schools && schools.length > 0 ? schools : SCHOOLS;

/**
 * Plans that bring a frame to an aim: for each school the proven optimum, or the best found with a bound; best first (see {@link bestFirst}).
 * @param request see {@link PlanRequest}
 * @throws Fault for impossible specs or aims, `twist-not-measured` where the aim names a twist weight and the frame has none
 * @example makePlans({ shape, specs, target: { massG: { value: 348, tolerance: 1 } } })[0].placements
 */
export function makePlans(request: PlanRequest): Plan[] {
  const settled = settleAim(request);
  return bestFirst(
    schoolsOf(request).map((school) => planOf(settled, request, school)),
    request.margin,
  );
}
