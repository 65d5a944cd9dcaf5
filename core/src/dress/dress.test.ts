import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Fault } from '../fault';
import { sportData } from '../sport';
import { halfWidthAt, lengthAt, settleFrame } from '../frame';
import {
  dressParts,
  patternOf,
  redress,
  stringLength,
  stringMass,
  stringSums,
  windingOf,
  type Dress,
} from '.';

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
    const bottom = frame.bed.centreXCm - frame.bed.alongCm;
    expect((part?.sums.firstGCm ?? 0) / (part?.sums.massG ?? 1)).toBeLessThan(bottom);
  });
});

describe('strings from pattern, head size, gauge and material', () => {
  const frame = settleFrame(shape);
  const job = { mains: 16, crosses: 19, gaugeMm: 1.25, material: 'polyester' } as const;

  it('weigh what tennis strings weigh: 14 to 19 g (common practice)', () => {
    const heavy = stringMass(frame, { mains: 18, crosses: 20, gaugeMm: 1.25, material: 'polyester' }).massG;
    for (const massG of [stringMass(frame, job).massG, heavy]) {
      expect(massG).toBeGreaterThan(14);
      expect(massG).toBeLessThan(19);
    }
  });

  it('are as long and heavy as a stringer finds: about 10 m and 17 g, in badminton about 3.5 g (common practice)', () => {
    expect(stringLength(frame, job) / 1000).toBeGreaterThan(0.95);
    expect(stringLength(frame, job) / 1000).toBeLessThan(1.05);
    expect(Math.abs(stringMass(frame, job).massG - 17)).toBeLessThan(0.7);
    const shuttle = settleFrame({ sport: 'badminton', lengthCm: 67.5 });
    const thin = { mains: 22, crosses: 21, gaugeMm: 0.66, material: 'nylon' } as const;
    expect(Math.abs(stringMass(shuttle, thin).massG - 3.5)).toBeLessThan(0.3);
  });

  it('lie as an even sheet does, to a few hundredths (handbook: an ellipse has i = m p²/4)', () => {
    const each = stringSums(frame, job);
    const { massG } = stringMass(frame, job);
    const { centreXCm, alongCm, acrossCm } = frame.bed;
    expect(each.massG).toBeCloseTo(massG, 9);
    expect(each.firstGCm / massG).toBeCloseTo(centreXCm, 6);
    const own = each.secondGCm2 - massG * centreXCm ** 2;
    expect(own / ((massG * alongCm ** 2) / 4)).toBeGreaterThan(0.93);
    expect(own / ((massG * alongCm ** 2) / 4)).toBeLessThan(1.07);
    expect(each.twistGCm2 / ((massG * acrossCm ** 2) / 4)).toBeGreaterThan(0.9);
    expect(each.twistGCm2 / ((massG * acrossCm ** 2) / 4)).toBeLessThan(1.07);
  });

  it('are chords of the bed: of an ellipse 2p√(1 − y²/q²) (handbook), of a rectangle its sides', () => {
    for (const y of [0, 3, 9]) {
      const { alongCm, acrossCm } = frame.bed;
      const { from, to } = lengthAt(frame.bed, y);
      expect((to - from) / 2).toBeCloseTo(alongCm * Math.sqrt(1 - (y / acrossCm) ** 2), 6);
      const x = frame.bed.centreXCm + y;
      expect(halfWidthAt(frame.bed, x)).toBeCloseTo(acrossCm * Math.sqrt(1 - (y / alongCm) ** 2), 6);
    }
    const beyond = lengthAt(frame.bed, 40);
    expect(beyond.to - beyond.from).toBe(0);
    expect(halfWidthAt(frame.bed, 10)).toBe(0);
  });

  it('take more of two strings where the crosses are of another', () => {
    const hybrid = stringMass(frame, { ...job, crossGaugeMm: 1.3, crossMaterial: 'gut' }).massG;
    const whole = stringMass(frame, job).massG;
    expect(hybrid).not.toBeCloseTo(whole, 1);
    expect(stringMass(frame, { ...job, crossGaugeMm: 1.25, crossMaterial: 'polyester' }).massG).toBeCloseTo(
      whole,
      9,
    );
  });

  it('are read from a pattern as it is written', () => {
    expect(patternOf('16×19')).toEqual({ mains: 16, crosses: 19 });
    expect(patternOf(' 18x20 ')).toEqual({ mains: 18, crosses: 20 });
    expect(patternOf('open')).toBeUndefined();
    expect(patternOf(undefined)).toBeUndefined();
  });

  it('weigh more where the bed is larger, in redress too', () => {
    const on = (headAreaCm2: number): number =>
      redress({ ...shape, headAreaCm2 }, unstrung, {}, { strings: true }).specs.massG - unstrung.massG;
    expect(on(645.16)).toBeCloseTo(16, 9);
    expect(on(710)).toBeGreaterThan(16.4);
    expect(on(580)).toBeLessThan(15.6);
  });

  it('weigh with the square of the gauge and with the density', () => {
    const thick = stringMass(frame, { ...job, gaugeMm: 2.5 }).massG;
    // The thicker string weaves a little farther.
    expect(thick / stringMass(frame, job).massG).toBeGreaterThan(4);
    expect(thick / stringMass(frame, job).massG).toBeLessThan(4.1);
    expect(stringMass(frame, { ...job, material: 'nylon' }).massG / stringMass(frame, job).massG).toBeCloseTo(
      1.14 / 1.38,
      9,
    );
    expect(() => stringMass(frame, { ...job, gaugeMm: 0 })).toThrow(Fault);
  });
});

describe('other sports', () => {
  it('strings of a badminton frame add what chords, gauge and density give: 3.5 g and +7 kg·cm² (the computed figure stands beside the trade’s rule)', () => {
    const bare = { massG: 83, balanceCm: 29, swingWeight: 82, twistWeight: 1.2 };
    const { specs } = redress({ sport: 'badminton', lengthCm: 67.5 }, bare, {}, { strings: true });
    expect(specs.massG - bare.massG).toBeCloseTo(3.5, 6);
    expect(Math.abs(specs.swingWeight - bare.swingWeight - 7)).toBeLessThan(0.7);
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

describe('a wound grip', () => {
  const frame = settleFrame(shape);

  it('takes as much strip as the helix is long, summed in small steps', () => {
    // From the butt: a square turn, then a point that climbs 2.2 cm each time around, on the middle of the strip (25 mm wide, 3 mm over the edge, on a grip of 1.6 mm).
    const radius = frame.handleRadiusCm + 0.16 + 0.011;
    const at = (turn: number) => [
      radius * Math.cos(2 * Math.PI * turn),
      radius * Math.sin(2 * Math.PI * turn),
      2.2 * turn,
    ];
    const steps = 20_000;
    const last = frame.handleLengthCm / 2.2;
    let length = 2 * Math.PI * radius;
    for (let i = 0; i < steps; i++) {
      const [a, b] = [at((last * i) / steps), at((last * (i + 1)) / steps)];
      length += Math.hypot(...b.map((v, k) => v - (a[k] ?? 0)));
    }
    const winding = windingOf(frame, 'overgrip');
    expect(winding.stripCm).toBeCloseTo(length, 3);
    // An overgrip is sold about 1.1 m long and reaches (common practice).
    expect(winding.stripCm).toBeGreaterThan(95);
    expect(winding.stripCm).toBeLessThan(125);
  });

  it('makes the handle thicker: an overgrip by about half a size (common practice)', () => {
    expect(windingOf(frame, 'overgrip').sizes).toBeCloseTo(0.5, 1);
  });

  it('weighs more on a longer handle, as its turns do, and as said on the usual one', () => {
    const long = settleFrame({ ...shape, handleLengthCm: 24 });
    const weight = (of: typeof frame, kind: 'overgrip' | 'baseGrip') =>
      dressParts(of, kind === 'overgrip' ? { overgrips: 1 } : { baseGrip: 'leather' })[0]?.sums.massG ?? NaN;
    expect(weight(frame, 'overgrip')).toBeCloseTo(5.5, 9);
    // A turn weighs 5.5 g divided by the turns on 20 cm: square one, and one each 2.2 cm.
    expect(weight(long, 'overgrip') / 5.5).toBeCloseTo((1 + 24 / 2.2) / (1 + 20 / 2.2), 2);
    expect(weight(long, 'baseGrip') / weight(frame, 'baseGrip')).toBeCloseTo(
      (1 + 24 / 2.5) / (1 + 20 / 2.5),
      2,
    );
  });
});
