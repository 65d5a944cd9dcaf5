import { describe, expect, it } from 'vitest';
import { stationStates, type FittingFacts } from '.';

const nothing: FittingFacts = {
  measured: false,
  compared: false,
  aimed: false,
  planned: false,
  stepsDone: 0,
  stepsInAll: 0,
};

describe('stations of a fitting', () => {
  it('opens one after the other', () => {
    const next = (facts: Partial<FittingFacts>): string | undefined =>
      stationStates({ ...nothing, ...facts }).next;
    expect(next({})).toBe('measure');
    expect(next({ measured: true })).toBe('compare');
    expect(next({ measured: true, compared: true })).toBe('aim');
    expect(next({ measured: true, compared: true, aimed: true })).toBe('plan');
    const planned = { measured: true, compared: true, aimed: true, planned: true, stepsInAll: 5 };
    expect(next(planned)).toBe('build');
    expect(next({ ...planned, stepsDone: 4 })).toBe('build');
    expect(next({ ...planned, stepsDone: 5 })).toBeUndefined();
  });

  it('blocks what has nothing to stand on and lets an aim by hand stand in for a comparison', () => {
    expect(stationStates(nothing).states).toMatchObject({
      measure: 'due',
      compare: 'blocked',
      plan: 'blocked',
    });
    expect(stationStates({ ...nothing, measured: true, aimed: true }).states.compare).toBe('done');
  });
});
