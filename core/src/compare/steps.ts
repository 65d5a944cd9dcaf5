import { SPEC_KEYS, type SpecKey } from '../mass';

/** Any of the four specs; a spec that is not known is left out. */
export type KnownSpecs = Partial<Record<SpecKey, number>>;

/**
 * Just noticeable differences: 2.5 % of swing weight (Brody 2000, skilled players); 3 g, 3 mm, 0.4 kg·cm² of twist (common practice).
 */
export const NOTICEABLE = { massG: 3, balanceCm: 0.3, swingWeightShare: 0.025, twistWeight: 0.4 } as const;

/** One noticeable step of a spec in its own unit, for a hand used to this swing weight. */
export const noticeableStep = (key: SpecKey, ownSwingWeight: number): number =>
  key === 'swingWeight' ? NOTICEABLE.swingWeightShare * ownSwingWeight : NOTICEABLE[key];

export interface StepDistance {
  /** Root of the sum of squared steps over the specs that both sides know. */
  distanceSteps: number;
  /** Signed steps, other minus own, of each spec that both sides know. */
  steps: KnownSpecs;
  /** Specs that one side lacks: with any, the true distance may be larger. */
  unknown: SpecKey[];
}

/**
 * How far another frame is from one's own, as a hand would notice. Both must be in one dress and about one axis.
 * @param own the frame in hand @param handSwingWeight the swing weight that sets the size of a step; the frame's own if left out
 * @example stepDistance({ massG: 330, swingWeight: 320 }, { massG: 333, swingWeight: 328 }).distanceSteps // √2
 */
export function stepDistance(own: KnownSpecs, other: KnownSpecs, handSwingWeight?: number): StepDistance {
  const steps: KnownSpecs = {};
  const unknown: SpecKey[] = [];
  const hand = handSwingWeight ?? own.swingWeight ?? other.swingWeight ?? 320;
  for (const key of SPEC_KEYS) {
    const a = own[key];
    const b = other[key];
    if (a === undefined || b === undefined) unknown.push(key);
    else steps[key] = (b - a) / noticeableStep(key, hand);
  }
  return { distanceSteps: Math.hypot(...Object.values(steps)), steps, unknown };
}

/**
 * Others in order of distance, nearest first; equal distances keep their order. Those with nothing in common come last.
 */
export function nearest<T extends { specs: KnownSpecs }>(
  own: KnownSpecs,
  others: readonly T[],
): (T & StepDistance)[] {
  const unlike = (d: StepDistance): number => (d.unknown.length === SPEC_KEYS.length ? 1 : 0);
  return others
    .map((other) => ({ ...other, ...stepDistance(own, other.specs) }))
    .sort((a, b) => unlike(a) - unlike(b) || a.distanceSteps - b.distanceSteps);
}
