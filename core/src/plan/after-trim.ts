import { SPEC_KEYS, type AxisSpecs } from '../mass';
import { chanceOf } from './chance';
import type { ToCheck } from './enough';
import type { SpecError } from './errors';
import { bySpec } from '../spec';
import { readErrors, readingErrors, withTaken, type Readings } from './instruments';

/** How far whole pieces leave a trim from its aim, as a share of the tolerance: what the trims of simulated benches come to (bench/fittings.ts). */
export const TRIM_LEAVES = 0.4;

/**
 * The chance that a build passes its check at first or after one trim. A trim brings what was read to the aim, so that the first check is its start: what stays are
 * the scatter of two readings, the one that it goes by and the one that judges it, the drift between them, and what whole pieces leave. What cutting and placing add is
 * left out, since so little of it is cut.
 * @param first the chance to pass at first @param readings how often each check reads
 * @example chanceAfterTrim({ aim, after, instruments }, 0.86, everySpec(2)) // 0.98
 */
export function chanceAfterTrim(
  { aim, after, instruments }: Pick<ToCheck, 'aim' | 'after' | 'instruments'>,
  first: number,
  readings: Readings,
): number {
  const at: AxisSpecs = { ...after };
  for (const key of SPEC_KEYS) {
    const target = aim[key];
    if (target && at[key] !== undefined) at[key] = target.value;
  }
  const { check, drift } = instruments;
  // Both checks are read on the same bench within minutes.
  const again = { start: check, check, same: bySpec(() => true), drift };
  const own = withTaken(instruments, readings);
  const both = bySpec((key) => ({ start: own[key].check, check: own[key].check }));
  const left = SPEC_KEYS.map((key): SpecError => ({
    what: 'cutting',
    of: bySpec((spec) => (spec === key ? TRIM_LEAVES * (aim[key]?.tolerance ?? 0) : 0)),
  }));
  const errors = [...left, ...readErrors(readingErrors(at, at, again), both)];
  return first + (1 - first) * chanceOf(aim, at, errors).chance;
}
