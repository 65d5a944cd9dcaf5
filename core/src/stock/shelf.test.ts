import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { redress } from '../dress';
import { planSet } from '../plan';
import type { Dress } from '../sport';
import { bestPairs, inOneDress, rankShelf, type ShelfFrame, type Wanted } from '.';

const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const played: Dress = { strings: true, baseGrip: 'synthetic', overgrips: 1 };
const own = { massG: 325, balanceCm: 32.3, swingWeight: 320, twistWeight: 13.6, axisCm: 10.16 };
const wanted: Wanted = { sport: 'tennis', dress: played, axisCm: 10.16, specs: own };
const frame = (id: string, more: Partial<typeof own>, dress: Dress = played): ShelfFrame => ({
  id,
  shape,
  dress,
  specs: { ...own, ...more },
});

describe('the shelf', () => {
  it('is ranked in one dress: an unstrung twin of the own frame comes first, a strung one as heavy last', () => {
    const bare: Dress = { baseGrip: 'synthetic' };
    const twin = { ...frame('twin', {}, bare), specs: redress(shape, own, played, bare).specs };
    const shelf = [frame('far', { massG: 345 }), twin, frame('near', { massG: 327 })];
    const ranked = rankShelf(wanted, shelf);
    expect(ranked.map(({ id }) => id)).toEqual(['twin', 'near', 'far']);
    expect(ranked[0]?.distanceSteps).toBeCloseTo(0, 9);
    const paddle: ShelfFrame = { ...frame('paddle', {}), shape: { sport: 'padel', lengthCm: 45.5 } };
    expect(rankShelf(wanted, [paddle])).toEqual([]);
  });

  it('gives the pair that is alike and near: no other pair has a smaller sum of distances', () => {
    const any = fc.array(
      fc.record({
        massG: fc.double({ min: 310, max: 340, noNaN: true }),
        swingWeight: fc.double({ min: 305, max: 335, noNaN: true }),
      }),
      { minLength: 2, maxLength: 12 },
    );
    fc.assert(
      fc.property(any, (frames) => {
        const ranked = rankShelf(
          wanted,
          frames.map((more, i) => frame(String(i), more)),
        );
        const pairs = bestPairs('tennis', ranked, 1000);
        expect(pairs).toHaveLength((frames.length * (frames.length - 1)) / 2);
        const sums = pairs.map(({ betweenSteps, awaySteps }) => betweenSteps + awaySteps);
        expect(bestPairs('tennis', ranked)[0]).toEqual(pairs[0]);
        expect(Math.min(...sums)).toBe(sums[0]);
      }),
    );
  });

  it('of a set in one dress is brought to one aim that all of them reach', () => {
    const set = inOneDress(
      [frame('a', {}), frame('b', { massG: 321, swingWeight: 316 }), frame('c', { massG: 323 })],
      played,
      10.16,
    );
    const { frames, target } = planSet(set);
    for (const plan of frames) expect(plan.withinTolerance).toBe(true);
    expect(target.massG?.value).toBeGreaterThanOrEqual(325);
    expect(inOneDress([{ ...frame('d', {}), specs: { ...own, balanceCm: 32 } }], played, 10.16)).toHaveLength(
      1,
    );
  });
});
