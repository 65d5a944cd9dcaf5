import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { evaluate, isResultSet } from 'mathjs';
import { describe, expect, it } from 'vitest';
import { cameraOf, seenAt, seenBy, type Corners } from '../src/photo/projection';
import {
  swingSchools,
  tensionNow,
  benchSteps,
  CheckVariance,
  bySpec,
  chanceAfterTrim,
  everySpec,
  judgeable,
  usualInstruments,
  conformance,
  expectedAfter,
  tilesOf,
  updated,
  withLength,
  compareReports,
  bareOf,
  averageOf,
  aimFromComplaints,
  NO_CHANGE,
  RODS,
  angleError,
  apparentRestitution,
  calibrate,
  chanceOf,
  corrected,
  correctionUncertainty,
  derive,
  effectiveMass,
  edgeOnCorrection,
  errorSources,
  estimateSwing,
  estimateTwist,
  guardShares,
  lightenEvenly,
  makePlans,
  nextStep,
  growthDays,
  noteOf,
  pendulum,
  placeOf,
  pointsHeadLight,
  predict,
  recoilWeight,
  redress,
  roundedRectangle,
  settleFrame,
  specErrors,
  spreadOf,
  shiftAxis,
  stepDistance,
  stringMass,
  swingSpeedShare,
  twistByThreads,
  twistFromReadings,
  whatWorks,
  windingOf,
} from '../src';

/** How far a centimetre at a height above the table is seen from 100 cm straight above, picture elements. */
function acrossAt(heightCm: number): number {
  const sheet = [
    [0, 0],
    [29.7, 0],
    [29.7, 21],
    [0, 21],
  ].map(([x = 0, y = 0]) => ({ x: 10 * x, y: 10 * y }));
  const view = cameraOf(seenBy(sheet as unknown as Corners, 29.7, 21), { x: 150, y: 100 }, 1000).above(
    heightCm,
  );
  return seenAt(view, { x: 1, y: 0 }).x - seenAt(view, { x: 0, y: 0 }).x;
}

import { laidAt, putty, tape } from './parts';

const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const frame = settleFrame(shape);
const racket = { massG: 336, balanceCm: 32.4, swingWeight: 339, twistWeight: 14, axisCm: 10.16 };
const tip = predict(shape, racket, [{ massG: 4, at: { clock: 12 } }]);
const strung = redress(
  shape,
  { massG: 305, balanceCm: 31.5, swingWeight: 295 },
  {},
  { strings: { massG: 16 } },
).specs;
const swung = pendulum({
  massG: 336,
  balanceCm: 32.4,
  pivotCm: 1,
  swings: 20,
  seconds: 27.4,
  amplitudeDeg: 15,
  axisCm: 10.16,
});
const line = calibrate(
  [100, 200, 300].map((trueValue, i) => ({ trueValue, read: [101.5, 202.5, 303.5][i] ?? 0 })),
);
/** A face that is a plain rectangle, 20.32 by 27.305 cm. */
const standard = settleFrame({ sport: 'pickleball', lengthCm: 40.64 });
const paddle = { ...standard, bed: roundedRectangle(13.335, 40.64, 10.16, 0.001) };
const middle = { xCm: frame.bed.centreXCm, yCm: 0 };
const guess = estimateTwist(frame, 320);
const side = placeOf(frame, { clock: 3 });
const [plan] = makePlans({
  shape,
  specs: { massG: 336, balanceCm: 32.4, swingWeight: 321, twistWeight: 13.9 },
  target: {
    massG: { value: 348, tolerance: 1 },
    balanceCm: { value: 32.4, tolerance: 0.15 },
    swingWeight: { value: 333, tolerance: 1.5 },
    twistWeight: { value: 14.5, tolerance: 0.2 },
  },
  schools: ['free'],
});

/** Something for the handle, for which the grips come off. */
const handleChange = { ...NO_CHANGE, placements: [laidAt(frame, 'butt', putty, 4, 2.5)], parts: [putty] };

/** A scale of ±0.3 g in its usual parts that does not drift by more than is usual. */
const scaleOnly = usualInstruments(frame.sport);

/** What the densities of rolls leave uncertain of the weight, g. */
function densityOf(...rolls: [string, number][]): number {
  const parts = rolls.map(([id]) => ({ ...tape, id }));
  const placements = rolls.map(([id, massG], i) => ({
    ...laidAt(frame, 'sides', tape, massG, 10),
    id: `${i}`,
    partId: id,
  }));
  const sources = errorSources(frame, {}, { ...NO_CHANGE, placements, parts });
  return spreadOf(
    specErrors(
      racket,
      sources.filter(({ what }) => what === 'density'),
    ),
  ).massG;
}

/** Sessions two steps under and over their mean of 320, the lighter ones better. */
const works = whatWorks(
  'tennis',
  [304, 336, 304, 336, 304, 336, 304, 336].map((swingWeight) => ({
    specs: { swingWeight },
    session: { arm: 'fine', energyLeft: swingWeight < 320 ? 'plenty' : 'little' } as const,
  })),
).specs[0]?.perStep;

const EXAMPLES: Record<string, number> = {
  growth: growthDays(13) ?? Number.NaN,
  noteOf: noteOf({ energyLeft: 'plenty', arm: 'fine', late: 'sometimes' }),
  works: works?.mean ?? Number.NaN,
  worksU: works?.uncertainty ?? Number.NaN,
  ceilingStep:
    nextStep({
      programme: 'find-ceiling',
      shape,
      specs: racket,
      history: [{ change: [], session: { energyLeft: 'plenty', arm: 'fine' } }],
    }).specs.swingWeight - racket.swingWeight,
  points: pointsHeadLight(32.4, 68.58),
  recoil: recoilWeight(racket),
  shift: shiftAxis(racket, 10).swingWeight,
  natural: derive(racket, 68.58).naturalSwing,
  percussion: derive(racket, 68.58).percussionCm,
  tip: tip.delta.swingWeight,
  tipBalance: tip.specs.balanceCm,
  tipStrip: predict(shape, racket, [{ massG: 4, at: { clock: 12 }, spanCm: 10 }]).delta.swingWeight,
  headWidth: 2 * frame.bed.acrossCm,
  side: side.on === 'rim' ? side.arcCm() : Number.NaN,
  strings: strung.swingWeight - 295,
  stringsBalance: strung.balanceCm - 31.5,
  stringMass: stringMass(frame, { mains: 16, crosses: 19, gaugeMm: 1.25, material: 'polyester' }).massG,
  pendulum: swung.swingWeight,
  pendulumU: swung.uncertainty,
  twistU: twistFromReadings([320], [334], 1).uncertainty,
  threads: twistByThreads({ massG: 336, threadCm: 100, separationCm: 15, swings: 20, seconds: 34.4 })
    .twistWeight,
  slope: line.slope,
  filmAngle: 100 * angleError(((10 * Math.PI) / 180) ** 2),
  tensionDay: tensionNow(
    { mainsKg: 24, crossesKg: 24, mainsKind: 'nylon', crossesKind: 'nylon', preStretchPercent: 0 },
    { days: 1, hours: 0 },
  ).share,
  parallax: 100 * (acrossAt(1.15) / acrossAt(0) - 1),
  left: correctionUncertainty(RODS, 0.5, 200).value,
  leftAt320: correctionUncertainty(RODS, 0.5, 320).value,
  swingGuess: estimateSwing(frame, 320, 32.5).value,
  swingGuessU: estimateSwing(frame, 320, 32.5).uncertainty,
  corrected: corrected(line, 321),
  middle: middle.xCm,
  effective: effectiveMass(racket, middle),
  restitution: apparentRestitution(effectiveMass(racket, middle), 57.7, 0.85),
  speed: swingSpeedShare(320, 340),
  estimate: guess.twistWeight,
  estimateU: guess.uncertainty,
  steps: stepDistance({ massG: 330, swingWeight: 320 }, { massG: 333, swingWeight: 328 }).distanceSteps,
  bare: bareOf({ shape, dress: { strings: true, overgrips: 1 }, specs: { massG: 345 } }).massG ?? Number.NaN,
  reports:
    averageOf(
      compareReports(
        [
          { shape, dress: {}, specs: { massG: 330 }, confidence: 'high' },
          { shape, dress: {}, specs: { massG: 342 }, confidence: 'low' },
        ],
        {},
        10.16,
      ),
    ).massG ?? Number.NaN,
  late:
    aimFromComplaints('tennis', { massG: 320, balanceCm: 32.5, swingWeight: 320 }, ['late']).swingWeight
      ?.value ?? Number.NaN,
  carry: swingSchools('tennis', {}, 340).carry ?? Number.NaN,
  planPlaces: plan?.places ?? Number.NaN,
  planMass: plan?.addedG ?? Number.NaN,
  planSwing: plan?.specs.swingWeight ?? Number.NaN,
  gripStrip: windingOf(frame, 'overgrip').stripCm,
  gripTurns: windingOf(frame, 'overgrip').turns,
  depth: edgeOnCorrection(frame, 320, 10.16).depth,
  air: edgeOnCorrection(paddle, 228, 5).air,
  guard: guardShares(
    { massG: { value: 340, tolerance: 1 } },
    { massG: 0.2, balanceCm: 0, swingWeight: 0, twistWeight: 0 },
  ).massG,
  rolls: densityOf(['a', 6], ['b', 8]),
  oneRoll: densityOf(['a', 6], ['a', 8]),
  trimmed: withLength(frame, laidAt(frame, 'sides', tape, 4.24, 8), tape, 7.5).massG,
  afterTrim: chanceAfterTrim(
    {
      aim: { massG: { value: 340, tolerance: 1 } },
      after: racket,
      instruments: { ...scaleOnly, check: { ...scaleOnly.check, massG: { random: 0.4, common: 0.3 } } },
    },
    0.6,
    everySpec(2),
  ),
  checkU: new CheckVariance({ before: racket, after: racket, build: [], instruments: scaleOnly }).of(
    'massG',
    everySpec(2),
  ),
  othersU: new CheckVariance({
    before: racket,
    after: racket,
    build: [],
    instruments: { ...scaleOnly, same: bySpec(() => false) },
  }).of('massG', everySpec(2)),
  judged: judgeable({ before: racket, after: racket, build: [], instruments: scaleOnly }, everySpec(2)).massG,
  stripped: expectedAfter(
    {
      frame,
      before: racket,
      readings: frame.sport.typicalReading,
      dress: { strings: true, baseGrip: 'synthetic', overgrips: 1 },
      change: handleChange,
      steps: benchSteps(handleChange, { strings: true, baseGrip: 'synthetic', overgrips: 1 }),
    },
    'strip-handle',
  ).specs.massG,
  trulyInside: conformance({ massG: { value: 336.5, tolerance: 1 } }, racket, {
    ...frame.sport.typicalReading,
    massG: 0.4,
  }).all,
  onEdge: conformance({ massG: { value: 326, tolerance: 10 } }, racket, {
    ...frame.sport.typicalReading,
    massG: 0.4,
  }).all,
  sheets: tilesOf({ widthMm: 290, heightMm: 100 }, { widthMm: 190, heightMm: 277 }).length,
  learned: updated([0.04], [{ values: [0.2], design: [[5]], noise: [[0.01]] }]).mean[0] ?? Number.NaN,
  learnedU: Math.sqrt(
    updated([0.04], [{ values: [0.2], design: [[5]], noise: [[0.01]] }]).covariance[0]?.[0] ?? 0,
  ),
  chance: chanceOf({ massG: { value: 340, tolerance: 1 } }, { ...racket, massG: 340.5 }, [
    { what: 'density', of: { massG: 0.4, balanceCm: 0, swingWeight: 0, twistWeight: 0 } },
  ]).chance,
  lighten: lightenEvenly([laidAt(frame, 'handle', putty, 9, 6)], 0.3, 1)[0]?.massG ?? Number.NaN,
};

/** An example stands in the page as its name, its digits, how it is worked out and its number: `<!--=twistU:2: 1*sqrt(1 + 1)-->1.41`. */
const STANDS = /<!--=(\w+):(\d)(?:: (.*?))?-->(-?\d+(?:\.\d+)?)/g;
/** A search cannot be worked out by hand; plan.test.ts compares it with a general solver. What works is compared with a general library in what-works.test.ts. Chords are summed in dress.test.ts. A law of propagation is compared with simulation in measure.test.ts. */
const NOT_BY_HAND = ['works', 'worksU', 'stringMass', 'planPlaces', 'planMass', 'planSwing', 'pendulumU'];

describe('the page of the computation', () => {
  const page = readFileSync(join(import.meta.dirname, '../../docs/computation.md'), 'utf8');
  const found = [...page.matchAll(STANDS)].map(([, name = '', digits, byHand, number]) => ({
    name,
    digits: Number(digits),
    byHand,
    number,
  }));

  it('has a number for every example, and no other', () => {
    expect(found.map((f) => f.name).toSorted()).toEqual(Object.keys(EXAMPLES).toSorted());
    expect(
      found
        .filter((f) => f.byHand === undefined)
        .map((f) => f.name)
        .toSorted(),
    ).toEqual(NOT_BY_HAND.toSorted());
  });

  it.each(found)('$name is $number', ({ name, digits, number }) => {
    expect((EXAMPLES[name] ?? Number.NaN).toFixed(digits)).toBe(number);
  });

  it.each(found.filter((f) => f.byHand !== undefined))(
    '$name is $number when worked out by hand',
    ({ byHand = '', digits, number }) => {
      const result: unknown = evaluate(byHand);
      // Several steps give the results of all; the last one counts.
      const value = isResultSet(result) ? Number(result.entries.at(-1)) : Number(result);
      expect(value.toFixed(digits)).toBe(number);
    },
  );
});
