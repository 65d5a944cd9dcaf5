import { SPECS, capital } from '@kevro/core';
import type { BenchTool, Instrument, InstrumentKind } from '@kevro/contract';

export const KIND_WORDS: Record<InstrumentKind, string> = {
  scale: 'scale',
  board: 'balance board',
  machine: `${SPECS.swingWeight.name} machine`,
};

/** What a shop measures with, to be chosen. */
export const BENCH_TOOL_NAMES: Record<BenchTool, string> = {
  scale: capital(KIND_WORDS.scale),
  board: capital(KIND_WORDS.board),
  machine: capital(KIND_WORDS.machine),
  pendulum: 'Pendulum and stopwatch',
};

const STATE_WORDS: Record<Instrument['state'], string> = {
  ready: 'ready',
  warming: 'warming up',
  lost: 'not connected',
};

/** How an instrument stands: «ready», «warming up, 40 s», «plugged in at the back bench». */
export const instrumentStands = ({ bench, state, warmInSeconds }: Instrument): string => {
  if (bench !== null) return `plugged in at ${bench}`;
  return state === 'warming' ? `${STATE_WORDS.warming}, ${warmInSeconds} s` : STATE_WORDS[state];
};

/** How a calibration stands, given how long ago it was. */
export const CALIBRATION_WORDS: Record<Instrument['calibrationState'], (age: string) => string> = {
  fresh: (age) => `calibrated ${age} ago`,
  stale: (age) => `calibration is stale: ${age} old`,
  never: () => 'never calibrated: less sure',
  refused: () => 'refused at its last calibration',
  'not-needed': () => 'needs no calibration',
};

const HOUR_MS = 3_600_000;
export function ageWords(iso: string, now = Date.now()): string {
  const hours = (now - Date.parse(iso)) / HOUR_MS;
  if (hours < 1) return `${Math.max(0, Math.round(hours * 60))} min`;
  return hours < 48 ? `${Math.round(hours)} h` : `${Math.round(hours / 24)} days`;
}

export const REFUSAL_WORDS = {
  'rod-off': 'a rod is still off by more than 1 after the correction.',
  'slope-off': 'its scale is off by more than 3 %.',
} as const;
