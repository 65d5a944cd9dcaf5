import { Fault } from '../fault';
import type { Frame } from '../frame';
import type { AxisSpecs } from '../mass';
import { parted, usualParts, type SpecParted } from '../measure';
import { instrumentsAfter, type Instruments } from '../plan';
import { ratingsBy, bySpec, type SpecKey } from '../spec';
import { QUANTITIES, type Means, type Quantity, type Reading } from './reading';
import { estimatedOf, settleCapture, specsOfCapture, type SettledCapture } from './settle';

/** Readings as one measurement. */
export interface Measured {
  specs: AxisSpecs;
  /** Standard uncertainties in their parts; of a spec that was not read, the typical one. */
  parts: SpecParted;
  estimated: Quantity[];
  leftRight: { massG: number; uncertainty: number } | null;
  /** How each quantity was found, and the ids of the readings that count for it. */
  how: Partial<Record<Quantity, { means: Means[]; count: number; readings: string[] }>>;
}

/**
 * Makes one measurement of the readings of a frame.
 * @throws Fault `capture-incomplete` where weight, balance or swing weight are missing, or cannot go together
 * @example measurementOf(frame, readings).specs.massG // 327.4
 */
export function measurementOf(frame: Frame, readings: readonly Reading[]): Measured {
  const found = settleCapture(frame, readings);
  const specs = specsOfCapture(frame, found);
  if (!specs) throw new Fault({ code: 'capture-incomplete', path: '' });
  const { settled } = found;
  const how: Measured['how'] = {};
  for (const quantity of QUANTITIES) {
    const one = settled[quantity];
    if (!one) continue;
    const counted = readings.filter((r) => r.quantity === quantity && !r.setAside);
    how[quantity] = { means: one.means, count: one.count, readings: counted.map((r) => r.id) };
  }
  const sides = settled.leftRightG;
  return {
    specs,
    parts: {
      ...bySpec((key) => settled[key]?.parts ?? parted(frame.sport.typicalReading[key])),
      ...ratingsBy((key) => settled[key]?.parts),
    },
    estimated: estimatedOf(found),
    leftRight: sides ? { massG: sides.value, uncertainty: sides.uncertainty } : null,
    how,
  };
}

/** How often each spec was read; 0 where it was not, or is only an estimate. */
export const timesRead = ({ settled }: SettledCapture): Record<SpecKey, number> =>
  bySpec((key) => {
    const one = settled[key];
    return one && !one.estimated ? one.count : 0;
  });

/**
 * The instruments of a capture that is not whole yet, as its readings show them; typical ones of what is not read yet.
 * @param edgeOn whether the twist weight is going to be read edge-on less face-on, where it is not read yet: it scatters as both swing weights do together
 * @example instrumentsShown(frame, settleCapture(frame, []), false).check.massG // { random: 0.18, common: 0.24 }
 */
export function instrumentsShown({ sport }: Frame, found: SettledCapture, edgeOn: boolean): Instruments {
  const { settled } = found;
  const typical = usualParts(sport.typicalReading);
  const times = timesRead(found);
  const parts = bySpec((key) => (times[key] > 0 ? settled[key]?.parts : undefined) ?? typical[key]);
  const isEdgeOn = settled.twistWeight ? settled.twistWeight.means.includes('edge-on') : edgeOn;
  if (!settled.twistWeight && isEdgeOn)
    parts.twistWeight = { ...parts.twistWeight, random: Math.SQRT2 * parts.swingWeight.random };
  const { check, ...rest } = instrumentsAfter(sport, {
    parts,
    counts: bySpec((key) => Math.max(1, times[key])),
    estimated: [],
    edgeOn: isEdgeOn,
  });
  // How often the start is read is still open.
  return { ...rest, start: check, check, taken: undefined };
}
