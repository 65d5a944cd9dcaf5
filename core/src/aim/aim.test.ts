import { describe, expect, it } from 'vitest';
import { Fault } from '../fault';
import { settleFrame } from '../frame';
import { sportData } from '../sport';
import {
  aimProblems,
  classesOver,
  deviationFrom,
  guideBands,
  guidesOf,
  isGrowing,
  partWay,
  verdictOf,
  withinTolerance,
  type Aim,
} from '.';

const tennis = sportData('tennis');
const own = { massG: 320, balanceCm: 32, swingWeight: 310, twistWeight: 13 };

interface Ends {
  name: string;
  from?: number;
  to?: number;
}
/** The band that a value lies in; the lower end belongs to the band, the upper to the next. */
const bandOf = (bands: readonly Ends[], value: number): Ends | undefined =>
  bands.find(({ from = -Infinity, to = Infinity }) => value >= from && value < to);

describe('part of the way', () => {
  it('halfway is the middle of each spec, rounded as written on a card', () => {
    const aim = partWay(
      tennis,
      own,
      { massG: 341, balanceCm: 32.5, swingWeight: 341, twistWeight: 14.5 },
      0.5,
    );
    expect([aim.massG?.value, aim.balanceCm?.value, aim.swingWeight?.value, aim.twistWeight?.value]).toEqual([
      331, 32.3, 326, 13.8,
    ]);
  });

  it('0 stays, 1 copies, and what the other lacks is left free', () => {
    expect(partWay(tennis, own, { massG: 341 }, 0).massG?.value).toBe(320);
    const copied = partWay(tennis, own, { massG: 341 }, 1);
    expect(copied.massG).toMatchObject({ value: 341, priority: 'want' });
    expect(copied.swingWeight?.priority).toBe('free');
    expect(() => partWay(tennis, own, {}, 1.2)).toThrow(Fault);
  });
});

describe('judging an aim', () => {
  const aim: Aim = {
    massG: { value: 348, tolerance: 1 },
    twistWeight: { value: 15, tolerance: 0.2, priority: 'free' },
  };

  it('counts the edge of a tolerance as inside and leaves free specs out', () => {
    expect(withinTolerance(aim, { massG: 349 })).toBe(true);
    expect(withinTolerance(aim, { massG: 349.01 })).toBe(false);
    expect(withinTolerance(aim, {})).toBe(false);
    expect(verdictOf(aim, { massG: 349.01 })).toEqual([{ spec: 'massG', value: 349.01, inside: false }]);
    expect(verdictOf(aim, {})).toEqual([]);
    expect(deviationFrom(aim, { massG: 346.5, twistWeight: 14 })).toEqual({ massG: -1.5, twistWeight: -1 });
  });

  it('names values and tolerances that cannot be, and numbers that cannot go together', () => {
    const found = (a: Aim): string[] =>
      aimProblems(a, 68.58, { ...own, axisCm: 10.16 }).map((p) => `${p.code} ${p.path}`);
    expect(found({ massG: { value: -3, tolerance: 0 } })).toEqual([
      'not-positive target.massG.value',
      'tolerance-not-positive target.massG.tolerance',
    ]);
    expect(found({ balanceCm: { value: 70, tolerance: 1 } })).toEqual([
      'balance-off-frame target.balanceCm.value',
    ]);
    const impossible: Aim = {
      massG: { value: 340, tolerance: 1 },
      balanceCm: { value: 33, tolerance: 0.1 },
      swingWeight: { value: 170, tolerance: 1 },
    };
    expect(found(impossible)).toEqual(['swing-weight-impossible target.swingWeight.value']);
    const { twistWeight: _, ...untwisted } = own;
    const twist: Aim = { twistWeight: { value: 14, tolerance: 0.2 } };
    expect(aimProblems(twist, 68.58, { ...untwisted, axisCm: 10.16 }).map((p) => p.code)).toEqual([
      'twist-not-measured',
    ]);
    expect(found(twist)).toEqual([]);
    expect(found({ ...impossible, massG: { value: 340, tolerance: 1, priority: 'free' } })).toEqual([]);
  });
});

describe('guides (common practice)', () => {
  const frame = settleFrame({ sport: 'tennis', lengthCm: 68.58 });

  it('stand as published for a strung frame, with the weight of strings and overgrip put on', () => {
    const bands = guideBands(frame, 'advanced', { baseGrip: 'synthetic', strings: true });
    expect(bands.swingWeight).toEqual([318, 340]);
    expect(bands.massG).toEqual([311, 334]);
    const wrapped = guideBands(frame, 'advanced', { baseGrip: 'synthetic', strings: true, overgrips: 1 });
    expect((wrapped.massG?.[0] ?? 0) - (bands.massG?.[0] ?? 0)).toBeCloseTo(5.5, 9);
  });

  it('come down by the strings for an unstrung frame', () => {
    const [low = 0] = guideBands(frame, 'advanced', { baseGrip: 'synthetic' }).swingWeight ?? [];
    expect(318 - low).toBeGreaterThan(25);
    expect(318 - low).toBeLessThan(30);
  });
});

describe('bands of other sports and juniors (common practice)', () => {
  it.each([
    ['pickleball', 'swingWeight', 114.9, 'light'],
    ['pickleball', 'swingWeight', 117, 'medium'],
    ['pickleball', 'swingWeight', 120, 'heavy'],
    ['badminton', 'massG', 83, '4U'],
    ['badminton', 'massG', 88, '3U'],
    ['badminton', 'balanceCm', 28.9, 'head-light'],
    ['badminton', 'balanceCm', 29.6, 'head-heavy'],
    ['padel', 'massG', 360, 'usual'],
    ['padel', 'massG', 380, 'only for strong arms'],
  ] as const)('%s %s %f is %s', (sport, key, value, name) => {
    expect(bandOf(sportData(sport).bands[key] ?? [], value)?.name).toBe(name);
  });

  it('counts the weight classes a junior is over', () => {
    expect(classesOver('tennis', 13, 280)).toBe(0);
    expect(classesOver('tennis', 13, 300)).toBe(1);
    expect(classesOver('tennis', 11, 300)).toBe(2);
    expect(classesOver('tennis', 16, 260)).toBe(0);
    expect(classesOver('padel', 11, 300)).toBe(0);
  });

  it('counts a player as growing until the year they are 18', () => {
    expect(isGrowing(2009, 2026)).toBe(true);
    expect(isGrowing(2008, 2026)).toBe(false);
  });
});

describe('a sport’s own aim', () => {
  it('is rounded and tolerated as that sport does: half a gram matters on a shuttle frame, not on a tennis frame', () => {
    const light = { massG: 83, balanceCm: 29, swingWeight: 85, twistWeight: 1.2 };
    const to = { massG: 84.4, balanceCm: 29.4, swingWeight: 87, twistWeight: 1.26 };
    const halfway = partWay(sportData('badminton'), light, to, 0.5);
    expect(halfway.massG).toMatchObject({ value: 83.5, tolerance: 0.5 });
    expect(halfway.twistWeight).toMatchObject({ value: 1.24, tolerance: 0.03 });
    expect(partWay(tennis, light, to, 0.5).massG?.value).toBe(84);
  });

  it('has guides of its own, and none of another’s', () => {
    expect(guidesOf('pickleball')).toEqual(['light', 'medium', 'heavy']);
    const paddle = settleFrame({ sport: 'pickleball', lengthCm: 40.64 });
    expect(guideBands(paddle, 'light', { baseGrip: 'synthetic' }).swingWeight).toEqual([-Infinity, 115]);
    expect(guideBands(paddle, 'advanced', { baseGrip: 'synthetic' })).toEqual({});
  });
});
