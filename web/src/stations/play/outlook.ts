import { computed, watch } from 'vue';
import { createSharedComposable } from '@vueuse/core';
import { api } from '../../api/client';
import { useRecord } from '../../ui/record';
import { useFitting } from '../../stores/fitting';

/** What comes next in the programme of the frame: asked for while somebody looks at it, and again whenever the fitting has changed. */
export const useOutlook = createSharedComposable(() => {
  const fitting = useFitting();
  const { record, failure, load } = useRecord(
    () => fitting.programme?.id,
    (id) => api('programmeOutlook', { id }),
  );
  watch(() => fitting.view, load);
  return {
    next: computed(() => record.value?.next),
    trouble: computed(() => record.value?.trouble),
    failure,
    load,
  };
});
