import { watchDebounced } from '@vueuse/core';
import { onMounted, ref, shallowRef, type Ref } from 'vue';

/** How many are offered at once; the rest is found by typing. */
const OFFERED = 50;

/**
 * Records to choose from that the server searches: however many there are, each can be found by typing.
 * @param fetch what the server finds for a search
 * @param nameOf what stands in the field while a record is chosen: it is not searched for
 */
export function useSearch<R>(
  fetch: (query: { search: string; limit: number }) => Promise<{ rows: R[]; total: number }>,
  chosenName: Ref<string>,
) {
  const rows = shallowRef<R[]>([]);
  const total = ref(0);
  const text = ref('');
  const failure = ref('');
  let asked = 0;
  async function load(): Promise<void> {
    const own = ++asked;
    const search = text.value === chosenName.value ? '' : text.value;
    try {
      const found = await fetch({ search, limit: OFFERED });
      if (own !== asked) return;
      rows.value = found.rows;
      total.value = found.total;
      failure.value = '';
    } catch (error) {
      if (own === asked) failure.value = error instanceof Error ? error.message : String(error);
    }
  }
  onMounted(load);
  watchDebounced(text, load, { debounce: 150 });
  return { rows, total, text, failure };
}
