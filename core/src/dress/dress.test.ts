import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Fault } from '../fault';
import { sportData } from '../sport';
import { settleFrame } from '../frame';
import { dressParts, handleSizesAdded, redress, stringLength, stringMass, type Dress } from '.';

const shape = { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 645.16 } as const;
const unstrung = { massG: 305, balanceCm: 31.5, swingWeight: 295, twistWeight: 12.5 };

const dressArbitrary: fc.Arbitrary<Dress> = fc.record(
  {
    strings: fc.oneof(fc.boolean(), fc.record({ massG: fc.double({ min: 13, max: 20, noNaN: true }) })),
    baseGrip: fc.constantFrom('none', 'synthetic', 'leather'),
    overgrips: fc.nat({ max: 3 }),
    dampener: fc.boolean(),
  },
  { requiredKeys: [] },
);

describe('strings on a tennis frame (common practice)', () => {
  it('16 g on a 27 in, 100 in² frame: about +28 kg·cm² and +1 cm', () => {
    const { specs } = redress(shape, unstrung, {}, { strings: { massG: 16 } });
    expect(specs.massG - unstrung.massG).toBeCloseTo(16, 9);
    expect(specs.balanceCm - unstrung.balanceCm).toBeGreaterThan(0.9);
    expect(specs.balanceCm - unstrung.balanceCm).toBeLessThan(1.15);
    expect(Math.abs(specs.swingWeight - unstrung.swingWeight - 28)).toBeLessThan(1.5);
  });

  it.each([98, 100])('stays within +15 to +20 g and +25 to +30 kg·cm² on %i in²', (area) => {
    const { specs } = redress({ ...shape, headAreaCm2: area * 6.4516 }, unstrung, {}, { strings: true });
    expect(specs.massG - unstrung.massG).toBeGreaterThanOrEqual(15);
    expect(specs.massG - unstrung.massG).toBeLessThanOrEqual(20);
    expect(specs.swingWeight - unstrung.swingWeight).toBeGreaterThanOrEqual(25);
    expect(specs.swingWeight - unstrung.swingWeight).toBeLessThanOrEqual(30);
  });
});

describe('redress', () => {
  it('there and back is the identity', () => {
    fc.assert(
      fc.property(dressArbitrary, dressArbitrary, (a, b) => {
        const heavy = { ...unstrung, massG: 420, swingWeight: 420, twistWeight: 20 };
        const there = redress(shape, heavy, a, b).specs;
        const back = redress(shape, there, b, a).specs;
        expect(back.massG).toBeCloseTo(heavy.massG, 9);
        expect(back.balanceCm).toBeCloseTo(heavy.balanceCm, 9);
        expect(back.swingWeight).toBeCloseTo(heavy.swingWeight, 9);
        expect(back.twistWeight).toBeCloseTo(heavy.twistWeight, 9);
      }),
      { numRuns: 60 },
    );
  });

  it('changes nothing and adds no uncertainty between equal dresses', () => {
    const dress: Dress = { strings: true, baseGrip: 'synthetic', overgrips: 2 };
    const { specs, uncertainty } = redress(shape, unstrung, dress, { ...dress });
    expect(specs.massG).toBe(unstrung.massG);
    expect(specs.swingWeight).toBeCloseTo(unstrung.swingWeight, 9);
    expect(uncertainty).toEqual({ massG: 0, balanceCm: 0, swingWeight: 0, twistWeight: 0 });
  });

  it('an overgrip lowers the balance and hardly touches the swing weight', () => {
    const { specs, uncertainty } = redress(shape, unstrung, {}, { overgrips: 1 });
    expect(specs.massG - unstrung.massG).toBeCloseTo(5.5, 9);
    expect(specs.balanceCm).toBeLessThan(unstrung.balanceCm - 0.3);
    expect(Math.abs(specs.swingWeight - unstrung.swingWeight)).toBeLessThan(0.5);
    expect(uncertainty.massG).toBeCloseTo(0.4, 9);
  });

  it('is surer of weighed strings than of typical ones', () => {
    const typical = redress(shape, unstrung, {}, { strings: true }).uncertainty;
    const weighed = redress(shape, unstrung, {}, { strings: { massG: 16 } }).uncertainty;
    expect(weighed.swingWeight).toBeLessThan(typical.swingWeight / 2);
  });

  it('changes leather for synthetic as one swap', () => {
    const { change, specs } = redress(shape, unstrung, { baseGrip: 'leather' }, { baseGrip: 'synthetic' });
    expect(change.takenOff.map((p) => p.key)).toEqual(['leather 0']);
    expect(change.putOn.map((p) => p.key)).toEqual(['synthetic 0']);
    expect(specs.massG - unstrung.massG).toBeCloseTo(-10, 9);
  });

  it('refuses to take off more than is there', () => {
    const light = { massG: 15, balanceCm: 50, swingWeight: 40 };
    expect(() => redress(shape, light, { strings: true }, {})).toThrow(Fault);
  });

  it('puts the dampener just below the string bed', () => {
    const frame = settleFrame(shape);
    const [part] = dressParts(frame, { dampener: true });
    const bottom = frame.head.centreXCm - frame.head.alongCm;
    expect((part?.sums.firstGCm ?? 0) / (part?.sums.massG ?? 1)).toBeLessThan(bottom);
  });
});

describe('strings from pattern, head size, gauge and material', () => {
  const frame = settleFrame(shape);
  const job = { mains: 16, crosses: 19, gaugeMm: 1.25, material: 'polyester' } as const;

  it('weigh what tennis strings weigh: 14 to 19 g (common practice)', () => {
    const heavy = stringMass(frame, { mains: 18, crosses: 20, gaugeMm: 1.3, material: 'polyester' }).massG;
    for (const massG of [stringMass(frame, job).massG, heavy]) {
      expect(massG).toBeGreaterThan(14);
      expect(massG).toBeLessThan(19);
    }
  });

  it('span the face as chords do: the mean chord of an ellipse is π/4 of its axis (handbook)', () => {
    const { alongCm, acrossCm } = frame.head;
    const inside = 16 * (Math.PI / 4) * 2 * alongCm + 19 * (Math.PI / 4) * 2 * acrossCm;
    expect(stringLength(frame, job) / inside).toBeCloseTo(1.15, 9);
  });

  it('weigh with the square of the gauge and with the density', () => {
    const thick = stringMass(frame, { ...job, gaugeMm: 2.5 }).massG;
    expect(thick / stringMass(frame, job).massG).toBeCloseTo(4, 9);
    expect(stringMass(frame, { ...job, material: 'nylon' }).massG / stringMass(frame, job).massG).toBeCloseTo(
      1.14 / 1.38,
      9,
    );
    expect(() => stringMass(frame, { ...job, gaugeMm: 0 })).toThrow(Fault);
  });
});

describe('other sports', () => {
  it('strings and grip on a badminton frame stay within +5 g and +5 kg·cm² (common practice)', () => {
    const bare = { massG: 83, balanceCm: 29, swingWeight: 82, twistWeight: 1.2 };
    const { specs } = redress(
      { sport: 'badminton', lengthCm: 67.5 },
      bare,
      {},
      { strings: true, baseGrip: 'synthetic' },
    );
    expect(specs.massG - bare.massG).toBeGreaterThan(0);
    expect(specs.massG - bare.massG).toBeLessThanOrEqual(5);
    expect(specs.swingWeight - bare.swingWeight).toBeGreaterThan(0);
    expect(specs.swingWeight - bare.swingWeight).toBeLessThanOrEqual(5);
  });

  it('a paddle has no strings to put on', () => {
    const paddle = settleFrame({ sport: 'pickleball', lengthCm: 40.64 });
    expect(dressParts(paddle, { strings: true })).toEqual([]);
  });
});

it('a shop’s own weights take the place of the usual ones', () => {
  const frame = settleFrame(shape);
  const own = { ...sportData('tennis').typicalParts, overgrip: { massG: 4.8, massUncertaintyG: 0.1 } };
  expect(dressParts(frame, { overgrips: 1 }, own)[0]?.sums.massG).toBe(4.8);
  expect(redress(shape, unstrung, {}, { overgrips: 1 }, own).specs.massG - unstrung.massG).toBeCloseTo(
    4.8,
    9,
  );
});

it('one overgrip makes about half a handle size (common practice)', () => {
  expect(handleSizesAdded(1)).toBe(0.5);
});
