import {
  benchSteps,
  chanceToPass,
  changeOutcome,
  changeUncertainty,
  errorSources,
  settleFrame,
  specErrors,
  withinTolerance,
  type BenchCase,
  type Change,
  type School,
} from '@kevro/core';
import type { AimRecord, FrameRecord, Measurement, PartRecord, PlanRecord } from '@kevro/contract';
import { newId } from '../records/id';

/** What a plan is made from. */
export interface PlanParts {
  frame: FrameRecord;
  /** The measurement it starts from. */
  from: Measurement;
  aim: AimRecord;
  change: Omit<Change, 'parts'> & { parts: readonly PartRecord[] };
  school: School;
  byHand: boolean;
  trims?: string | null;
  bench: BenchCase;
  now: string;
}

/** A plan as it is stored. What it leads to is computed here, never taken from the page. */
export function planRow({
  frame,
  from,
  aim,
  change,
  school,
  byHand,
  trims = null,
  bench,
  now,
}: PlanParts): PlanRecord {
  const settled = settleFrame(frame.shape);
  const { specs } = changeOutcome(settled, from.specs, from.dress, change);
  const build = specErrors(specs, errorSources(settled, from.dress, change));
  return {
    id: newId(),
    createdAt: now,
    roundId: aim.roundId,
    startId: from.id,
    aimId: aim.id,
    trims,
    school,
    byHand,
    placements: [...change.placements],
    swaps: [...change.swaps],
    removals: [...change.removals],
    parts: [...change.parts],
    steps: benchSteps(change, from.dress, bench),
    specs,
    uncertainty: changeUncertainty(settled, from.specs, from.uncertainty, from.dress, change),
    chance: chanceToPass(settled, aim.target, specs, build, from.uncertainty).chance,
    withinTolerance: withinTolerance(aim.target, specs),
  } as PlanRecord;
}
