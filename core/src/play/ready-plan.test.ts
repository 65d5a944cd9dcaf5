import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { laidAt, putty, tape } from '../../test/parts';
import { backTo } from '../build';
import { settleFrame } from '../frame';
import type { Placement } from '../part';
import { NO_CHANGE, placementsAfter } from '../plan';
import { playedOf, readyPlan, zoneChanges, type Felt } from '.';

const frame = settleFrame({ sport: 'tennis', lengthCm: 68.58 });
const parts = [tape, putty];
const good: Felt = { energyLeft: 'plenty', arm: 'fine' };

describe('a step as pieces', () => {
  it('comes in the shop’s own parts, to half of the least piece', () => {
    const { placements, short } = readyPlan(frame, [], [{ zone: 'tip', massG: 2 }], parts);
    expect(short).toEqual([]);
    expect(placements[0]).toMatchObject({ partId: 'tape', path: 'rim', sides: 1 });
    // Half a cm of the tape weighs 0.1325 g.
    expect(Math.abs((placements[0]?.massG ?? 0) - 2)).toBeLessThan(0.1325 / 2 + 1e-9);
    const inHandle = readyPlan(frame, [], [{ zone: 'handle', massG: 5 }], parts).placements[0];
    expect(inHandle).toMatchObject({ partId: 'putty', massG: 5 });
  });

  it('says what it cannot do', () => {
    expect(readyPlan(frame, [], [{ zone: 'tip', massG: -2 }], parts).short).toEqual([
      { zone: 'tip', massG: -2 },
    ]);
    expect(readyPlan(frame, [], [{ zone: 'tip', massG: 2 }], [putty]).short).toEqual([
      { zone: 'tip', massG: 2 },
    ]);
  });

  it('takes off what was laid last first, the next one shortened', () => {
    const there = [
      { ...laidAt(frame, 'tip', tape, 2.12, 8), id: 'a' },
      { ...laidAt(frame, 'tip', tape, 1.06, 4), id: 'b' },
    ];
    const { removals } = readyPlan(frame, there, [{ zone: 'tip', massG: -2 }], parts);
    expect(removals.map(({ of, left }) => [of.id, left?.massG])).toEqual([
      ['b', undefined],
      ['a', expect.closeTo(1.18, 9)],
    ]);
  });

  it('what is taken off and laid on comes to the step (property)', () => {
    const zone = fc.constantFrom('tip' as const, 'sides' as const, 'handle' as const);
    fc.assert(
      fc.property(zone, fc.double({ min: 0.5, max: 4, noNaN: true }), (where, massG) => {
        const there = [laidAt(frame, where, where === 'handle' ? putty : tape, 5, 4)];
        const off = readyPlan(frame, there, [{ zone: where, massG: -massG }], parts);
        expect(zoneChanges(frame, off)[0]?.massG).toBeCloseTo(-massG, 9);
      }),
    );
  });

  it('puts each session beside its change', () => {
    const change = [{ zone: 'tip' as const, massG: 2 }];
    expect(
      playedOf([
        { change: [], sessions: [good, good] },
        { change, sessions: [] },
      ]),
    ).toEqual([{ change: [], session: good }, { change: [], session: good }, { change }]);
    expect(playedOf([{ change: [], sessions: [good] }], true).at(-1)).toEqual({ change: [] });
  });
});

describe('back to an earlier build', () => {
  const a: Placement = { ...laidAt(frame, 'tip', tape, 2.12, 8), id: 'a' };
  const b: Placement = { ...laidAt(frame, 'sides', tape, 2.12, 4), id: 'b' };
  const c: Placement = { ...laidAt(frame, 'handle', putty, 5, 4), id: 'c' };

  it('leaves what is the same, whatever it is called', () => {
    const way = backTo(
      { dress: { overgrips: 2, strings: true }, weights: [a, b] },
      { dress: { overgrips: 1 }, weights: [{ ...a, id: 'other' }, c] },
    );
    expect(way.removals).toEqual([{ of: b }]);
    expect(way.placements).toEqual([{ ...c, id: 'b1' }]);
    // Strings that were cut out are not put back.
    expect(way.swaps).toEqual([{ what: 'overgrips', to: 1 }]);
  });

  it('leads there from anywhere (property)', () => {
    const some = fc.subarray([a, b, c]);
    fc.assert(
      fc.property(some, some, (now, then) => {
        const { placements, removals } = backTo({ dress: {}, weights: now }, { dress: {}, weights: then });
        const after = placementsAfter(now, { ...NO_CHANGE, placements, removals });
        const named = (list: readonly Placement[]): string[] =>
          list.map(({ path, massG, sides }) => `${path} ${sides} ${massG}`).toSorted();
        expect(named(after)).toEqual(named(then));
        // Nothing is both taken off and put on again.
        expect(removals.every(({ of }) => !then.includes(of))).toBe(true);
      }),
    );
  });
});
