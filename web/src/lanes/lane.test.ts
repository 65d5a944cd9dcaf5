import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { laneDomain, laneScale, standing } from './lane';

const value = fc.double({ min: 80, max: 400, noNaN: true });

describe('what a lane shows', () => {
  it('always holds what was measured, what is planned, and the aim with its tolerance (property)', () => {
    fc.assert(
      fc.property(
        value,
        value,
        value,
        fc.double({ min: 0.1, max: 5, noNaN: true }),
        (measured, predicted, aim, tolerance) => {
          const [low, high] = laneDomain('swingWeight', {
            measured: { swingWeight: measured },
            predicted: { swingWeight: predicted },
            aim: { swingWeight: { value: aim, tolerance, priority: 'want' } },
          });
          for (const v of [measured, predicted, aim - tolerance, aim + tolerance]) {
            expect(v).toBeGreaterThanOrEqual(low);
            expect(v).toBeLessThanOrEqual(high);
          }
        },
      ),
    );
  });

  it('is not flattened by a stray setup, and shows setups where nothing is measured', () => {
    const setups = [320, 325, 900].map((swingWeight, i) => ({
      id: `${i}`,
      specs: { swingWeight },
      marked: false,
    }));
    const [, high] = laneDomain('swingWeight', { measured: { swingWeight: 322 }, setups });
    expect(high).toBeLessThan(400);
    const alone = laneDomain('swingWeight', { setups: setups.slice(0, 2) });
    expect(alone[0]).toBeLessThan(320);
    expect(alone[1]).toBeGreaterThan(325);
  });

  it('is empty without anything', () => {
    expect(laneDomain('massG', {})).toEqual([0, 1]);
  });

  it('keeps marks beyond it at its edge', () => {
    const { x, ticks } = laneScale([300, 340], 400);
    expect(x(300)).toBe(8);
    expect(x(340)).toBe(392);
    expect(x(1e6)).toBe(420);
    expect(x(-1e6)).toBe(-20);
    expect(ticks.length).toBeGreaterThan(2);
  });
});

describe('how a value stands to the aim', () => {
  const aim = { swingWeight: { value: 330, tolerance: 1.5, priority: 'want' as const } };

  it('is inside up to the tolerance, and beyond it counts in steps of the hand (2.5 %, Brody 2000)', () => {
    expect(standing('swingWeight', { aim, measured: { swingWeight: 331.5 } }, 'tennis')?.inside).toBe(true);
    const off = standing('swingWeight', { aim, measured: { swingWeight: 320 } }, 'tennis');
    expect(off).toMatchObject({ difference: -10, inside: false });
    expect(off?.steps).toBeCloseTo(-10 / (0.025 * 320), 9);
  });

  it('counts the plan before the measurement, and nothing where the aim is free', () => {
    const marks = { aim, measured: { swingWeight: 320 }, predicted: { swingWeight: 330 } };
    expect(standing('swingWeight', marks, 'tennis')?.difference).toBeCloseTo(0, 9);
    expect(
      standing(
        'swingWeight',
        { ...marks, aim: { swingWeight: { ...aim.swingWeight, priority: 'free' as const } } },
        'tennis',
      ),
    ).toBeUndefined();
    expect(standing('massG', marks, 'tennis')).toBeUndefined();
  });

  it('counts in the steps of the frame’s own sport', () => {
    const marks = { aim: { massG: { value: 90, tolerance: 0.5 } }, measured: { massG: 88 } };
    expect(standing('massG', marks, 'badminton')?.steps).toBeCloseTo(-2, 9);
    expect(standing('massG', marks, 'tennis')?.steps).toBeCloseTo(-2 / 3, 9);
  });

  it('shows a guide with an open end without being flattened by it', () => {
    const [low, high] = laneDomain('swingWeight', {
      measured: { swingWeight: 113 },
      guide: { swingWeight: [-Infinity, 115] },
    });
    expect(Number.isFinite(low) && Number.isFinite(high)).toBe(true);
    expect(high).toBeGreaterThan(115);
  });
});
