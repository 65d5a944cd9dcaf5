import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { ALL_SPORTS, sportData } from '../sport';
import { SPEC_KEYS, type KnownSpecs } from '../spec';
import { makerProblems, statedProblems } from './stated';

const LENGTHS: Record<string, number> = { tennis: 68.58, padel: 45.5, badminton: 67.5, pickleball: 40.6 };
const found = (specs: KnownSpecs, sport: (typeof ALL_SPORTS)[number]): string[] =>
  statedProblems(specs, sportData(sport), LENGTHS[sport] ?? 60).map(({ code, path }) => `${code} ${path}`);

describe('what is stated of a frame', () => {
  it.each(ALL_SPORTS)('of %s: what a frame usually is passes, whole or any part of it', (sport) => {
    const { usual } = sportData(sport);
    fc.assert(
      fc.property(fc.subarray([...SPEC_KEYS], { minLength: 1 }), (keys) => {
        expect(found(Object.fromEntries(keys.map((key) => [key, usual[key]])), sport)).toEqual([]);
      }),
    );
  });

  it.each(ALL_SPORTS)(
    'of %s: no value at all, and each single nonsense, is refused where it stands',
    (sport) => {
      expect(found({}, sport)).toEqual(['nothing-stated specs']);
      fc.assert(
        fc.property(fc.constantFrom(...SPEC_KEYS), fc.double({ min: 0, max: 1e6, noNaN: true }), (key, x) => {
          const at = found({ [key]: -x - 1 }, sport);
          expect(at.length).toBeGreaterThan(0);
          for (const one of at) expect(one).toContain(`specs.${key}`);
          const { usual } = sportData(sport);
          expect(found({ [key]: usual[key] * 6 }, sport).join()).toContain(`specs.${key}`);
        }),
      );
    },
  );

  it('measures each sport by its own: what is usual in tennis is a wrong digit in badminton', () => {
    const { usual } = sportData('tennis');
    expect(found({ massG: usual.massG }, 'badminton')).toEqual(['unlikely specs.massG']);
    expect(found({ swingWeight: usual.swingWeight }, 'pickleball')).toEqual(['unlikely specs.swingWeight']);
    expect(found({ massG: sportData('badminton').usual.massG }, 'tennis')).toEqual(['unlikely specs.massG']);
  });

  it('says in the sentence what would be believed', () => {
    const [problem] = statedProblems({ massG: 999_999 }, sportData('tennis'), 68.58);
    expect(problem?.values?.range).toMatch(/^between \d+ and \d+ g$/);
  });

  it('a give-or-take belongs to a value, is positive and smaller than it', () => {
    const codes = (tolerance: KnownSpecs): string[] =>
      makerProblems({ specs: { massG: 300 }, tolerance }, sportData('tennis'), 68.58).map(
        ({ code, path }) => `${code} ${path}`,
      );
    expect(codes({ massG: 7 })).toEqual([]);
    expect(codes({ massG: 0 })).toEqual(['tolerance-not-positive nominal.tolerance.massG']);
    expect(codes({ massG: 300 })).toEqual(['tolerance-too-large nominal.tolerance.massG']);
    expect(codes({ balanceCm: 0.5 })).toEqual(['tolerance-without-value nominal.tolerance.balanceCm']);
  });
});
