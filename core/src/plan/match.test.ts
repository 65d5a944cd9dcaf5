import { describe, expect, it } from 'vitest';
import { putty, tape } from '../../test/parts';
import { withinTolerance } from '../aim';
import { settleFrame } from '../frame';
import type { SpecKey } from '../mass';
import { SPEC_KEYS } from '../spec';
import { commonDress, dressAfter, matchFrames, matchable, widthsOf, type FrameToMatch } from '.';

const shape = { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 645 } as const;
const { tolerance } = settleFrame(shape).sport;
const strung = { strings: true, baseGrip: 'synthetic' } as const;
const frame = (id: string, massG: number, swingWeight: number, more: Partial<FrameToMatch> = {}) => ({
  id,
  shape,
  dress: strung,
  specs: { massG, balanceCm: 32.4, swingWeight, twistWeight: 13.4, axisCm: 10.16 },
  ...more,
});
const keys: SpecKey[] = ['massG', 'balanceCm', 'swingWeight'];
const set = [frame('a', 326.5, 319), frame('b', 330, 323.5), frame('c', 328, 321)];
const asked = { frames: set, dress: strung, keys, tolerance, parts: [tape, putty] };

describe('frames of a set', () => {
  it('come up to the heaviest, which gets nothing, with the least added weight', () => {
    const { target, frames, addedG, chance } = matchFrames({ ...asked, to: 'least' });
    expect(target.massG?.value).toBeCloseTo(330, 0);
    const heaviest = frames.find(({ id }) => id === 'b');
    expect(heaviest?.plan.placements).toEqual([]);
    for (const { plan } of frames) expect(withinTolerance(target, plan.specs)).toBe(true);
    // What is missing to the heaviest, frame by frame, to the tolerance of each.
    expect(Math.abs(addedG - (3.5 + 2))).toBeLessThan(3);
    expect(chance).toBeLessThanOrEqual(Math.min(...frames.map(({ plan }) => plan.chance)));
    const [before, after] = [
      widthsOf(frames.map((f) => f.before)),
      widthsOf(frames.map((f) => f.plan.specs)),
    ];
    expect(before.massG).toBeCloseTo(3.5, 9);
    for (const key of keys) expect(after[key]).toBeLessThanOrEqual(before[key] + 2 * tolerance[key]);
    expect(after.massG).toBeLessThan(before.massG);
  });

  it('go to the frame that the player likes best, and one that is heavier is said not to come down to it', () => {
    const { target, frames } = matchFrames({ ...asked, to: { frameId: 'c' } });
    expect(target.massG?.value).toBe(328);
    const inside = Object.fromEntries(frames.map(({ id, plan }) => [id, plan.withinTolerance]));
    expect(inside).toEqual({ a: true, b: false, c: true });
    expect(frames.find(({ id }) => id === 'b')?.plan.deviation.massG).toBeGreaterThan(0);
  });

  it('are compared and finished in one dress: strings and grips that one lacks are put on', () => {
    const bare = frame('d', 306, 291, { dress: { baseGrip: 'synthetic' } });
    const frames = [...set.slice(0, 2), bare];
    const dress = commonDress([bare, ...frames]);
    expect(dress).toEqual(strung);
    const { frames: found } = matchFrames({ ...asked, frames, dress, to: 'least' });
    const own = found.find(({ id }) => id === 'd');
    expect(own?.plan.swaps).toEqual([{ what: 'strings', to: true }]);
    expect(dressAfter(bare.dress, own?.plan.swaps ?? [])).toMatchObject(strung);
    // Some 16 g of strings (common practice).
    expect((own?.before.massG ?? 0) - bare.specs.massG).toBeCloseTo(16, 0);
  });

  it('match in what was asked and in what every one of them knows', () => {
    const { twistWeight: _, ...noTwist } = frame('e', 329, 322).specs;
    const unread = { ...frame('e', 329, 322), specs: noTwist };
    expect(matchable([...set, unread])).not.toContain('twistWeight');
    const { target } = matchFrames({
      ...asked,
      frames: [...set.slice(0, 1), unread],
      keys: SPEC_KEYS,
      to: 'least',
    });
    expect(Object.keys(target).toSorted()).toEqual([...keys].toSorted());
    const own = matchFrames({ ...asked, keys: ['massG'], to: { specs: { massG: 333, swingWeight: 330 } } });
    expect(own.target).toEqual({ massG: { value: 333, tolerance: tolerance.massG } });
  });

  it('are two to six', () => {
    expect(() => matchFrames({ ...asked, frames: set.slice(0, 1), to: 'least' })).toThrow(/set-size/);
  });
});
