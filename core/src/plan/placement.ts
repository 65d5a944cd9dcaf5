import { placeOf, type Frame, type Place } from '../frame';
import { add, additionSums, specsOf, sumsOf, type Addition, type AxisSpecs, type MassSums } from '../mass';
import { afterParts, type SpecUncertainty } from '../measure';
import type { ZoneName } from '../sport';
import { DENSITY_SHARE, PLACING_CM } from './material';

/** Weight at a place of the frame, as a plan or a fitter puts it there. `massG` is both sides together. */
export interface Placement {
  zone: ZoneName;
  massG: number;
  xCm: number;
  yCm: number;
  mirrored: boolean;
  spanCm?: number;
  layers?: number;
}

/** Where a placement lies. Its zone only names where it came from: it may have been moved since. */
export const placementPlace = (frame: Frame, { xCm, yCm }: Placement): Place => placeOf(frame, { xCm, yCm });

export const asAddition = ({ massG, xCm, yCm, mirrored, spanCm }: Placement): Addition => ({
  massG,
  at: { xCm, yCm },
  mirrored,
  ...(spanCm === undefined ? {} : { spanCm }),
});

/** The specs that placements lead to: the same sums as `predict`. */
export function specsWith(frame: Frame, before: AxisSpecs, placements: readonly Placement[]): AxisSpecs {
  const sums = placements.reduce<MassSums>(
    (sum, p) => add(sum, additionSums(frame, asAddition(p))),
    sumsOf(before),
  );
  return specsOf(sums, before.axisCm, before.twistWeight !== undefined);
}

/**
 * Standard uncertainty of the specs that placements lead to: from the readings, the tape's density and where pieces end up.
 */
export function planUncertainty(
  frame: Frame,
  before: AxisSpecs,
  readings: SpecUncertainty,
  placements: readonly Placement[],
): SpecUncertainty {
  return afterParts(
    before,
    readings,
    placements.map((p) => ({
      sums: additionSums(frame, asAddition(p)),
      massUncertaintyG: DENSITY_SHARE * p.massG,
      placeUncertaintyCm: PLACING_CM,
    })),
  );
}
