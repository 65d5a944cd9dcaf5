import {
  benchSteps,
  buildOf,
  chanceWithEnough,
  changeUncertainty,
  settleFrame,
  withinTolerance,
  instrumentsAfter,
  measuredWith,
  type BenchCase,
  type Change,
  type School,
  type SpecKey,
  type Sport,
} from '@kevro/core';
import type { AimRecord, FrameRecord, Measurement, PartRecord, PlanRecord, Shop } from '@kevro/contract';
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
  /** How often the check is to pass. */
  wanted: number;
  /** Specs whose instrument or calibration is another since the start was measured. */
  renewed: readonly SpecKey[];
}

const MINUTES_AN_HOUR = 60;
/** How long new strings settle before a check, by what the shop said. */
export const settleMinutesOf = (own: Shop['sports'][Sport]): number | undefined =>
  own?.strings?.settleHours === undefined ? undefined : MINUTES_AN_HOUR * own.strings.settleHours;

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
  wanted,
  renewed,
}: PlanParts): PlanRecord {
  const settled = settleFrame(frame.shape);
  const instruments = instrumentsAfter(settled.sport, measuredWith(from), renewed);
  const built = buildOf(settled, from.specs, from.dress, change, instruments);
  const { after: specs } = built;
  const { chance, truly, readings } = chanceWithEnough({ ...built, aim: aim.target }, wanted);
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
    chance,
    truly,
    readings,
    withinTolerance: withinTolerance(aim.target, specs),
  } as PlanRecord;
}
