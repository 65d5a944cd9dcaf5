import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import type { LibraryPart, LibraryWorker } from '../workers/library.worker';
import LibraryWorkerFile from '../workers/library.worker?worker';
import { plainly } from '../ui/same';
import { useWorker } from '../workers/use-worker';
import { useFitting } from './fitting';
import { useShop } from './shop';

export interface Reached {
  reachable: boolean;
  leftSteps: number;
  addedG: number;
}

/** The whole library of the sport against the frame in hand: worked out beside the page when it is asked for, and kept until another measurement stands. */
export const useWholeLibrary = defineStore('whole-library', () => {
  const fitting = useFitting();
  const shop = useShop();
  const parts = shallowRef<readonly LibraryPart[]>([]);
  const total = ref(0);
  const of = ref<string>();
  const { working, failure, ask, stop } = useWorker<LibraryWorker>(() => new LibraryWorkerFile());
  /** Where each setup stands: which part, and which row of it. */
  const places = new Map<string, readonly [LibraryPart, number]>();

  const done = computed(() => parts.value.reduce((sum, { ids }) => sum + ids.length, 0));
  const ready = computed(() => !working.value && done.value > 0 && of.value === fitting.measurement?.id);

  /** Nothing that was worked out holds any more: the library or the frame is another. */
  function forget(): void {
    stop();
    parts.value = [];
    places.clear();
    total.value = 0;
    of.value = undefined;
  }
  function start(): void {
    const { measurement, record } = fitting;
    if (!measurement || !record) return;
    if (of.value === measurement.id && (working.value || done.value > 0)) return;
    forget();
    of.value = measurement.id;
    const add = (part: LibraryPart, all: number): void => {
      part.ids.forEach((id, i) => places.set(id, [part, i]));
      parts.value = [...parts.value, part];
      total.value = all;
    };
    const asked = plainly({
      measurementId: measurement.id,
      shape: record.shape,
      specs: measurement.specs,
      own: shop.shop?.sports[record.shape.sport] ?? {},
    });
    void ask(
      (worker, heard) => worker.read(asked, heard(add)),
      () => undefined,
    );
  }
  // What came of it in part holds for nothing.
  watch(failure, (now) => {
    if (now) forget();
  });

  function reached(id: string): Reached | undefined {
    // Asked for so that what shows it follows the parts as they come.
    if (parts.value.length === 0 || of.value !== fitting.measurement?.id) return undefined;
    const place = places.get(id);
    if (!place) return undefined;
    const [part, i] = place;
    return {
      reachable: part.reachable[i] === 1,
      leftSteps: part.leftSteps[i] ?? Number.NaN,
      addedG: part.addedG[i] ?? Number.NaN,
    };
  }
  /** The ids of what passes, nearest first; what cannot be compared with this frame is left out. */
  function list(passes: (part: LibraryPart, i: number) => boolean): string[] {
    const found: { id: string; steps: number }[] = [];
    for (const part of parts.value)
      part.ids.forEach((id, i) => {
        const steps = part.distanceSteps[i] ?? Number.NaN;
        if (!Number.isNaN(steps) && passes(part, i)) found.push({ id, steps });
      });
    return found.toSorted((a, b) => a.steps - b.steps).map(({ id }) => id);
  }
  /** How many this frame can get to. */
  const reachableCount = computed(() =>
    ready.value ? list((part, i) => part.reachable[i] === 1).length : 0,
  );

  return { parts, total, done, working, ready, failure, start, stop, forget, reached, list, reachableCount };
});
