import { describe, expect, it } from 'vitest';
import { placeOf, settleFrame } from '../frame';
import type { Materials, Placement } from '../plan';
import { benchSteps, cutList } from '.';

const frame = settleFrame({ sport: 'tennis', lengthCm: 68.58 });
const materials: Materials = {
  tape: { name: 'grey tape 6 mm', material: 'tungsten', widthMm: 6, gPerCm: 0.265, stepCm: 0.5 },
  filling: { name: 'handle silicone', material: 'silicone', dabG: 0.5, gPerCm: 0.9 },
};
const at = (
  zone: Placement['zone'],
  rest: Pick<Placement, 'massG' | 'mirrored' | 'spanCm' | 'layers'>,
): Placement => {
  const { xCm, yCm } = placeOf(frame, { zone });
  return { zone, xCm, yCm, ...rest };
};
const shoulders = at('shoulders', { massG: 4.24, mirrored: true, spanCm: 8, layers: 1 });
const butt = at('butt', { massG: 6, mirrored: false, spanCm: 3, layers: 1 });

describe('cut list', () => {
  it('gives length, pieces and places from the tip on the hoop and from the butt in the handle', () => {
    const [strip, dab] = cutList(frame, [shoulders, butt], materials);
    expect(strip).toMatchObject({ pieces: 2, sides: 2, lengthCm: 8, widthMm: 6, measuredFrom: 'tip' });
    expect(strip?.pieceG).toBeCloseTo(2.12, 9);
    expect((strip?.endCm ?? 0) - (strip?.startCm ?? 0)).toBeCloseTo(8, 9);
    expect(strip?.clock).toBeCloseTo(1.5, 6);
    expect(dab).toMatchObject({ pieces: 1, measuredFrom: 'butt', startCm: 0, endCm: 3 });
  });

  it('weighs what its length and density make', () => {
    const [strip] = cutList(frame, [shoulders], materials);
    expect(strip?.pieceG).toBeCloseTo((strip?.lengthCm ?? 0) * materials.tape.gPerCm, 9);
  });
});

describe('bench steps', () => {
  const kinds = (placements: Placement[], dress = {}, m = materials): string[] =>
    benchSteps(frame, placements, m, dress).map((s) => s.kind);

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

  it('caution against lead only where the tape is lead, and wait for silicone', () => {
    const lead: Materials = { ...materials, tape: { ...materials.tape, material: 'lead' } };
    const cautions = (m: Materials): string[] =>
      benchSteps(frame, [shoulders, butt], m, {}).flatMap((s) => s.cautions);
    expect(cautions(lead)).toContain('lead');
    expect(cautions(materials)).not.toContain('lead');
    const fill = benchSteps(frame, [butt], materials, {}).find((s) => s.kind === 'fill-handle');
    expect(fill?.waitMinutes).toBeGreaterThan(0);
  });
});
