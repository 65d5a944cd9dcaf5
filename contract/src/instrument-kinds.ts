import type { PrintedMeasure, Quantity } from '@kevro/core';

/** The programs that speak with instruments. */
export const DRIVERS = ['stand-in', 'serial'] as const;
export type DriverName = (typeof DRIVERS)[number];
/** What a driver needs to know and can tell: where its device is plugged in, and whether that is warm. */
export const DRIVER_TRAITS: Record<DriverName, { hasPort: boolean; tellsWarm: boolean }> = {
  'stand-in': { hasPort: false, tellsWarm: true },
  serial: { hasPort: true, tellsWarm: false },
};

export const INSTRUMENT_KINDS = ['scale', 'board', 'machine'] as const;
export type InstrumentKind = (typeof INSTRUMENT_KINDS)[number];
/** What a shop measures with: instruments whose numbers are typed too, and the stopwatch. */
export const BENCH_TOOLS = [...INSTRUMENT_KINDS, 'pendulum'] as const;
export type BenchTool = (typeof BENCH_TOOLS)[number];

/** All that a kind of instrument is. */
export interface KindOfInstrument {
  /** What it reads of a frame. */
  reads: readonly Quantity[];
  /** How many raw values make one reading. */
  valuesAReading: number;
  /** Whether it is calibrated with rods, and reads them. */
  calibrates: boolean;
  /** What its display shows while something lies on it; a machine shows only what it has swung. */
  shows: Quantity | undefined;
  /** The unit it shows. */
  unit: 'g' | 'cm' | 'kg·cm²';
  /** What its lines are numbers of, where it sends any. */
  measure: PrintedMeasure;
}

/** Every kind there is; a new one is one entry here and one row of words. See docs/add-an-instrument.md. */
export const KINDS: Record<InstrumentKind, KindOfInstrument> = {
  scale: {
    reads: ['massG'],
    valuesAReading: 1,
    calibrates: false,
    shows: 'massG',
    unit: 'g',
    measure: 'mass',
  },
  board: {
    reads: ['balanceCm'],
    valuesAReading: 1,
    calibrates: false,
    shows: 'balanceCm',
    unit: 'cm',
    measure: 'length',
  },
  machine: {
    reads: ['swingWeight', 'twistWeight', 'leftRightG'],
    valuesAReading: 3,
    calibrates: true,
    shows: undefined,
    unit: 'kg·cm²',
    measure: 'inertia',
  },
};
