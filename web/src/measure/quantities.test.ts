import { describe, expect, it } from 'vitest';
import type { Instrument } from '@kevro/contract';
import { laneDomain } from '../lanes/lane';
import { quantityList, waysToTake } from './quantities';

const instrument = (id: string, kind: Instrument['kind']): Instrument => ({
  id,
  name: id,
  kind,
  driver: 'stand-in',
  note: '',
  sheet: {
    repeatability: 0.1,
    accuracy: 0.1,
    resolution: 0.1,
    driftPerHour: 0,
    warmUpMinutes: 0,
    axisCm: null,
  },
  state: 'ready',
  warmInSeconds: 0,
  reading: null,
  on: null,
  plugged: true,
  bench: null,
  link: null,
  trouble: '',
  retired: false,
  simulated: true,
  calibration: null,
  calibrationState: 'never',
});

describe('ways to take a quantity', () => {
  const all = [instrument('scale', 'scale'), instrument('board', 'board'), instrument('machine', 'machine')];

  it('are the instruments that read it, then the methods without one', () => {
    const names = (q: Parameters<typeof waysToTake>[0]) => waysToTake(q, all).map((w) => w.value);
    expect(names('massG')).toEqual(['scale']);
    expect(names('balanceCm')).toEqual(['board']);
    expect(names('swingWeight')).toEqual(['machine', 'pendulum', 'filmed-swing', 'estimate']);
    expect(names('twistWeight')).toEqual(['machine', 'edge-on', 'threads', 'filmed-twist', 'estimate']);
    expect(names('leftRightG')).toEqual(['machine']);
    expect(waysToTake('massG', [{ ...instrument('scale', 'scale'), retired: true }])).toEqual([]);
  });
});

describe('quantities', () => {
  it('are listed in a sentence', () => {
    expect(quantityList(['swingWeight'])).toBe('swing weight');
    expect(quantityList(['massG', 'swingWeight', 'twistWeight'])).toBe(
      'weight, swing weight and twist weight',
    );
  });
});

describe('a lane', () => {
  it('is as wide for its own frame: 24 g for a racket of 320 g, 7 g for a badminton one of 88 g', () => {
    const width = (value: number): number => {
      const [low, high] = laneDomain('massG', { measured: { massG: value } });
      return (high - low) / 1.12;
    };
    expect(width(320)).toBeCloseTo(24, 6);
    expect(width(88)).toBeCloseTo(6.6, 6);
  });
});
