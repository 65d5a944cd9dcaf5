import { SPORTS } from '../sport';
import { describe, expect, it } from 'vitest';
import { add, point, specsOf, sumsOf, type AxisSpecs } from '../mass';
import { afterParts, seededNormals, seededUniforms } from '.';

const TYPICAL_READING = SPORTS.tennis.typicalReading;

describe('propagation of uncertainty (JCGM 100:2008)', () => {
  const before: AxisSpecs = { massG: 320, balanceCm: 32, swingWeight: 318, twistWeight: 13.5, axisCm: 10.16 };

  it('agrees with Monte Carlo (JCGM 101:2008) on two weights that slip along the axis', () => {
    const placed = [
      { massG: 6, xCm: 62, yCm: 9.5, u: 0.25, up: 0.4 },
      { massG: 9, xCm: 5, yCm: 0, u: 0.3, up: 0.4 },
    ];
    const stated = afterParts(
      before,
      TYPICAL_READING,
      placed.map(({ massG, xCm, yCm, u, up }) => ({
        sums: point(massG, xCm, yCm),
        massUncertaintyG: u,
        placeUncertaintyCm: up,
      })),
    );
    const normal = seededNormals(20_261);
    const draws = Array.from({ length: 20_000 }, () => {
      const body = sumsOf({
        massG: before.massG + TYPICAL_READING.massG * normal(),
        balanceCm: before.balanceCm + TYPICAL_READING.balanceCm * normal(),
        swingWeight: before.swingWeight + TYPICAL_READING.swingWeight * normal(),
        twistWeight: (before.twistWeight ?? 0) + TYPICAL_READING.twistWeight * normal(),
        axisCm: before.axisCm,
      });
      const sums = placed.reduce(
        (sum, { massG, xCm, yCm, u, up }) => add(sum, point(massG + u * normal(), xCm + up * normal(), yCm)),
        body,
      );
      return specsOf(sums, before.axisCm, true);
    });
    for (const key of ['massG', 'balanceCm', 'swingWeight', 'twistWeight'] as const) {
      const values = draws.map((d) => d[key] ?? 0);
      const mean = values.reduce((s, v) => s + v, 0) / values.length;
      const spread = Math.sqrt(values.reduce((s, v) => s + (v - mean) ** 2, 0) / (values.length - 1));
      expect(stated[key] / spread).toBeGreaterThan(0.96);
      expect(stated[key] / spread).toBeLessThan(1.04);
    }
  });

  it('is the instruments’ own where nothing is put on', () => {
    expect(afterParts(before, TYPICAL_READING, [])).toEqual(TYPICAL_READING);
  });
});

describe('random numbers by a seed', () => {
  it('repeat, and have the mean and spread of their distribution', () => {
    const [a, b] = [seededUniforms(5), seededUniforms(5)];
    expect([a(), a(), a()]).toEqual([b(), b(), b()]);
    const normal = seededNormals(5);
    const draws = Array.from({ length: 20_000 }, () => normal());
    const mean = draws.reduce((s, v) => s + v, 0) / draws.length;
    expect(Math.abs(mean)).toBeLessThan(0.03);
    expect(draws.reduce((s, v) => s + v * v, 0) / draws.length).toBeCloseTo(1, 1);
  });
});
