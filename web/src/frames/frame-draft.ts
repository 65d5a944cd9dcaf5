import {
  Fault,
  SPEC_KEYS,
  SPORTS,
  fromSpot,
  settleFrame,
  zoneOf,
  type Dress,
  type FrameShape,
  type Sport,
  type SpecKey,
  type ZoneName,
} from '@kevro/core';
import type { FrameRecord, NewFrame, OnFrame } from '@kevro/contract';
import { typedNumber, typedOrNone, typedOrNull } from '../parts/typed-number';

export interface WeightDraft {
  what: string;
  grams: string;
  zone: ZoneName;
  mirrored: boolean;
}

const text = (value: number | null | undefined): string =>
  value === null || value === undefined ? '' : String(value);
const texts = (specs: Partial<Record<SpecKey, number>> | undefined): Record<SpecKey, string> => ({
  massG: text(specs?.massG),
  balanceCm: text(specs?.balanceCm),
  swingWeight: text(specs?.swingWeight),
  twistWeight: text(specs?.twistWeight),
});

/** A frame as it is typed. */
export const draftOf = (f?: FrameRecord) => ({
  sport: (f?.shape.sport ?? 'tennis') as Sport,
  tag: f?.tag ?? '',
  maker: f?.maker ?? '',
  model: f?.model ?? '',
  paint: f?.paint ?? '',
  ownerId: f?.ownerId ?? null,
  length: text(f?.shape.lengthCm ?? SPORTS.tennis.lengthCm),
  area: text(f?.shape.headAreaCm2 ?? (f ? undefined : 645.2)),
  width: text(f?.shape.headWidthCm),
  shape: f?.shape.shape ?? null,
  pattern: f?.pattern ?? '',
  beam: f?.beam ?? '',
  stiffness: text(f?.stiffness),
  gripSize: f?.gripSize ?? '',
  note: f?.note ?? '',
  onIt: { ...(f?.onIt ?? { strings: true, baseGrip: 'synthetic' }) } as Dress,
  weights: (f?.weights ?? []).map((w): WeightDraft => ({
    what: w.what,
    grams: text(w.massG),
    zone: zoneOf(settleFrame(f?.shape as FrameShape), w),
    mirrored: w.sides === 2,
  })),
  specs: texts(f?.nominal?.specs),
  tolerance: texts(f?.nominal?.tolerance),
  nominalDress: (f?.nominal?.dress ?? { baseGrip: 'synthetic' }) as Dress,
});
export type FrameDraft = ReturnType<typeof draftOf>;

const typedSpecs = (from: Record<SpecKey, string>): Partial<Record<SpecKey, number>> =>
  Object.fromEntries(
    SPEC_KEYS.flatMap((key) => {
      const value = typedOrNone(from[key]);
      return value === undefined ? [] : [[key, value]];
    }),
  );

/** What is typed, as the request that stores it; weights that were there and not touched keep their exact place. */
export function frameBody(draft: FrameDraft, before?: FrameRecord): NewFrame {
  const { sport, length, area, width, shape, stiffness, weights, specs, tolerance, nominalDress, ...same } =
    draft;
  const stated = typedSpecs(specs);
  const kept = (draftWeight: WeightDraft, i: number) => {
    const old = before?.weights[i];
    const oldDraft = before && draftOf(before).weights[i];
    return old && JSON.stringify(oldDraft) === JSON.stringify(draftWeight) ? old : undefined;
  };
  const typedShape = {
    ...before?.shape,
    sport,
    lengthCm: typedNumber(length),
    headAreaCm2: typedOrNone(area),
    headWidthCm: typedOrNone(width),
    shape: shape ?? undefined,
  };
  return {
    ...same,
    shape: typedShape,
    stiffness: typedOrNull(stiffness),
    weights: weights.map((w, i) => kept(w, i) ?? placed(w, typedShape, `w${i + 1}`)),
    nominal:
      Object.keys(stated).length > 0
        ? { specs: stated, tolerance: typedSpecs(tolerance), dress: nominalDress }
        : null,
  };
}

/** A typed weight where it lies on the frame. On a shape that cannot be it is sent at its start: the server then says what is wrong with the shape. */
function placed({ what, grams, zone, mirrored }: WeightDraft, shape: FrameShape, id: string): OnFrame {
  const massG = typedNumber(grams);
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
  draft.length = String(Number(SPORTS[sport].lengthCm.toFixed(2)));
  draft.area = draft.width = '';
  draft.shape = null;
  draft.weights = [];
}
