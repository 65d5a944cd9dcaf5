import { lineLength } from '../frame';
import { SPEC_KEYS, type AxisSpecs, type SpecKey } from '../mass';
import type { SpecUncertainty } from '../measure';
import { partNamed, partRule, spanCmOf, type Part, type Placement } from '../part';
import type { KnownSpecs } from '../spec';
import { changeOutcome, type Change } from '../plan';
import { expectedAfter, type Building } from './expected';

/** What may have gone wrong where a reading is not what was expected. */
export type Cause =
  | { kind: 'left-out' | 'twice' | 'other-end'; placementId: string }
  | { kind: 'other-part'; placementId: string; partId: string }
  | { kind: 'one-side'; placementId: string }
  | { kind: 'not-taken-off' }
  /** The one instrument is off, everything else agrees. */
  | { kind: 'instrument'; spec: SpecKey };

export interface Surprise {
  /** Specs that are further from what was expected than they can be, with how far, in standard uncertainties of the difference. */
  off: { spec: SpecKey; by: number; times: number }[];
  /** What would explain it, the most likely first; empty where nothing simple does. */
  causes: Cause[];
}

/** A reading is a surprise from three standard uncertainties of the difference: one in 370 by chance (normal distribution). */
const SURPRISING = 3;
const LIKELY = 3;

/** The piece laid from the other end of its half of the hoop: measured from the throat instead of the tip. */
function fromOtherEnd(building: Building, placement: Placement): Placement | undefined {
  if (placement.path !== 'rim' || placement.startCm < 0) return undefined;
  const length = lineLength(building.frame, 'rim');
  return { ...placement, startCm: length - placement.endCm, endCm: length - placement.startCm };
}

/** The same length and layers of another roll. */
function inOtherPart(placement: Placement, own: Part, other: Part): Placement | undefined {
  if (own.kind !== 'tape' || other.kind !== 'tape' || own.gPerCm === other.gPerCm) return undefined;
  return { ...placement, partId: other.id, massG: (placement.massG * other.gPerCm) / own.gPerCm };
}

/**
 * Whether what was read after a step is what was to be expected, and if not, what single mistake would explain it: a piece left out, put on twice, on one
 * side only, measured from the wrong end, of another roll; something that did not come off; or one instrument that reads wrong while the others agree.
 * Each is worked out as if it had been made, and kept where every spec then lies within three standard uncertainties.
 * @param read what was read, as far as it was @param uncertainty standard uncertainties of the readings @param shop other parts that may have been taken by mistake
 * @returns undefined where nothing is surprising
 * @example surpriseAfter(building, 'fix-head:p1', { massG: 325 }, typical)?.causes[0] // { kind: 'left-out', placementId: 'p1' }
 */
export function surpriseAfter(
  building: Building,
  key: string,
  read: KnownSpecs,
  uncertainty: SpecUncertainty,
  shop: readonly Part[] = [],
): Surprise | undefined {
  const { frame, before, dress } = building;
  const expected = expectedAfter(building, key);
  const spread = (spec: SpecKey): number => Math.hypot(expected.uncertainty[spec], uncertainty[spec]);
  const timesOff = (specs: AxisSpecs, spec: SpecKey): number => {
    const [is, was] = [read[spec], specs[spec]];
    return is === undefined || was === undefined || spread(spec) === 0 ? 0 : (is - was) / spread(spec);
  };
  const off = SPEC_KEYS.flatMap((spec) => {
    const times = timesOff(expected.specs, spec);
    const by = (read[spec] ?? 0) - (expected.specs[spec] ?? 0);
    return Math.abs(times) > SURPRISING ? [{ spec, by, times }] : [];
  });
  if (off.length === 0) return undefined;

  const { change } = expected;
  const worst = (specs: AxisSpecs): number =>
    Math.max(...SPEC_KEYS.map((spec) => Math.abs(timesOff(specs, spec))));
  const found: { cause: Cause; worst: number }[] = [];
  const suppose = (cause: Cause, supposed: Change): void => {
    const { specs } = changeOutcome(frame, before, dress, supposed);
    const w = worst(specs);
    if (w <= LIKELY) found.push({ cause, worst: w });
  };
  const parts = [...change.parts, ...shop.filter(({ id }) => !partNamed(change.parts, id))];
  for (const placement of change.placements) {
    const { id: placementId } = placement;
    const replaced = (by: readonly Placement[]): Change => ({
      ...change,
      parts,
      placements: change.placements.flatMap((p) => (p.id === placementId ? by : [p])),
    });
    suppose({ kind: 'left-out', placementId }, replaced([]));
    suppose(
      { kind: 'twice', placementId },
      replaced([placement, { ...placement, id: `${placementId} again` }]),
    );
    if (placement.sides === 2)
      suppose({ kind: 'one-side', placementId }, replaced([{ ...placement, massG: placement.massG / 2 }]));
    const turned = fromOtherEnd(building, placement);
    if (turned) suppose({ kind: 'other-end', placementId }, replaced([turned]));
    const own = partNamed(change.parts, placement.partId);
    if (!own || !partRule(own).shared || spanCmOf(placement) === 0) continue;
    for (const other of parts) {
      const taken = inOtherPart(placement, own, other);
      if (taken) suppose({ kind: 'other-part', placementId, partId: other.id }, replaced([taken]));
    }
  }
  if (change.removals.length > 0) suppose({ kind: 'not-taken-off' }, { ...change, removals: [] });
  const known = SPEC_KEYS.filter((spec) => read[spec] !== undefined);
  const [only] = off;
  if (off.length === 1 && only && known.length > 1)
    found.push({ cause: { kind: 'instrument', spec: only.spec }, worst: LIKELY });
  return { off, causes: found.toSorted((a, b) => a.worst - b.worst).map(({ cause }) => cause) };
}
