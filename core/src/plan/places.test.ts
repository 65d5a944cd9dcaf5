import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { shape, frame, specs, parts, aim, free, reachable } from '../../test/planning';
import { putty, tape } from '../../test/parts';
import { SPEC_KEYS, predict } from '../mass';
import { middleOf, spanCmOf, zoneOf } from '../part';
import { asSpot, compareScores, makePlans, sensitivity, type Plan } from '.';

describe('anywhere in its zone, in any part', () => {
  it('is never worse than at the middles, in one part', () => {
    fc.assert(
      fc.property(reachable, (target) => {
        const here = makePlans({ shape, specs, target, parts, schools: ['free'], margin: false })[0] as Plan;
        const middle = makePlans({
          shape,
          specs,
          target,
          parts: [tape, putty],
          schools: ['free'],
          margin: false,
          atMiddle: true,
        })[0] as Plan;
        expect(compareScores(here.score, middle.score)).toBeLessThanOrEqual(0);
      }),
      { numRuns: 10, seed: 2 },
    );
  });

  it('lays every piece within its zone, pairs off the axis and single strips across it', () => {
    fc.assert(
      fc.property(reachable, (target) => {
        for (const p of free({ specs, target, parts }).placements) {
          const { yCm } = middleOf(frame, p);
          expect(p.sides).toBe(Math.abs(yCm) > 1e-9 ? 2 : 1);
          const zone = frame.sport.zones.find(({ name }) => name === zoneOf(frame, p));
          expect(zone && p.massG <= zone.capG + 1e-9).toBe(true);
          if (p.path !== 'slot') expect(spanCmOf(p)).toBeLessThanOrEqual((zone?.roomCm ?? 0) + 1e-9);
        }
      }),
      { numRuns: 10, seed: 6 },
    );
  });
});

describe('along the frame', () => {
  it('says what a gram does, as predict says it', () => {
    const points = sensitivity(shape, specs, 2);
    expect(points[0]?.xCm).toBe(0);
    expect(points.at(-1)?.xCm).toBe(68.58);
    for (const { xCm, ...change } of points.filter((_, i) => i % 7 === 0 && i < 30)) {
      const { delta } = predict(shape, specs, [{ massG: 2, at: { xCm } }]);
      for (const key of SPEC_KEYS) expect(change[key]).toBeCloseTo(delta[key], 9);
    }
    // At the middle of the head the pair lies as far out as the head is wide: the most twist there is.
    const widest = Math.max(...points.map(({ twistWeight }) => twistWeight));
    expect(widest).toBeCloseTo((2 * frame.rim.acrossCm ** 2) / 1000, 2);
    expect(sensitivity(shape, specs)[10]?.massG).toBe(1);
  });
});

describe('the spot of a plan', () => {
  it('says its zone, its length and layers', () => {
    const plan = free({ specs, target: aim(334, 32.4, 322, 14.1), parts });
    for (const p of plan.placements) {
      const spot = asSpot(frame, p);
      expect(spot.zone).toBe(zoneOf(frame, p));
      expect(spot.massG).toBe(p.massG);
    }
  });
});
