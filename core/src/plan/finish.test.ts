import { describe, expect, it } from 'vitest';
import { lead, putty } from '../../test/parts';
import { dressParts, sameDress } from '../dress';
import { settleFrame } from '../frame';
import { backTo } from '../build';
import { asFinished, changeOutcome, dressAfter, makePlans, swapOffers, swapsTo } from '.';
import type { Dress } from '../sport';

const shape = { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 645 } as const;
const frame = settleFrame(shape);
const specs = { massG: 300, balanceCm: 32, swingWeight: 290, twistWeight: 13, axisCm: 10.16 };
const bare: Dress = { baseGrip: 'synthetic' };
const finish: Dress = { baseGrip: 'synthetic', strings: { massG: 17 }, overgrips: 1, dampener: true };

describe('what a frame shall have on it when it is done', () => {
  it('is come to by swaps, and to nothing else', () => {
    expect(swapsTo(bare, bare)).toEqual([]);
    expect(sameDress(dressAfter(bare, swapsTo(bare, finish)), finish)).toBe(true);
    // Strings that are in stay: they are neither taken out nor changed for others.
    expect(swapsTo(finish, bare).map(({ what }) => what)).toEqual(['overgrips', 'dampener']);
    expect(swapsTo({ strings: true }, { strings: { massG: 17 } })).toEqual([]);
  });

  it('weighs what its parts weigh, and balances where they lie (sums of parts)', () => {
    const { specs: done, dress } = asFinished(frame, specs, bare, finish);
    const parts = dressParts(frame, finish).filter(({ key }) => !key.startsWith('synthetic'));
    const added = parts.reduce((sum, part) => sum + part.sums.massG, 0);
    const moment = parts.reduce((sum, part) => sum + part.sums.firstGCm, 0);
    expect(done.massG).toBeCloseTo(specs.massG + added, 9);
    expect(done.balanceCm).toBeCloseTo((specs.massG * specs.balanceCm + moment) / done.massG, 9);
    expect(sameDress(dress, finish)).toBe(true);
    expect(asFinished(frame, specs, bare, null)).toEqual({ specs, dress: bare });
  });

  it('is part of every plan, which weighs out the rest: the target is read with it on', () => {
    const { specs: done } = asFinished(frame, specs, bare, finish);
    const target = {
      massG: { value: done.massG + 8, tolerance: 1 },
      swingWeight: { value: done.swingWeight + 8, tolerance: 2 },
    };
    const swaps = swapsTo(bare, finish);
    const offers = swapOffers(frame, bare);
    const request = { shape, specs, target, parts: [lead, putty], dress: bare, offers };
    const [best] = makePlans({ ...request, swaps, schools: ['free'] });
    expect(best?.withinTolerance).toBe(true);
    expect(best?.swaps).toEqual(swaps);
    const change = { placements: best?.placements ?? [], swaps, removals: [], parts: [lead, putty] };
    const outcome = changeOutcome(frame, specs, bare, change).specs;
    expect(best?.specs.massG).toBeCloseTo(outcome.massG, 9);
    expect(best?.specs.swingWeight).toBeCloseTo(outcome.swingWeight, 9);
    expect(best?.addedG).toBeCloseTo(outcome.massG - specs.massG, 9);
    // Less sure than the same plan without new strings and grips: what they weigh is not known to the gram.
    const [plain] = makePlans({ ...request, specs: done, schools: ['free'], dress: finish });
    expect(best?.chance).toBeLessThanOrEqual(plain?.chance ?? 0);
  });

  it('leaves strings alone on the way back', () => {
    const now = { dress: { strings: true, overgrips: 2 }, weights: [] };
    expect(backTo(now, { dress: { overgrips: 1 }, weights: [] }).swaps).toEqual([
      { what: 'overgrips', to: 1 },
    ]);
    expect(backTo({ dress: {}, weights: [] }, now).swaps).toEqual([{ what: 'overgrips', to: 2 }]);
  });
});
