import fc from 'fast-check';
import { quantileSeq, unit } from 'mathjs';
import { describe, expect, it } from 'vitest';
import { BOTHERS } from '../aim';
import { ALL_SPORTS } from '../sport';
import {
  STRING_KINDS,
  daysOf,
  kindNamed,
  leversFor,
  type BedNow,
  readTension,
  stringsDue,
  tensionNow,
  tensionOf,
  tensionSpread,
  type StringLever,
  type Strung,
} from '.';

describe('a tension as it is told', () => {
  it.each([
    ['52/50 lb', [52, 50], 'lb'],
    ['52 / 50', [52, 50], 'lb'],
    ['24 kg', [24, 24], 'kg'],
    ['23,5 – 22 kg', [23.5, 22], 'kg'],
    ['24.5kg x 23.5kg', [24.5, 23.5], 'kg'],
    ['58lbs', [58, 58], 'lb'],
  ] as const)('%s', (text, [mains, crosses], said) => {
    // Against a general units library.
    const kg = (value: number): number => unit(value, said === 'lb' ? 'lbm' : 'kg').toNumber('kg');
    const found = readTension(text, 'tennis');
    expect(found?.mainsKg).toBeCloseTo(kg(mains), 9);
    expect(found?.crossesKg).toBeCloseTo(kg(crosses), 9);
  });
  it('is none where it could be both, or neither, or the sport has no strings', () => {
    // 30 kg is a stiff bed, 30 lb a soft one.
    for (const text of ['30', '', 'tight', '2 kg', '200 lb', '52 kg'])
      expect(readTension(text, 'tennis')).toBeUndefined();
    expect(readTension('24 lb', 'padel')).toBeUndefined();
    // The same number is another thing in another sport.
    expect(readTension('24', 'tennis')?.mainsKg).toBe(24);
    expect(readTension('24', 'badminton')?.mainsKg).toBeCloseTo(10.886, 3);
  });
  it('names its kind where the name says it', () => {
    expect(kindNamed('round co-poly 1.25')).toBe('polyester');
    expect(kindNamed('synthetic gut')).toBe('nylon');
    expect(kindNamed('natural gut 16')).toBe('gut');
    expect(kindNamed('Multifilament')).toBe('nylon');
    expect(kindNamed('the blue one')).toBeUndefined();
  });
});

describe('tensions of a library', () => {
  it('spread between their quarters, as a general statistics library has it', () => {
    const texts = ['52 lb', '50/48', '24 kg', '23 kg', '26/25 kg', '55', 'tight', '21.5 kg', '48 lb'];
    const kg = texts
      .flatMap((text) => readTension(text, 'tennis') ?? [])
      .map((one) => (one.mainsKg + one.crossesKg) / 2);
    const [low, middle, high] = quantileSeq(kg, [0.25, 0.5, 0.75]) as unknown as number[];
    const found = tensionSpread(texts, 'tennis');
    expect(found?.count).toBe(8);
    expect(found?.lowKg).toBeCloseTo(low ?? 0, 9);
    expect(found?.middleKg).toBeCloseTo(middle ?? 0, 9);
    expect(found?.highKg).toBeCloseTo(high ?? 0, 9);
    expect(tensionSpread(texts.slice(0, 4), 'tennis')).toBeUndefined();
  });
});

describe('what is left of a tension', () => {
  const strung = (more: Partial<Strung> = {}): Strung => ({
    mainsKg: 24,
    crossesKg: 24,
    mainsKind: 'nylon',
    crossesKind: 'nylon',
    preStretchPercent: 0,
    ...more,
  });
  const kinds = fc.constantFrom(...STRING_KINDS);

  it('falls by about a tenth in the first day, gut least and polyester most (common practice)', () => {
    const day = STRING_KINDS.map(
      (kind) => tensionNow(strung({ mainsKind: kind, crossesKind: kind }), { days: 1, hours: 0 }).share,
    );
    const [polyester = 0, nylon = 0, gut = 0] = day;
    expect(polyester).toBeLessThan(nylon);
    expect(nylon).toBeLessThan(gut);
    expect(1 - nylon).toBeGreaterThan(0.07);
    expect(1 - nylon).toBeLessThan(0.13);
  });
  it('only falls, with days and with hours, and stays uncertain (property)', () => {
    fc.assert(
      fc.property(
        kinds,
        kinds,
        fc.double({ min: 0, max: 400, noNaN: true }),
        fc.double({ min: 0, max: 60, noNaN: true }),
        fc.double({ min: 0, max: 30, noNaN: true }),
        (mainsKind, crossesKind, days, hours, preStretchPercent) => {
          const bed = strung({ mainsKind, crossesKind, preStretchPercent });
          const now = tensionNow(bed, { days, hours });
          expect(now.share).toBeLessThanOrEqual(1);
          expect(now.share).toBeGreaterThanOrEqual(0.4);
          expect(tensionNow(bed, { days: days + 10, hours }).share).toBeLessThanOrEqual(now.share);
          expect(tensionNow(bed, { days, hours: hours + 2 }).share).toBeLessThanOrEqual(now.share);
          // The pull of the machine alone is not known better than 3 %.
          expect(now.uncertainty).toBeGreaterThanOrEqual(0.03 * 24 - 1e-9);
          expect(
            tensionNow({ ...bed, preStretchPercent: preStretchPercent + 5 }, { days, hours }).share,
          ).toBeGreaterThanOrEqual(now.share - 1e-12);
        },
      ),
    );
  });
  it('counts on from one that was measured, which it then is', () => {
    const bed = strung({ mainsKind: 'polyester' });
    const read = { days: 5, hours: 4, kg: 20.5 };
    expect(tensionNow(bed, read, read)).toMatchObject({ kg: 20.5, share: 1, from: 'measured' });
    const later = tensionNow(bed, { days: 30, hours: 20 }, read);
    expect(later.kg).toBeLessThan(20.5);
    expect(later.uncertainty).toBeGreaterThan(0.03 * 20.5 - 1e-9);
    expect(later.uncertainty).toBeLessThan(tensionNow(bed, { days: 30, hours: 20 }).uncertainty);
  });
  it('of recorded strings counts from the last reading, in days and in hours that came evenly; of what nobody named nothing is said', () => {
    const recorded = {
      mains: 'round poly',
      crosses: '',
      mainsKind: null,
      crossesKind: null,
      mainsKg: 24,
      crossesKg: 24,
      preStretchPercent: 0,
      strungOn: '2026-11-01',
      readings: [],
    };
    const bed = strung({ mainsKind: 'polyester', crossesKind: 'polyester' });
    const now = { days: 40, hours: 20 };
    expect(tensionOf(recorded, now)).toEqual(tensionNow(bed, now));
    const read = { on: '2026-11-11', kg: 20 };
    const counted = tensionNow(bed, now, { kg: 20, days: 10, hours: 5 });
    expect(tensionOf({ ...recorded, readings: [{ on: '2026-11-02', kg: 30 }, read] }, now)).toEqual(counted);
    expect(tensionOf({ ...recorded, mains: 'the blue one' }, now)).toBeUndefined();
  });
  it('is of mains and crosses together', () => {
    const hybrid = tensionNow(strung({ mainsKind: 'gut', crossesKind: 'polyester' }), {
      days: 30,
      hours: 10,
    }).share;
    const [gut, poly] = (['gut', 'polyester'] as const).map(
      (kind) => tensionNow(strung({ mainsKind: kind, crossesKind: kind }), { days: 30, hours: 10 }).share,
    );
    expect(hybrid).toBeCloseTo(((gut ?? 0) + (poly ?? 0)) / 2, 9);
  });
});

describe('strings are due', () => {
  const use = { days: 10, hours: 2, felt: [], sessionsAWeek: 2 };
  it('as often a year as somebody plays a week, unless the shop says otherwise (common practice)', () => {
    expect(daysOf({ felt: true }, 4)).toBeCloseTo(91.25, 2);
    expect(stringsDue({ ...use, days: 182 }, { felt: true })).toEqual([]);
    expect(stringsDue({ ...use, days: 183 }, { felt: true })).toEqual(['days']);
    expect(stringsDue({ ...use, days: 61 }, { days: 60, felt: true })).toEqual(['days']);
  });
  it('by hours where the shop counts them, and by what two sessions in a row say', () => {
    expect(stringsDue({ ...use, hours: 21 }, { felt: false })).toEqual([]);
    expect(stringsDue({ ...use, hours: 20 }, { hours: 20, felt: false })).toEqual(['hours']);
    const long = { depth: 'long' } as const;
    expect(stringsDue({ ...use, felt: [long] }, { felt: true })).toEqual([]);
    expect(stringsDue({ ...use, felt: [long, { spin: 'less' }] }, { felt: true })).toEqual(['felt']);
    expect(stringsDue({ ...use, felt: [long, { depth: 'good' }, long] }, { felt: true })).toEqual([]);
    expect(stringsDue({ ...use, felt: [long, long] }, { felt: false })).toEqual([]);
  });
});

describe('what can be done about a complaint', () => {
  const strings = (...given: Parameters<typeof leversFor>): StringLever[] =>
    leversFor(...given).filter((one): one is StringLever => one.lever === 'strings');

  it('is a bed 1 to 1.5 kg tighter where balls fly long, looser where they fall short (facts of the trade)', () => {
    expect(strings('tennis', 'long')[0]).toMatchObject({ change: 'tighter', byKg: [1, 1.5] });
    expect(strings('tennis', 'short')[0]).toMatchObject({ change: 'looser', byKg: [1, 1.5] });
  });
  it('is softer or looser strings before less swing weight for a sore arm, and never tighter ones', () => {
    for (const kind of [undefined, ...STRING_KINDS]) {
      const levers = leversFor('tennis', 'sore-arm', { kind });
      expect(levers[0]?.lever).toBe('strings');
      expect(levers.at(-1)?.lever).toBe('weight');
      const changes = strings('tennis', 'sore-arm', { kind }).map(({ change }) => change);
      expect(changes).toContain('looser');
      expect(changes.includes('softer')).toBe(kind !== 'gut');
      expect(changes).not.toContain('tighter');
    }
    expect(
      strings('tennis', 'sore-arm', { kind: 'polyester' }).find(({ change }) => change === 'softer')?.to,
    ).toBe('nylon');
  });
  it('loads a sore arm by no lever, whatever else is complained of (property)', () => {
    fc.assert(
      fc.property(fc.constantFrom(...BOTHERS), fc.boolean(), (bother, isDue) => {
        for (const lever of leversFor('tennis', bother, { isDue, isTender: true })) {
          if (lever.lever === 'strings') expect(lever.change).not.toBe('tighter');
          else expect(lever.moves.filter(({ key, up }) => up && key !== 'twistWeight')).toEqual([]);
        }
      }),
    );
  });
  it('is thinner string or an opener pattern where the ball gets no bite; in badminton looser or thicker where strings break', () => {
    expect(strings('tennis', 'no-bite').map(({ change }) => change)).toEqual(['thinner', 'opener']);
    expect(strings('badminton', 'breaks').map(({ change }) => change)).toEqual(['looser', 'thicker']);
    const [step] = strings('badminton', 'breaks')[0]?.byKg ?? [];
    expect(step).toBeLessThan(1);
  });
  it('begins with new strings of the same kind where they are due', () => {
    expect(strings('tennis', 'long', { isDue: true })[0]?.change).toBe('newer');
    expect(strings('tennis', 'short', { isDue: true })[0]?.change).toBe('looser');
  });
  it('puts what suited players alike first, and last what did not; never what loads a sore arm', () => {
    const order = (learned: NonNullable<BedNow['learned']>, isTender = false): string[] =>
      leversFor('tennis', 'long', { learned, isTender }).map((one) =>
        one.lever === 'weight' ? `weight ${one.learned ?? ''}` : `${one.change} ${one.learned ?? ''}`,
      );
    expect(order([])).toEqual(['tighter ', 'weight ']);
    expect(order([{ what: 'swingWeight', says: 'less' }])).toEqual(['weight suits', 'tighter ']);
    expect(order([{ what: 'tension', says: 'less' }])).toEqual(['weight ', 'tighter against']);
    expect(order([{ what: 'tension', says: 'more' }], true).join()).not.toContain('tighter');
    // Of a weight that does two things all that is known has to agree.
    const late = (says: 'more' | 'less') =>
      leversFor('tennis', 'late', {
        learned: [
          { what: 'swingWeight', says: 'less' },
          { what: 'balanceCm', says },
        ],
      })[0];
    expect(late('less')?.learned).toBe('suits');
    expect(late('more')?.learned).toBeUndefined();
  });
  it('costs more from lever to lever, and has no strings where the sport has none (property)', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...ALL_SPORTS),
        fc.constantFrom(...BOTHERS),
        fc.boolean(),
        (sport, bother, isDue) => {
          const levers = leversFor(sport, bother, { isDue });
          const costs = levers.map((one) => one.costs);
          expect(costs).toEqual(costs.toSorted((a, b) => a - b));
          if (sport === 'padel' || sport === 'pickleball')
            expect(levers.every(({ lever }) => lever === 'weight')).toBe(true);
        },
      ),
    );
  });
});
