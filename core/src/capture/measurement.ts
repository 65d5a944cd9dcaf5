import { Fault } from '../fault';
import type { Frame } from '../frame';
import type { AxisSpecs } from '../mass';
import { parted, type SpecParted } from '../measure';
import { bySpec } from '../spec';
import { QUANTITIES, type Means, type Quantity, type Reading } from './reading';
import { estimatedOf, settleCapture, specsOfCapture } from './settle';

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
    parts: bySpec((key) => settled[key]?.parts ?? parted(frame.sport.typicalReading[key])),
    estimated: estimatedOf(found),
    leftRight: sides ? { massG: sides.value, uncertainty: sides.uncertainty } : null,
    how,
  };
}
