import { describe, expect, it } from 'vitest';
import { stepWhy } from './programme-words';

const why = (reason: Parameters<typeof stepWhy>[1]['reason'], felt: object) =>
  stepWhy('tennis', {
    reason,
    change: [],
    state: 'go-on',
    felt: { energyLeft: 'enough', arm: 'fine', ...felt },
  });

describe('why a step', () => {
  it('says what was felt before the reason, and not twice what the reason tells itself', () => {
    expect(why('flies-long', { depth: 'long' })).toBe('Balls fly long: tighter holds them in.');
    expect(why('flies-long', { depth: 'long', late: 'often' })).toBe(
      'Often late. Balls fly long: tighter holds them in.',
    );
    expect(why('energy-left', { energyLeft: 'plenty' })).toBe('Energy left: the ceiling is higher.');
    expect(why('sore', { arm: 'sore', twists: 'often' })).toMatch(/^Often twists\. The arm is sore: /);
  });
  it('says what was felt where the reason tells nothing of it', () => {
    expect(why('not-yet', { energyLeft: 'plenty' })).toMatch(/^Energy left, nothing amiss\. Play the same/);
    expect(why('once-more', { energyLeft: 'little' })).toMatch(/^Tired\. Low on energy/);
  });
});
