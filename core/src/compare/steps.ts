import { SPEC_KEYS, type KnownSpecs, type SpecKey } from '../spec';
import type { FaultCode } from '../fault';
import { setupProblem, shiftKnown, type AxisSpecs } from '../mass';
import { SPORTS, type SportData } from '../sport';

/** What a hand notices in a sport. */
export type Noticeable = SportData['noticeable'];

/** Where no sport is named, the steps of tennis stand: they are the ones that are published. */
const UNNAMED = SPORTS.tennis;

/** One noticeable step of a spec in its own unit, for a hand used to this swing weight. */
export const noticeableStep = (noticeable: Noticeable, key: SpecKey, ownSwingWeight: number): number =>
  key === 'swingWeight' ? noticeable.swingWeightShare * ownSwingWeight : noticeable[key];

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
 * @param own the frame in hand @param sport whose steps count; tennis where none is named
 * @param handSwingWeight the swing weight that sets the size of a step; the frame's own if left out
 * @example stepDistance({ massG: 330, swingWeight: 320 }, { massG: 333, swingWeight: 328 }).distanceSteps // √2
 */
export function stepDistance(
  own: KnownSpecs,
  other: KnownSpecs,
  sport: SportData = UNNAMED,
  handSwingWeight?: number,
): StepDistance {
  const steps: KnownSpecs = {};
  const unknown: SpecKey[] = [];
  const hand = handSwingWeight ?? own.swingWeight ?? other.swingWeight ?? sport.usual.swingWeight;
  for (const key of SPEC_KEYS) {
    const a = own[key];
    const b = other[key];
    if (a === undefined || b === undefined) unknown.push(key);
    else steps[key] = (b - a) / noticeableStep(sport.noticeable, key, hand);
  }
  return { distanceSteps: Math.hypot(...Object.values(steps)), steps, unknown };
}

/**
 * Others in order of distance, nearest first; equal distances keep their order. Those with nothing in common come last.
 */
export function nearest<T extends { specs: KnownSpecs }>(
  own: KnownSpecs,
  others: readonly T[],
  sport?: SportData,
): (T & StepDistance)[] {
  const unlike = (d: StepDistance): number => (d.unknown.length === SPEC_KEYS.length ? 1 : 0);
  return others
    .map((other) => ({ ...other, ...stepDistance(own, other.specs, sport) }))
    .sort((a, b) => unlike(a) - unlike(b) || a.distanceSteps - b.distanceSteps);
}

/** A setup by its distance; one that cannot be says why, and has none. */
export interface NearSetup {
  id: string;
  distanceSteps?: number;
  steps: KnownSpecs;
  impossible?: FaultCode;
}

/**
 * Setups in order of distance from a frame, whatever is missing of them: what cannot be comes last and fails no other.
 * @param own the frame in hand, with the axis of its swing weight @param setups each may state its own axis @param mostCm how long a frame may be
 * @example nearestSetups(own, [{ id: 'a', specs: { massG: 330 } }], sportData('tennis'), 100)[0].distanceSteps
 */
export function nearestSetups(
  own: AxisSpecs,
  setups: readonly { id: string; specs: KnownSpecs & { axisCm?: number } }[],
  sport: SportData,
  mostCm: number,
): NearSetup[] {
  const judged = setups.map((setup) => ({ ...setup, impossible: setupProblem(setup.specs, sport, mostCm) }));
  const possible = judged
    .filter(({ impossible }) => impossible === undefined)
    .map(({ id, specs }) => ({ id, specs: shiftKnown(specs, own.axisCm, sport.axisCm) }));
  return [
    ...nearest(own, possible, sport).map(({ id, distanceSteps, steps }) => ({ id, distanceSteps, steps })),
    ...judged.flatMap(({ id, impossible }) => (impossible ? [{ id, impossible, steps: {} }] : [])),
  ];
}
