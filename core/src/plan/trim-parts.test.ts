import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lead, putty } from '../../test/parts';
import { settleFrame } from '../frame';
import type { AxisSpecs } from '../mass';
import type { Part, Placement } from '../part';
import { NO_CHANGE, changeOutcome, trimPlans, type TrimChange } from '.';

const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const frame = settleFrame(shape);
const tape: Part = { ...lead, id: 'tape' } as Part;
const handle: Part = { ...putty, id: 'putty' } as Part;
const parts = [tape, handle];
const specs: AxisSpecs = { massG: 322, balanceCm: 32.8, swingWeight: 316, twistWeight: 13.9, axisCm: 10.16 };
const built: Placement[] = [
  {
    id: 'sides',
    partId: 'tape',
    path: 'rim',
    startCm: 18,
    endCm: 28,
    sides: 2,
    layers: 1,
    massG: 20 * (tape as { gPerCm: number }).gPerCm,
  },
  { id: 'butt', partId: 'putty', path: 'handle', startCm: 2, endCm: 4, sides: 1, layers: 1, massG: 3 },
];

/** What a build becomes by the changes of a trim, worked out from the whole build anew. */
function after(placements: readonly Placement[], changes: readonly TrimChange[]): Placement[] {
  const kept = placements.flatMap((placement, i) => {
    const change = changes.find(({ index }) => index === i);
    return change ? (change.placement ? [change.placement] : []) : [placement];
  });
  return [
    ...kept,
    ...changes.flatMap(({ index, placement }) => (index === undefined && placement ? [placement] : [])),
  ];
}

describe('a trim of what was built of the shop’s parts', () => {
  const checked = changeOutcome(frame, specs, {}, { ...NO_CHANGE, placements: built, parts }).specs;
  const swing = (by: number) => ({
    massG: { value: checked.massG + by / 4, tolerance: 1 },
    swingWeight: { value: checked.swingWeight + by, tolerance: 0.8 },
  });

  it('leads to the specs of the build as it then is, by pieces that the parts can be cut to', () => {
    let told = 0;
    fc.assert(
      fc.property(fc.double({ min: -8, max: 8, noNaN: true }), (by) => {
        for (const trim of trimPlans({
          shape,
          specs: checked,
          placements: built,
          parts,
          target: swing(by),
        })) {
          told++;
          const whole = changeOutcome(
            frame,
            specs,
            {},
            {
              ...NO_CHANGE,
              placements: after(built, trim.changes),
              parts,
            },
          ).specs;
          expect(trim.specs.massG).toBeCloseTo(whole.massG, 9);
          expect(trim.specs.balanceCm).toBeCloseTo(whole.balanceCm, 9);
          expect(trim.specs.swingWeight).toBeCloseTo(whole.swingWeight, 9);
          expect(trim.specs.twistWeight).toBeCloseTo(whole.twistWeight ?? 0, 9);
          for (const { placement } of trim.changes) {
            if (placement?.path !== 'rim') continue;
            const { gPerCm, stepCm } = tape as { gPerCm: number; stepCm: number };
            const spanCm = placement.endCm - placement.startCm;
            expect(placement.massG).toBeCloseTo(placement.sides * placement.layers * gPerCm * spanCm, 9);
            expect(spanCm / stepCm).toBeCloseTo(Math.round(spanCm / stepCm), 9);
          }
        }
      }),
      { numRuns: 25, seed: 3 },
    );
    expect(told).toBeGreaterThan(5);
  });

  it('names the part of a new piece, and takes a piece off whole where that is nearest', () => {
    const heavier = trimPlans({ shape, specs: checked, placements: [], parts: [tape], target: swing(5) });
    expect(heavier[0]?.changes.map(({ placement }) => placement?.partId)).toEqual(['tape']);
    const without = changeOutcome(
      frame,
      specs,
      {},
      { ...NO_CHANGE, placements: [built[0] as Placement], parts },
    ).specs;
    const target = {
      massG: { value: without.massG, tolerance: 0.2 },
      balanceCm: { value: without.balanceCm, tolerance: 0.02 },
      swingWeight: { value: without.swingWeight, tolerance: 0.3 },
    };
    const [best] = trimPlans({ shape, specs: checked, placements: built, parts, target });
    expect(best?.changes).toMatchObject([{ index: 1, placement: undefined, massG: -3 }]);
  });
});
