import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ALL_SPORTS, sportData } from '../sport';
import {
  BOTHERS,
  aimForConditions,
  aimFromComplaints,
  aimMeaning,
  complaintSteps,
  guideMiddle,
  paddleShapes,
  proposeGuide,
  swingSchools,
} from '.';

const own = { massG: 320, balanceCm: 32.5, swingWeight: 320, twistWeight: 13.5, axisCm: 10.16 };

describe('an aim from complaints (common practice)', () => {
  it('moves each spec in its known direction, in steps of the sport', () => {
    const aim = aimFromComplaints('tennis', own, ['late', 'twisting']);
    expect(aim.swingWeight?.value).toBe(312);
    expect(aim.twistWeight?.value).toBeCloseTo(14.1, 9);
    expect(aim.massG?.priority).toBe('free');
    expect(
      aimFromComplaints('badminton', { ...sportData('badminton').usual, axisCm: 10 }, ['twisting'])
        .twistWeight?.value,
    ).toBeLessThan(2);
  });

  it('with a sore or tired arm nothing that loads it ever rises, whatever else is complained of', () => {
    fc.assert(
      fc.property(fc.subarray([...BOTHERS]), (bothers) => {
        const steps = complaintSteps(['sore-arm', ...bothers]);
        for (const key of ['massG', 'balanceCm', 'swingWeight'] as const)
          expect(steps[key] ?? 0).toBeLessThanOrEqual(0);
        for (const step of Object.values(steps)) expect(Math.abs(step)).toBeLessThanOrEqual(2);
      }),
    );
  });
});

describe('what an aim means', () => {
  it('is said as a share of swing weight and in steps of the rest', () => {
    const meaning = aimMeaning('tennis', own, {
      swingWeight: { value: 332.8, tolerance: 1 },
      twistWeight: { value: 13.9, tolerance: 0.2 },
      massG: { value: 320.3, tolerance: 1 },
    });
    expect(meaning.map(({ of }) => of)).toEqual(['swing', 'twist']);
    expect(meaning[0]?.change).toBeCloseTo(0.04, 9);
    expect(meaning[1]?.steps).toBeCloseTo(1, 9);
  });
});

describe('a guide for a player (common practice)', () => {
  it.each([
    ['tennis', { age: 10 }, 'junior-26'],
    ['tennis', { age: 13, level: 4 }, 'first-full'],
    ['tennis', { age: 16, level: 5 }, 'strong-adult'],
    ['tennis', { age: 40, level: 3 }, 'average-adult'],
    ['tennis', { age: 40, level: 3, bothers: ['sore-arm'] as const }, 'first-full'],
    ['tennis', { age: 28, level: 6, build: 'strong', putsFirst: 'power' }, 'very-strong'],
    ['pickleball', { level: 2, putsFirst: 'hand-speed' }, 'light'],
    ['pickleball', { level: 5, build: 'strong' }, 'heavy'],
    ['padel', { level: 5 }, 'usual'],
    ['badminton', {}, '4u'],
  ] as const)('%s %j: %s', (sport, player, guide) => {
    expect(proposeGuide(sport, player)?.guide).toBe(guide);
    expect(proposeGuide(sport, player)?.reasons.length).toBeGreaterThan(0);
  });

  it('a sore arm never gives a heavier class than the same player without', () => {
    const player = fc.record(
      {
        age: fc.integer({ min: 6, max: 80 }),
        heightCm: fc.integer({ min: 110, max: 210 }),
        build: fc.constantFrom('slight', 'medium', 'strong'),
        level: fc.integer({ min: 1, max: 7 }),
        putsFirst: fc.constantFrom('power', 'stability', 'hand-speed', 'comfort', 'control'),
      },
      { requiredKeys: [] },
    );
    fc.assert(
      fc.property(fc.constantFrom(...ALL_SPORTS), player, (sport, who) => {
        const order = sport === 'badminton' ? ['4u', '3u'] : Object.keys(sportData(sport).guides);
        const at = (bothers: readonly 'sore-arm'[]) =>
          order.indexOf(
            proposeGuide(sport, { ...who, bothers } as Parameters<typeof proposeGuide>[1])?.guide ?? '',
          );
        expect(at(['sore-arm'])).toBeLessThanOrEqual(at([]));
      }),
    );
  });

  it('both schools of swing weight stand side by side: a step under the ceiling, and the lower end of the guide', () => {
    const bands = { swingWeight: [308, 330] as const };
    expect(swingSchools('tennis', bands, 340)).toEqual({ carry: 340 * 0.975, late: 308 });
    expect(swingSchools('tennis', bands)).toEqual({ carry: 330, late: 308 });
    expect(swingSchools('pickleball', { swingWeight: [-Infinity, 115] })).toEqual({ carry: 115 });
    expect(guideMiddle({ swingWeight: [308, 330], massG: [-Infinity, 300] })).toEqual({
      swingWeight: 319,
      massG: 300,
    });
  });
});

describe('the shape of a paddle (common practice)', () => {
  const shapes = (...wish: Parameters<typeof paddleShapes>) =>
    paddleShapes(...wish).map(({ shape }) => shape);
  it('is longer for power and reach, wider for forgiveness, shorter for quick hands', () => {
    expect(shapes({ first: 'power' })[0]).toBe('extra-long');
    expect(shapes({ first: 'reach' })[0]).toBe('extra-long');
    expect(shapes({ first: 'forgiveness' })[0]).toBe('wide');
    expect(shapes({ first: 'hands' })[0]).toBe('wide');
    expect(shapes({ first: 'hands' })).not.toContain('extra-long');
    expect(shapes({ first: 'power' })).not.toContain('wide');
  });
  it('follows the mis-hits and the background', () => {
    expect(shapes({ first: 'forgiveness', misHits: 'tip' })).toContain('elongated');
    expect(shapes({ first: 'power', misHits: 'sides' })).toContain('standard');
    expect(shapes({ first: 'power', from: 'new' })[0]).toBe('standard');
    for (const first of ['hands', 'power', 'forgiveness', 'reach'] as const) {
      for (const { reasons } of paddleShapes({ first, misHits: 'tip', from: 'other-racket-sport' }))
        expect(reasons.length).toBeGreaterThan(0);
    }
  });
});

describe('conditions', () => {
  const aim = { balanceCm: { value: 32.5, tolerance: 0.15 }, swingWeight: { value: 325, tolerance: 1.5 } };

  it('move weight toward the hand where it is hot and fast, toward the tip where it is cold and slow (common practice), by half a step', () => {
    expect(aimForConditions('tennis', aim, 'hot-fast')).toEqual({
      ...aim,
      balanceCm: { value: 32.35, tolerance: 0.15 },
    });
    expect(aimForConditions('tennis', aim, 'cold-slow').balanceCm?.value).toBe(32.65);
    for (const sport of ALL_SPORTS) {
      const { usual, noticeable } = sportData(sport);
      const own = { balanceCm: { value: usual.balanceCm, tolerance: 0.1 } };
      const moved = aimForConditions(sport, own, 'cold-slow').balanceCm?.value ?? 0;
      expect(moved - usual.balanceCm).toBeCloseTo(noticeable.balanceCm / 2, 2);
    }
  });

  it('leave an aim alone that says nothing of the balance', () => {
    const free = { balanceCm: { value: 32.5, tolerance: 0.15, priority: 'free' as const } };
    expect(aimForConditions('tennis', free, 'hot-fast')).toBe(free);
    expect(aimForConditions('tennis', {}, 'hot-fast')).toEqual({});
  });
});
