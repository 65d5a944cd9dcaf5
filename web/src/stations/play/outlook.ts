import { computed, ref, watch } from 'vue';
import { createSharedComposable } from '@vueuse/core';
import type { ProgrammeOutlook } from '@kevro/contract';
import { api } from '../../api/client';
import { useFitting } from '../../stores/fitting';

/** What comes next in the programme of the frame: asked for while somebody looks at it, and again whenever the fitting has changed. */
export const useOutlook = createSharedComposable(() => {
  const fitting = useFitting();
  const found = ref<{ of: string; outlook: ProgrammeOutlook }>();
  const failure = ref('');
  let asked = 0;
  async function load(): Promise<void> {
    const own = ++asked;
    const of = fitting.programme?.id;
    failure.value = '';
    if (of === undefined) {
      found.value = undefined;
      return;
    }
    try {
      const outlook = await api('programmeOutlook', { id: of });
      if (own === asked) found.value = { of, outlook };
    } catch (error) {
      if (own === asked) failure.value = error instanceof Error ? error.message : String(error);
    }
  }
  // What another programme said is not shown for this one, not even for a moment.
  const outlook = computed(() =>
    found.value?.of === fitting.programme?.id ? found.value?.outlook : undefined,
  );
  watch([() => fitting.view, () => fitting.programme?.id], () => void load(), { immediate: true });
  return {
    next: computed(() => outlook.value?.next),
    trouble: computed(() => outlook.value?.trouble),
    failure,
    load,
  };
});
