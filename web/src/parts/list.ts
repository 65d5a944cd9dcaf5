import { onMounted, ref, type Ref } from 'vue';

/** A list that is loaded when the page opens, with its three other states: loading, failed, empty. */
export function useList<T>(fetch: () => Promise<T[]>) {
  const rows = ref<T[]>() as Ref<T[] | undefined>;
  const failure = ref('');
  async function load(): Promise<void> {
    failure.value = '';
    try {
      rows.value = await fetch();
    } catch (error) {
      failure.value = error instanceof Error ? error.message : String(error);
    }
  }
  onMounted(load);
  return { rows, failure, load };
}
