import { describe, expect, it } from 'vitest';
import { settleFrame } from '../frame';
import type { Part, Placement } from '../part';
import { NO_CHANGE, type Change } from '../plan';
import { laidAt, lead, putty, silicone, tape } from '../../test/parts';
import { benchSteps, cutList } from '.';

const frame = settleFrame({ sport: 'tennis', lengthCm: 68.58 });
const parts = [tape, lead, putty, silicone];
const shoulders = laidAt(frame, 'shoulders', tape, 4.24, 8);
const butt = laidAt(frame, 'butt', silicone, 6, 3);

describe('cut list', () => {
  it('gives length, pieces and places from the tip on the hoop and from the butt in the handle', () => {
    const [strip, dab] = cutList(frame, [shoulders, butt], parts);
    expect(strip).toMatchObject({
      pieces: 2,
      sides: 2,
      lengthCm: expect.closeTo(8, 9),
      cut: true,
      measuredFrom: 'tip',
    });
    expect(strip?.pieceG).toBeCloseTo(2.12, 9);
    expect((strip?.endCm ?? 0) - (strip?.startCm ?? 0)).toBeCloseTo(8, 9);
    expect(strip?.clock).toBeCloseTo(1.5, 6);
    expect(dab).toMatchObject({ pieces: 1, cut: false, measuredFrom: 'butt', startCm: 0, endCm: 3 });
  });

  it('weighs what its length and density make', () => {
    const [strip] = cutList(frame, [shoulders], parts);
    expect(strip?.pieceG).toBeCloseTo((strip?.lengthCm ?? 0) * 0.265, 9);
  });
});

describe('bench steps', () => {
  const stepsOf = (placements: Placement[], dress = {}, more: Partial<Change> = {}) =>
    benchSteps({ ...NO_CHANGE, placements, parts, ...more }, dress);
  const kinds = (...of: Parameters<typeof stepsOf>): string[] => stepsOf(...of).map((s) => s.kind);

  it('commit the head before the handle, trial first, final check last', () => {
    expect(kinds([butt, shoulders], { baseGrip: 'synthetic', overgrips: 1 })).toEqual([
      'weigh-before',
      'strip-handle',
      'cut',
      'trial',
      'measure-trial',
      'fix-head',
      'fill-handle',
      'regrip',
      'final-check',
    ]);
  });

  it('leave out what is not needed', () => {
    expect(kinds([shoulders], { overgrips: 1 })).not.toContain('strip-handle');
    expect(kinds([])).toEqual(['weigh-before', 'final-check']);
  });

  it('name what comes off and what is changed', () => {
    const gripped = { baseGrip: 'synthetic', overgrips: 1 } as const;
    expect(kinds([], gripped, { swaps: [{ what: 'overgrips', to: 0 }] })).toEqual([
      'weigh-before',
      'swap',
      'final-check',
    ]);
    const steps = stepsOf([], gripped, { removals: [{ of: { ...butt, id: 'there' } }] });
    expect(steps.map((s) => s.kind)).toEqual([
      'weigh-before',
      'strip-handle',
      'take-off',
      'regrip',
      'final-check',
    ]);
    expect(steps[2]?.placementIds).toEqual(['there']);
  });

  it('have keys of their own, also for two placements of one kind', () => {
    const keys = stepsOf([shoulders, { ...shoulders, id: 'second' }, butt]).map((s) => s.key);
    expect(new Set(keys).size).toBe(keys.length);
    expect(keys).toContain('fix-head:second');
  });

  it('seal lead on a child’s frame with four coats, each with its time, before the grip; tungsten and grown players need none', () => {
    const inLead = laidAt(frame, 'shoulders', lead, 4.24, 8);
    const of = (placements: Placement[], child: boolean, trim = false) =>
      benchSteps({ ...NO_CHANGE, placements, parts }, { overgrips: 1 }, { child, trim });
    const sealing = of([inLead, butt], true).filter(({ kind }) => kind === 'seal');
    expect(sealing.map(({ key }) => key)).toEqual(['seal:1', 'seal:2', 'seal:3', 'seal:4']);
    for (const step of sealing) {
      expect(step.waitMinutes).toBeGreaterThan(0);
      expect(step.cautions).toContain('solvent');
    }
    const order = of([inLead, butt], true).map(({ kind }) => kind);
    expect(order.indexOf('seal')).toBeGreaterThan(order.indexOf('fix-head'));
    expect(order.indexOf('seal')).toBeLessThan(order.indexOf('fill-handle'));
    expect(of([inLead], true, true).map(({ kind }) => kind)).toContain('seal');
    expect(of([inLead], false).map(({ kind }) => kind)).not.toContain('seal');
    expect(of([shoulders], true).map(({ kind }) => kind)).not.toContain('seal');
  });

  it('put new strings in after the grip, and change grips in a step of their own', () => {
    const strings = { what: 'strings', to: { massG: 17 } } as const;
    const both = [strings, { what: 'overgrips', to: 2 } as const];
    expect(kinds([], {}, { swaps: [strings] })).toEqual(['weigh-before', 'restring', 'final-check']);
    // They settle before the check for as long as the shop says.
    const settling = benchSteps({ ...NO_CHANGE, swaps: [strings], parts: [] }, {}, { settleMinutes: 90 });
    expect(settling.map(({ waitMinutes }) => waitMinutes)).toEqual([undefined, 90, undefined]);
    expect(kinds([], {}, { swaps: both })).toEqual(['weigh-before', 'swap', 'restring', 'final-check']);
  });

  it('caution against lead only where the tape is lead, and wait as long as the filling sets', () => {
    const inLead = laidAt(frame, 'shoulders', lead, 4.24, 8);
    const cautions = (p: Placement): string[] => stepsOf([p, butt]).flatMap((s) => s.cautions);
    expect(cautions(inLead)).toContain('lead');
    expect(cautions(shoulders)).not.toContain('lead');
    const fill = stepsOf([butt]).find((s) => s.kind === 'fill-handle');
    expect(fill?.waitMinutes).toBe(720);
    expect(fill?.cautions).toContain('solvent');
    const soft = { ...butt, partId: 'putty' };
    expect(stepsOf([soft]).find((s) => s.kind === 'fill-handle')?.waitMinutes).toBeUndefined();
  });

  it('fix each kind of part in its own way', () => {
    const leather: Part = {
      id: 'leather',
      kind: 'wrap',
      name: 'leather strip',
      material: 'leather',
      gPerCm: 1.1,
      stepCm: 1,
    };
    const dab: Part = { id: 'dab', kind: 'dab', name: 'dab', massG: 1 };
    const own = [leather, dab];
    const placed = [laidAt(frame, 'handle', leather, 5.5, 5), laidAt(frame, 'sides', dab, 2, 0)];
    const of = benchSteps({ ...NO_CHANGE, placements: placed, parts: own }, { overgrips: 1 });
    expect(of.map((s) => s.kind)).toEqual([
      'weigh-before',
      'strip-handle',
      'cut',
      'trial',
      'measure-trial',
      'set-in',
      'wrap-handle',
      'regrip',
      'final-check',
    ]);
  });
});
