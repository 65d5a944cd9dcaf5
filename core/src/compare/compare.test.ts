import { describe, expect, it } from 'vitest';
import { redress } from '../dress';
import { shiftAxis } from '../mass';
import { SPORTS } from '../sport';
import { SOURCE_KINDS, bringTo, nearest, stepDistance, type SourceKind } from '.';

const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const own = { massG: 330, balanceCm: 32, swingWeight: 320, twistWeight: 14 };

describe('distance in noticeable steps', () => {
  it('counts 3 g, 3 mm, 2.5 % of swing weight and 0.4 of twist as one step each (Brody 2000; common practice)', () => {
    const other = { massG: 333, balanceCm: 31.7, swingWeight: 328, twistWeight: 14.4 };
    const { distanceSteps, steps } = stepDistance(own, other);
    expect(steps.massG).toBeCloseTo(1, 9);
    expect(steps.balanceCm).toBeCloseTo(-1, 9);
    expect(steps.swingWeight).toBeCloseTo(1, 9);
    expect(steps.twistWeight).toBeCloseTo(1, 9);
    expect(distanceSteps).toBeCloseTo(2, 9);
  });

  it('leaves out what one side does not know, and says so', () => {
    const { distanceSteps, unknown } = stepDistance(own, { massG: 336, swingWeight: 320 });
    expect(distanceSteps).toBeCloseTo(2, 9);
    expect(unknown).toEqual(['balanceCm', 'twistWeight']);
  });

  it('puts the nearest first and what has nothing in common last', () => {
    const order = nearest(own, [
      { id: 'far', specs: { ...own, massG: 350 } },
      { id: 'empty', specs: {} },
      { id: 'near', specs: { ...own, massG: 331 } },
    ]).map((n) => n.id);
    expect(order).toEqual(['near', 'far', 'empty']);
  });
});

describe('bringing a setup to another dress and axis', () => {
  const full = { massG: 310, balanceCm: 31.5, swingWeight: 295, twistWeight: 12.5 };
  const dress = { strings: true, overgrips: 1 };

  it('does what redress and the shift of the axis do, where all is known', () => {
    const brought = bringTo({ shape, dress: {}, specs: { ...full, axisCm: 10 } }, dress, 10.16);
    const byHand = shiftAxis(redress(shape, { ...full, axisCm: 10 }, {}, dress).specs, 10.16);
    for (const key of ['massG', 'balanceCm', 'swingWeight', 'twistWeight'] as const) {
      expect(brought.specs[key]).toBeCloseTo(byHand[key] ?? 0, 9);
    }
    expect(brought.lost).toEqual([]);
  });

  it('keeps missing values missing and drops what cannot be brought over without them', () => {
    const onlySwing = bringTo({ shape, dress: {}, specs: { swingWeight: 295 } }, dress, 10.16);
    expect(onlySwing.specs.swingWeight).toBeGreaterThan(320);
    expect(onlySwing.specs.massG).toBeUndefined();
    const otherAxis = bringTo({ shape, dress: {}, specs: { swingWeight: 295, axisCm: 10 } }, dress, 10.16);
    expect(otherAxis.lost).toEqual(['swingWeight']);
    const noMass = bringTo({ shape, dress: {}, specs: { balanceCm: 31.5 } }, dress, 10.16);
    expect(noMass.lost).toEqual(['balanceCm']);
  });

  it('adds the uncertainty of the parts to that of the readings', () => {
    const same = bringTo({ shape, dress, specs: full }, dress, 10.16).uncertainty;
    const moved = bringTo({ shape, dress: {}, specs: full }, dress, 10.16).uncertainty;
    expect(moved.swingWeight).toBeGreaterThan((same.swingWeight ?? 0) * 2);
  });
});

it('a setup is as uncertain as its source: hearsay is not an instrument', () => {
  const report = {
    shape: { sport: 'tennis', lengthCm: 68.58 } as const,
    dress: {},
    specs: { massG: 330, swingWeight: 330 },
  };
  const of = (sourceKind?: SourceKind): number =>
    bringTo({ ...report, ...(sourceKind ? { sourceKind } : {}) }, {}, 10.16).uncertainty.massG ?? 0;
  expect(of()).toBe(SPORTS.tennis.typicalReading.massG);
  expect(SOURCE_KINDS.map((kind) => of(kind))).toEqual(
    SOURCE_KINDS.map((kind) => of(kind)).toSorted((a, b) => a - b),
  );
  expect(of('hearsay')).toBeGreaterThan(3);
});
