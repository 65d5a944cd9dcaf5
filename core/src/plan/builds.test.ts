import { describe, expect, it } from 'vitest';
import { settleFrame } from '../frame';
import { TYPICAL_READING } from '../measure';
import { putty, tape } from '../../test/parts';
import { NO_CHANGE, changeUncertainty, makePlans, simulateBuilds } from '.';

const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const before = { massG: 336, balanceCm: 32.4, swingWeight: 321, twistWeight: 13.9, axisCm: 10.16 };
const aim = {
  massG: { value: 348, tolerance: 1 },
  balanceCm: { value: 32.4, tolerance: 0.15 },
  swingWeight: { value: 333, tolerance: 1.5 },
};
const parts = [tape, putty];
const [plan] = makePlans({ shape, specs: before, target: aim, parts, schools: ['free'] });
const placements = plan?.placements ?? [];
const simulate = (count: number, seed: number) =>
  simulateBuilds(shape, before, TYPICAL_READING, placements, parts, aim, count, seed);

describe('simulated builds (JCGM 101:2008)', () => {
  it('spread as the law of propagation says (JCGM 100:2008), around what is planned', () => {
    const change = { ...NO_CHANGE, placements, parts };
    const stated = changeUncertainty(settleFrame(shape), before, TYPICAL_READING, {}, change);
    const { mean, spread } = simulate(40_000, 11);
    for (const key of ['massG', 'balanceCm', 'swingWeight', 'twistWeight'] as const) {
      expect(spread[key] / stated[key]).toBeGreaterThan(0.97);
      expect(spread[key] / stated[key]).toBeLessThan(1.03);
      expect(Math.abs(mean[key] - (plan?.specs[key] ?? 0))).toBeLessThan(0.1 * stated[key]);
    }
  });

  it('come out the same from the same seed, and pass more often with wider tolerances', () => {
    expect(simulate(2000, 3)).toEqual(simulate(2000, 3));
    const narrow = simulate(4000, 3).passes;
    const wide = { massG: { value: 348, tolerance: 6 }, swingWeight: { value: 333, tolerance: 12 } };
    const often = simulateBuilds(shape, before, TYPICAL_READING, placements, parts, wide, 4000, 3).passes;
    expect(narrow).toBeGreaterThan(0.02);
    expect(narrow).toBeLessThan(0.95);
    expect(often).toBeGreaterThan(0.98);
  });
});
