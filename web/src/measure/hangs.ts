import type { Measure } from '@kevro/core';
import { useKept } from '../ui/kept';
import type { Typed } from '../ui/typed';

/** A number that says how a frame hangs while it swings. */
export interface HangField {
  name: string;
  label: string;
  measure: Measure;
  /** May be left empty. */
  open?: boolean;
}
/** What is asked of either way to hang it, however it is timed. */
export const PENDULUM_HANGS: readonly HangField[] = [
  { name: 'pivotCm', label: 'Hangs at, from the butt', measure: 'length' },
];
export const THREADS_HANGS: readonly HangField[] = [
  { name: 'threadCm', label: 'Length of the threads', measure: 'length' },
  { name: 'separationCm', label: 'Threads apart', measure: 'length' },
];

/** How it hangs is chosen last on this device: by film as by stopwatch. */
export const useHangs = () =>
  useKept<Record<string, Typed>>(
    'kevro-hangs',
    { pivotCm: 1, amplitudeDeg: 8, endAmplitudeDeg: null, threadCm: 120, separationCm: 15, swings: 20 },
    { mergeDefaults: true },
  );
