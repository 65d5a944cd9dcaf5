import { onMounted, ref, type Ref } from 'vue';
import { useAgain } from './again';

/** A list that is loaded when the page opens, with its three other states: loading, failed, empty. */
export function useList<T>(fetch: () => Promise<T[]>) {
  const rows = ref<T[]>() as Ref<T[] | undefined>;
  const failure = ref('');
  async function load(): Promise<void> {
    try {
      rows.value = await fetch();
      failure.value = '';
    } catch (error) {
      failure.value = error instanceof Error ? error.message : String(error);
    }
  }
  onMounted(load);
  useAgain(failure, load);
  return { rows, failure, load };
}
