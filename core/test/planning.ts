import fc from 'fast-check';
import type { Aim } from '../src/aim';
import { settleFrame } from '../src/frame';
import { predict } from '../src/mass';
import type { Part } from '../src/part';
import { makePlans, type Plan, type PlanRequest } from '../src/plan';
import { lead, putty, tape } from './parts';

// What the tests of plans begin with: a tennis frame, two tapes and putty, and aims for it.
export const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
export const frame = settleFrame(shape);
export const specs = { massG: 322, balanceCm: 32.8, swingWeight: 316, twistWeight: 13.9 };
export const wide: Part = { ...lead, id: 'wide', widthMm: 12, gPerCm: 0.42 } as Part;
export const parts = [tape, wide, putty];
export const aim = (
  massG: number,
  balanceCm: number,
  swingWeight: number,
  twistWeight: number,
  priority: 'must' | 'want' = 'want',
): Aim => ({
  massG: { value: massG, tolerance: 1, priority },
  balanceCm: { value: balanceCm, tolerance: 0.15, priority },
  swingWeight: { value: swingWeight, tolerance: 1.5, priority },
  twistWeight: { value: twistWeight, tolerance: 0.2, priority },
});
export const free = (request: Omit<PlanRequest, 'shape' | 'schools'>): Plan =>
  makePlans({ shape, schools: ['free'], ...request })[0] as Plan;

/** Aims that loads at random zones lead to. */
export const reachable = fc
  .array(
    fc.record({
      zone: fc.constantFrom(...frame.sport.zones),
      share: fc.double({ min: 0.1, max: 0.5, noNaN: true }),
    }),
    {
      minLength: 1,
      maxLength: 3,
    },
  )
  .map((loads) => {
    const made = predict(
      shape,
      specs,
      loads.map(({ zone, share }) => ({ massG: share * zone.capG, at: { zone: zone.name } })),
    ).specs;
    return aim(
      Math.round(made.massG),
      Math.round(made.balanceCm * 10) / 10,
      Math.round(made.swingWeight),
      Math.round((made.twistWeight ?? 0) * 10) / 10,
    );
  });
