import {
  Fault,
  SPEC_KEYS,
  SPORTS,
  fromSpot,
  settleFrame,
  usualDress,
  zoneOf,
  type Dress,
  type FrameShape,
  type Sport,
  type SpecKey,
  type ZoneName,
} from '@kevro/core';
import type { FrameRecord, KnownModel, NewFrame, OnFrame } from '@kevro/contract';
import { same } from '../ui/same';
import { sent, sentOrNone, sentOrNull, type Typed } from '../ui/typed';

export interface WeightDraft {
  what: string;
  grams: Typed;
  zone: ZoneName;
  mirrored: boolean;
}

const typed = (value: number | null | undefined): Typed => value ?? null;
const typedSpecs = (specs: Partial<Record<SpecKey, number>> | undefined): Record<SpecKey, Typed> => ({
  massG: typed(specs?.massG),
  balanceCm: typed(specs?.balanceCm),
  swingWeight: typed(specs?.swingWeight),
  twistWeight: typed(specs?.twistWeight),
});

/** A new frame of a sport, as it usually is. */
export function newFrameDraft(sport: Sport): FrameDraft {
  const draft = draftOf();
  if (sport !== draft.sport) changeSport(draft, sport);
  return draft;
}
/** A frame as it is typed. */
export const draftOf = (f?: FrameRecord) => ({
  sport: (f?.shape.sport ?? 'tennis') as Sport,
  tag: f?.tag ?? '',
  maker: f?.maker ?? '',
  model: f?.model ?? '',
  paint: f?.paint ?? '',
  ownerId: f?.ownerId ?? null,
  length: typed(f?.shape.lengthCm ?? SPORTS.tennis.lengthCm),
  area: typed(f?.shape.headAreaCm2 ?? (f ? undefined : 645.2)),
  width: typed(f?.shape.headWidthCm),
  shape: f?.shape.shape ?? null,
  pattern: f?.pattern ?? '',
  beam: f?.beam ?? '',
  stiffness: typed(f?.stiffness),
  gripSize: f?.gripSize ?? '',
  note: f?.note ?? '',
  onIt: { ...(f?.onIt ?? { strings: true, baseGrip: 'synthetic' }) } as Dress,
  weights: (f?.weights ?? []).map((w): WeightDraft => ({
    what: w.what,
    grams: typed(w.massG),
    zone: zoneOf(settleFrame(f?.shape as FrameShape), w),
    mirrored: w.sides === 2,
  })),
  specs: typedSpecs(f?.nominal?.specs),
  tolerance: typedSpecs(f?.nominal?.tolerance),
  nominalDress: (f?.nominal?.dress ?? { baseGrip: 'synthetic' }) as Dress,
  /** The outline of its own, or of another frame of its model; and whether it is taken. */
  outline: f?.shape.outline ?? null,
  outlineOf: '',
  takesOutline: f?.shape.outline !== undefined,
});
export type FrameDraft = ReturnType<typeof draftOf>;

const sentSpecs = (from: Record<SpecKey, Typed>): Partial<Record<SpecKey, number>> =>
  Object.fromEntries(
    SPEC_KEYS.flatMap((key) => {
      const value = sentOrNone(from[key]);
      return value === undefined ? [] : [[key, value]];
    }),
  );

/** What is typed, as the request that stores it; weights that were there and not touched keep their exact place. */
export function frameBody(draft: FrameDraft, before?: FrameRecord): NewFrame {
  const {
    sport,
    length,
    area,
    width,
    shape,
    stiffness,
    weights,
    specs,
    tolerance,
    nominalDress,
    outline,
    outlineOf: _,
    takesOutline,
    ...asTyped
  } = draft;
  const stated = sentSpecs(specs);
  const band = sentSpecs(tolerance);
  const kept = (draftWeight: WeightDraft, i: number) => {
    const old = before?.weights[i];
    const oldDraft = before && draftOf(before).weights[i];
    return old && same(oldDraft, draftWeight) ? old : undefined;
  };
  const typedShape = {
    ...before?.shape,
    sport,
    lengthCm: sent(length),
    headAreaCm2: sentOrNone(area),
    headWidthCm: sentOrNone(width),
    shape: shape ?? undefined,
    outline: takesOutline && outline ? outline : undefined,
  };
  return {
    ...asTyped,
    shape: typedShape,
    stiffness: sentOrNull(stiffness),
    weights: weights.map((w, i) => kept(w, i) ?? placed(w, typedShape, `w${i + 1}`)),
    nominal:
      Object.keys({ ...stated, ...band }).length > 0
        ? { specs: stated, tolerance: band, dress: nominalDress }
        : null,
  };
}

/** A typed weight where it lies on the frame. On a shape that cannot be it is sent at its start: the server then says what is wrong with the shape. */
function placed({ what, grams, zone, mirrored }: WeightDraft, shape: FrameShape, id: string): OnFrame {
  const massG = sent(grams);
  try {
    return { ...fromSpot(settleFrame(shape), { at: { zone }, massG, mirrored }, { id, partId: '' }), what };
  } catch (error) {
    if (!(error instanceof Fault)) throw error;
    return { id, partId: '', path: 'rim', startCm: 0, endCm: 0, sides: 1, layers: 1, massG, what };
  }
}

/** A change of sport brings its usual size; what was typed for the other sport does not fit. */
export function changeSport(draft: FrameDraft, sport: Sport): void {
  draft.sport = sport;
  draft.length = SPORTS[sport].lengthCm;
  draft.area = draft.width = null;
  draft.shape = null;
  draft.weights = [];
  draft.outline = null;
  draft.takesOutline = false;
  draft.onIt = usualDress(sport);
  draft.nominalDress = { ...SPORTS[sport].dress.bare };
}

/** What is known of a make, in the form; whose it is, its tag and what is on it stay as they are. */
export function fillFrom(
  draft: FrameDraft,
  { sport, maker, model, shape, pattern, beam, stiffness, nominal, outline }: KnownModel,
): void {
  if (draft.sport !== sport) changeSport(draft, sport);
  Object.assign(draft, {
    maker,
    model,
    length: typed(shape.lengthCm),
    area: typed(shape.headAreaCm2),
    width: typed(shape.headWidthCm),
    shape: shape.shape ?? null,
    pattern,
    beam,
    stiffness: typed(stiffness),
    outline: outline ? { ...outline.outline, from: 'model' } : null,
    outlineOf: outline?.tag ?? '',
    takesOutline: outline !== null,
  });
  if (!nominal) return;
  draft.specs = typedSpecs(nominal.specs);
  draft.tolerance = typedSpecs(nominal.tolerance);
  draft.nominalDress = nominal.dress;
}
