import { targetOf, type Aim } from '../aim';
import { SPEC_KEYS, type AxisSpecs, type SpecKey } from '../mass';
import type { SpecUncertainty } from '../measure';
import { chanceOf, instrumentErrors } from '../plan';

export interface Conformance {
  /** Probability that the frame truly lies inside all tolerances, given what the instruments read. */
  all: number;
  /** The same of each spec that is aimed at. */
  of: Partial<Record<SpecKey, number>>;
}

/**
 * How likely a frame is truly inside its tolerances, given a measurement of it: what was read is normal about the true value, and nothing else is known of it
 * (JCGM 106:2012, 7.2.2 and annex A: the conformance probability with a non-informative prior). A reading inside may belong to a frame outside.
 * @param specs as measured @param uncertainty standard uncertainties of the measurement
 * @returns 0 to 1; a spec that is aimed at and was not measured counts 0
 * @example conformance({ massG: { value: 330, tolerance: 1 } }, { massG: 331, … }, { massG: 0.5, … }).of.massG // 0.5: on the edge
 */
export function conformance(aim: Aim, specs: AxisSpecs, uncertainty: SpecUncertainty): Conformance {
  const errors = instrumentErrors(uncertainty);
  const of: Conformance['of'] = {};
  for (const key of SPEC_KEYS) {
    const target = targetOf(aim, key);
    if (target) of[key] = chanceOf({ [key]: target }, specs, errors).chance;
  }
  return { all: chanceOf(aim, specs, errors).chance, of };
}
