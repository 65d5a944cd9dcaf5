import { QUANTITIES, type Means, type Quantity } from '@kevro/core';
import { KINDS, type BenchTool, type Instrument, type Measurement } from '@kevro/contract';
import type { OfFrame } from '../ui/typed';
import { useUnits } from '../stores/units';
import { SPEC_NAMES } from '../words';

/** Left/right beside the four specs: how each quantity is named, read and shown. */
export const QUANTITY_NAMES: Record<Quantity, string> = { ...SPEC_NAMES, leftRightG: 'Left/right' };

export function useQuantities() {
  const units = useUnits();
  const unit = (quantity: Quantity): string => (quantity === 'leftRightG' ? 'g' : units.unit(quantity));
  const signed = (value: number): string => {
    const text = value.toFixed(1);
    return Number(text) > 0 ? `+${text}` : text.replace('-', '−');
  };
  const show = (quantity: Quantity, value: number, shape: OfFrame, extra = 0): string =>
    quantity === 'leftRightG' ? signed(value) : units.show(quantity, value, shape, extra);
  /** Half of the stated 95 % interval. */
  const showBand = (quantity: Quantity, standardUncertainty: number, { sport }: OfFrame): string =>
    quantity === 'leftRightG'
      ? (2 * standardUncertainty).toFixed(1)
      : units.showWidth(quantity, 2 * standardUncertainty, sport);
  return { unit, show, showBand };
}

/** A way to take a quantity: an instrument, or a method without one. */
export type TakingWay =
  | { value: string; title: string; kind: 'instrument'; instrument: Instrument }
  | { value: string; title: string; kind: Exclude<Means, 'instrument' | 'typed'> };

const BY_METHOD: Partial<Record<Quantity, TakingWay[]>> = {
  swingWeight: [
    { value: 'pendulum', title: 'pendulum and stopwatch', kind: 'pendulum' },
    { value: 'filmed-swing', title: 'pendulum, filmed', kind: 'filmed-swing' },
    { value: 'estimate', title: 'estimate, not measured', kind: 'estimate' },
  ],
  twistWeight: [
    { value: 'edge-on', title: 'edge-on minus face-on, typed', kind: 'edge-on' },
    { value: 'threads', title: 'two threads and stopwatch', kind: 'threads' },
    { value: 'filmed-twist', title: 'two threads, filmed', kind: 'filmed-twist' },
    { value: 'estimate', title: 'estimate, not measured', kind: 'estimate' },
  ],
};

/**
 * The ways to take a quantity here, instruments first.
 * @param tools what the shop says that it measures with: where the pendulum is not among them, it comes last
 */
export function waysToTake(
  quantity: Quantity,
  instruments: readonly Instrument[],
  tools: readonly BenchTool[] = [],
): TakingWay[] {
  const own = instruments
    .filter((i) => !i.retired && KINDS[i.kind].reads.includes(quantity))
    .map((instrument) => ({
      value: instrument.id,
      title: quantity === 'twistWeight' ? `${instrument.name}, edge-on` : instrument.name,
      kind: 'instrument' as const,
      instrument,
    }));
  const methods = BY_METHOD[quantity] ?? [];
  const SWINGS = new Set(['pendulum', 'threads', 'filmed-swing', 'filmed-twist']);
  const swings = ({ kind }: TakingWay): boolean => SWINGS.has(kind);
  const noStopwatch = tools.length > 0 && !tools.includes('pendulum');
  return noStopwatch
    ? [...own, ...methods.filter((way) => !swings(way)), ...methods.filter(swings)]
    : [...own, ...methods];
}

export const MEANS_WORDS: Record<Means, string> = {
  instrument: 'instrument',
  typed: 'typed',
  'edge-on': 'edge-on',
  pendulum: 'pendulum',
  threads: 'threads',
  'filmed-swing': 'film',
  'filmed-twist': 'film',
  estimate: 'estimate',
};

/** Quantities in a sentence: «swing weight and twist weight». */
export function quantityList(quantities: readonly Quantity[]): string {
  const names = quantities.map((q) => QUANTITY_NAMES[q].toLowerCase());
  const last = names.pop() ?? '';
  return names.length > 0 ? `${names.join(', ')} and ${last}` : last;
}

/** How a measurement came about: «swing weight by instrument (2)». Nothing where it came in whole. */
export const howWords = (how: Measurement['how']): string =>
  QUANTITIES.flatMap((quantity) => {
    const found = how[quantity];
    if (!found) return [];
    const by = found.means.map((m) => MEANS_WORDS[m]).join(' and ');
    return [`${QUANTITY_NAMES[quantity].toLowerCase()} ${by}${found.count > 1 ? ` ×${found.count}` : ''}`];
  }).join(', ');
