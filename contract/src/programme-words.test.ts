import { describe, expect, it } from 'vitest';
import { stepSentence, stepWhy } from './programme-words';

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
    expect(why('once-more', { energyLeft: 'little' })).toMatch(/^Low on energy/);
    expect(why('stays-tired', { energyLeft: 'none', arm: 'tired' })).toMatch(/^The arm tired\. Tired again/);
    expect(why('sore', { arm: 'sore', twists: 'often' })).toMatch(/^Often twists\. The arm is sore: /);
  });
  it('is a sentence, and what is to be done another', () => {
    expect(
      stepSentence('tennis', {
        reason: 'flies-long',
        change: [],
        strings: { change: 'tighter', byKg: 1 },
        state: 'go-on',
      }),
    ).toBe('Balls fly long: tighter holds them in. Tighter strings by 1 kg.');
  });
  it('says what was felt where the reason tells nothing of it', () => {
    expect(why('not-yet', { energyLeft: 'plenty' })).toMatch(/^Energy left, nothing amiss\. Play the same/);
    expect(why('too-far', { depth: 'short' })).toMatch(/^Balls short\. That was too far/);
  });
});
