import { buildOf, type Change, type ToCheck } from '@kevro/core';
import type { Measurement } from '@kevro/contract';
import { useFitting } from '../../stores/fitting';

/**
 * What the check of a change to the open fitting goes by; undefined while its parts are not there.
 * @param from the measurement that it starts from; the start of the round if left out
 */
export function planCheck(change: Change, from?: Measurement): ToCheck | undefined {
  const { frame, measurement, instrumentsFrom, aim } = useFitting();
  const start = from ?? measurement;
  const instruments = start && instrumentsFrom(start);
  if (!frame || !start || !instruments || !aim) return undefined;
  return { ...buildOf(frame, start.specs, start.dress, change, instruments), aim: aim.target };
}
