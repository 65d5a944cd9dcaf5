import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newFrame, type FramePage, type FrameRecord } from '@kevro/contract';
import { changeSport, draftOf, frameBody } from './frame-draft';
import { stringWords, tensionWords, timeline } from './timeline';

const base: FrameRecord = {
  ...newFrame.parse({
    tag: 'NW-1',
    maker: 'Norwold',
    model: 'Keel',
    shape: { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 632.26 },
  }),
  id: 'f1',
  archived: false,
};
const stored = (f: FrameRecord) => newFrame.parse(frameBody(draftOf(f), f));

describe('a frame that is changed', () => {
  it('stays as it was where nothing was typed, whatever is on it (property)', () => {
    const weight = fc.record({
      what: fc.constantFrom('', 'lead', 'putty'),
      massG: fc.integer({ min: 1, max: 200 }).map((n) => n / 10),
      at: fc.oneof(
        fc.constant({ clock: 10.5 }),
        fc.constant({ zone: 'handle' as const }),
        fc.constant({ xCm: 60, yCm: 9 }),
      ),
      spanCm: fc.constantFrom(4, 7.5),
      mirrored: fc.boolean(),
    });
    fc.assert(
      fc.property(
        fc.array(weight, { maxLength: 4 }),
        fc.option(fc.integer({ min: 40, max: 80 })),
        (weights, stiffness) => {
          const { id: _, archived: __, ...before } = { ...base, weights, stiffness };
          expect(stored({ ...base, weights, stiffness })).toEqual(before);
        },
      ),
    );
  });

  it('keeps the exact place of weights that were not touched, and takes the zone of those that were', () => {
    const weights = [
      { what: 'lead', massG: 3, at: { clock: 10.5 }, spanCm: 5, mirrored: true },
      { what: 'putty', massG: 6, at: { xCm: 3 }, mirrored: false },
    ];
    const before: FrameRecord = { ...base, weights };
    const draft = draftOf(before);
    Object.assign(draft.weights[1] ?? {}, { grams: '8', zone: 'butt' });
    const { weights: after } = newFrame.parse(frameBody(draft, before));
    expect(after).toEqual([weights[0], { what: 'putty', massG: 8, at: { zone: 'butt' }, mirrored: false }]);
  });

  it('states nothing of the model where no value is typed, and takes a comma for a point', () => {
    const draft = draftOf(base);
    expect(frameBody(draft).nominal).toBeNull();
    draft.specs.massG = '305,5';
    draft.tolerance.massG = '7';
    expect(frameBody(draft).nominal).toMatchObject({ specs: { massG: 305.5 }, tolerance: { massG: 7 } });
    // What is no number goes to the server as it is, and comes back with its sentence.
    draft.stiffness = 'sixty';
    expect(newFrame.safeParse(frameBody(draft)).success).toBe(false);
  });

  it('takes the usual size of another sport', () => {
    const draft = draftOf(base);
    changeSport(draft, 'padel');
    const { shape } = newFrame.parse(frameBody(draft));
    expect(shape).toMatchObject({ sport: 'padel', lengthCm: 45.5 });
    expect(shape.headAreaCm2).toBeUndefined();
  });
});

describe('what happened to a frame', () => {
  const stringing = {
    id: 's',
    strungOn: '2026-11-08',
    mains: 'round poly',
    crosses: 'round poly',
    mainsMm: 1.25,
    crossesMm: 1.25,
    mainsKg: 22.679618,
    crossesKg: 21.772434,
    unit: 'lb' as const,
    preStretchPercent: 10,
    note: '',
  };

  it('says a tension as the stringer said it: 50 lb is 22.68 kg (NIST SP 811)', () => {
    expect(tensionWords(stringing)).toBe('50 / 48 lb');
    expect(tensionWords({ ...stringing, mainsKg: 23, crossesKg: 23, unit: 'kg' })).toBe('23 kg');
    expect(stringWords(stringing)).toBe('round poly 1.25 mm · 50 / 48 lb · pre-stretched 10 %');
  });

  it('stands newest first, with estimates marked', () => {
    const page: FramePage = {
      frame: base,
      ownerName: null,
      stringings: [stringing],
      builds: [
        {
          fittingId: 'x',
          playerName: 'Pim Oakhollow',
          createdAt: '2026-11-20T10:00:00Z',
          school: 'free',
          addedG: 5,
          stepsDone: 0,
        },
      ],
      measurements: [
        {
          id: 'm',
          frameId: 'f1',
          takenAt: '2026-11-05T10:00:00Z',
          dress: { strings: true },
          specs: { massG: 320, balanceCm: 32, swingWeight: 318, axisCm: 10.16 },
          uncertainty: { massG: 0.3, balanceCm: 0.07, swingWeight: 9, twistWeight: 0.15 },
          estimated: ['swingWeight'],
          leftRight: { massG: -0.6, uncertainty: 0.2 },
          how: { massG: { means: ['instrument'], count: 3, instruments: ['scale'], calibrations: [] } },
          note: 'trade-in',
        },
      ],
    };
    const happened = timeline(page, (key, value) => `${key} ${value}`);
    expect(happened.map((h) => h.kind)).toEqual(['build', 'strings', 'measured']);
    expect(happened[2]?.title).toBe('massG 320 · balanceCm 32 · swingWeight 318 est. · left/right −0.6 g');
    expect(happened[2]?.text).toContain('trade-in · weight instrument ×3');
  });
});
