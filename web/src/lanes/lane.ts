import { scaleLinear } from 'd3-scale';
import {
  SPECS,
  isPlanned,
  deviationFrom,
  isInside,
  noticeableStep,
  dataOf,
  targetOf,
  type Aim,
  type KnownSpecs,
  type AnySpecKey,
  type SpecUncertainty,
  type AnySport,
} from '@kevro/core';

/** What the four lanes show. All values in g, cm and kg·cm²; each lane picks what is its own. */
export interface LaneMarks {
  measured?: KnownSpecs;
  measuredUncertainty?: SpecUncertainty;
  /** Measured values that are estimates: drawn as such. */
  estimated?: readonly string[];
  /** Values that nobody here measured: as the maker states them of the frame. */
  stated?: readonly string[];
  /** What a check read: then it is what counts, what was measured before is only said, and what was planned stands open beside it. */
  checked?: KnownSpecs;
  checkedUncertainty?: SpecUncertainty;
  predicted?: KnownSpecs;
  predictedUncertainty?: SpecUncertainty;
  aim?: Aim;
  setups?: readonly { id: string; specs: KnownSpecs; marked: boolean }[];
  guide?: Partial<Record<AnySpecKey, readonly [number, number]>>;
  walls?: Partial<Record<AnySpecKey, { value: number; name: string }>>;
}

/** The values that a lane must show; setups and guides only widen it up to a limit, so that one stray does not flatten the rest. */
export function laneDomain(key: AnySpecKey, marks: LaneMarks): [number, number] {
  const { measured, checked, predicted, aim, setups = [], walls, guide } = marks;
  const target = isPlanned(key) ? targetOf(aim ?? {}, key) : undefined;
  const own = [
    measured?.[key],
    checked?.[key],
    predicted?.[key],
    ...(target ? [target.value - target.tolerance, target.value + target.tolerance] : []),
    ...setups.filter((s) => s.marked).map((s) => s.specs[key]),
  ].filter((v) => v !== undefined);
  // An open end of a guide is no value.
  const others = [...setups.map((s) => s.specs[key]), walls?.[key]?.value, ...(guide?.[key] ?? [])].filter(
    (v) => v !== undefined && Number.isFinite(v),
  ) as number[];
  const [first] = own.length > 0 ? own : others;
  if (first === undefined) return [0, 1];
  let low = Math.min(...(own.length > 0 ? own : others));
  let high = Math.max(...(own.length > 0 ? own : others));
  const least = SPECS[key].laneShare * first;
  const reach = Math.max(least, (high - low) * 0.8);
  const near = others.filter((v) => v > low - reach && v < high + reach);
  low = Math.min(low, ...near);
  high = Math.max(high, ...near);
  const spare = Math.max(0, least - (high - low)) / 2;
  const margin = (high - low + 2 * spare) * 0.06;
  return [low - spare - margin, high + spare + margin];
}

export interface LaneTicks {
  x: (value: number) => number;
  /** The value at a place. */
  at: (x: number) => number;
  ticks: number[];
}

export function laneScale(domain: [number, number], width: number): LaneTicks {
  const scale = scaleLinear(domain, [8, width - 8]);
  return {
    at: (x) => scale.invert(x),
    x: (value) => Math.max(-20, Math.min(width + 20, scale(value))),
    ticks: scale.ticks(Math.max(3, Math.round(width / 75))),
  };
}

/** How a lane's value stands to the aim: inside, or by how much and how many noticeable steps it misses. */
export interface Standing {
  difference: number;
  steps: number;
  inside: boolean;
}

export function standing(key: AnySpecKey, marks: LaneMarks, sport: AnySport): Standing | undefined {
  const { aim = {} } = marks;
  if (!isPlanned(key)) return undefined;
  const target = targetOf(aim, key);
  const shown = marks.checked ?? marks.predicted ?? marks.measured;
  if (!target || !shown) return undefined;
  const difference = deviationFrom(aim, shown)[key];
  if (difference === undefined) return undefined;
  const hand = marks.measured?.swingWeight ?? shown.swingWeight ?? target.value;
  return {
    difference,
    steps: difference / noticeableStep(dataOf(sport).noticeable, key, hand),
    inside: isInside(target, target.value + difference),
  };
}
