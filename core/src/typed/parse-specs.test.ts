import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseSpecs } from '.';

describe('one typed line', () => {
  it('the two lines every fitter types', () => {
    expect(parseSpecs('327 g 31.3 cm sw 299 unstrung')).toEqual({
      specs: { massG: 327, balanceCm: 31.3, swingWeight: 299 },
      dress: { strings: false },
      shape: { sport: 'tennis' },
      leftover: '',
    });
    const second = parseSpecs('11.5oz 6HL 325 strung 1 overgrip');
    expect(second.specs.massG).toBeCloseTo(326.02, 2);
    expect(second.specs.balanceCm).toBeCloseTo(32.385, 9);
    expect(second.specs.swingWeight).toBe(325);
    expect(second.dress).toEqual({ strings: true, overgrips: 1 });
    expect(second.leftover).toBe('');
  });

  it.each([
    ['balance 32,4cm', { balanceCm: 32.4 }, ''],
    ['324 mm', { balanceCm: 32.4 }, ''],
    ['12.75 in', { balanceCm: 32.385 }, ''],
    ['5 points head heavy', { balanceCm: 34.29 + 5 * 0.3175 }, ''],
    ['4 pts HL', { balanceCm: 33.02 }, ''],
    ['even', { balanceCm: 34.29 }, ''],
    ['Swing weight: 318, twist weight 14.2', { swingWeight: 318, twistWeight: 14.2 }, ''],
    ['318sw 14tw axis 10 cm', { swingWeight: 318, twistWeight: 14, axisCm: 10 }, ''],
    ['sw325', { swingWeight: 325 }, ''],
  ])('%s', (text, specs, leftover) => {
    const parsed = parseSpecs(text);
    for (const [key, number] of Object.entries(specs)) {
      expect(parsed.specs[key as keyof typeof parsed.specs]).toBeCloseTo(number, 6);
    }
    expect(Object.keys(parsed.specs)).toHaveLength(Object.keys(specs).length);
    expect(parsed.leftover).toBe(leftover);
  });

  it('understands shape and dress', () => {
    const { shape, dress, leftover } = parseSpecs(
      '27.5 in, 98 sq in, 16x19, leather grip, two overgrips, dampener, strung',
    );
    expect(shape).toMatchObject({ lengthCm: 27.5 * 2.54, pattern: '16×19' });
    expect(shape.headAreaCm2).toBeCloseTo(98 * 6.4516, 9);
    expect(dress).toEqual({ strings: true, baseGrip: 'leather', overgrips: 2, dampener: true });
    expect(leftover).toBe('');
  });

  it('counts points from the length that was typed', () => {
    expect(parseSpecs('4 HL 27.5 in').specs.balanceCm).toBeCloseTo((27.5 * 2.54) / 2 - 4 * 0.3175, 9);
  });

  it('follows the sport', () => {
    const paddle = parseSpecs('8.1 oz 115 elongated', 'pickleball');
    expect(paddle.specs).toMatchObject({ swingWeight: 115 });
    expect(paddle.shape.shape).toBe('elongated');
    expect(parseSpecs('370 g balance 26 cm 45.5 cm diamond', 'padel')).toMatchObject({
      specs: { massG: 370, balanceCm: 26 },
      shape: { lengthCm: 45.5, shape: 'diamond' },
    });
    // As wide as it may be: without a word it is no balance.
    expect(parseSpecs('370 g 26 cm 45.5 cm diamond', 'padel')).toMatchObject({
      specs: { massG: 370 },
      leftover: '26 cm',
    });
  });

  it('guesses at nothing: what is doubtful is left over', () => {
    // Which of two that differ is the frame's nobody says.
    expect(parseSpecs('327 g 330 g')).toMatchObject({ specs: {}, leftover: '327 g 330 g' });
    expect(parseSpecs('318 325')).toMatchObject({ specs: {}, leftover: '318 325' });
    expect(parseSpecs('12')).toMatchObject({ specs: {}, leftover: '12' });
    expect(parseSpecs('327 kg stiff 66RA')).toMatchObject({ specs: {}, leftover: '327 kg stiff 66RA' });
    expect(parseSpecs('3o2 g').specs).toEqual({});
    expect(parseSpecs('').leftover).toBe('');
  });

  it('does not depend on the order of words', () => {
    const words = ['327 g', '31.3 cm', 'sw 299', 'tw 13.5', 'unstrung', '16x19', '1 overgrip'];
    const { leftover: _, ...first } = parseSpecs(words.join(' '));
    fc.assert(
      fc.property(fc.shuffledSubarray(words, { minLength: words.length }), (shuffled) => {
        expect(parseSpecs(shuffled.join(', '))).toMatchObject(first);
      }),
    );
  });

  it('never throws, and keeps every strange word', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 80 }), (text) => {
        expect(() => parseSpecs(text)).not.toThrow();
      }),
      { numRuns: 300 },
    );
    expect(parseSpecs('wobbly 327 g gizmo').leftover).toBe('wobbly gizmo');
  });
});
