import type { Placement } from '../part';
import { LAYING, type BenchStep } from './bench-steps';

/** A step is open until it is done or skipped; it may be opened again. Each mark is kept. */
export const MARKS = ['done', 'skipped', 'open'] as const;
export type Mark = (typeof MARKS)[number];

/** A mark on a step, as far as it says what was built. */
export interface BuiltMark {
  step: string;
  mark: Mark;
  asBuilt: readonly Placement[] | null;
}

/**
 * Where a build differs from its plan, by its marks in the order of arrival. The last of each step says whether it is done; what was noted as built stays
 * noted when the step is marked once more, as by a reading. A piece whose step was skipped was not put on.
 * @returns by the id of the planned placement; undefined where it was left out
 * @example asBuiltOf(plan.steps, marks).get('p1')?.massG // 4.1 where 4.2 was planned
 */
export function asBuiltOf(
  steps: readonly BenchStep[],
  marks: readonly BuiltMark[],
): Map<string, Placement | undefined> {
  const last = new Map(marks.map((mark) => [mark.step, mark.mark]));
  const built = new Map<string, Placement | undefined>();
  for (const { key, kind, placementIds } of steps) {
    const mark = last.get(key);
    if (mark === 'skipped' && LAYING.includes(kind)) for (const id of placementIds) built.set(id, undefined);
    if (mark === 'done') for (const placement of notedAsBuilt(marks, key)) built.set(placement.id, placement);
  }
  return built;
}

/** The pieces of a step as they were noted to be built: those that were noted last. @example notedAsBuilt(marks, 'fix-head:p1')[0]?.massG // 4.1 */
export const notedAsBuilt = (marks: readonly BuiltMark[], step: string): readonly Placement[] =>
  marks.findLast((mark) => mark.step === step && mark.asBuilt !== null)?.asBuilt ?? [];
