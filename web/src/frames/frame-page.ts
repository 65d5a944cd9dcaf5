import { ref, watch } from 'vue';
import type { FramePage } from '@kevro/contract';
import { api } from '../api/client';
import { useSaved } from '../stores/saved';

/** Everything of one frame, loaded when its page opens and again after something was stored. */
export function useFramePage(id: () => string) {
  const page = ref<FramePage>();
  const failure = ref('');
  async function load(): Promise<void> {
    failure.value = '';
    try {
      page.value = await api('frame', { id: id() });
    } catch (error) {
      failure.value = error instanceof Error ? error.message : String(error);
    }
  }
  watch(id, load, { immediate: true });
  async function changed(): Promise<void> {
    useSaved().stored();
    await load();
  }
  return { page, failure, load, changed };
}
