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
    const lambda = (found.scatter / 0.15) ** 2;
    const left = columns.map((a, i) => columns.map((b, j) => dot(a, b) + (i === j ? lambda : 0)));
    const solved = lusolve(
      matrix(left),
      columns.map((a) => dot(a, centred)),
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
        const sessions = Array.from({ length: 30 }, () => {
          const swingWeight = 300 + 30 * uniform();
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

  it('counts better and worse sessions apart, with mean and spread', () => {
    const sessions = [300, 302, 304, 306, 330, 332, 334, 336].map((sw) => of(sw < 310 ? good : bad, sw));
    const [worth] = whatWorks('tennis', sessions).specs;
    expect(worth).toMatchObject({ spec: 'swingWeight', says: 'less' });
    expect(worth?.better).toMatchObject({
      count: 4,
      mean: 303,
      spread: expect.closeTo(Math.sqrt(20 / 3), 9),
    });
    expect(worth?.worse).toMatchObject({ count: 4, mean: 333 });
  });
});
