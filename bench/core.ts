// How long the computing core takes, and how that grows. Prints medians of several runs; ratios matter more than times.
import loadHighs from 'highs';
import {
  SCHOOLS,
  TYPICAL_READING,
  excessSteps,
  faceMap,
  makePlans,
  planProblem,
  predict,
  reach,
  scoreOf,
  searchPlan,
  seededUniforms,
  settleFrame,
  simulateBuilds,
  type Addition,
  type Aim,
  type Part,
  type PlanRequest,
} from '@kevro/core';
import { generalSolver } from '../core/test/general-solver';
import { solveGenerally } from '../core/test/programme';

const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const specs = { massG: 325, balanceCm: 32.2, swingWeight: 318, twistWeight: 13.4, axisCm: 10.16 };

const random = seededUniforms(20_261);

const quantile = (values: number[], q: number): number =>
  values.toSorted((a, b) => a - b)[Math.floor(q * (values.length - 1))] ?? Number.NaN;

/** Milliseconds of one call: median of some runs after a warm-up. */
function time(work: () => unknown, runs = 7): number {
  work();
  work();
  return quantile(
    Array.from({ length: runs }, () => {
      const began = performance.now();
      work();
      return performance.now() - began;
    }),
    0.5,
  );
}

const figure = (value: number): string => (value < 10 ? value.toFixed(2) : value.toFixed(0));
function line(name: string, value: number, unit: string, aim?: number): void {
  const against = aim === undefined ? '' : `  ${(value / aim).toFixed(2)} of the aim (${aim} ${unit})`;
  console.log(`${name.padEnd(58)} ${figure(value).padStart(8)} ${unit}${against}`);
}

// What-if
const points: Addition[] = Array.from({ length: 12 }, (_, i) => ({
  massG: 1 + i / 4,
  at: { xCm: 2 + 5 * i },
}));
const strips: Addition[] = Array.from({ length: 12 }, (_, i) => ({
  massG: 2,
  at: { clock: i + 0.5 },
  spanCm: 6,
}));
const many = (additions: Addition[]) => (): void => {
  for (let i = 0; i < 1000; i++) predict(shape, specs, additions);
};
line('what-if: predict of 12 weights', time(many(points)), 'µs', 20);
line('what-if: predict of 12 strips along the hoop', time(many(strips)), 'µs');

// Reach
const setups = (count: number) =>
  Array.from({ length: count }, (_, i) => ({
    id: String(i),
    specs: {
      massG: 315 + 45 * random(),
      balanceCm: 31 + 3 * random(),
      swingWeight: 310 + 50 * random(),
      twistWeight: 13 + 3 * random(),
    },
  }));
const sizes = [1000, 10_000, 100_000];
const reached = sizes.map((size) => {
  const list = setups(size);
  return time(() => reach(shape, specs, list), 3);
});
line('reach over 10,000 setups', reached[1] ?? 0, 'ms', 300);
console.log(
  `  from 1,000 to 100,000 setups it takes ${((reached[2] ?? 0) / (reached[0] ?? 1)).toFixed(0)} times as long`,
);

// Face map
const frame = settleFrame(shape);
const map = (n: number): number => time(() => faceMap(frame, specs, 'ball-speed', n, n));
const maps = [map(50), map(200), map(500)];
line('face map of 200 × 200', maps[1] ?? 0, 'ms', 15);
console.log(
  `  from 50 × 50 to 500 × 500 (100 times the cells) it takes ${((maps[2] ?? 0) / (maps[0] ?? 1)).toFixed(0)} times as long`,
);

// Monte Carlo
const target: Aim = {
  massG: { value: 337, tolerance: 1 },
  balanceCm: { value: 32.2, tolerance: 0.15 },
  swingWeight: { value: 330, tolerance: 1.5 },
  twistWeight: { value: 14, tolerance: 0.2 },
};
const parts: Part[] = [
  {
    id: 'tape',
    kind: 'tape',
    name: 'tape',
    material: 'tungsten',
    widthMm: 6,
    gPerCm: 0.265,
    stepCm: 0.5,
  },
  { id: 'putty', kind: 'filling', name: 'putty', material: 'putty', dabG: 0.5, gPerCm: 1.6 },
];
const [plan] = makePlans({ shape, specs, target, parts, schools: ['free'] });
const builds = sizes.map((size) =>
  time(
    () => simulateBuilds(shape, specs, TYPICAL_READING, plan?.placements ?? [], parts, target, size, 1),
    5,
  ),
);
line('Monte Carlo of 100,000 builds', builds[2] ?? 0, 'ms', 250);
console.log(
  `  from 1,000 to 100,000 builds it takes ${((builds[2] ?? 0) / (builds[0] ?? 1)).toFixed(0)} times as long`,
);
const memory = (count: number): number => {
  globalThis.gc?.();
  const before = process.memoryUsage().heapUsed;
  simulateBuilds(shape, specs, TYPICAL_READING, plan?.placements ?? [], parts, target, count, 1);
  return (process.memoryUsage().heapUsed - before) / 1e6;
};
console.log(
  `  memory it leaves: ${memory(1000).toFixed(1)} MB after 1,000, ${memory(1_000_000).toFixed(1)} MB after 1,000,000`,
);

// Plans
const request = (real: boolean): PlanRequest => {
  const own = {
    massG: 300 + 40 * random(),
    balanceCm: 31.5 + 2 * random(),
    swingWeight: 305 + 25 * random(),
    twistWeight: 12.5 + 2 * random(),
  };
  return {
    shape,
    specs: own,
    target: {
      massG: { value: own.massG - 1 + 16 * random(), tolerance: 1 },
      balanceCm: { value: own.balanceCm - 0.5 + random(), tolerance: 0.15 },
      swingWeight: { value: own.swingWeight + 24 * random(), tolerance: 1.5 },
      twistWeight: { value: own.twistWeight + 1.2 * random(), tolerance: 0.2 },
    },
    ...(real ? { parts } : {}),
  };
};
const school = (n: number) => (n % 3 === 0 ? (SCHOOLS[n % SCHOOLS.length] ?? 'free') : 'free');
const requests = Array.from({ length: 300 }, (_, n) => planProblem(request(n % 2 === 1), school(n)));
for (const problem of requests.slice(0, 40)) searchPlan(problem);
const own = requests.map((problem) => {
  const began = performance.now();
  searchPlan(problem);
  return performance.now() - began;
});
line('one plan: median of 300', quantile(own, 0.5), 'ms');
line('one plan: 95th percentile of 300', quantile(own, 0.95), 'ms', 25);
line('one plan: longest of 300', Math.max(...own), 'ms');

const highs = await loadHighs();
const solve = generalSolver((lp, options) => highs.solve(lp, { ...options, time_limit: 10 }));
const SHARED = 40;
const ratios: number[] = [];
let equal = 0;
let unproven = 0;
requests.slice(0, SHARED).forEach((problem, n) => {
  const began = performance.now();
  const theirs = solveGenerally(problem, solve);
  const took = performance.now() - began;
  ratios.push(took / (own[n] ?? 1));
  if (!theirs) {
    unproven++;
    return;
  }
  const [a, b] = [scoreOf(problem, searchPlan(problem)), scoreOf(problem, theirs)];
  const same =
    excessSteps(a.excess) === excessSteps(b.excess) &&
    a.places === b.places &&
    Math.abs(a.addedG - b.addedG) < 1e-6;
  if (same) equal++;
});
line(`a general solver on ${SHARED} of them, times as long: median`, quantile(ratios, 0.5), '×');
console.log(
  `  the same optimum in ${equal} of ${SHARED - unproven}; ${unproven} the general solver did not prove in 10 s a programme`,
);
