import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { putty, tape } from '../../test/parts';
import { benchSteps, cutList } from '../build';
import { settleFrame } from '../frame';
import { placementSums, zoneOf, type Part, type Placement } from '../part';
import { CM_PER_POINT } from '../units';
import { NO_CHANGE, makePlans, trimPlans } from '.';

const shape = { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 645 } as const;
const frame = settleFrame(shape);
const onBevels: Placement = {
  id: 'b',
  partId: tape.id,
  path: 'handle',
  startCm: 2,
  endCm: 12,
  sides: 1,
  layers: 4,
  massG: 4 * 10 * 0.265,
};
const leadWrap: Part = {
  id: 'wrap',
  name: 'lead sheet',
  kind: 'wrap',
  material: 'lead',
  gPerCm: 3.4,
  stepCm: 0.5,
};
const oneSide = ({ massG, sides }: Placement): number => massG / sides;

describe('tape on the handle, on every other bevel under the grip', () => {
  it('swings as a rod of its length does, and turns as a tube around the long axis (handbook)', () => {
    const { massG, firstGCm, secondGCm2, twistGCm2 } = placementSums(frame, onBevels, tape);
    const r = frame.handleRadiusCm;
    expect(firstGCm / massG).toBeCloseTo(7, 9);
    expect(secondGCm2 / massG).toBeCloseTo(7 ** 2 + 10 ** 2 / 12 + r ** 2 / 2, 9);
    expect(twistGCm2 / massG).toBeCloseTo(r ** 2, 9);
  });

  it('is cut as four strips and put on when the handle is open, before the grip goes back on', () => {
    const [cut] = cutList(frame, [onBevels], [tape]);
    expect(cut).toMatchObject({ pieces: 4, lengthCm: 10, onBevels: true, cut: true });
    const steps = benchSteps(
      { ...NO_CHANGE, placements: [onBevels], parts: [tape] },
      { baseGrip: 'leather' },
    );
    const kinds = steps.map(({ kind }) => kind);
    expect(kinds.indexOf('wrap-handle')).toBeGreaterThan(kinds.indexOf('strip-handle'));
    expect(kinds.indexOf('regrip')).toBeGreaterThan(kinds.indexOf('wrap-handle'));
    expect(kinds).not.toContain('fix-head');
  });

  it('is what a plan uses where there is tape and nothing to fill with', () => {
    const specs = { massG: 300, balanceCm: 33, swingWeight: 300, twistWeight: 13, axisCm: 10.16 };
    const target = {
      massG: { value: 306, tolerance: 0.7 },
      balanceCm: { value: 32.5, tolerance: 0.15 },
    };
    const [best] = makePlans({ shape, specs, target, parts: [tape], schools: ['free'] });
    expect(best?.withinTolerance).toBe(true);
    expect(best?.placements.some(({ path, layers }) => path === 'handle' && layers === 4)).toBe(true);
  });
});

describe('a handle', () => {
  it('takes tens of grams, inside and around it: a frame that is head-heavy by 8 points gets to 9 points head-light', () => {
    const points = (n: number): number => shape.lengthCm / 2 - n * CM_PER_POINT;
    const specs = { massG: 301, balanceCm: points(-8), swingWeight: 330, twistWeight: 13, axisCm: 10.16 };
    const target = {
      massG: { value: 364, tolerance: 1 },
      balanceCm: { value: points(9), tolerance: 0.16 },
    };
    const [best] = makePlans({ shape, specs, target, parts: [tape, putty, leadWrap], schools: ['free'] });
    expect(best?.withinTolerance).toBe(true);
    const inHandle = best?.placements.filter(({ path }) => path === 'handle') ?? [];
    expect(inHandle.reduce((sum, { massG }) => sum + massG, 0)).toBeGreaterThan(45);
    expect(new Set(inHandle.map(({ partId }) => partId)).size).toBeGreaterThan(1);
    // What is inside lies within the handle's length, and so does what is around it.
    for (const lies of [['putty'], ['wrap', 'tape']]) {
      const cm = inHandle
        .filter(({ partId }) => lies.includes(partId))
        .reduce((sum, p) => sum + (p.path === 'slot' ? 0 : p.endCm - p.startCm), 0);
      expect(cm).toBeLessThanOrEqual(frame.handleLengthCm);
    }
  });
});

describe('the smallest piece', () => {
  const specs = { massG: 320, balanceCm: 32.5, swingWeight: 318, twistWeight: 13.5, axisCm: 10.16 };

  it('is kept by every plan, and is what the shop says (property)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 8, noNaN: true }),
        fc.double({ min: -1, max: 6, noNaN: true }),
        fc.constantFrom(undefined, 0.3, 1),
        (moreG, moreSwing, leastG) => {
          const target = {
            massG: { value: specs.massG + moreG, tolerance: 0.5 },
            swingWeight: { value: specs.swingWeight + moreSwing, tolerance: 1 },
          };
          const plans = makePlans({
            shape,
            specs,
            target,
            parts: [tape, putty],
            ...(leastG === undefined ? {} : { leastG }),
          });
          for (const plan of plans)
            for (const piece of plan.placements)
              expect(oneSide(piece)).toBeGreaterThanOrEqual((leastG ?? 0.5) - 1e-9);
        },
      ),
      { numRuns: 12 },
    );
  });

  it('is kept by every trim: what is left of a piece is worth cutting, or it comes off whole', () => {
    const placements: Placement[] = [
      { id: 'a', partId: tape.id, path: 'rim', startCm: 20, endCm: 22.5, sides: 2, layers: 1, massG: 1.325 },
      { id: 'c', partId: putty.id, path: 'handle', startCm: 1, endCm: 2, sides: 1, layers: 1, massG: 1.5 },
    ];
    const target = {
      massG: { value: specs.massG - 1, tolerance: 0.3 },
      swingWeight: { value: specs.swingWeight - 1.5, tolerance: 1 },
    };
    const trims = trimPlans({ shape, specs, placements, target, parts: [tape, putty] });
    expect(trims.length).toBeGreaterThan(0);
    for (const { changes } of trims)
      for (const { placement } of changes)
        if (placement) expect(oneSide(placement)).toBeGreaterThanOrEqual(0.5 - 1e-9);
    expect(zoneOf(frame, placements[1] as Placement)).toBe('butt');
  });
});
