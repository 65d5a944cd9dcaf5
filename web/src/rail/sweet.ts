import { recoilWeight, sweetRegion, type AxisSpecs, type Frame, type SweetRegion } from '@kevro/core';
import { useStroke } from '../stores/stroke';

/** The sweet spot for the chosen stroke; none where the twist weight is missing or the numbers cannot go together. */
export function sweetOf(frame: Frame | undefined, specs: AxisSpecs | undefined): SweetRegion | undefined {
  if (!frame || specs?.twistWeight === undefined || !(recoilWeight(specs) > 0)) return undefined;
  return sweetRegion(frame, { ...specs, twistWeight: specs.twistWeight }, useStroke().of(frame.sport));
}
