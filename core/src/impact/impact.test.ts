import { describe, expect, it } from 'vitest';
import { settleFrame } from '../frame';
import { apparentRestitution, ballSpeedOff, effectiveMass, sweetRegion, SWEET_SHARE } from '.';

const frame = settleFrame({ sport: 'tennis', lengthCm: 68.58 });
const specs = { massG: 336, balanceCm: 32.4, swingWeight: 325, twistWeight: 14, axisCm: 10.16 };

describe('what the ball meets', () => {
  it('meets the whole mass at the balance point and less anywhere else', () => {
    expect(effectiveMass(specs, { xCm: 32.4, yCm: 0 })).toBeCloseTo(336, 9);
    expect(effectiveMass(specs, { xCm: 52, yCm: 0 })).toBeLessThan(336);
    expect(effectiveMass(specs, { xCm: 52, yCm: 5 })).toBeLessThan(effectiveMass(specs, { xCm: 52, yCm: 0 }));
  });

  it('agrees with momentum and energy for two free masses (handbook collision)', () => {
    // A ball of m at v onto a free mass M at rest with restitution e leaves at (e − m/M)/(1 + m/M) · v.
    const [m, mass, e, v] = [57.7, 200, 0.8, 10];
    const q = apparentRestitution(mass, m, e);
    const after = -q * v;
    const struck = (m * (v - after)) / mass;
    expect(struck - after).toBeCloseTo(e * v, 9);
  });

  it('has a sweet region on the long axis whose edge gives the stated share, or is the hoop', () => {
    const { best, outline } = sweetRegion(frame, specs);
    expect(best.yCm).toBe(0);
    const top = ballSpeedOff(frame, specs, best);
    for (const p of outline) {
      const share = ballSpeedOff(frame, specs, p) / top;
      const toHoop =
        ((p.xCm - frame.head.centreXCm) / frame.head.alongCm) ** 2 + (p.yCm / frame.head.acrossCm) ** 2;
      expect(Math.abs(share - SWEET_SHARE) < 1e-4 || Math.abs(toHoop - 1) < 1e-4).toBe(true);
    }
  });

  it('grows sideways with twist weight and moves to the tip with recoil weight', () => {
    const wide = (s: typeof specs): number => Math.max(...sweetRegion(frame, s).outline.map((p) => p.yCm));
    expect(wide({ ...specs, twistWeight: 17 })).toBeGreaterThan(wide(specs));
    expect(sweetRegion(frame, { ...specs, swingWeight: 345 }).best.xCm).toBeGreaterThan(
      sweetRegion(frame, specs).best.xCm,
    );
  });
});
