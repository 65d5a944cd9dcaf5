import { settleFrame, type Frame, type FrameShape } from '../frame';
import { zoneOf } from '../part';
import type { Plan } from './made-plan';
import { compareScores, type Score } from './problem';

/**
 * Plans in order: least outside tolerance in hundredths of one, first of what must be kept; those that keep a margin; fewest places; nearest to the aim;
 * least mass. Equal plans keep their order.
 */
export function bestFirst(plans: readonly Plan[], margin = true): Plan[] {
  const outside = ({ score }: Plan): Score => ({ ...score, places: 0, nearSteps: 0, addedG: 0 });
  const risk = ({ guarded }: Plan): number => (margin && !guarded ? 1 : 0);
  return plans.toSorted(
    (a, b) => compareScores(outside(a), outside(b)) || risk(a) - risk(b) || compareScores(a.score, b.score),
  );
}

/** What a plan does, as text that is the same for plans that do the same: where in its zone a piece lies makes no other way. */
function doing(frame: Frame, { placements, swaps, removals }: Plan): string {
  const puts = placements.map((p) => `${zoneOf(frame, p)} ${p.path} ${p.partId} ${p.massG.toFixed(6)}`);
  return JSON.stringify([puts.toSorted(), swaps, removals]);
}

/** Plans of which no two do the same, in their order: of those that differ only in where in its zone a piece lies, the first. */
export function distinctPlans(shape: FrameShape, plans: readonly Plan[]): Plan[] {
  const frame = settleFrame(shape);
  const seen = new Set<string>();
  return plans.filter((plan) => {
    const own = doing(frame, plan);
    return !seen.has(own) && seen.add(own);
  });
}
