import {
  EXCESS_EPS,
  EXCESS_STEP,
  excessOfSteps,
  rowConstant,
  rowRoom,
  rowValue,
  type Choice,
  type PlanProblem,
} from '../src/plan';
import { lpText, type Milp, type SolveMilp, type Term } from './milp';

/** Weights that make one objective lexicographic: a place outweighs any mass, a gram any distance inside the tolerance. */
const PER_PLACE = 1000;
const PER_TOLERANCE_INSIDE = 0.001;
/** `inside`: every row within tolerance. `least-excess`: the least steps of excess. A number: fewest places at so many steps. */
type Stage = 'inside' | 'least-excess' | number;

function programme(problem: PlanProblem, stage: Stage): Milp {
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

  const excess: Term[] = [];
  const offAim: Term[] = [];
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
    offAim.push([`over${i}`, 1], [`under${i}`, 1]);
    // over + under − outside ≤ room, where the room grows with the mass for the balance row
    const roomGrows = rowRoom(row, base.massG + 1) - rowRoom(row, base.massG);
    const room: Term[] = [
      [`over${i}`, 1],
      [`under${i}`, 1],
      ...mass.map(([name, massG]) => [name, -roomGrows * massG] as const),
    ];
    if (stage !== 'inside') {
      variables.push({ name: `out${i}`, lower: 0, upper: Infinity, kind: 'continuous' });
      room.push([`out${i}`, -1]);
      excess.push([`out${i}`, row.weight]);
    }
    milpRows.push({ terms: room, lower: -Infinity, upper: rowRoom(row, base.massG) });
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

  let objective: Term[];
  if (stage === 'least-excess') {
    variables.push({ name: 'steps', lower: 0, upper: 1e7, kind: 'integer' });
    milpRows.push({ terms: [...excess, ['steps', -EXCESS_STEP]], lower: -Infinity, upper: EXCESS_EPS });
    objective = [['steps', 1]];
  } else {
    objective = [
      ...places.map(([name, c]) => [name, c * PER_PLACE] as const),
      ...mass,
      ...offAim.map(([name, c]) => [name, c * PER_TOLERANCE_INSIDE] as const),
    ];
    if (typeof stage === 'number')
      milpRows.push({ terms: excess, lower: -Infinity, upper: excessOfSteps(stage) });
  }
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
 * The same optimum as `searchPlan`, by a general solver: a check from outside, and what the search is timed against.
 * @returns undefined where the solver stopped before it could prove its answer
 */
export function solveGenerally(problem: PlanProblem, solve: SolveMilp): Choice | undefined {
  if (problem.columns.every((column) => column.options.length === 0))
    return problem.columns.map(() => undefined);
  const attempt = (stage: Stage) => solve(lpText(programme(problem, stage)));
  const inside = attempt('inside');
  if (inside.status === 'optimal') return choiceOf(problem, inside.values);
  if (inside.status === 'stopped') return undefined;
  const nearest = attempt('least-excess');
  if (nearest.status !== 'optimal') return undefined;
  const fewest = attempt(Math.round(nearest.values.steps ?? 0));
  return fewest.status === 'optimal' ? choiceOf(problem, fewest.values) : undefined;
}
