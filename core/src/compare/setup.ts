import { dressChange, joinedParts, signedParts, type UncertainDressPart } from '../dress';
import { settleFrame, type FrameShape } from '../frame';
import { joinParts, knownOf, type Outcome, type SpecKey } from '../mass';
import { TYPICAL_READING, afterParts, type SpecUncertainty } from '../measure';
import type { Dress } from '../sport';
import type { KnownSpecs } from '../spec';

/** A reference spec as it was published: any value may be missing, in any dress, about any axis. */
export interface SetupReport {
  shape: FrameShape;
  dress: Dress;
  specs: KnownSpecs & { axisCm?: number };
}

/** A setup brought to another dress and axis, as far as its values allow. */
export interface BroughtSetup {
  specs: KnownSpecs;
  uncertainty: Partial<SpecUncertainty>;
  /** Values that were given but could not be brought over, because another value is missing. */
  lost: SpecKey[];
  /** The terms that gave the specs. */
  outcome: Outcome<UncertainDressPart>;
}

/**
 * Brings a setup to a dress and an axis. Weight, twist weight and swing weight about the setup's own axis need only
 * themselves; balance needs the weight; another axis needs weight and balance. Missing values stay missing.
 * @example bringTo(report, { strings: true, overgrips: 1 }, 10.16).specs.massG
 */
export function bringTo(report: SetupReport, dress: Dress, axisCm: number): BroughtSetup {
  const frame = settleFrame(report.shape);
  const { massG, balanceCm } = report.specs;
  const before = { ...report.specs, axisCm: report.specs.axisCm ?? frame.sport.axisCm };
  const change = dressChange(frame, report.dress, dress);
  const parts = signedParts(change);
  const outcome = joinParts(before, joinedParts(parts), axisCm);
  const specs = knownOf(outcome.specs);

  // Where weight or balance are missing, typical ones stand in: they only scale the balance's uncertainty.
  const { usual } = frame.sport;
  const body = {
    massG: massG ?? usual.massG,
    balanceCm: balanceCm ?? frame.lengthCm / 2,
    swingWeight: usual.swingWeight,
    axisCm,
  };
  const all = afterParts(body, TYPICAL_READING, parts);
  const uncertainty: Partial<SpecUncertainty> = {};
  for (const key of Object.keys(specs) as SpecKey[]) uncertainty[key] = all[key];
  return { specs, uncertainty, lost: outcome.lost, outcome };
}
