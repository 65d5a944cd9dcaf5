import { afterEach, describe, expect, it } from 'vitest';
import { frame, laid } from '../../../test/fixtures';
import { doingWords } from '../../words/plan';
import { partNumber, partUnit, partWeight, setPartUnit } from '../../words/part-weight';

describe('weights of parts', () => {
  afterEach(() => setPartUnit('g'));

  it('are said everywhere in the unit of the shop', () => {
    const plan = { placements: [laid('sides', 6, 8)], swaps: [], removals: [] };
    expect(doingWords(plan, frame)).toBe('sides 6 g');
    setPartUnit('grains');
    // 6 g are 92.6 grains (NIST SP 811, appendix B).
    expect(doingWords(plan, frame)).toBe('sides 93 grains');
    expect(`${partNumber(6, 2)} ${partUnit()}`).toBe('92.6 grains');
    setPartUnit('oz');
    expect(partWeight(6)).toBe('0.212 oz');
  });
});
