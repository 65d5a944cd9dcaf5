import { lusolve, matrix, type Matrix } from 'mathjs';
import { describe, expect, it } from 'vitest';
import { seededNormals, seededUniforms } from '../measure';
import { LEAST_SESSIONS, noteOf, whatWorks, type Noted, type SessionWith } from '.';

const good: Noted = { energyLeft: 'plenty', arm: 'fine', late: 'no' };
const bad: Noted = { energyLeft: 'none', arm: 'tired', late: 'often' };
const of = (session: Noted, swingWeight: number, massG = 330): SessionWith => ({
  session,
  specs: { massG, balanceCm: 32.5, swingWeight },
});

describe('how good a session was', () => {
  it('is the mean of what was answered, and of nothing else', () => {
    expect(noteOf(good)).toBe(1);
    expect(noteOf({ ...good, late: 'often' })).toBeCloseTo(1 / 3, 9);
    expect(noteOf({ ...good, energyStart: 'none', day: 'hot-fast', minutes: 60 })).toBe(1);
    expect(noteOf({ energyLeft: 'none', arm: 'sore' })).toBe(-1);
  });
});

describe('what works for a player', () => {
  it('claims nothing below the stated number, and says how many are missing', () => {
    for (let n = 0; n < LEAST_SESSIONS; n++) {
      const sessions = Array.from({ length: n }, (_, i) => of(i % 2 ? good : bad, 300 + 10 * i));
      expect(whatWorks('tennis', sessions)).toMatchObject({
        sessions: n,
        missing: LEAST_SESSIONS - n,
        specs: [],
      });
    }
  });
  it('claims nothing where the frame was always the same', () => {
    const same = Array.from({ length: 12 }, (_, i) => of(i % 2 ? good : bad, 320));
    expect(whatWorks('tennis', same)).toMatchObject({ missing: 0, alike: true, specs: [] });
  });

  it('agrees with ridge regression worked out by a general library (Hoerl and Kennard 1970: (XᵀX + λI)⁻¹ Xᵀy)', () => {
    const uniform = seededUniforms(3);
    const sessions = Array.from({ length: 14 }, () =>
      of(uniform() > 0.5 ? good : bad, 300 + 30 * uniform(), 320 + 12 * uniform()),
    );
    const found = whatWorks('tennis', sessions);
    const notes = sessions.map(({ session }) => noteOf(session));
    const mean = (v: number[]): number => v.reduce((a, b) => a + b, 0) / v.length;
    const centred = notes.map((n) => n - mean(notes));
    const keys = found.specs.map(({ spec }) => spec);
    const columns = keys.map((key) => {
      const values = sessions.map(({ specs }) => specs[key] ?? NaN);
      // Noticeable steps of tennis: 3 g, 2.5 % of swing weight.
      const step = key === 'swingWeight' ? 0.025 * mean(values) : 3;
      return values.map((v) => (v - mean(values)) / step);
    });
    const dot = (a: number[], b: number[]): number => a.reduce((all, v, i) => all + v * (b[i] ?? NaN), 0);
    // Each session has a frame of its own here, which may feel better or worse by 0.35; and time goes from −1 to 1, for 0.5.
    const own = sessions.map((_, i) => sessions.map((__, j) => (i === j ? 1 : 0)));
    const time = sessions.map((_, i) => (2 * i) / (sessions.length - 1) - 1);
    const all = [...columns, ...own, time];
    const priors = [...columns.map(() => 0.15), ...own.map(() => 0.35), 0.5];
    const left = all.map((a, i) =>
      all.map((b, j) => dot(a, b) + (i === j ? (found.scatter / (priors[i] ?? NaN)) ** 2 : 0)),
    );
    const solved = lusolve(
      matrix(left),
      all.map((a) => dot(a, centred)),
    ) as Matrix;
    expect(keys).toEqual(['massG', 'swingWeight']);
    for (const [i, { perStep }] of found.specs.entries())
      expect(perStep.mean).toBeCloseTo(solved.get([i, 0]) as number, 9);
  });

  it('seldom claims what is not there, and finds what is plain', () => {
    const [normal, uniform] = [seededNormals(5), seededUniforms(6)];
    const claims = (slope: number): number => {
      let said = 0;
      for (let run = 0; run < 400; run++) {
        const sessions = Array.from({ length: 40 }, () => {
          const swingWeight = 290 + 50 * uniform();
          const felt = slope * ((swingWeight - 315) / 7.9) + 0.5 * normal();
          return of(felt > 0 ? good : bad, swingWeight);
        });
        if (whatWorks('tennis', sessions).specs.some(({ says }) => says !== 'nothing')) said++;
      }
      return said / 400;
    };
    expect(claims(0)).toBeLessThan(0.05);
    expect(claims(-0.4)).toBeGreaterThan(0.5);
  });

  it.each([
    ['frames that feel better or worse by 0.35 whatever they measure', 0.35, 0],
    ['players who get better over time', 0, 0.6],
    ['both', 0.35, 0.6],
  ])('claims nothing of %s, for 95 of 100 players at least, whatever number of frames', (_, feel, trend) => {
    const [normal, uniform] = [seededNormals(15), seededUniforms(16)];
    for (const frames of [2, 3, 5, 8]) {
      let said = 0;
      const PLAYERS = 300;
      for (let run = 0; run < PLAYERS; run++) {
        const made = Array.from({ length: frames }, () => ({
          swingWeight: 295 + 40 * uniform(),
          massG: 318 + 20 * uniform(),
          feels: feel * normal(),
        }));
        const count = 8 + Math.floor(40 * uniform());
        // Frames after one another, as in a programme, or in turns.
        const inTurns = uniform() > 0.5;
        const sessions = Array.from({ length: count }, (__, i) => {
          const at = inTurns ? i % frames : Math.floor((i * frames) / count);
          const { swingWeight, massG, feels } = made[at] as (typeof made)[number];
          const felt = feels + trend * ((2 * i) / count - 1) + 0.35 * normal();
          // Three answers, so that notes are finer than good and bad.
          const say = <T>(low: T, middle: T, high: T, by: number): T =>
            felt + by < -0.4 ? low : felt + by < 0.4 ? middle : high;
          return of(
            {
              energyLeft: felt > 0 ? 'plenty' : 'little',
              arm: 'fine',
              late: say('often', 'sometimes', 'no', 0.2 * normal()),
              twists: say('often', 'sometimes', 'no', 0.2 * normal()),
            } as Noted,
            swingWeight,
            massG,
          );
        });
        if (whatWorks('tennis', sessions).specs.some(({ says }) => says !== 'nothing')) said++;
      }
      expect(said / PLAYERS, `${frames} frames`).toBeLessThan(0.05);
    }
  });

  it('counts better and worse sessions apart, with mean and spread', () => {
    const sessions = [300, 330, 302, 332, 304, 334, 306, 336].map((sw) => of(sw < 310 ? good : bad, sw));
    const [worth] = whatWorks('tennis', sessions).specs;
    expect(worth).toMatchObject({ spec: 'swingWeight' });
    expect(worth?.perStep.mean).toBeLessThan(0);
    expect(worth?.better).toMatchObject({
      count: 4,
      mean: 303,
      spread: expect.closeTo(Math.sqrt(20 / 3), 9),
    });
    expect(worth?.worse).toMatchObject({ count: 4, mean: 333 });
  });
});
