import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import type { OwnNumbers } from '@kevro/core';
import type { LibraryMessage, LibraryPart } from '../workers/library.worker';
import LibraryWorker from '../workers/library.worker?worker';
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
  const working = ref(false);
  const failure = ref('');
  const of = ref<string>();
  let worker: Worker | undefined;
  /** Where each setup stands: which part, and which row of it. */
  const places = new Map<string, readonly [LibraryPart, number]>();

  const done = computed(() => parts.value.reduce((sum, { ids }) => sum + ids.length, 0));
  const ready = computed(() => !working.value && done.value > 0 && of.value === fitting.measurement?.id);

  function stop(): void {
    worker?.terminate();
    worker = undefined;
    working.value = false;
  }
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
    failure.value = '';
    of.value = measurement.id;
    working.value = true;
    worker = new LibraryWorker();
    worker.onmessage = ({ data }: MessageEvent<LibraryMessage>) => {
      if ('failure' in data) {
        failure.value = data.failure;
        forget();
        return;
      }
      const { part } = data;
      part.ids.forEach((id, i) => places.set(id, [part, i]));
      parts.value = [...parts.value, part];
      total.value = data.total;
      if (data.last) stop();
    };
    worker.onerror = (event) => {
      failure.value = event.message;
      forget();
    };
    worker.postMessage({
      measurementId: measurement.id,
      shape: JSON.parse(JSON.stringify(record.shape)) as typeof record.shape,
      specs: { ...measurement.specs },
      own: JSON.parse(JSON.stringify(shop.shop?.sports[record.shape.sport] ?? {})) as OwnNumbers,
    });
  }

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
