import { describe, expect, it } from 'vitest';
import { conformance, setApart } from '.';

const specs = { massG: 330, balanceCm: 32, swingWeight: 325, twistWeight: 14, axisCm: 10.16 };
const u = { massG: 0.5, balanceCm: 0.05, swingWeight: 0.8, twistWeight: 0.1 };

describe('how likely a frame is truly inside', () => {
  it('is the normal distribution’s share: 68.27 % at one, 95.45 % at two standard uncertainties (handbook)', () => {
    const within = (tolerance: number) => conformance({ massG: { value: 330, tolerance } }, specs, u).all;
    expect(within(0.5)).toBeCloseTo(0.6827, 4);
    expect(within(1)).toBeCloseTo(0.9545, 4);
  });

  it('is a half for a reading on the edge of a wide tolerance, and lower than its specs together (JCGM 106:2012, 7.2.2)', () => {
    const aim = {
      massG: { value: 325, tolerance: 5 },
      swingWeight: { value: 325, tolerance: 0.8 },
      balanceCm: { value: 99, tolerance: 0.1, priority: 'free' as const },
    };
    const { all, of } = conformance(aim, specs, u);
    expect(of.massG).toBeCloseTo(0.5, 6);
    expect(of.swingWeight).toBeCloseTo(0.6827, 4);
    expect(all).toBeCloseTo(0.5 * 0.6827, 4);
    expect(Object.keys(of)).toEqual(['massG', 'swingWeight']);
  });

  it('is nothing where what is aimed at was not measured', () => {
    const { twistWeight: _, ...untwisted } = specs;
    expect(conformance({ twistWeight: { value: 14, tolerance: 1 } }, untwisted, u).all).toBe(0);
  });
});

describe('the frames of a set against one another', () => {
  it('names the pair that is furthest apart and in what: 3 g of weight are a step in tennis (common practice)', () => {
    const found = setApart('tennis', [
      { id: 'a', specs },
      { id: 'b', specs: { ...specs, massG: 331.5 } },
      { id: 'c', specs: { ...specs, massG: 327 } },
    ]);
    expect(found.map(({ ids }) => ids.join(''))).toEqual(['bc', 'ac', 'ab']);
    expect(found[0]).toMatchObject({ most: 'massG', steps: 1.5 });
    expect(found[2]?.distanceSteps).toBeCloseTo(0.5, 9);
  });
});
