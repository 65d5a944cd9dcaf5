// A simulated bench: aims of every sport are planned, built by a hand with errors from rolls with errors, measured before and after by instruments whose errors
// scatter and stay, and trimmed. Its errors are its own. Prints how many pass, and whether the chance that was stated is what is observed.
import {
  NO_CHANGE,
  SPEC_KEYS,
  SPORTS,
  bySpec,
  chanceAfterTrim,
  changeOutcome,
  instrumentsAfter,
  learn,
  makePlans,
  partedMean,
  predict,
  seededNormals,
  seededUniforms,
  settleFrame,
  startingTolerances,
  trimPlans,
  usualBuild,
  usualInstruments,
  usualParts,
  whatWorks,
  withinTolerance,
  type Aim,
  type AxisSpecs,
  type Frame,
  type Instruments,
  type Part,
  type Placement,
  type Readings,
  type SpecKey,
  type Sport,
  type TaughtBuild,
} from '@kevro/core';

const AIMS = Number(process.env.AIMS ?? 60);
const WORLDS = Number(process.env.WORLDS ?? 1000);
/** Trims take the time that plans take: so many of the builds that fail are trimmed. */
const TRIMS = Number(process.env.TRIMS ?? 20);
const SEED = Number(process.env.SEED ?? Date.now() % 100_000);
const uniform = seededUniforms(SEED);
const normal = seededNormals(SEED + 1);
const between = (low: number, high: number): number => low + (high - low) * uniform();
const about = (value: number, share: number): number => value * between(1 - share, 1 + share);

/** What goes wrong on this bench, as standard deviations: a roll's density, a piece along its line and a cut, cm. */
const DENSITY = 0.04;
const PLACING = 0.4;
const CUTTING = 0.05;

const tapeOf = (gPerCm: number): Part => ({
  id: 'tape',
  kind: 'tape',
  name: 'tape 6 mm',
  material: 'tungsten',
  widthMm: 6,
  gPerCm,
  stepCm: 0.5,
});
const fillingOf = (dabG: number): Part => ({
  id: 'putty',
  kind: 'filling',
  name: 'putty',
  material: 'putty',
  dabG,
  gPerCm: 1.6,
});
const PARTS: Record<Sport, Part[]> = {
  tennis: [tapeOf(0.265), fillingOf(0.5)],
  pickleball: [tapeOf(0.12), fillingOf(0.25)],
  padel: [tapeOf(0.265), fillingOf(0.5)],
  badminton: [tapeOf(0.03), fillingOf(0.1)],
};

interface Case {
  frame: Frame;
  shape: { sport: Sport; lengthCm: number };
  /** As it truly is. */
  truth: AxisSpecs;
  target: Aim;
}
function caseOf(sport: Sport): Case {
  const data = SPORTS[sport];
  const shape = { sport, lengthCm: data.lengthCm };
  const frame = settleFrame(shape);
  const truth: AxisSpecs = {
    massG: about(data.usual.massG, 0.04),
    balanceCm: about(data.usual.balanceCm, 0.02),
    swingWeight: about(data.usual.swingWeight, 0.04),
    twistWeight: about(data.usual.twistWeight, 0.06),
    axisCm: data.axisCm,
  };
  const zones = data.zones.filter(({ slot }) => slot === undefined);
  // A job puts on one to four per cent of what the frame weighs, at up to three places.
  const loadG = between(0.01, 0.04) * truth.massG;
  const loads = Array.from({ length: 3 }, () => zones[Math.floor(uniform() * zones.length)]).flatMap(
    (zone) =>
      zone ? [{ massG: Math.min(between(0.1, 0.6) * loadG, zone.capG), at: { zone: zone.name } }] : [],
  );
  const aimed = predict(shape, truth, loads).specs;
  const tolerances = startingTolerances(data, usualBuild(frame, truth, usualInstruments(data)));
  const target: Aim = {};
  for (const key of SPEC_KEYS) {
    const step = data.aimStep[key];
    const value = Number((Math.round((aimed[key] ?? 0) / step) * step).toFixed(6));
    target[key] = { value, tolerance: tolerances[key] };
  }
  return { frame, shape, truth, target };
}

/** The errors of the rolls in hand: one for each, for as long as the roll lasts. */
type Rolls = Record<string, number>;
const freshRolls = (): Rolls => ({ tape: DENSITY * normal(), putty: DENSITY * normal() });

/** A piece as a hand makes it. @param stated by how much the shop takes the roll to be heavier already */
function made(placement: Placement, rolls: Rolls, stated: Rolls = {}): Placement {
  if (placement.path === 'slot') return placement;
  const span = placement.endCm - placement.startCm;
  const by = (PLACING / Math.sqrt(placement.sides)) * normal();
  const pieces = placement.sides * placement.layers;
  const cut = placement.partId === 'tape' && span > 0 ? (CUTTING / span / Math.sqrt(pieces)) * normal() : 0;
  const heavier = (1 + (rolls[placement.partId] ?? 0)) / (1 + (stated[placement.partId] ?? 0)) + cut;
  return {
    ...placement,
    massG: placement.massG * heavier,
    startCm: placement.startCm + by,
    endCm: placement.endCm + by,
  };
}

/** The instruments of a day: what stays of their errors, and how they read. */
class Bench {
  private readonly stays: Record<SpecKey, number>;
  constructor(
    private readonly sport: Sport,
    stays?: Record<SpecKey, number>,
  ) {
    this.stays = stays ?? bySpec((key) => 0.8 * SPORTS[sport].typicalReading[key] * normal());
  }
  /** The same bench later: it has drifted. */
  later(): Bench {
    const { typicalReading } = SPORTS[this.sport];
    return new Bench(
      this.sport,
      bySpec((key) => this.stays[key] + 0.2 * typicalReading[key] * normal()),
    );
  }
  read(truth: AxisSpecs, times: Record<SpecKey, number>): AxisSpecs {
    const { typicalReading } = SPORTS[this.sport];
    const of = (key: SpecKey): number => {
      const value = truth[key] ?? 0;
      let sum = 0;
      for (let i = 0; i < times[key]; i++)
        sum += value + this.stays[key] + 0.6 * typicalReading[key] * normal();
      return sum / times[key];
    };
    return { ...truth, ...bySpec(of) };
  }
}
const timesOf = (readings: Readings, when: 'start' | 'check'): Record<SpecKey, number> =>
  bySpec((key) => readings[key][when]);

interface Found {
  stated: number;
  first: number;
  statedTrimmed: number;
  trimmed: number;
  truly: number;
  statedTruly: number;
  places: number;
  readings: number;
  proven: boolean;
  ms: number;
}

/** One aim: planned once from a reading of its start, then built and checked in many worlds. */
function tryOut({ frame, shape, truth, target }: Case, same: boolean): Found | undefined {
  const { sport } = shape;
  const parts = PARTS[sport];
  const all = usualInstruments(frame.sport);
  const instruments: Instruments = { ...all, same: bySpec(() => same) };
  const asked = { shape, target, parts, instruments };
  // As often as a plan from the true specs would ask for; what is read is planned from.
  const [ideal] = makePlans({ ...asked, specs: truth, schools: ['free'] });
  if (!ideal?.withinTolerance) return undefined;
  const began = performance.now();
  const start = new Bench(sport).read(truth, timesOf(ideal.readings, 'start'));
  const [plan] = makePlans({ ...asked, specs: start });
  const ms = performance.now() - began;
  if (!plan?.withinTolerance) return undefined;
  const { readings } = plan;
  let [first, truly, trims, afterTrim] = [0, 0, 0, 0];
  for (let world = 0; world < WORLDS; world++) {
    const bench = new Bench(sport);
    const rolls = freshRolls();
    // The plan is for what was read: what is truly there differs by what the reading erred.
    const read = bench.read(truth, timesOf(readings, 'start'));
    const there = {
      ...start,
      ...bySpec((key) => (start[key] ?? 0) - ((read[key] ?? 0) - (truth[key] ?? 0))),
    };
    const built = changeOutcome(
      frame,
      there,
      {},
      {
        ...NO_CHANGE,
        placements: plan.placements.map((p) => made(p, rolls)),
        parts,
      },
    ).specs;
    if (withinTolerance(target, built)) truly++;
    const check = same ? bench.later() : new Bench(sport);
    const checked = check.read(built, timesOf(readings, 'check'));
    if (withinTolerance(target, checked)) {
      first++;
      continue;
    }
    if (trims >= TRIMS) continue;
    trims++;
    const after = trimOnce(built, checked, plan.placements, { frame, shape, truth, target }, rolls, readings);
    if (after && withinTolerance(target, check.later().read(after.truth, timesOf(after.readings, 'check'))))
      afterTrim++;
  }
  const p = first / WORLDS;
  return {
    stated: plan.chance,
    first: p,
    statedTrimmed: chanceAfterTrim({ aim: target, after: plan.specs, instruments }, plan.chance, readings),
    trimmed: trims > 0 ? p + (1 - p) * (afterTrim / trims) : 1,
    truly: truly / WORLDS,
    statedTruly: plan.truly,
    places: plan.places,
    readings: SPEC_KEYS.reduce((sum, key) => sum + readings[key].start + readings[key].check, 0) / 8,
    proven: plan.proven,
    ms,
  };
}

/** What the likeliest trim makes of a frame, by hand again; undefined where none brings it in. */
function trimOnce(
  truth: AxisSpecs,
  checked: AxisSpecs,
  placements: readonly Placement[],
  { frame, shape, target }: Case,
  rolls: Rolls,
  readings: Readings,
): { truth: AxisSpecs; readings: Readings } | undefined {
  const parts = PARTS[shape.sport];
  const typical = usualParts(frame.sport.typicalReading);
  const times = timesOf(readings, 'check');
  const instruments = instrumentsAfter(frame.sport, {
    parts: bySpec((key) => partedMean(typical[key], times[key])),
    counts: times,
    estimated: [],
  });
  const [best] = trimPlans({
    shape,
    specs: checked,
    placements,
    parts,
    target,
    instruments,
  }).toSorted((a, b) => b.chance - a.chance);
  if (!best) return undefined;
  let after = truth;
  for (const { index, placement } of best.changes) {
    const there = index === undefined ? undefined : placements[index];
    // Only what is cut off or put on anew is as uncertain as a build.
    const removals = there ? [{ of: there }] : [];
    const put = placement ? [there ? placement : made(placement, rolls)] : [];
    after = changeOutcome(frame, after, {}, { ...NO_CHANGE, parts, removals, placements: put }).specs;
  }
  return { truth: after, readings: best.readings };
}

const percent = (share: number): string => `${(100 * share).toFixed(0)} %`.padStart(5);
const quantile = (values: readonly number[], q: number): number =>
  values.toSorted((a, b) => a - b)[Math.min(values.length - 1, Math.floor(q * values.length))] ?? Number.NaN;
const mean = (values: readonly number[]): number => values.reduce((sum, v) => sum + v, 0) / values.length;

console.log(
  `${AIMS} aims a sport, seed ${SEED}, each built in ${WORLDS} worlds; tape and filling wrong by ${100 * DENSITY} %, pieces by ${10 * PLACING} mm, typical instruments`,
);
for (const same of [true, false]) {
  console.log(same ? 'the same instruments at the check' : 'other instruments at the check');
  for (const sport of Object.keys(SPORTS) as Sport[]) {
    const found: Found[] = [];
    for (let tries = 0; found.length < AIMS && tries < 3 * AIMS; tries++) {
      const one = tryOut(caseOf(sport), same);
      if (one) found.push(one);
    }
    const of = (key: Exclude<keyof Found, 'proven'>): number[] => found.map((f) => f[key]);
    const apart = found.map((f) => Math.abs(f.first - f.stated));
    console.log(
      `  ${sport.padEnd(11)} pass at first: median ${percent(quantile(of('first'), 0.5))} (aim 90), lower quartile ${percent(quantile(of('first'), 0.25))} (aim 80); after one trim ${percent(quantile(of('trimmed'), 0.5))} (aim 97; mean ${percent(mean(of('trimmed')))}, stated ${percent(mean(of('statedTrimmed')))})`,
    );
    console.log(
      `              stated ${percent(mean(of('stated')))}, observed ${percent(mean(of('first')))}: ${(100 * Math.abs(mean(of('stated')) - mean(of('first')))).toFixed(1)} points apart (aim 3), any one ${(100 * Math.max(...apart)).toFixed(1)} (aim 7); truly inside ${percent(mean(of('truly')))}, stated ${percent(mean(of('statedTruly')))}`,
    );
    console.log(
      `              places ${mean(of('places')).toFixed(1)}, readings of a spec ${mean(of('readings')).toFixed(1)}; all placements: median ${quantile(of('ms'), 0.5).toFixed(0)} ms, 95th percentile ${quantile(of('ms'), 0.95).toFixed(0)} ms; best proven in ${found.filter((f) => f.proven).length} of ${found.length}`,
    );
  }
}

// What the shop learns: the same rolls for 40 builds; the first 20 teach, the others count with what they taught.
const SHOPS = 20;
const shopParts = PARTS.tennis;
const twice = bySpec(() => 2);
let [early, late, builds] = [0, 0, 0];
for (let shop = 0; shop < SHOPS; shop++) {
  const rolls = freshRolls();
  const taught: TaughtBuild[] = [];
  const stated: Rolls = {};
  for (let i = 0; i < 40; i++) {
    const { frame, shape, truth, target } = caseOf('tennis');
    const own = shopParts.map((part) =>
      'gPerCm' in part ? { ...part, gPerCm: part.gPerCm * (1 + (stated[part.id] ?? 0)) } : part,
    ) as Part[];
    const bench = new Bench('tennis');
    const before = bench.read(truth, twice);
    const [plan] = makePlans({ shape, specs: before, target, parts: own, schools: ['free'] });
    if (!plan?.withinTolerance) continue;
    const built = changeOutcome(
      frame,
      truth,
      {},
      {
        ...NO_CHANGE,
        parts: own,
        placements: plan.placements.map((p) => made(p, rolls, stated)),
      },
    ).specs;
    const check = bench.later().read(built, twice);
    const passed = withinTolerance(target, check);
    if (i < 20) {
      early += passed ? 1 : 0;
      builds++;
      const typical = usualParts(frame.sport.typicalReading);
      const parts = bySpec((key) => partedMean(typical[key], 2));
      const change = { ...NO_CHANGE, placements: plan.placements, parts: own };
      taught.push({
        frame,
        before,
        readings: parts,
        dress: {},
        change,
        check,
        checkReadings: parts,
        same: bySpec(() => true),
      });
    } else late += passed ? 1 : 0;
    if (i === 19) for (const { partId, share } of learn(taught, new Map()).rolls) stated[partId] = share;
  }
}
console.log(
  `with the shop's learning, ${SHOPS} shops of 40 builds: of their first 20 pass ${percent(early / builds)}, of the next 20 ${percent(late / builds)}`,
);

// What works for a player: of those with an effect of a spec, how many are told; of those without, how many are told something false.
const PLAYERS = 300;
const told = (perStep: number, sessions: number): number => {
  let count = 0;
  for (let run = 0; run < PLAYERS; run++) {
    const frames = Array.from({ length: 6 }, () => ({
      swingWeight: 290 + 50 * uniform(),
      feels: 0.35 * normal(),
    }));
    const played = Array.from({ length: sessions }, (_, i) => {
      const { swingWeight, feels } = frames[i % frames.length] as (typeof frames)[number];
      const felt = feels + (perStep * (swingWeight - 315)) / 8 + 0.6 * (i / sessions - 0.5) + 0.35 * normal();
      const energyLeft = felt > 0 ? ('plenty' as const) : ('little' as const);
      const twists = felt > 0.3 ? ('no' as const) : felt > -0.3 ? ('sometimes' as const) : ('often' as const);
      return { session: { energyLeft, arm: 'fine' as const, twists }, specs: { swingWeight } };
    });
    if (whatWorks('tennis', played).specs.some(({ says }) => says !== 'nothing')) count++;
  }
  return count / PLAYERS;
};
console.log('what works for a player, six frames that also feel different by 0.35, players who get better:');
for (const sessions of [12, 24, 48])
  console.log(
    `  ${sessions} sessions: told something false ${percent(told(0, sessions))} (aim under 5); an effect of 0.2 a step found ${percent(told(-0.2, sessions))}, of 0.4 ${percent(told(-0.4, sessions))}`,
  );
