import {
  EXCESS_EPS,
  EXCESS_STEP,
  NEAR_STEP,
  excessOfSteps,
  rowConstant,
  rowRoom,
  rowTolerance,
  rowValue,
  scoreOf,
  type Choice,
  type PlanProblem,
} from '../src/plan';
import { lpText, type Milp, type SolveMilp, type Term } from './milp';

/** What is asked of the programme: what it may use, and what is made least. */
interface Stage {
  /** Steps outside of what must be kept and of what is wanted, at most; undefined where they are not limited. */
  mustSteps?: number | undefined;
  wantSteps?: number | undefined;
  places?: number;
  nearSteps?: number;
  least: 'mustSteps' | 'wantSteps' | 'places' | 'mass';
}

function programme(problem: PlanProblem, stage: Stage): Milp | undefined {
  const { columns, rows, base, before, rule } = problem;
  const variables: Milp['variables'] = [];
  const milpRows: Milp['rows'] = [];
  const places: Term[] = [];
  const mass: Term[] = [];
  // Terms of any quantity that is linear in what is put on.
  const terms = columns.map(({ options, linear }, k) => {
    const first = options[0];
    if (!first) return [];
    if (linear) {
      variables.push({ name: `n${k}`, lower: 0, upper: options.length, kind: 'integer' });
      variables.push({ name: `u${k}`, lower: 0, upper: 1, kind: 'binary' });
      milpRows.push({
        terms: [
          [`n${k}`, 1],
          [`u${k}`, -options.length],
        ],
        lower: -Infinity,
        upper: 0,
      });
      places.push([`u${k}`, 1]);
      return [{ name: `n${k}`, option: first }];
    }
    const picks = options.map((option, j) => ({ name: `z${k}_${j}`, option }));
    for (const { name } of picks) {
      variables.push({ name, lower: 0, upper: 1, kind: 'binary' });
      places.push([name, 1]);
    }
    milpRows.push({ terms: picks.map(({ name }) => [name, 1] as const), lower: -Infinity, upper: 1 });
    return picks;
  });
  const all = terms.flat();
  for (const { name, option } of all) mass.push([name, option.massG]);

  const outside: Record<'must' | 'want', Term[]> = { must: [], want: [] };
  rows.forEach((row, i) => {
    variables.push({ name: `over${i}`, lower: 0, upper: Infinity, kind: 'continuous' });
    variables.push({ name: `under${i}`, lower: 0, upper: Infinity, kind: 'continuous' });
    const start = rowValue(row, base) - rowConstant(row);
    // residual = over − under
    milpRows.push({
      terms: [
        ...all.map(({ name, option }) => [name, rowValue(row, option.sums)] as const),
        [`over${i}`, -1],
        [`under${i}`, 1],
      ],
      lower: -start,
      upper: -start,
    });
    // over + under − outside ≤ room, where the room grows with the mass for the balance row
    const within = (room: (massG: number) => number, more: Term[]): void => {
      const grows = room(base.massG + 1) - room(base.massG);
      const terms: Term[] = [
        [`over${i}`, 1],
        [`under${i}`, 1],
        ...mass.map(([name, massG]) => [name, -grows * massG] as const),
        ...more,
      ];
      milpRows.push({ terms, lower: -Infinity, upper: room(base.massG) });
    };
    variables.push({ name: `out${i}`, lower: 0, upper: Infinity, kind: 'continuous' });
    within((massG) => rowRoom(row, massG), [[`out${i}`, -1]]);
    outside[row.priority].push([`out${i}`, 1]);
    const { nearSteps } = stage;
    if (nearSteps !== undefined)
      within((massG) => (nearSteps * NEAR_STEP + EXCESS_EPS) * rowTolerance(row, massG), []);
  });

  const keep = rule.keepBalanceWithinCm;
  if (keep !== undefined) {
    // |Σ m (x − B0)| ≤ keep · (M0 + Σ m)
    const moment = (sign: number): Term[] =>
      all.map(({ name, option: { sums } }) => [
        name,
        sign * (sums.firstGCm - before.balanceCm * sums.massG) - keep * sums.massG,
      ]);
    for (const sign of [1, -1]) {
      milpRows.push({ terms: moment(sign), lower: -Infinity, upper: keep * base.massG });
    }
  }

  let objective: Term[] = stage.least === 'mass' ? mass : places;
  for (const kind of ['must', 'want'] as const) {
    const limit = stage[`${kind}Steps`];
    if (outside[kind].length > 0 && limit !== undefined)
      milpRows.push({ terms: outside[kind], lower: -Infinity, upper: excessOfSteps(limit) });
    if (stage.least !== `${kind}Steps`) continue;
    if (outside[kind].length === 0) return undefined;
    variables.push({ name: 'steps', lower: 0, upper: 1e7, kind: 'integer' });
    milpRows.push({
      terms: [...outside[kind], ['steps', -EXCESS_STEP]],
      lower: -Infinity,
      upper: EXCESS_EPS,
    });
    objective = [['steps', 1]];
  }
  if (stage.places !== undefined) milpRows.push({ terms: places, lower: -Infinity, upper: stage.places });
  return { variables, rows: milpRows, objective: joined(objective) };
}

/** One term a variable: a variable may count as a place and by its mass. */
function joined(terms: readonly Term[]): Term[] {
  const sums = new Map<string, number>();
  for (const [name, c] of terms) sums.set(name, (sums.get(name) ?? 0) + c);
  return [...sums];
}

function choiceOf(problem: PlanProblem, values: Record<string, number>): Choice {
  return problem.columns.map(({ options, linear }, k) => {
    if (linear) {
      const count = Math.round(values[`n${k}`] ?? 0);
      return count > 0 ? count - 1 : undefined;
    }
    const picked = options.findIndex((_, j) => (values[`z${k}_${j}`] ?? 0) > 0.5);
    return picked < 0 ? undefined : picked;
  });
}

/**
 * The same optimum as `searchPlan`, by a general solver: a check from outside, and what the search is timed against. Stage by stage in the order that
 * counts; how near the aim a choice lies is brought down a tenth at a time.
 * @returns undefined where the solver stopped before it could prove its answer
 */
export function solveGenerally(problem: PlanProblem, solve: SolveMilp): Choice | undefined {
  const none: Choice = problem.columns.map(() => undefined);
  if (problem.columns.every((column) => column.options.length === 0)) return none;
  const attempt = (stage: Stage) => {
    const asked = programme(problem, stage);
    return asked ? solve(lpText(asked)) : undefined;
  };
  let mustSteps = 0;
  let wantSteps = 0;
  let fewest = attempt({ mustSteps, wantSteps, least: 'places' });
  if (fewest?.status !== 'optimal') {
    const must = attempt({ least: 'mustSteps' });
    if (must && must.status !== 'optimal') return undefined;
    mustSteps = Math.round(must?.values.steps ?? 0);
    const want = attempt({ mustSteps, least: 'wantSteps' });
    if (want && want.status !== 'optimal') return undefined;
    wantSteps = Math.round(want?.values.steps ?? 0);
    fewest = attempt({ mustSteps, wantSteps, least: 'places' });
    if (fewest?.status !== 'optimal') return undefined;
  }
  let best = choiceOf(problem, fewest.values);
  const { places } = scoreOf(problem, best);
  let near = scoreOf(problem, best).nearSteps;
  while (near > 0) {
    const nearer = attempt({ mustSteps, wantSteps, places, nearSteps: near - 1, least: 'mass' });
    if (nearer?.status === 'stopped') return undefined;
    if (nearer?.status !== 'optimal') break;
    best = choiceOf(problem, nearer.values);
    near = Math.min(near - 1, scoreOf(problem, best).nearSteps);
  }
  const lightest = attempt({ mustSteps, wantSteps, places, nearSteps: near, least: 'mass' });
  return lightest?.status === 'optimal' ? choiceOf(problem, lightest.values) : undefined;
}

/** The optimum in the order of the first edition: outside, places, then the lightest, wherever within the tolerance that is. For comparison only. */
export function lightestGenerally(problem: PlanProblem, solve: SolveMilp): Choice | undefined {
  const best = solveGenerally(problem, solve);
  if (!best) return undefined;
  const { mustSteps, wantSteps, places } = scoreOf(problem, best);
  const asked = programme(problem, { mustSteps, wantSteps, places, least: 'mass' });
  const lightest = asked && solve(lpText(asked));
  return lightest?.status === 'optimal' ? choiceOf(problem, lightest.values) : best;
}
