import { ALL_SPORTS, partRule, startersFor, type PartData, type Sport, type Starter } from '@kevro/core';
import type { ActBodyOf } from '@kevro/contract';
import { sentOrNone, shortNumber, type Typed } from '../ui/typed';
import { partWeight } from '../words/part-weight';

/** Which common parts are to go into the stock, and what a sample of each weighed. */
export interface StarterDraft {
  /** Those that were ticked or unticked; the usual ones are ticked. */
  on: Record<string, boolean>;
  samples: Record<string, Typed>;
}
export const noStarters = (): StarterDraft => ({ on: {}, samples: {} });

/** What is offered to a shop of these sports; of all sports where none is said. */
export const offered = (sports: readonly Sport[]): Starter[] =>
  startersFor(sports.length > 0 ? sports : ALL_SPORTS);
export const isOn = ({ on }: StarterDraft, { id, usual }: Starter): boolean => on[id] ?? usual;

/** What is sent: in the order of the offer, so that an answer names its row. */
export const picked = (
  draft: StarterDraft,
  sports: readonly Sport[],
): NonNullable<ActBodyOf<'addStarters'>['starters']> =>
  offered(sports)
    .filter((starter) => isOn(draft, starter))
    .map(({ id }) => ({ starter: id, sampleG: sentOrNone(draft.samples[id]) }));

/** How a part is weighed, «1 m on the scale»; undefined where it has no weight of its own. */
export function sampleWords(part: PartData): string | undefined {
  const { sample, lie } = partRule(part);
  if (!sample) return undefined;
  if (sample.cm === undefined) return 'one on the scale';
  return lie === 'strip' ? `${sample.cm} cm on the scale` : `${sample.cm} cm of handle`;
}

/** What it weighs: «0.12 g/cm», «5.5 g». */
export function weightWords(part: PartData): string {
  if ('gPerCm' in part) return `${shortNumber(part.gPerCm, 3)} g/cm`;
  return 'massG' in part ? partWeight(part.massG) : '—';
}
