import loadHighs from 'highs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { generalSolver } from '../../test/general-solver';
import { lpText, type Term } from '../../test/milp';
import { placeOf, settleFrame } from '../frame';
import { predict } from '../mass';
import { reach } from '.';

const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const frame = settleFrame(shape);
const own = { massG: 325, balanceCm: 32.2, swingWeight: 318, twistWeight: 13.4 };

describe('reach', () => {
  it('reaches what predict makes of additions within the caps, with no more than that mass', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 8, maxLength: 8 }),
        (shares) => {
          const additions = frame.sport.zones.map((zone, i) => {
            const { xCm, yCm } = placeOf(frame, { zone: zone.name });
            return { massG: (shares[i] ?? 0) * 0.5 * zone.capG, at: { xCm, yCm } };
          });
          const { specs } = predict(shape, own, additions);
          const target = {
            massG: specs.massG,
            balanceCm: specs.balanceCm,
            swingWeight: specs.swingWeight,
            twistWeight: specs.twistWeight ?? 0,
          };
          const [found] = reach(shape, own, [{ id: 'made', specs: target }]);
          expect(found?.reachable).toBe(true);
          expect(found?.addedG).toBeLessThanOrEqual(additions.reduce((sum, a) => sum + a.massG, 0) + 1e-6);
        },
      ),
      { numRuns: 100 },
    );
  });

  it('agrees with a general solver on what can be reached', async () => {
    const highs = await loadHighs();
    const solve = generalSolver((lp, options) => highs.solve(lp, options));
    const targets = fc.sample(
      fc.record({
        massG: fc.double({ min: 318, max: 365, noNaN: true }),
        balanceCm: fc.double({ min: 30.5, max: 34.5, noNaN: true }),
        swingWeight: fc.double({ min: 310, max: 370, noNaN: true }),
        twistWeight: fc.double({ min: 12.8, max: 17, noNaN: true }),
      }),
      { numRuns: 120, seed: 3 },
    );
    const found = reach(
      shape,
      own,
      targets.map((specs, i) => ({ id: String(i), specs })),
    );
    let yes = 0;
    targets.forEach((t, i) => {
      const zones = frame.sport.zones.map((zone) => ({
        ...placeOf(frame, { zone: zone.name }),
        capG: zone.capG,
      }));
      const row = (of: (z: (typeof zones)[number]) => number): Term[] =>
        zones.map((z, k) => [`m${k}`, of(z)] as const);
      const step = 0.025 * own.swingWeight;
      const band = (start: number, target: number, room: number) => ({
        lower: target - room - start,
        upper: target + room - start,
      });
      const rows = [
        { terms: row(() => 1), ...band(own.massG, t.massG, 3) },
        { terms: row((z) => (z.xCm - 10.16) ** 2 / 1000), ...band(own.swingWeight, t.swingWeight, step) },
        { terms: row((z) => z.yCm ** 2 / 1000), ...band(own.twistWeight, t.twistWeight, 0.4) },
        // |B' − B*| ≤ 0.3, cleared of M'.
        {
          terms: row((z) => z.xCm - t.balanceCm - 0.3),
          lower: -Infinity,
          upper: own.massG * (t.balanceCm + 0.3 - own.balanceCm),
        },
        {
          terms: row((z) => z.xCm - t.balanceCm + 0.3),
          lower: own.massG * (t.balanceCm - 0.3 - own.balanceCm),
          upper: Infinity,
        },
      ];
      const variables = zones.map((z, k) => ({
        name: `m${k}`,
        lower: 0,
        upper: z.capG,
        kind: 'continuous' as const,
      }));
      const { status } = solve(lpText({ variables, rows, objective: row(() => 1) }));
      expect(found[i]?.reachable).toBe(status === 'optimal');
      if (status === 'optimal') yes++;
    });
    // The sample holds both kinds.
    expect(yes).toBeGreaterThan(8);
    expect(yes).toBeLessThan(100);
  });

  it('keeps the order, follows each setup’s axis, and says what is left where it cannot get there', () => {
    const same = { massG: 325, balanceCm: 32.2, swingWeight: 318 };
    const atTen = {
      ...same,
      swingWeight: 318 + (325 * ((32.2 - 10) ** 2 - (32.2 - 10.16) ** 2)) / 1000,
      axisCm: 10,
    };
    const light = { massG: 290, balanceCm: 32.2, swingWeight: 290 };
    const found = reach(shape, own, [
      { id: 'light', specs: light },
      { id: 'same', specs: same },
      { id: 'ten', specs: atTen },
    ]);
    expect(found.map((f) => [f.id, f.reachable])).toEqual([
      ['light', false],
      ['same', true],
      ['ten', true],
    ]);
    expect(found[0]?.addedG).toBeCloseTo(0, 6);
    expect(found[0]?.distanceSteps).toBeGreaterThan(10);
    expect(found[1]?.distanceSteps).toBeCloseTo(0, 6);
    expect(found[2]?.distanceSteps).toBeCloseTo(0, 6);
  });

  it('says the nearest that can be: no other load of the zones comes nearer', () => {
    const step = { massG: 3, balanceCm: 0.3, swingWeight: 0.025 * own.swingWeight, twistWeight: 0.4 };
    fc.assert(
      fc.property(
        fc.record({
          massG: fc.double({ min: 318, max: 365, noNaN: true }),
          balanceCm: fc.double({ min: 30.5, max: 34.5, noNaN: true }),
          swingWeight: fc.double({ min: 300, max: 380, noNaN: true }),
          twistWeight: fc.double({ min: 12.5, max: 17, noNaN: true }),
        }),
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 8, maxLength: 8 }),
        (target, shares) => {
          const [found] = reach(shape, own, [{ id: 'a', specs: target }]);
          const zones = frame.sport.zones.map((zone) => ({
            ...placeOf(frame, { zone: zone.name }),
            capG: zone.capG,
          }));
          const distance = (loads: number[]): number => {
            const additions = zones.map(({ xCm, yCm, capG }, i) => ({
              massG: (loads[i] ?? 0) * capG,
              at: { xCm, yCm },
            }));
            const { specs } = predict(shape, own, additions);
            return Math.hypot(
              (specs.massG - target.massG) / step.massG,
              (specs.balanceCm - target.balanceCm) / step.balanceCm,
              (specs.swingWeight - target.swingWeight) / step.swingWeight,
              ((specs.twistWeight ?? 0) - target.twistWeight) / step.twistWeight,
            );
          };
          // From random loads downhill, one zone after the other.
          const loads = [...shares];
          for (let size = 0.25; size > 1e-3; size /= 1.5)
            for (let i = 0; i < 8; i++)
              for (const way of [size, -size]) {
                const next = loads.with(i, Math.min(1, Math.max(0, (loads[i] ?? 0) + way)));
                if (distance(next) < distance(loads)) loads[i] = next[i] as number;
              }
          expect(found?.distanceSteps).toBeLessThanOrEqual(distance(loads) + 2e-3);
        },
      ),
      { numRuns: 40, seed: 12 },
    );
  });

  it('reaches over what is known, and names what is not', () => {
    const [some, none, axis] = reach(shape, own, [
      { id: 'weight', specs: { massG: 330 } },
      { id: 'nothing', specs: {} },
      { id: 'other axis', specs: { massG: 330, swingWeight: 330, axisCm: 10 } },
    ]);
    expect(some).toMatchObject({ reachable: true, unknown: ['balanceCm', 'swingWeight', 'twistWeight'] });
    expect(some?.addedG).toBeCloseTo(2, 6);
    expect(some?.distanceSteps).toBeCloseTo(0, 6);
    expect(none).toMatchObject({ reachable: false, impossible: 'nothing-stated' });
    // Without a balance its swing weight cannot be moved to the frame's own axis.
    expect(axis?.unknown).toContain('swingWeight');
    const { twistWeight: _, ...untwisted } = own;
    const [found] = reach(shape, untwisted, [{ id: 'a', specs: own }]);
    expect(found?.unknown).toEqual(['twistWeight']);
  });

  it('is not failed by a setup that cannot be', () => {
    const found = reach(shape, own, [
      { id: 'cannot', specs: { massG: 330, balanceCm: 32, swingWeight: 1 } },
      { id: 'can', specs: { massG: 330, balanceCm: 32.2, swingWeight: 320 } },
    ]);
    expect(found[0]).toEqual({
      id: 'cannot',
      reachable: false,
      addedG: 0,
      unknown: [],
      impossible: 'swing-weight-impossible',
    });
    expect(found[1]?.reachable).toBe(true);
  });
});
