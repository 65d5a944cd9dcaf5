import { until, watchDebounced } from '@vueuse/core';
import { computed, onMounted, ref, shallowRef, type Ref } from 'vue';

/** How many are offered at once; the rest is found by typing. */
const OFFERED = 50;

/**
 * Records to choose from that the server searches: however many there are, each can be found by typing.
 * @param fetch what the server finds for a search
 * @param chosenName what stands in the field while a record is chosen: it is not searched for
 * @param wordsOf what of a record is shown: until the server answers, only those are offered that show what was typed
 */
export function useSearch<R>(
  fetch: (query: { search: string; limit: number }) => Promise<{ rows: R[]; total: number }>,
  chosenName: Ref<string>,
  wordsOf: (row: R) => string,
) {
  const found = shallowRef<R[]>([]);
  const total = ref(0);
  const text = ref('');
  const failure = ref('');
  let asked = 0;
  /** What the rows that were found were searched by. */
  const foundBy = ref('');
  const wanted = (): string => (text.value === chosenName.value ? '' : text.value);
  // Who types and presses Enter at once must not choose from a list of before.
  const rows = computed(() => {
    const words = wanted().toLowerCase().split(/\s+/).filter(Boolean);
    return foundBy.value === wanted()
      ? found.value
      : found.value.filter((row) => words.every((word) => wordsOf(row).toLowerCase().includes(word)));
  });
  async function load(): Promise<void> {
    const own = ++asked;
    const search = wanted();
    try {
      const answer = await fetch({ search, limit: OFFERED });
      if (own !== asked) return;
      found.value = answer.rows;
      foundBy.value = search;
      total.value = answer.total;
      failure.value = '';
    } catch (error) {
      if (own === asked) failure.value = error instanceof Error ? error.message : String(error);
    }
  }
  onMounted(load);
  watchDebounced(text, load, { debounce: 150 });
  /**
   * Enter in the field, with something typed: waits for the answer to it and gives the one record that it fits.
   * @returns undefined where nothing is typed, or where it fits none or several
   */
  async function onlyMatch(event: KeyboardEvent): Promise<R | undefined> {
    const typed = wanted();
    if (typed.trim() === '' || event.ctrlKey || event.metaKey) return undefined;
    // Neither the list nor the form takes this Enter.
    event.preventDefault();
    event.stopImmediatePropagation();
    await until(() => foundBy.value === wanted() || failure.value !== '').toBe(true);
    return wanted() === typed && found.value.length === 1 ? found.value[0] : undefined;
  }
  return { rows, total, text, failure, onlyMatch };
}
