import { watchDebounced } from '@vueuse/core';
import { onMounted, ref, shallowRef } from 'vue';
import { useAgain } from './again';

/** How many rows come at first and with each "more". */
const PART = 100;

/** A list that the server searches, sorts and counts, read part by part; an answer that comes late does not replace a newer one. */
export function useListing<Q extends object, R>(
  query: Q,
  fetch: (query: Q & { limit: number; offset: number }) => Promise<{ rows: R[]; total: number }>,
) {
  const rows = shallowRef<R[]>();
  const total = ref(0);
  const failure = ref('');
  let newest = 0;
  async function read(limit: number, offset: number): Promise<void> {
    const own = ++newest;
    try {
      const found = await fetch({ ...query, limit, offset });
      if (own !== newest) return;
      failure.value = '';
      rows.value = offset > 0 ? [...(rows.value ?? []), ...found.rows] : found.rows;
      total.value = found.total;
    } catch (error) {
      if (own === newest) failure.value = error instanceof Error ? error.message : String(error);
    }
  }
  /** Reads again as many as are shown, after something was stored. */
  const load = (): Promise<void> => read(Math.min(500, Math.max(PART, rows.value?.length ?? 0)), 0);
  const more = (): Promise<void> => read(PART, rows.value?.length ?? 0);
  onMounted(load);
  useAgain(failure, load);
  watchDebounced(
    () => ({ ...query }),
    () => read(PART, 0),
    { debounce: 150 },
  );
  return { rows, total, failure, load, more };
}
