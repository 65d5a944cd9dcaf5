import { ratingsOf, type KnownSpecs } from '../spec';
import { dressChange, joinedParts, signedParts, type UncertainDressPart } from '../dress';
import { settleFrame, type FrameShape } from '../frame';
import { SPEC_KEYS, joinParts, knownOf, type Outcome, type SpecKey } from '../mass';
import { afterParts, type SpecUncertainty } from '../measure';
import type { Dress } from '../sport';

/** Where a setup comes from. */
export const SOURCE_KINDS = ['measured', 'published', 'maker', 'hearsay'] as const;
export type SourceKind = (typeof SOURCE_KINDS)[number];

/**
 * How many times as uncertain as a reading in the shop a stated value is, by where it comes from: another's instruments that nobody here has seen, a maker's
 * statement for every frame of a model, what somebody heard (from memory).
 */
const SOURCE_FACTOR: Record<SourceKind, number> = { measured: 1, published: 2.5, maker: 8, hearsay: 12 };

/** A reference spec as it was published: any value may be missing, in any dress, about any axis. */
export interface SetupReport {
  shape: FrameShape;
  dress: Dress;
  specs: KnownSpecs & { axisCm?: number };
  /** Hearsay is not an instrument; measured in the shop if left out. */
  sourceKind?: SourceKind;
}

/** A setup brought to another dress and axis, as far as its values allow. */
export interface BroughtSetup {
  specs: KnownSpecs;
  /** Standard uncertainties, of the source and of the change of dress. */
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
  const specs = { ...knownOf(outcome.specs), ...ratingsOf(report.specs) };

  // Where weight or balance are missing, typical ones stand in: they only scale the balance's uncertainty.
  const { usual } = frame.sport;
  const body = {
    massG: massG ?? usual.massG,
    balanceCm: balanceCm ?? frame.lengthCm / 2,
    swingWeight: usual.swingWeight,
    axisCm,
  };
  const factor = SOURCE_FACTOR[report.sourceKind ?? 'measured'];
  const { typicalReading } = frame.sport;
  const stated = Object.fromEntries(
    SPEC_KEYS.map((key) => [key, factor * typicalReading[key]]),
  ) as SpecUncertainty;
  const all = afterParts(body, stated, parts);
  const uncertainty: Partial<SpecUncertainty> = {};
  for (const key of Object.keys(specs) as SpecKey[]) uncertainty[key] = all[key];
  return { specs, uncertainty, lost: outcome.lost, outcome };
}
