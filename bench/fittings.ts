// A simulated bench: random fittings are planned, built by a hand with errors from rolls with errors, checked by instruments with noise, and trimmed. Prints how many
// pass, and whether the chance that was stated is what is observed.
import {
  CUTTING_CM,
  DENSITY_SHARE,
  NO_CHANGE,
  PLACING_CM,
  SPEC_KEYS,
  SPORTS,
  chanceAfterTrim,
  changeOutcome,
  learn,
  makePlans,
  predict,
  seededNormals,
  seededUniforms,
  settleFrame,
  trimPlans,
  withinTolerance,
  type Aim,
  type AxisSpecs,
  type Frame,
  type Part,
  type Placement,
  type SpecUncertainty,
  type TaughtBuild,
} from '@kevro/core';

const FITTINGS = Number(process.env.FITTINGS ?? 200);
const SPORT = SPORTS.tennis;
const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const frame: Frame = settleFrame(shape);
const uniform = seededUniforms(7);
const normal = seededNormals(8);
const between = (low: number, high: number): number => low + (high - low) * uniform();
const about = (value: number, share: number): number => value * between(1 - share, 1 + share);

const tape: Part = {
  id: 'tape',
  kind: 'tape',
  name: 'tape 6 mm',
  material: 'tungsten',
  widthMm: 6,
  gPerCm: 0.265,
  stepCm: 0.5,
};
const putty: Part = {
  id: 'putty',
  kind: 'filling',
  name: 'putty',
  material: 'putty',
  dabG: 0.5,
  gPerCm: 1.6,
};
const parts = [tape, putty];
/** A careful shop that takes each reading three times: the chance part of a reading falls by √3. */
const instruments = Object.fromEntries(
  SPEC_KEYS.map((key) => [key, SPORT.typicalReading[key] / Math.sqrt(3)]),
) as unknown as SpecUncertainty;

interface Case {
  before: AxisSpecs;
  target: Aim;
}
function fitting(): Case {
  const { usual, zones, tolerance } = SPORT;
  const before: AxisSpecs = {
    massG: about(usual.massG, 0.04),
    balanceCm: about(usual.balanceCm, 0.02),
    swingWeight: about(usual.swingWeight, 0.04),
    twistWeight: about(usual.twistWeight, 0.06),
    axisCm: SPORT.axisCm,
  };
  const loads = Array.from({ length: 3 }, () => zones[Math.floor(uniform() * zones.length)]).flatMap(
    (zone) => (zone ? [{ massG: between(0.2, 0.6) * zone.capG, at: { zone: zone.name } }] : []),
  );
  const aimed = predict(shape, before, loads).specs;
  const target: Aim = {};
  for (const key of SPEC_KEYS) target[key] = { value: aimed[key] ?? 0, tolerance: tolerance[key] };
  return { before, target };
}

/** The errors of the rolls in hand: one for each, for as long as the roll lasts. */
type Rolls = Record<string, number>;
const freshRolls = (): Rolls => ({ tape: DENSITY_SHARE * normal(), putty: DENSITY_SHARE * normal() });

/** A piece as a hand makes it. @param stated by how much the shop takes the roll to be heavier already */
function made(placement: Placement, rolls: Rolls, stated: Rolls = {}): Placement {
  if (placement.path === 'slot') return placement;
  const span = placement.endCm - placement.startCm;
  const by = (PLACING_CM / Math.sqrt(placement.sides)) * normal();
  const pieces = placement.sides * placement.layers;
  const cut =
    placement.partId === 'tape' && span > 0 ? (CUTTING_CM / span / Math.sqrt(pieces)) * normal() : 0;
  const heavier = (1 + (rolls[placement.partId] ?? 0)) / (1 + (stated[placement.partId] ?? 0)) + cut;
  return {
    ...placement,
    massG: placement.massG * heavier,
    startCm: placement.startCm + by,
    endCm: placement.endCm + by,
  };
}
const builtFrom = (before: AxisSpecs, placements: readonly Placement[]): AxisSpecs =>
  changeOutcome(frame, before, {}, { ...NO_CHANGE, placements, parts }).specs;
const read = (truth: AxisSpecs): AxisSpecs => {
  const found = { ...truth };
  for (const key of SPEC_KEYS) if (found[key] !== undefined) found[key] += instruments[key] * normal();
  return found;
};

interface Way {
  margin: boolean;
  /** Everything is taped on and measured first, and what is off is put right before it is fixed. */
  trial: boolean;
  /** Room kept in each zone, g. */
  roomG: number;
}
interface Found {
  fittings: number;
  first: number;
  trimmed: number;
  stated: number;
  statedTrimmed: number;
}
/** What a trim does to what lies there, by hand again. */
function trimOnce(
  truth: AxisSpecs,
  checked: AxisSpecs,
  placements: readonly Placement[],
  target: Aim,
  rolls: Rolls,
) {
  const [best] = trimPlans({ shape, specs: checked, placements, parts, target, instruments }).toSorted(
    (a, b) => b.chance - a.chance,
  );
  if (!best) return undefined;
  let after = truth;
  const left = [...placements];
  for (const { index, placement } of best.changes) {
    const there = index === undefined ? undefined : left[index];
    // Only what is cut off or put on anew is as uncertain as a build.
    const take = there ? [{ of: there }] : [];
    const put = placement ? [there ? placement : made(placement, rolls)] : [];
    after = changeOutcome(frame, after, {}, { ...NO_CHANGE, parts, removals: take, placements: put }).specs;
    if (index === undefined && placement) left.push({ ...placement, id: `new ${left.length}` });
    else if (index !== undefined && placement) left[index] = placement;
  }
  return { truth: after, placements: left };
}

function run({ margin, trial, roomG }: Way): Found {
  const found: Found = { fittings: 0, first: 0, trimmed: 0, stated: 0, statedTrimmed: 0 };
  for (let i = 0; i < FITTINGS; i++) {
    const { before, target } = fitting();
    const caps = Object.fromEntries(SPORT.zones.map(({ name, capG }) => [name, Math.max(0, capG - roomG)]));
    const [plan] = makePlans({
      shape,
      specs: before,
      target,
      parts,
      schools: ['free'],
      margin,
      instruments,
      caps,
    });
    if (!plan?.withinTolerance) continue;
    found.fittings++;
    found.stated += plan.chance;
    found.statedTrimmed += chanceAfterTrim(frame, target, plan.specs, plan.chance, instruments);
    const rolls = freshRolls();
    let placements: readonly Placement[] = plan.placements;
    let truth = builtFrom(
      before,
      placements.map((p) => made(p, rolls)),
    );
    if (trial) {
      const tried = read(truth);
      const put = withinTolerance(target, tried)
        ? undefined
        : trimOnce(truth, tried, placements, target, rolls);
      if (put) ({ truth, placements } = put);
    }
    const checked = read(truth);
    if (withinTolerance(target, checked)) {
      found.first++;
      found.trimmed++;
      continue;
    }
    const after = trimOnce(truth, checked, placements, target, rolls);
    if (after && withinTolerance(target, read(after.truth))) found.trimmed++;
  }
  return found;
}

const percent = (share: number): string => `${(100 * share).toFixed(0)} %`.padStart(6);
console.log(
  `${FITTINGS} random tennis fittings a way; tape and filling wrong by ${100 * DENSITY_SHARE} %, pieces by ${10 * PLACING_CM} mm, each reading taken three times`,
);
const ways: [string, Way][] = [
  ['plain tolerances', { margin: false, trial: false, roomG: 0 }],
  ['with margin', { margin: true, trial: false, roomG: 0 }],
  ['with margin and trial', { margin: true, trial: true, roomG: 0 }],
  ['with margin, 1 g of room kept', { margin: true, trial: false, roomG: 1 }],
];
for (const [name, way] of ways) {
  const { fittings, first, trimmed, stated, statedTrimmed } = run(way);
  const off = (a: number, b: number): string => `${(100 * Math.abs(a - b)).toFixed(1)} points apart`;
  const [p, q] = [first / fittings, trimmed / fittings];
  console.log(
    `${name.padEnd(32)} ${String(fittings).padStart(4)} planned inside; pass at first ${percent(p)}, after one trim ${percent(q)} (aim 95 %)`,
  );
  if (!way.trial)
    console.log(
      `${''.padEnd(32)}      stated ${percent(stated / fittings)} (${off(p, stated / fittings)}, aim under 5), after one trim ${percent(statedTrimmed / fittings)} (${off(q, statedTrimmed / fittings)})`,
    );
}

// What the shop learns: the same rolls for 40 builds; the first 20 teach, the others count with what they taught.
const SHOPS = 20;
let [early, late, builds] = [0, 0, 0];
for (let shop = 0; shop < SHOPS; shop++) {
  const rolls = freshRolls();
  const taught: TaughtBuild[] = [];
  const stated: Rolls = {};
  for (let i = 0; i < 40; i++) {
    const { before, target } = fitting();
    const own = parts.map((part) =>
      'gPerCm' in part ? { ...part, gPerCm: part.gPerCm * (1 + (stated[part.id] ?? 0)) } : part,
    ) as Part[];
    const [plan] = makePlans({ shape, specs: before, target, parts: own, schools: ['free'], instruments });
    if (!plan?.withinTolerance) continue;
    const truth = changeOutcome(
      frame,
      before,
      {},
      {
        ...NO_CHANGE,
        parts: own,
        placements: plan.placements.map((p) => made(p, rolls, stated)),
      },
    ).specs;
    const checked = read(truth);
    const passed = withinTolerance(target, checked);
    if (i < 20) {
      early += passed ? 1 : 0;
      builds++;
      const change = { ...NO_CHANGE, placements: plan.placements, parts: own };
      taught.push({
        frame,
        before,
        readings: instruments,
        dress: {},
        change,
        check: checked,
        checkReadings: instruments,
      });
    } else late += passed ? 1 : 0;
    if (i === 19) for (const { partId, share } of learn(taught, new Map()).rolls) stated[partId] = share;
  }
}
console.log(
  `with the shop's learning, ${SHOPS} shops of 40 builds: of their first 20 pass ${percent(early / builds)}, of the next 20 ${percent(late / builds)}`,
);
