// How long the computing core takes, and how that grows. Prints medians of several runs; ratios matter more than times.
import loadHighs from 'highs';
import {
  ALL_SPORTS,
  NO_CHANGE,
  SPEC_KEYS,
  SPORTS,
  chanceOfBuild,
  compareScores,
  faceMap,
  makePlans,
  planProblem,
  predict,
  reach,
  recoilWeight,
  scoreOf,
  searchPlan,
  seededUniforms,
  settleFrame,
  simulateBuilds,
  type Addition,
  type Aim,
  type Part,
  type Placement,
  type Plan,
  type PlanRequest,
} from '@kevro/core';
import { generalSolver } from '../core/test/general-solver';
import { lightestGenerally, solveGenerally } from '../core/test/programme';

const TYPICAL_READING = SPORTS.tennis.typicalReading;

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

// The machine's own speed: a fixed loop, so that runs compare.
const loop = (): number => {
  let sum = 0;
  for (let i = 1; i <= 5_000_000; i++) sum += Math.sqrt(i) / (1 + (i & 7));
  return sum;
};
line('the machine: a fixed loop of 5 million roots', time(loop), 'ms');

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
line('what-if: predict of 12 strips along the hoop', time(many(strips)), 'µs', 100);

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

// Plans: 200 seeded aims in four sports, each made by loads at random zones and rounded as a fitter writes them, with real parts.
const NO_READING = { massG: 0, balanceCm: 0, swingWeight: 0, twistWeight: 0 };
const tapeOf = (id: string, gPerCm: number): Part => ({
  id,
  kind: 'tape',
  name: id,
  material: 'tungsten',
  widthMm: 6,
  gPerCm,
  stepCm: 0.5,
});
const fillings: Part[] = [
  { id: 'putty', kind: 'filling', name: 'putty', material: 'putty', dabG: 0.5, gPerCm: 1.6 },
  { id: 'leather', kind: 'wrap', name: 'leather', material: 'leather', gPerCm: 0.35, stepCm: 1 },
  { id: 'insert', kind: 'insert', name: 'insert', massG: 1 },
];
const PARTS = [tapeOf('6 mm', 0.265), tapeOf('12 mm', 0.42), ...fillings];
const LIGHT_PARTS = [tapeOf('3 mm', 0.1), tapeOf('6 mm', 0.2), ...fillings.slice(0, 1)];

function requestOf(n: number): PlanRequest {
  const sport = ALL_SPORTS[n % ALL_SPORTS.length] ?? 'tennis';
  const { usual, lengthCm, axisCm, zones, aimStep, tolerance } = SPORTS[sport];
  const own = {
    massG: usual.massG * (0.96 + 0.06 * random()),
    balanceCm: usual.balanceCm * (0.985 + 0.03 * random()),
    swingWeight: 0,
    twistWeight: usual.twistWeight * (0.95 + 0.1 * random()),
  };
  const recoil = recoilWeight({ ...usual, axisCm }) * (0.97 + 0.06 * random());
  own.swingWeight = recoil + (own.massG * (own.balanceCm - axisCm) ** 2) / 1000;
  const places = zones.filter(({ slot }) => slot === undefined);
  const made = predict(
    { sport, lengthCm },
    own,
    Array.from({ length: 1 + Math.floor(3 * random()) }, () => {
      const zone = places[Math.floor(places.length * random())] ?? places[0];
      return { massG: (0.1 + 0.4 * random()) * (zone?.capG ?? 1), at: { zone: zone?.name ?? 'tip' } };
    }),
  ).specs;
  const target: Aim = {};
  for (const key of SPEC_KEYS) {
    const value = Math.round((made[key] ?? 0) / aimStep[key]) * aimStep[key];
    target[key] = { value, tolerance: tolerance[key] };
  }
  return {
    shape: { sport, lengthCm },
    specs: own,
    target,
    parts: sport === 'badminton' ? LIGHT_PARTS : PARTS,
    schools: ['free'],
  };
}

const passesOf = (asked: PlanRequest, placements: readonly Placement[]): number =>
  simulateBuilds(
    asked.shape,
    { axisCm: SPORTS[asked.shape.sport].axisCm, ...asked.specs },
    NO_READING,
    placements,
    asked.parts ?? [],
    asked.target,
    4000,
    1,
  ).passes;

const highs = await loadHighs();
const solve = generalSolver((lp, options) => highs.solve(lp, { ...options, time_limit: 10 }));
const asked = Array.from({ length: 200 }, (_, n) => requestOf(n));
for (const one of asked.slice(0, 40)) makePlans(one);
const second = asked.map((one) => {
  const began = performance.now();
  const [found] = makePlans(one);
  return { plan: found as Plan, ms: performance.now() - began };
});
const took = second.map(({ ms }) => ms);
line('one plan with positions and several parts: median of 200', quantile(took, 0.5), 'ms', 10);
line('  95th percentile', quantile(took, 0.95), 'ms', 60);
line('  longest', Math.max(...took), 'ms', 1000);
console.log(
  `  inside ${second.filter(({ plan }) => plan.withinTolerance).length}, with margin ${second.filter(({ plan }) => plan.guarded).length}, proven ${second.filter(({ plan }) => plan.proven).length} of 200`,
);

/** The first edition's order: outside, places, then the lightest, at the middle of each zone; by the general solver. */
// The general solver takes seconds for each.
const COMPARED = 16;
const rows = asked.slice(0, COMPARED).map((one, n) => {
  const middle = planProblem({ ...one, atMiddle: true }, 'free');
  const began = performance.now();
  const first = lightestGenerally(middle, solve);
  const generalMs = performance.now() - began;
  const placements = (first ?? []).flatMap((option, k): Placement[] => {
    const lay = option === undefined ? undefined : middle.columns[k]?.options[option]?.placement;
    return lay ? [{ ...lay(), id: `p${k}` }] : [];
  });
  const own = searchPlan(middle);
  const theirs = solveGenerally(middle, solve);
  const same = theirs === undefined ? undefined : compareScores(own.score, scoreOf(middle, theirs)) === 0;
  const { plan: now } = second[n] as (typeof second)[number];
  return {
    guarded: now.guarded,
    before: {
      places: placements.length,
      addedG: placements.reduce((sum, p) => sum + p.massG, 0),
      passes: passesOf(one, placements),
    },
    after: { places: now.places, addedG: now.addedG, passes: passesOf(one, now.placements) },
    ratio: generalMs / (second[n]?.ms ?? 1),
    same,
  };
});
const held = rows.filter(({ guarded }) => guarded);
const share = (value: number): string => `${(100 * value).toFixed(1)} %`;
for (const [name, of] of [
  ['first edition’s order', (r: (typeof rows)[number]) => r.before],
  ['second edition', (r: (typeof rows)[number]) => r.after],
] as const) {
  const passes = held.map((r) => of(r).passes);
  console.log(
    `  ${name}: places ${quantile(
      held.map((r) => of(r).places),
      0.5,
    )} (most ${Math.max(...held.map((r) => of(r).places))}), ${quantile(
      held.map((r) => of(r).addedG),
      0.5,
    ).toFixed(
      1,
    )} g, builds that pass ${share(quantile(passes, 0.5))} at the median, ${share(Math.min(...passes))} at worst`,
  );
}
line(
  'the general solver on the simpler problem, times as long: median',
  quantile(
    rows.map(({ ratio }) => ratio),
    0.5,
  ),
  '×',
);
console.log(
  `  the same optimum in ${rows.filter(({ same }) => same === true).length} of ${rows.filter(({ same }) => same !== undefined).length} at the middles of the zones`,
);
line(
  '  places more than the first order’s, median',
  quantile(
    held.map((r) => r.after.places - r.before.places),
    0.5,
  ),
  '',
  1,
);

// Chance
const [example] = asked;
const [planned] = example ? makePlans(example) : [];
if (example && planned) {
  const change = { ...NO_CHANGE, placements: planned.placements, parts: PARTS };
  line(
    'chance of one plan',
    time(() => chanceOfBuild(example, change)),
    'ms',
    5,
  );
}
