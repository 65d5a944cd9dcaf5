import { specName, SPEC_KEYS, type SpecKey, type StepDistance } from '@kevro/core';

/** How far a setup is, in steps. A distance with missing values is a lower bound, and says so. */
export function awayWords({
  unknown,
  distanceSteps,
}: Pick<StepDistance, 'unknown' | 'distanceSteps'>): string {
  if (unknown.length === SPEC_KEYS.length) return 'not comparable';
  return `${unknown.length > 0 ? '≥ ' : ''}${distanceSteps.toFixed(1)}`;
}

/** What a setup does not say; what the frame in hand itself lacks is said once, not with each. */
export function missingWords(
  { unknown }: Pick<StepDistance, 'unknown'>,
  ownLacks: readonly SpecKey[],
): string {
  const theirs = unknown.filter((key) => !ownLacks.includes(key));
  return theirs.length > 0 ? `no ${theirs.map((key) => specName(key)).join(', no ')}` : '';
}
