import { identity, inv, matrix, multiply, transpose, type Matrix } from 'mathjs';
import { linearRegression, mean } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { simulatedShop, type SimulatedShop } from '../../test/simulated-shop';
import { seededNormals, type Noted } from '..';
import { levelsOf } from './levels';
import {
  CHANGED,
  LEAST_PLAYERS,
  kindName,
  kindOfPlayer,
  learnedAbout,
  learnedFor,
  learnedOfShop,
  ownWord,
  type SessionPlayed,
} from '.';

const SWING = CHANGED.indexOf('swingWeight');
const fine: Noted = { energyLeft: 'plenty', arm: 'fine' };
const ANSWERS: readonly Noted[] = [
  fine,
  { ...fine, arm: 'tired' },
  { energyLeft: 'none', arm: 'tired' },
  { energyLeft: 'none', arm: 'sore' },
];
const base: SimulatedShop = { players: 40, frames: 5, sessions: 4, off: () => 0.5 };
const shops = (count: number, of: SimulatedShop) =>
  Array.from({ length: count }, (_, seed) => learnedOfShop('tennis', simulatedShop(1000 + seed, of).players));

describe('what one player says', () => {
  const around = 320;
  const played = (steps: readonly number[], answers: readonly number[]): SessionPlayed[] =>
    // 2.5 % of swing weight is a step in tennis.
    steps.map((by, i) => ({
      session: ANSWERS[answers[i] ?? 0] ?? fine,
      specs: { swingWeight: around * (1 + 0.025 * by) },
    }));
  const notes = [1, 0.5, -0.5, -1];

  it('is the slope of the regression line (least squares by a statistics library), where time is even and each setup is played once', () => {
    const steps = [1, -1, -1.5, 1.5, 1.5, -1.5, -1, 1];
    const answers = [0, 2, 3, 0, 1, 3, 2, 0];
    const word = ownWord(
      'tennis',
      played(
        steps.map((s, i) => s + 1e-6 * i),
        answers,
      ),
      { day: 0.3, feel: 0.2 },
    );
    const { m } = linearRegression(steps.map((s, i) => [s, notes[answers[i] ?? 0] ?? 0]));
    const slope = (word.weighted[SWING] ?? 0) / (word.precision[SWING]?.[SWING] ?? 1);
    expect(slope).toBeCloseTo(m, 4);
  });

  it('is generalised least squares with what setups feel like and time brings (Aitken 1936, by a matrix library)', () => {
    const steps = [0, 0, 1.2, 1.2, 1.2, -0.7, -0.7, 2];
    const answers = [0, 1, 2, 1, 0, 3, 2, 0];
    const spread = { day: 0.4, feel: 0.3 };
    const word = ownWord('tennis', played(steps, answers), spread);
    const x = steps.map((s) => s - mean(steps));
    // Steps are of the player's own mean.
    const step = (around * (1 + 0.025 * mean(steps))) / around;
    const time = steps.map((_, i) => (2 * i) / (steps.length - 1) - 1);
    const noise = steps.map((a, i) =>
      steps.map(
        (b, j) =>
          (i === j ? spread.day ** 2 : 0) +
          (a === b ? spread.feel ** 2 : 0) +
          0.5 ** 2 * (time[i] ?? 0) * (time[j] ?? 0),
      ),
    );
    const weight = inv(matrix(noise));
    const design = matrix(x.map((v) => [1, v / step]));
    const y = matrix(answers.map((a) => [notes[a] ?? 0]));
    const information = multiply(multiply(transpose(design), weight), design);
    const found = multiply(
      inv(information),
      multiply(multiply(transpose(design), weight), y),
    ) as unknown as Matrix<number>;
    const variance = inv(information).get([1, 1]) as number;
    expect((word.weighted[SWING] ?? 0) / (word.precision[SWING]?.[SWING] ?? 1)).toBeCloseTo(
      found.get([1, 0]),
      9,
    );
    expect(1 / (word.precision[SWING]?.[SWING] ?? 1)).toBeCloseTo(variance, 9);
  });
});

describe('players within kinds within all', () => {
  it('are believed as the whole model written out in one and solved by a matrix library believes them (Lindley and Smith 1972)', () => {
    const normal = seededNormals(4);
    const kinds = ['a', 'a', 'a', 'b', 'b'];
    const apart = CHANGED.map((_, i) => 0.1 + 0.02 * i);
    const words = kinds.map(() => {
      const rows = CHANGED.map(() => CHANGED.map(() => normal()));
      const precision = multiply(matrix(rows), transpose(matrix(rows))).toArray() as number[][];
      return { precision, weighted: CHANGED.map(() => normal()) };
    });
    const found = levelsOf(words, kinds, apart);
    // Unknowns one after another: all, kind a, kind b, five players; each as it differs from the level above.
    const K = CHANGED.length;
    const size = K * (1 + 2 + kinds.length);
    const sds = [
      ...CHANGED.map(() => 0.15),
      ...CHANGED.map(() => 0.1),
      ...CHANGED.map(() => 0.1),
      ...kinds.flatMap(() => apart),
    ];
    let precision = matrix(sds.map((sd, i) => sds.map((_, j) => (i === j ? 1 / sd ** 2 : 0))));
    let weighted = matrix(sds.map(() => [0]));
    const picks = kinds.map((kind, i) => {
      const one = identity(K) as Matrix;
      const at = [0, kind === 'a' ? 1 : 2, 3 + i];
      return matrix(
        CHANGED.map((_, r) =>
          Array.from({ length: size }, (__, c) =>
            at.includes(Math.floor(c / K)) ? (one.get([r, c % K]) as number) : 0,
          ),
        ),
      );
    });
    for (const [i, word] of words.entries()) {
      const pick = picks[i] as Matrix;
      precision = matrix(
        (multiply(multiply(transpose(pick), matrix(word.precision)), pick).toArray() as number[][]).map(
          (row, r) => row.map((v, c) => v + (precision.get([r, c]) as number)),
        ),
      );
      weighted = matrix(
        (multiply(transpose(pick), matrix(word.weighted.map((v) => [v]))).toArray() as number[][]).map(
          (row, r) => [(row[0] ?? 0) + (weighted.get([r, 0]) as number)],
        ),
      );
    }
    const covariance = inv(precision);
    const means = multiply(covariance, weighted) as unknown as Matrix;
    for (const [i, pick] of picks.entries()) {
      const own = multiply(pick, means) as unknown as Matrix;
      const spread = multiply(multiply(pick, covariance), transpose(pick));
      for (const k of CHANGED.keys()) {
        expect(found.players[i]?.mean[k]).toBeCloseTo(own.get([k, 0]) as number, 8);
        expect(found.players[i]?.variance[k]).toBeCloseTo(spread.get([k, k]) as number, 8);
      }
    }
    expect(found.all.mean[0]).toBeCloseTo(means.get([0, 0]) as number, 8);
    expect(found.all.covariance[1]?.[1]).toBeCloseTo(covariance.get([1, 1]) as number, 8);
  });
});

describe('what a shop has learned', () => {
  const isTold = ({ told }: ReturnType<typeof learnedOfShop>): boolean =>
    [...told.values()].some((all) => all.length > 0);

  it.each<[string, SimulatedShop]>([
    ['where frames do not matter', { ...base, fall: 0 }],
    ['where frames feel better or worse whatever they measure', { ...base, fall: 0, feel: 0.35 }],
    ['of three kinds', { ...base, fall: 0, players: 60, kinds: 3 }],
    ['where everybody plays what suits them', { ...base, off: () => 0 }],
  ])('is nothing, in 95 of 100 shops at the least, %s', (_what, shop) => {
    const told = shops(50, shop).filter(isTold).length;
    expect(told).toBeLessThan(0.05 * 50);
  });

  it('is found in 80 of 100 shops where 40 players are happiest half a step above what they play, with 24 sessions each', () => {
    const found = shops(60, { ...base, frames: 6 }).filter(({ told }) =>
      (told.get('') ?? []).some(({ what, says }) => what === 'swingWeight' && says === 'more'),
    );
    expect(found.length).toBeGreaterThanOrEqual(0.8 * 60);
  });

  it('says where they are happiest, of how many players and sessions, for a kind first; and the other way for another kind', () => {
    const shop = { ...base, players: 60, kinds: 2, off: (kind: number) => (kind === 0 ? 1.5 : -1.5) };
    const { players, happiest } = simulatedShop(7, shop);
    const learned = learnedOfShop('tennis', players);
    const up = learnedFor(learned, 'kind 0').find(({ what }) => what === 'swingWeight');
    expect(up).toMatchObject({ of: 'kind', says: 'more', players: 29, sessions: 580 });
    // One of the thirty never played frames a step apart.
    expect(learnedFor(learned, 'kind 1').find(({ what }) => what === 'swingWeight')?.says).toBe('less');
    const ofKind = happiest.filter((_, i) => i % 2 === 0).toSorted((a, b) => a - b);
    const middle = ofKind[Math.floor(ofKind.length / 2)] ?? NaN;
    // The happiest are held within a step of what was played: a little short of the truth.
    expect(Math.abs(((up?.happiest.from ?? 0) + (up?.happiest.to ?? 0)) / 2 - middle)).toBeLessThan(8);
  });

  it('says nothing of fewer than eight players, whatever they say', () => {
    const few = simulatedShop(3, {
      ...base,
      players: LEAST_PLAYERS - 1,
      off: () => 2,
      frames: 8,
      apart: 0,
    }).players;
    expect(isTold(learnedOfShop('tennis', few))).toBe(false);
    const enough = simulatedShop(3, { ...base, players: 16, off: () => 2, frames: 8, apart: 0 }).players;
    expect(isTold(learnedOfShop('tennis', enough))).toBe(true);
    expect(isTold(learnedOfShop('tennis', []))).toBe(false);
  });

  it('moves no player with 20 own sessions by more than a quarter of a step, one with fewer by as much more', () => {
    for (const sessions of [1, 4]) {
      const { players } = simulatedShop(11, { ...base, sessions, off: () => 2, apart: 1 });
      const limit = (0.25 * 20) / (5 * sessions);
      for (const [i, all] of learnedOfShop('tennis', players).among.entries())
        for (const { what, own, among } of all)
          if (what === 'swingWeight') {
            const step =
              0.025 * mean((players[i]?.played ?? []).map(({ specs }) => specs.swingWeight ?? NaN));
            expect(Math.abs(own - among)).toBeLessThanOrEqual(limit * step + 1e-9);
          }
    }
  });

  it('is the same whenever it is asked, and forgets who is taken out', () => {
    const { players } = simulatedShop(5, base);
    expect(learnedOfShop('tennis', players)).toEqual(learnedOfShop('tennis', players));
    const without = learnedOfShop('tennis', players.slice(1));
    expect(without.players).toBe(39);
    expect(without.sessions).toBe(39 * 20);
  });

  it('says nothing that loads a sore arm more, whoever was happy with it', () => {
    const { players } = simulatedShop(3, { ...base, off: () => 2, frames: 8, apart: 0 });
    const ask = (isTender: boolean) =>
      learnedAbout('tennis', players, { kind: 'kind 0', isTender, place: 0 }).told.map(
        ({ what, says }) => `${what} ${says}`,
      );
    expect(ask(false)).toContain('swingWeight more');
    expect(ask(true)).toEqual(ask(false).filter((one) => !one.endsWith('more')));
  });

  it('learns of strings too: looser where an arm tires with tight ones', () => {
    const normal = seededNormals(2);
    const players = Array.from({ length: 24 }, () => ({
      kind: 'one',
      played: Array.from({ length: 18 }, (_, i): SessionPlayed => {
        const tensionKg = 22 + (Math.floor(i / 3) % 3) * 1.5;
        const feels = 0.8 * (23.5 - tensionKg) + 0.6 * normal();
        return {
          session: {
            energyLeft: 'enough',
            arm: feels > 0 ? 'fine' : 'tired',
            late: feels > -0.5 ? 'no' : 'often',
          },
          specs: { swingWeight: 320, massG: 330, balanceCm: 32 },
          tensionKg,
          strings: 'nylon',
        };
      }),
    }));
    const [said] = learnedFor(learnedOfShop('tennis', players), 'one');
    expect(said).toMatchObject({ what: 'tension', says: 'less', players: 24 });
  });
});

describe('a kind of player', () => {
  it('is alike in age, level and style', () => {
    expect(kindOfPlayer({ age: 34, level: 5, style: 'Baseline, heavy topspin' })).toEqual({
      age: 'adult',
      level: 'strong',
      style: 'back',
    });
    expect(kindOfPlayer({ age: 12, level: 2, style: 'likes the net' })).toEqual({
      age: 'growing',
      level: 'new',
      style: 'net',
    });
    expect(kindOfPlayer({ age: 18, putsFirst: 'control' })).toEqual({
      age: 'adult',
      level: 'unknown',
      style: 'control',
    });
    expect(kindName(kindOfPlayer({}))).toBe('unknown unknown unknown');
  });
});
