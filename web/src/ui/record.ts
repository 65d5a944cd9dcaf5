import { ref, shallowRef, watch } from 'vue';
import { onChanged } from './changes';

/**
 * One record of the server, asked for by its key: the one way to ask for one. Of two answers on their way the one that was asked for last counts, and nothing of
 * another key is shown, not even until the answer comes.
 * @param key what is asked for; nothing is while it is undefined
 * @param ask gets it
 * @example const { record: page, failure, load } = useRecord(() => props.id, (id) => api('playerPage', { id }));
 */
export function useRecord<T>(key: () => string | null | undefined, ask: (key: string) => Promise<T>) {
  const record = shallowRef<T>();
  const failure = ref('');
  let asked = 0;

  /** Asks anew: what is shown stays until the answer comes. */
  async function load(): Promise<void> {
    const own = ++asked;
    const now = key();
    if (now === null || now === undefined) return;
    try {
      const found = await ask(now);
      if (own !== asked) return;
      record.value = found;
      failure.value = '';
    } catch (error) {
      if (own === asked) failure.value = error instanceof Error ? error.message : String(error);
    }
  }
  /** Shows what a call that stored something answered: it is newer than whatever is on its way. */
  function show(found: T): void {
    asked++;
    record.value = found;
    failure.value = '';
  }
  watch(
    key,
    () => {
      record.value = undefined;
      failure.value = '';
      void load();
    },
    { immediate: true },
  );
  onChanged(load);
  return { record, failure, load, show };
}
