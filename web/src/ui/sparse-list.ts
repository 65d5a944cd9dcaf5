import { useIntervalFn, watchDebounced } from '@vueuse/core';
import { onMounted, ref, shallowReactive, shallowRef } from 'vue';
import type { InAll } from '@kevro/contract';
import { onChanged } from './changes';

/** How many rows are read at once. */
const PART = 100;
/** How often a list that could not be read is asked for again, ms. */
const AGAIN_MS = 3000;

/**
 * A list of any length of which only those parts are read that somebody looks at: `row(i)` is undefined until its part is there. An answer to an older query is
 * dropped.
 */
export function useSparseList<Q extends object, R>(
  query: () => Q,
  fetch: (query: Q & { limit: number; offset: number }) => Promise<{ rows: R[] } & InAll>,
) {
  const parts = shallowReactive(new Map<number, readonly R[]>());
  const asked = new Set<number>();
  const inAll = shallowRef<InAll>();
  const failure = ref('');
  let edition = 0;

  async function read(part: number): Promise<void> {
    if (asked.has(part)) return;
    asked.add(part);
    const own = edition;
    try {
      const found = await fetch({ ...query(), limit: PART, offset: part * PART });
      if (own !== edition) return;
      parts.set(part, found.rows);
      inAll.value = found;
      failure.value = '';
    } catch (error) {
      if (own !== edition) return;
      asked.delete(part);
      failure.value = error instanceof Error ? error.message : String(error);
    }
  }
  /** Reads anew what is looked at; what stands there is shown until the answer comes. */
  async function load(): Promise<void> {
    edition++;
    asked.clear();
    const stood = [...parts.keys()];
    await read(0);
    for (const part of stood) if (part !== 0) parts.delete(part);
  }
  const row = (i: number): R | undefined => parts.get(Math.floor(i / PART))?.[i % PART];
  /** Says that rows are looked at. */
  function look(from: number, to: number): void {
    for (let part = Math.floor(from / PART); part <= Math.floor(to / PART); part++) void read(part);
  }
  onMounted(load);
  onChanged(load);
  useIntervalFn(() => failure.value && load(), AGAIN_MS);
  watchDebounced(query, load, { debounce: 150, deep: true });
  return { row, look, inAll, failure, load };
}
