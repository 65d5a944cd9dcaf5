/** A mixed-integer linear programme as plain data. */
export interface Milp {
  variables: { name: string; lower: number; upper: number; kind: 'continuous' | 'integer' | 'binary' }[];
  rows: { terms: Term[]; lower: number; upper: number }[];
  objective: Term[];
}
export type Term = readonly [name: string, coefficient: number];

export interface MilpSolution {
  status: 'optimal' | 'infeasible' | 'stopped';
  values: Record<string, number>;
}

/** A general solver, given from outside: the core brings none. It takes the programme in LP format. */
export type SolveMilp = (lpText: string) => MilpSolution;

const number = (value: number): string => value.toExponential(15);
const side = (terms: readonly Term[]): string =>
  terms
    .filter(([, c]) => c !== 0)
    .map(([name, c]) => `${c < 0 ? '-' : '+'} ${number(Math.abs(c))} ${name}`)
    .join('\n ');

/** The programme in the LP text format that general solvers read. */
export function lpText({ variables, rows, objective }: Milp): string {
  const lines = ['Minimize', ` obj: ${side(objective)}`, 'Subject To'];
  rows.forEach(({ terms, lower, upper }, i) => {
    const left = side(terms);
    if (lower === upper) lines.push(` r${i}: ${left} = ${number(lower)}`);
    else {
      if (lower > -Infinity) lines.push(` r${i}l: ${left} >= ${number(lower)}`);
      if (upper < Infinity) lines.push(` r${i}u: ${left} <= ${number(upper)}`);
    }
  });
  lines.push('Bounds');
  for (const { name, lower, upper } of variables) {
    lines.push(` ${number(lower)} <= ${name} <= ${upper === Infinity ? '+inf' : number(upper)}`);
  }
  const named = (kind: string): string[] => variables.filter((v) => v.kind === kind).map((v) => ` ${v.name}`);
  if (named('integer').length > 0) lines.push('General', ...named('integer'));
  if (named('binary').length > 0) lines.push('Binary', ...named('binary'));
  lines.push('End');
  return lines.join('\n');
}
