import { watchDebounced } from '@vueuse/core';
import { onMounted, ref, type Ref } from 'vue';

/** How many rows come at first and with each "more". */
const PART = 100;

/** A list that the server searches, sorts and counts; an answer that comes late does not replace a newer one. */
export function useListing<Q extends object, R>(
  query: Q,
  fetch: (query: Q & { limit: number }) => Promise<{ rows: R[]; total: number }>,
) {
  const rows = ref<R[]>() as Ref<R[] | undefined>;
  const total = ref(0);
  const failure = ref('');
  const limit = ref(PART);
  let newest = 0;
  async function load(): Promise<void> {
    const own = ++newest;
    try {
      const found = await fetch({ ...query, limit: limit.value });
      if (own !== newest) return;
      failure.value = '';
      rows.value = found.rows;
      total.value = found.total;
    } catch (error) {
      if (own === newest) failure.value = error instanceof Error ? error.message : String(error);
    }
  }
  const more = (): void => {
    limit.value = Math.min(500, limit.value + PART);
    void load();
  };
  onMounted(load);
  watchDebounced(
    () => ({ ...query }),
    () => {
      limit.value = PART;
      void load();
    },
    { debounce: 150 },
  );
  return { rows, total, failure, load, more };
}
