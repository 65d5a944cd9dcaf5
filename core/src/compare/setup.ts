import { dressChange, signedParts, type Dress, type DressChange } from '../dress';
import { settleFrame, type FrameShape } from '../frame';
import { shiftAxis, swingAbout, total, type SpecKey } from '../mass';
import { TYPICAL_READING, afterParts, type SpecUncertainty } from '../measure';
import { G_CM2_PER_KG_CM2 } from '../units';
import type { KnownSpecs } from './steps';

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
  change: DressChange;
}

/**
 * Brings a setup to a dress and an axis. Weight, twist weight and swing weight about the setup's own axis need only
 * themselves; balance needs the weight; another axis needs weight and balance. Missing values stay missing.
 * @example bringTo(report, { strings: true, overgrips: 1 }, 10.16).specs.massG
 */
export function bringTo(report: SetupReport, dress: Dress, axisCm: number): BroughtSetup {
  const frame = settleFrame(report.shape);
  const { massG, balanceCm, swingWeight, twistWeight } = report.specs;
  const ownAxisCm = report.specs.axisCm ?? frame.sport.axisCm;
  const change = dressChange(frame, report.dress, dress);
  const parts = signedParts(change);
  const moved = total(parts.map((part) => part.sums));
  const specs: KnownSpecs = {};
  const lost: SpecKey[] = [];

  if (massG !== undefined) specs.massG = massG + moved.massG;
  if (twistWeight !== undefined) specs.twistWeight = twistWeight + moved.twistGCm2 / G_CM2_PER_KG_CM2;
  if (balanceCm !== undefined) {
    if (massG === undefined) lost.push('balanceCm');
    else specs.balanceCm = (massG * balanceCm + moved.firstGCm) / (massG + moved.massG);
  }
  if (swingWeight !== undefined) {
    const here = swingWeight + swingAbout(moved, ownAxisCm);
    if (ownAxisCm === axisCm) specs.swingWeight = here;
    else if (specs.massG === undefined || specs.balanceCm === undefined) lost.push('swingWeight');
    else {
      const body = { massG: specs.massG, balanceCm: specs.balanceCm, swingWeight: here, axisCm: ownAxisCm };
      specs.swingWeight = shiftAxis(body, axisCm).swingWeight;
    }
  }

  // Where weight or balance are missing, typical ones stand in: they only scale the balance's uncertainty.
  const body = { massG: massG ?? 320, balanceCm: balanceCm ?? frame.lengthCm / 2, swingWeight: 320, axisCm };
  const all = afterParts(body, TYPICAL_READING, parts);
  const uncertainty: Partial<SpecUncertainty> = {};
  for (const key of Object.keys(specs) as SpecKey[]) uncertainty[key] = all[key];
  return { specs, uncertainty, lost, change };
}
