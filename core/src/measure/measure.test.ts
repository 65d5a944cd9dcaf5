import { describe, expect, it } from 'vitest';
import { add, point, specsOf, sumsOf, type AxisSpecs } from '../mass';
import { TYPICAL_READING, afterParts } from '.';

/** Small generator with a seed (mulberry32), and normal deviates by Box–Muller. */
function normals(seed: number): () => number {
  let state = seed;
  const uniform = (): number => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  return () => Math.sqrt(-2 * Math.log(uniform() + 1e-300)) * Math.cos(2 * Math.PI * uniform());
}

describe('propagation of uncertainty (JCGM 100:2008)', () => {
  const before: AxisSpecs = { massG: 320, balanceCm: 32, swingWeight: 318, twistWeight: 13.5, axisCm: 10.16 };

  it('agrees with Monte Carlo (JCGM 101:2008) on two weights', () => {
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
    const normal = normals(20_261);
    const draws = Array.from({ length: 20_000 }, () => {
      const body = sumsOf({
        massG: before.massG + TYPICAL_READING.massG * normal(),
        balanceCm: before.balanceCm + TYPICAL_READING.balanceCm * normal(),
        swingWeight: before.swingWeight + TYPICAL_READING.swingWeight * normal(),
        twistWeight: (before.twistWeight ?? 0) + TYPICAL_READING.twistWeight * normal(),
        axisCm: before.axisCm,
      });
      const sums = placed.reduce(
        (sum, { massG, xCm, yCm, u, up }) =>
          add(sum, point(massG + u * normal(), xCm + up * normal(), yCm === 0 ? 0 : yCm + up * normal())),
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
