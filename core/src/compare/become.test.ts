import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pointOfSpot, settleFrame } from '../frame';
import { ALL_SPORTS, sportData } from '../sport';
import { recoilWeight } from '../mass';
import { balanceOfSwing, becomes } from '.';

const frames = ALL_SPORTS.map((sport) => settleFrame({ sport, lengthCm: sportData(sport).lengthCm }));

/** Whether a point of weight and moment lies within an outline (the ray's crossings, handbook), by a hair's breadth. */
function holds(outline: readonly { x: number; y: number }[], x: number, y: number): boolean {
  let inside = false;
  outline.forEach((a, i) => {
    const b = outline[(i + 1) % outline.length] ?? a;
    if (a.y > y !== b.y > y && x < a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x)) inside = !inside;
  });
  return inside;
}

describe('what a frame can become', () => {
  it('holds whatever is put on within the caps, in every sport', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...frames),
        fc.array(fc.double({ min: 0.02, max: 0.98, noNaN: true }), { minLength: 12, maxLength: 12 }),
        (frame, shares) => {
          const { usual, zones } = frame.sport;
          const outline = becomes(frame, usual).map((p) => ({ x: p.massG, y: p.massG * p.balanceCm }));
          let massG = usual.massG;
          let moment = usual.massG * usual.balanceCm;
          zones.forEach((zone, i) => {
            const added = (shares[i] ?? 0) * zone.capG;
            massG += added;
            moment += added * pointOfSpot(frame, { zone: zone.name }).xCm;
          });
          expect(holds(outline, massG, moment)).toBe(true);
        },
      ),
      { numRuns: 200 },
    );
  });

  it('is no larger than the caps allow: full zones from the butt, or from the tip, are its edge', () => {
    for (const frame of frames) {
      const { usual, zones } = frame.sport;
      const outline = becomes(frame, usual);
      const places = zones
        .map((zone) => ({ g: zone.capG, xCm: pointOfSpot(frame, { zone: zone.name }).xCm }))
        .toSorted((a, b) => b.xCm - a.xCm);
      // With only the zone nearest to the tip full, no frame of that weight has a higher balance.
      const [tip] = places;
      const massG = usual.massG + (tip?.g ?? 0);
      const highest = (usual.massG * usual.balanceCm + (tip?.g ?? 0) * (tip?.xCm ?? 0)) / massG;
      const found = outline.filter((p) => Math.abs(p.massG - massG) < 1e-6).map((p) => p.balanceCm);
      expect(Math.max(...found)).toBeCloseTo(highest, 9);
      const all = places.reduce((sum, { g }) => sum + g, 0);
      expect(Math.max(...outline.map((p) => p.massG))).toBeCloseTo(usual.massG + all, 6);
      expect(outline[0]).toEqual({ massG: usual.massG, balanceCm: usual.balanceCm });
    }
  });
});

it('a line of equal swing weight goes through every frame of it and its recoil weight (parallel axes)', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 280, max: 360, noNaN: true }),
      fc.double({ min: 30, max: 36, noNaN: true }),
      fc.double({ min: 290, max: 360, noNaN: true }),
      (massG, balanceCm, swingWeight) => {
        const specs = { massG, balanceCm, swingWeight, axisCm: 10.16 };
        expect(balanceOfSwing(swingWeight, recoilWeight(specs), massG, 10.16)).toBeCloseTo(balanceCm, 6);
      },
    ),
  );
  expect(balanceOfSwing(150, 160, 320, 10.16)).toBeUndefined();
});
