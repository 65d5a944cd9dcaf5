import type { Aim } from '../aim';
import { SPEC_KEYS, type AxisSpecs } from '../mass';
import type { SpecUncertainty } from '../measure';
import type { Frame } from '../frame';
import { chanceOf } from './chance';
import { instrumentErrors } from './errors';

/**
 * The chance that a build passes its check at first or after one trim: a trim brings what was read to the aim, so that what stays are the errors of two
 * readings, the one that it goes by and the one that judges it (independent: √2 of one). What a trim itself adds is left out, since so little of it is cut.
 * @param first the chance to pass at first @param instruments standard uncertainties; the sport's typical ones if left out
 * @example chanceAfterTrim(frame, aim, plan.specs, 0.86, typical) // 0.99
 */
export function chanceAfterTrim(
  { sport }: Frame,
  aim: Aim,
  after: AxisSpecs,
  first: number,
  instruments: SpecUncertainty = sport.typicalReading,
): number {
  const at = { ...after };
  const twice = {} as SpecUncertainty;
  for (const key of SPEC_KEYS) {
    const target = aim[key];
    if (target && at[key] !== undefined) at[key] = target.value;
    twice[key] = Math.SQRT2 * instruments[key];
  }
  return first + (1 - first) * chanceOf(aim, at, instrumentErrors(twice)).chance;
}
