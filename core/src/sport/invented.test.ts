import { afterAll, beforeAll, expect, it } from 'vitest';
import { guideBands, guidesOf, partWay, withinTolerance } from '../aim';
import { benchSteps, cutList } from '../build';
import { judge, measurementOf, typedReading, type Quantity, type Reading } from '../capture';
import { bringTo, nearest } from '../compare';
import { roundState, type RoundRecords } from '../fitting';
import { brokenLimits, settleFrame } from '../frame';
import { guardsOf } from '../guard';
import { derive } from '../mass';
import { wholesOf } from '../measure';
import { sweetRegion } from '../impact';
import { NO_CHANGE, changeOutcome, changeUncertainty, makePlans, swapOffers } from '../plan';
import { parseSpecs } from '../typed';
import { putty, tape } from '../../test/parts';
import { typical } from './kit';
import { SPORTS, isStrung, type Sport, type SportData } from '.';

/** A sport that nobody plays: heavy short bats with a square face on a shaft. Adding one is this file and its entry. */
const quillet: SportData = {
  sport: 'quillet' as Sport,
  axisCm: 7,
  ballG: 40,
  ballLimitsG: [38, 42],
  smallestPieceG: 0.5,
  strokes: [{ name: 'drive', ballSpeed: 8, faceSpeed: 14, turnsAboutCm: -10, source: 'invented' }],
  face: { restitution: 0.5, atSpeed: 20, lossPerSpeed: 0.003, edgeLoss: 0.15, source: 'invented' },
  shaft: 'stiff',
  lengthCm: 52,
  handleLengthCm: 15,
  handleRadiusCm: 1.5,
  family: { kind: 'egg', headLengthCm: 24, widthCm: 20, widest: 0.5 },
  hoop: { widthCm: 0.5, thickCm: 1.5, places: ['inside', 'edge'], usual: 'edge', sizeIsOf: 'whole' },
  shapes: {},
  shapeAverages: {},
  throat: 'shaft',
  usual: { massG: 260, balanceCm: 27, swingWeight: 170, twistWeight: 8 },
  usualRange: { recoil: [0.7, 1.4], twist: [0.5, 1.6] },
  plausible: {
    massG: [200, 320],
    balanceCm: [20, 34],
    swingWeight: [110, 240],
    twistWeight: [4, 14],
    lengthCm: [48, 55],
    headAreaCm2: [250, 500],
  },
  depthCm: 1,
  massShares: { edge: 0.3, face: 0.3 },
  noticeable: { massG: 2, balanceCm: 0.25, swingWeightShare: 0.03, twistWeight: 0.3 },
  tolerance: { massG: 2, balanceCm: 0.3, swingWeight: 2, twistWeight: 0.5 },
  typicalReading: { massG: 0.4, balanceCm: 0.1, swingWeight: 0.7, twistWeight: 0.2 },
  programmeSteps: { tipG: 1, pairG: 2, handleG: 2 },
  aimStep: { massG: 2, balanceCm: 0.5, swingWeight: 2, twistWeight: 0.5 },
  decimals: { massG: 0, balanceCm: 1, swingWeight: 0, twistWeight: 1 },
  dress: { components: ['overgrips'], bare: {} },
  typicalParts: {
    strings: typical(0, 0),
    synthetic: typical(0, 0),
    leather: typical(0, 0),
    overgrip: typical(6, 0.5),
    dampener: typical(0, 0),
  },
  guides: { usual: { massG: { from: 250, to: 280, dress: {} } } },
  bands: {},
  juniorClasses: [],
  limits: [{ of: 'length', mostCm: 55, source: 'the rules of quillet' }],
  zones: [
    { name: 'tip', path: 'rim', at: 12, extent: [0, 1.5], capG: 10, roomCm: 12 },
    { name: 'sides', path: 'rim', at: 3, extent: [1.5, 6], capG: 12, roomCm: 10 },
    { name: 'throat', path: 'throat', at: 0.5, extent: [0, 1], capG: 8, roomCm: 4 },
    { name: 'handle', path: 'handle', at: 0.5, extent: [0.3, 1], capG: 15, roomCm: 8 },
    { name: 'butt', path: 'handle', at: 0.1, extent: [0, 0.3], capG: 10, roomCm: 3 },
  ],
};
const QUILLET = quillet.sport;
const table = SPORTS as Record<string, SportData>;
beforeAll(() => {
  table[QUILLET] = quillet;
});
afterAll(() => {
  Reflect.deleteProperty(table, QUILLET);
});

it('an invented sport goes through a whole fitting: found, compared, aimed, planned, built', () => {
  const shape = { sport: QUILLET, lengthCm: 52 };
  const frame = settleFrame(shape);
  expect(isStrung(QUILLET)).toBe(false);
  expect(brokenLimits({ ...shape, lengthCm: 56 })[0]?.source).toBe('the rules of quillet');

  // Measured, with what its own sport knows.
  const read = (quantity: Quantity, value: number): Reading => ({
    ...typedReading(quillet, quantity, value),
    id: quantity,
    setAside: false,
  });
  const found = measurementOf(frame, [
    read('massG', 258),
    read('balanceCm', 26.8),
    read('swingWeight', 168),
    read('twistWeight', 8.1),
  ]);
  expect(found.specs).toMatchObject({ massG: 258, axisCm: 7 });
  const dress = { overgrips: 1 };
  expect(judge(shape, { ...found, uncertainty: wholesOf(found.parts), dress }, {})).toEqual([]);
  expect(parseSpecs('258 g 26.8 cm sw 168', QUILLET).specs.massG).toBe(258);

  // Compared in its own steps.
  const theirs = bringTo({ shape, dress: {}, specs: { massG: 262, swingWeight: 176, axisCm: 7 } }, dress, 7);
  expect(theirs.specs.massG).toBe(268);
  const [near] = nearest(found.specs, [theirs], quillet);
  expect(near?.steps.massG).toBeCloseTo(10 / 2, 9);

  // Copied exactly, with its own tolerances.
  const target = partWay(quillet, found.specs, { massG: 270.4, balanceCm: 27.2, swingWeight: 179.5 }, 1);
  expect(target.massG).toEqual({ value: 270.4, tolerance: 2, priority: 'want' });
  expect(target.twistWeight?.priority).toBe('free');
  expect(guidesOf(QUILLET)).toEqual(['usual']);
  expect(guideBands(frame, 'usual', dress).massG).toEqual([256, 286]);
  const ceiling = { ceilingSwingWeight: 175 };
  const guards = guardsOf({ shape, specs: found.specs, dress, target, player: ceiling });
  expect(guards.map(({ code }) => code)).toContain('over-ceiling');

  // Planned with real parts, and built.
  const parts = [tape, putty];
  const offers = swapOffers(frame, dress);
  expect(offers).toHaveLength(1);
  const [plan] = makePlans({ shape, specs: found.specs, target, parts, offers, schools: ['free'] });
  if (!plan) throw new Error('no plan');
  expect(plan.withinTolerance).toBe(true);
  const change = { ...NO_CHANGE, ...plan, parts };
  const outcome = changeOutcome(frame, found.specs, dress, change);
  expect(outcome.specs.swingWeight).toBeCloseTo(plan.specs.swingWeight, 9);
  expect(withinTolerance(target, outcome.specs)).toBe(true);
  expect(changeUncertainty(frame, found.specs, wholesOf(found.parts), dress, change).massG).toBeGreaterThan(
    0,
  );
  expect(cutList(frame, plan.placements, parts)).toHaveLength(plan.placements.length);
  const steps = benchSteps(change, dress);
  expect(steps.at(-1)?.kind).toBe('final-check');
  expect(derive(outcome.specs, 52).recoilWeight).toBeGreaterThan(0);
  const sweet = sweetRegion(frame, { ...outcome.specs, twistWeight: outcome.specs.twistWeight ?? 8 });
  expect(sweet?.best.xCm).toBeGreaterThan(26);

  const records: RoundRecords = {
    startId: 'm',
    compared: true,
    measurements: [{ id: 'm', purpose: 'found', counts: true, supersededBy: null }],
    aims: [{ id: 'a' }],
    plans: [{ id: 'p', aimId: 'a', startId: 'm', steps }],
    marks: steps.map(({ key }) => ({
      planId: 'p',
      step: key,
      mark: 'done',
      at: '2026-11-01T10:00:00Z',
      measurementId: null,
    })),
    signOffs: [],
    sessions: [],
  };
  expect(roundState(records, '2026-11-25T10:00:00Z').next?.station).toBe('check');
});
