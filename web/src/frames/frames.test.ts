import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fromSpot, settleFrame, usualParts, type Placement } from '@kevro/core';
import { newFrame, type FramePage, type FrameRecord, type OnFrame } from '@kevro/contract';
import { changeSport, draftOf, fillFrom, frameBody } from '../forms/frame-draft';
import { dayWords, setShopZone } from '../words/days';
import { timeline } from '../measure/timeline';
import { stringWords, tensionWords } from '../words/strings';

const UNSURE = { massG: 0.3, balanceCm: 0.07, swingWeight: 9, twistWeight: 0.15 };
const base: FrameRecord = {
  ...newFrame.parse({
    tag: 'NW-1',
    maker: 'Norwold',
    model: 'Keel',
    shape: { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 632.26 },
  }),
  id: 'f1',
  archived: false,
  nominal: null,
};
const frame = settleFrame(base.shape);
const placed = (spot: Parameters<typeof fromSpot>[1]): Placement =>
  fromSpot(frame, spot, { id: 'w1', partId: '' });
const stored = (f: FrameRecord) => newFrame.parse(frameBody(draftOf(f), f));

describe('a frame that is changed', () => {
  it('stays as it was where nothing was typed, whatever is on it (property)', () => {
    const weight = fc
      .record({
        what: fc.constantFrom('', 'lead', 'putty'),
        massG: fc.integer({ min: 1, max: 200 }).map((n) => n / 10),
        at: fc.oneof(fc.constant({ clock: 10.5 }), fc.constant({ xCm: 60, yCm: 9 })),
        spanCm: fc.constantFrom(4, 7.5),
        mirrored: fc.boolean(),
      })
      .map(({ what, ...spot }): OnFrame => ({ ...placed(spot), what }));
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
    const weights: OnFrame[] = [
      { ...placed({ massG: 3, at: { clock: 10.5 }, spanCm: 5 }), id: 'w1', what: 'lead' },
      { ...placed({ massG: 6, at: { xCm: 3 } }), id: 'w2', what: 'putty' },
    ];
    const before: FrameRecord = { ...base, weights };
    const draft = draftOf(before);
    Object.assign(draft.weights[1] ?? {}, { grams: 8, zone: 'handleTop' });
    const { weights: after } = newFrame.parse(frameBody(draft, before));
    expect(after[0]).toEqual(weights[0]);
    expect(after[1]).toMatchObject({ what: 'putty', massG: 8, path: 'handle', startCm: 17, endCm: 17 });
  });

  it('states nothing of the model where nothing is typed, and leaves what cannot be read to be refused', () => {
    const draft = draftOf(base);
    expect(frameBody(draft).nominal).toBeNull();
    draft.specs.massG = 305.5;
    draft.tolerance.massG = 7;
    expect(frameBody(draft).nominal).toMatchObject({ specs: { massG: 305.5 }, tolerance: { massG: 7 } });
    // What is no number goes to the server as it is, and comes back with its sentence.
    draft.stiffness = 'sixty';
    expect(newFrame.safeParse(frameBody(draft)).success).toBe(false);
  });

  it('keeps its own outline, which another sport or a tick takes away; a known model brings that of its frames', () => {
    const points = [0, 4, 10, 18, 26, 32, 36].map((x): [number, number] => [x, x % 36 === 0 ? 0 : 13]);
    const outline = { points, from: 'photo', takenOn: '2026-11-20' } as const;
    const own: FrameRecord = { ...base, shape: { ...base.shape, outline } };
    expect(stored(own).shape.outline).toEqual(outline);
    const draft = draftOf(own);
    draft.takesOutline = false;
    expect(newFrame.parse(frameBody(draft, own)).shape.outline).toBeUndefined();
    const other = draftOf(own);
    changeSport(other, 'padel');
    expect(newFrame.parse(frameBody(other, own)).shape.outline).toBeUndefined();

    const { maker, model, shape, pattern, beam } = base;
    const known = {
      sport: 'tennis',
      maker,
      model,
      shape,
      pattern,
      beam,
      stiffness: null,
      nominal: null,
      frames: 2,
    } as const;
    const next = draftOf();
    fillFrom(next, { ...known, outline: { tag: 'NW-1', outline } });
    expect(next.outlineOf).toBe('NW-1');
    expect(newFrame.parse(frameBody({ ...next, tag: 'NW-2' })).shape.outline).toEqual({
      ...outline,
      from: 'model',
    });
    fillFrom(next, { ...known, outline: null });
    expect(newFrame.parse(frameBody({ ...next, tag: 'NW-2' })).shape.outline).toBeUndefined();
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
  const measurement = {
    id: 'm',
    frameId: 'f1',
    takenAt: '2026-11-05T10:00:00Z',
    purpose: 'found' as const,
    roundId: null,
    dress: {},
    specs: { massG: 320, balanceCm: 32, swingWeight: 318, axisCm: 10.16 },
    uncertainty: UNSURE,
    parts: usualParts(UNSURE),
    estimated: [],
    leftRight: null,
    how: {},
    note: '',
    counts: true,
    why: '',
    supersedes: null,
    supersededBy: null,
  };
  const stringing = {
    id: 's',
    strungOn: '2026-11-08',
    mainsKind: 'polyester' as const,
    crossesKind: 'polyester' as const,
    by: '',
    hoursPlayed: null,
    readings: [],
    mains: 'round poly',
    crosses: 'round poly',
    mainsMm: 1.25,
    crossesMm: 1.25,
    mainsKg: 22.679618,
    crossesKg: 21.772434,
    unit: 'lb' as const,
    preStretchPercent: 10,
    note: '',
    retired: false,
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
      bed: null,
      films: [],
      outlinePicture: null,
      modelOutline: null,
      builds: [
        {
          planId: 'p',
          fittingId: 'x',
          round: 1,
          byHand: false,
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
          purpose: 'found',
          roundId: null,
          dress: { strings: true },
          specs: { massG: 320, balanceCm: 32, swingWeight: 318, axisCm: 10.16 },
          uncertainty: UNSURE,
          parts: usualParts(UNSURE),
          estimated: ['swingWeight'],
          leftRight: { massG: -0.6, uncertainty: 0.2 },
          how: { massG: { means: ['instrument'], count: 3, instruments: ['scale'], calibrations: [] } },
          note: 'trade-in',
          counts: true,
          why: '',
          supersedes: null,
          supersededBy: null,
        },
      ],
    };
    const happened = timeline(page, (key, value) => `${key} ${value}`);
    expect(happened.map((h) => h.kind)).toEqual(['build', 'strings', 'measured']);
    expect(happened[2]?.title).toBe('massG 320 · balanceCm 32 · swingWeight 318 est. · left/right −0.6 g');
    expect(happened[2]?.text).toContain('trade-in · weight instrument ×3');
  });

  it('puts strings on their own day of the shop, before what was measured on it, in every zone', () => {
    const at = (takenAt: string) => ({ ...measurement, id: takenAt, takenAt });
    try {
      for (const [zone, before, same] of [
        ['America/Los_Angeles', '2026-11-08T06:00:00Z', '2026-11-09T03:00:00Z'],
        ['Pacific/Auckland', '2026-11-07T09:00:00Z', '2026-11-07T20:00:00Z'],
      ] as const) {
        setShopZone(zone);
        const page = {
          frame: base,
          ownerName: null,
          bed: null,
          films: [],
          outlinePicture: null,
          modelOutline: null,
          builds: [],
          stringings: [stringing],
          measurements: [at(same), at(before)],
        } as FramePage;
        expect(timeline(page, () => '').map((h) => h.at)).toEqual([same, '2026-11-08', before]);
        expect(dayWords('2026-11-08')).toMatch(/^8 Nov/);
      }
    } finally {
      setShopZone('');
    }
  });

  it('says the year where it is not this one, in one language', () => {
    const year = new Date().getFullYear();
    expect(dayWords(`${year}-03-09`)).toBe('9 Mar');
    expect(dayWords('2019-03-09')).toBe('9 Mar 2019');
    setShopZone('Pacific/Auckland');
    expect(dayWords('2019-03-09T20:00:00Z')).toBe('10 Mar 2019');
    setShopZone('');
  });

  it('keeps what does not count, with why', () => {
    const wrong = { ...measurement, id: 'w', counts: false, why: 'the grip was off' };
    const corrected = { ...measurement, id: 'c', counts: false, why: 'read as 372', supersededBy: 'n' };
    const page = {
      frame: base,
      ownerName: null,
      bed: null,
      films: [],
      outlinePicture: null,
      modelOutline: null,
      builds: [],
      stringings: [],
      measurements: [wrong, corrected],
    };
    expect(timeline(page, () => '').map((h) => h.fault)).toEqual([
      'wrong: the grip was off',
      'corrected: read as 372',
    ]);
  });

  it('keeps the order in which things arrived where a clock was set back', () => {
    const page = {
      frame: base,
      ownerName: null,
      bed: null,
      films: [],
      outlinePicture: null,
      modelOutline: null,
      builds: [],
      stringings: [],
      measurements: ['2026-01-01T10:00:00Z', '2026-11-20T10:00:00Z'].map((takenAt) => ({
        ...measurement,
        id: takenAt,
        takenAt,
      })),
    } as FramePage;
    expect(timeline(page, () => '').map((h) => h.at)).toEqual([
      '2026-01-01T10:00:00Z',
      '2026-11-20T10:00:00Z',
    ]);
  });
});
