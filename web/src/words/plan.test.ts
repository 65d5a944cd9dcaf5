import { describe, expect, it } from 'vitest';
import { fromSpot, settleFrame, type Aim, type Part } from '@kevro/core';
import { pieceWords } from './pieces';
import { doingWords, missWords } from './plan';

const frame = settleFrame({ sport: 'tennis', lengthCm: 68.58 });
const tape: Part = {
  id: 'tape',
  kind: 'tape',
  name: 'tape 6 mm',
  material: 'lead',
  widthMm: 6,
  gPerCm: 0.265,
  stepCm: 0.5,
};
const putty: Part = {
  id: 'putty',
  kind: 'filling',
  name: 'putty',
  material: 'putty',
  dabG: 0.5,
  gPerCm: 1.6,
};
const strip = fromSpot(
  frame,
  { at: { zone: 'shoulders' }, massG: 4.505, spanCm: 8.5 },
  { id: 'p1', partId: 'tape' },
);
const aim: Aim = {
  massG: { value: 348, tolerance: 1 },
  swingWeight: { value: 345, tolerance: 1.5 },
  twistWeight: { value: 15, tolerance: 0.2, priority: 'free' },
};
const CM = { say: (cm: number): string => cm.toFixed(1), unit: 'cm' };
const say = (key: string, amount: number): string => `${amount.toFixed(1)} of ${key}`;
const nothing = { placements: [], swaps: [], removals: [] };

describe('a plan in words', () => {
  it('names places with their grams, and what is changed or comes off', () => {
    expect(doingWords({ ...nothing, placements: [strip] }, frame)).toBe('shoulders 4.5 g');
    expect(doingWords(nothing, frame)).toBe('nothing to put on');
    const all = {
      placements: [strip],
      swaps: [
        { what: 'overgrips' as const, to: 0 },
        { what: 'baseGrip' as const, to: 'leather' as const },
      ],
      removals: [{ of: strip }, { of: strip, left: { ...strip, massG: 2 } }],
    };
    expect(doingWords(all, frame)).toBe(
      'shoulders 4.5 g, no overgrip, leather base grip, shoulders 4.5 g off, shoulders down to 2 g',
    );
  });

  it('names what misses most for a hand, in noticeable steps, and leaves out what is free', () => {
    const hand = { sport: frame.sport, hand: 340 };
    // 9 of swing weight are a step and a bit (2.5 % of 340), 2 g are two thirds of one.
    expect(missWords(aim, { massG: -2, swingWeight: -9.04, twistWeight: 5 }, say, hand)).toBe(
      'swing weight 9.0 of swingWeight short',
    );
    // In tolerances the swing weight would be worse: 2.4 against 2.1; a hand notices the grams first.
    expect(missWords(aim, { massG: 2.1, swingWeight: 3.6 }, say, hand)).toBe('weight 2.1 of massG over');
    expect(missWords(aim, { massG: 1, swingWeight: 1.5 }, say, hand)).toBe('');
  });

  it('says what to cut', () => {
    expect(pieceWords(strip, tape, CM)).toBe('2 strips of 8.5 cm, tape 6 mm');
    expect(pieceWords({ ...strip, layers: 2 }, tape, CM)).toBe('4 strips of 8.5 cm, 2 layers, tape 6 mm');
    const inButt = fromSpot(
      frame,
      { at: { zone: 'butt' }, massG: 4.8, spanCm: 3 },
      { id: 'b', partId: 'putty' },
    );
    expect(pieceWords(inButt, putty, CM)).toBe('3.0 cm of putty');
    const dab: Part = { id: 'dab', kind: 'dab', name: 'dab 1 g', massG: 1 };
    const dabs = fromSpot(frame, { at: { zone: 'sides' }, massG: 4 }, { id: 'd', partId: 'dab' });
    expect(pieceWords(dabs, dab, CM)).toBe('4 × dab 1 g');
  });
});
