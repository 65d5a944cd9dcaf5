import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Fault } from '../fault';
import { lineLength, placeOf, pointOnLine, settleFrame, zoneAt, type Frame } from '../frame';
import { additionSums } from '../mass';
import { asSpot, fromSpot } from '../plan';
import { ALL_SPORTS, SPORTS, type Sport } from '../sport';
import { lead, putty, tape } from '../../test/parts';
import {
  leftRightOf,
  PART_KINDS,
  middleOf,
  partRule,
  placementProblems,
  placementSums,
  spanCmOf,
  zoneOf,
  type Part,
  type Placement,
} from '.';

const frameOf = (sport: Sport): Frame => settleFrame({ sport, lengthCm: SPORTS[sport].lengthCm });
const SUMS = ['massG', 'firstGCm', 'secondGCm2', 'twistGCm2'] as const;

describe.each(ALL_SPORTS)('placements on a %s frame', (sport) => {
  const frame = frameOf(sport);

  it('lie in the zone that they are laid in, and are named by it', () => {
    for (const { name } of frame.sport.zones) {
      const placement = fromSpot(frame, { at: { zone: name }, massG: 2 }, { id: 'p', partId: '' });
      expect(zoneOf(frame, placement)).toBe(name);
      expect(asSpot(frame, placement).zone).toBe(name);
    }
  });

  it('add what the same weight adds that is said by its spot, as a point and as a strip', () => {
    for (const zone of frame.sport.zones) {
      // Along the throat a strip follows its limb: said by a spot it lies straight.
      const spans = zone.path === 'throat' || zone.slot ? [0] : [0, zone.roomCm / 2];
      for (const spanCm of spans) {
        const placement = fromSpot(
          frame,
          { at: { zone: zone.name }, massG: 3, spanCm },
          { id: 'p', partId: '' },
        );
        const said = additionSums(frame, {
          at: { zone: zone.name },
          massG: 3,
          ...(spanCm > 0 ? { spanCm } : {}),
        });
        const sums = placementSums(frame, placement);
        for (const key of SUMS) expect(sums[key]).toBeCloseTo(said[key], 6);
      }
    }
  });

  it('are told back from their spot (property)', () => {
    const lines = (['rim', 'throat', 'handle'] as const).filter((line) =>
      frame.sport.zones.some((z) => z.path === line && !z.slot),
    );
    fc.assert(
      fc.property(
        fc.constantFrom(...lines),
        fc.double({ min: 0.05, max: 0.95, noNaN: true }),
        (line, share) => {
          const alongCm = share * lineLength(frame, line);
          const { xCm, yCm } = pointOnLine(frame, line, alongCm);
          // Where two lines meet, a point may be either's.
          const on = { rim: 'rim', throat: 'free', handle: 'handle' }[line];
          fc.pre(placeOf(frame, { xCm, yCm }).on === on);
          const placement = fromSpot(frame, { at: { xCm, yCm }, massG: 1 }, { id: 'p', partId: '' });
          const back = middleOf(frame, placement);
          expect(Math.hypot(back.xCm - xCm, back.yCm - yCm)).toBeLessThan(1e-5);
        },
      ),
    );
  });

  it('cover each line with zones, without a gap', () => {
    for (const line of ['rim', 'throat', 'handle'] as const) {
      const own = frame.sport.zones.filter((z) => z.path === line && z.slot === undefined);
      if (own.length === 0) continue;
      const ends = own.map((z) => z.extent).toSorted((a, b) => a[0] - b[0]);
      expect(ends[0]?.[0]).toBe(0);
      expect(ends.at(-1)?.[1]).toBe(line === 'rim' ? 6 : 1);
      ends.slice(1).forEach(([from], i) => expect(from).toBeCloseTo(ends[i]?.[1] ?? -1, 9));
      for (const z of own) {
        const [from, to] = z.extent;
        expect(z.at % 12).toBeGreaterThanOrEqual(from);
        expect(z.at % 12).toBeLessThanOrEqual(to);
      }
    }
  });
});

describe('the throat of a tennis frame', () => {
  const frame = frameOf('tennis');

  it('is a strip along its limb: i about each axis is m Δ²/12 (uniform rod, handbook)', () => {
    const placement: Placement = {
      id: 't',
      partId: 'tape',
      path: 'throat',
      startCm: 2,
      endCm: 8,
      sides: 2,
      layers: 1,
      massG: 4,
    };
    const [from, to] = [pointOnLine(frame, 'throat', 2), pointOnLine(frame, 'throat', 8)];
    const middle = middleOf(frame, placement);
    const sums = placementSums(frame, placement, tape);
    expect(sums.firstGCm).toBeCloseTo(4 * middle.xCm, 9);
    expect(sums.secondGCm2).toBeCloseTo(4 * (middle.xCm ** 2 + (to.xCm - from.xCm) ** 2 / 12), 9);
    expect(sums.twistGCm2).toBeCloseTo(4 * (middle.yCm ** 2 + (to.yCm - from.yCm) ** 2 / 12), 9);
  });

  it('names a weight by where it lies', () => {
    expect(zoneAt(frame, 'rim', 0)).toBe('tip');
    expect(zoneAt(frame, 'rim', frame.head.sideCm)).toBe('lowerHoop');
    expect(zoneAt(frame, 'handle', 1)).toBe('butt');
  });
});

describe('kinds of parts', () => {
  const some: Record<(typeof PART_KINDS)[number], Part> = {
    tape,
    filling: putty,
    wrap: { id: 'w', name: 'leather strip', kind: 'wrap', material: 'leather', gPerCm: 1.1, stepCm: 1 },
    baseGrip: { id: 'b', name: 'leather', kind: 'baseGrip', material: 'leather', massG: 24 },
    overgrip: { id: 'o', name: 'overgrip', kind: 'overgrip', massG: 5 },
    sleeve: { id: 's', name: 'sleeve', kind: 'sleeve', massG: 17 },
    dampener: { id: 'd', name: 'dampener', kind: 'dampener', massG: 2.5 },
    string: { id: 'r', name: 'string', kind: 'string', material: 'nylon', gaugeMm: 1.3 },
    insert: { id: 'i', name: 'screw', kind: 'insert', massG: 2 },
    dab: { id: 'p', name: 'dab', kind: 'dab', massG: 1 },
  };

  it.each(PART_KINDS)(
    '%s: amounts are whole pieces within what a place takes, and one piece more is the next',
    (kind) => {
      const part = some[kind];
      const rule = partRule(part);
      for (const sides of [1, 2] as const) {
        const amounts = rule.amounts(part, { capG: 12, roomCm: 8, sides });
        amounts.forEach((amount, i) => {
          expect(amount.massG).toBeLessThanOrEqual(12 + 1e-9);
          expect(amount.spanCm).toBeLessThanOrEqual(8 + 1e-9);
          expect(amount.massG).toBeGreaterThan(amounts[i - 1]?.massG ?? 0);
          expect(rule.massUncertaintyG(part, amount.massG)).toBeGreaterThan(0);
        });
        const [first, second] = amounts;
        if (first && second) {
          expect(rule.step(part, first, 1, sides)?.massG).toBeCloseTo(second.massG, 9);
          expect(rule.step(part, second, -1, sides)?.massG).toBeCloseTo(first.massG, 9);
        }
        if (first) expect(rule.step(part, first, -1, sides)).toBeUndefined();
      }
    },
  );

  it('caution where they are dangerous', () => {
    expect(partRule(lead).cautions(lead)).toEqual(['lead']);
    expect(partRule(tape).cautions(tape)).toEqual([]);
  });
});

describe('placements that cannot be', () => {
  const frame = frameOf('padel');
  const good = fromSpot(frame, { at: { zone: 'sides' }, massG: 2, spanCm: 4 }, { id: 'g', partId: 'tape' });
  const codes = (p: Placement): string[] =>
    placementProblems(frame, [p], [tape]).map(({ code, path }) => `${code} ${path}`);

  it('are named with their field', () => {
    expect(codes(good)).toEqual([]);
    expect(codes({ ...good, partId: 'nothing' })).toEqual(['part-unknown placements.0.partId']);
    expect(codes({ ...good, massG: -1 })).toEqual(['not-positive placements.0.massG']);
    expect(codes({ ...good, endCm: 90 } as Placement)).toEqual(['spot-off-frame placements.0.startCm']);
    expect(codes({ ...good, startCm: 9, endCm: 3 } as Placement)).toEqual([
      'span-not-positive placements.0.endCm',
    ]);
    const slot = { id: 's', partId: 'tape', path: 'slot', slot: 9, sides: 1, layers: 1, massG: 2 } as const;
    expect(codes(slot)).toEqual(['spot-off-frame placements.0.slot']);
    expect(() => placementSums(frame, slot)).toThrow(Fault);
    expect(spanCmOf(slot)).toBe(0);
  });
});

describe('left and right', () => {
  it('a piece on one side at the widest part counts whole, a pair and the tip nothing', () => {
    const own = settleFrame({ sport: 'tennis', lengthCm: 68.58 });
    const base = { id: 'a', partId: '', layers: 1, massG: 2 };
    const middle = own.rim.sideCm / 2;
    const at = (sides: 1 | 2, cm: number): Placement => ({
      ...base,
      sides,
      path: 'rim',
      startCm: cm - 1,
      endCm: cm + 1,
    });
    expect(leftRightOf(own, [at(1, middle)])).toBeCloseTo(2, 9);
    expect(leftRightOf(own, [at(1, -middle)])).toBeCloseTo(-2, 9);
    expect(leftRightOf(own, [at(2, middle), at(1, 0)])).toBeCloseTo(0, 9);
  });
});

describe('where on the hoop', () => {
  it('a strip swings and twists more the farther out it lies, in every sport', () => {
    for (const sport of ALL_SPORTS) {
      const own = settleFrame({ sport, lengthCm: SPORTS[sport].lengthCm });
      const middle = own.rim.sideCm / 2;
      const at = (hoop: 'inside' | 'bumper' | undefined) =>
        placementSums(
          own,
          {
            id: 'a',
            partId: '',
            layers: 1,
            massG: 4,
            sides: 2,
            path: 'rim',
            startCm: middle - 3,
            endCm: middle + 3,
            hoop,
          },
          tape,
        );
      const [inside, usual, bumper] = [at('inside'), at(undefined), at('bumper')];
      expect(inside.twistGCm2).toBeLessThan(bumper.twistGCm2);
      expect(usual.twistGCm2).toBeGreaterThan(inside.twistGCm2);
      expect(usual.twistGCm2).toBeLessThanOrEqual(bumper.twistGCm2 + 1e-9);
    }
    // A tennis hoop of 1.1 cm: at the sides about 18 % of twist between its bed and its edge; at the tip about 4 % of swing weight.
    const own = settleFrame({ sport: 'tennis', lengthCm: 68.58 });
    const side = (own.head.acrossCm / own.bed.acrossCm) ** 2;
    expect(side).toBeGreaterThan(1.15);
    expect(side).toBeLessThan(1.22);
    const bedTip = own.bed.centreXCm + own.bed.alongCm;
    expect(((68.58 - 10.16) / (bedTip - 10.16)) ** 2).toBeCloseTo(1.04, 2);
  });
});
