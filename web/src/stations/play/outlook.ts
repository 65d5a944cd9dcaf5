import { computed, watch } from 'vue';
import { createSharedComposable } from '@vueuse/core';
import { useRecord } from '../../api/queries';
import { useFitting } from '../../stores/fitting';

/**
 * What comes next on the frame: in its programme, or without one as the answer to the last session. Asked for while somebody looks at it, and again whenever the
 * fitting has changed.
 */
export const useOutlook = createSharedComposable(() => {
  const fitting = useFitting();
  const { record, failure, load } = useRecord('programmeOutlook', () => fitting.programme?.id);
  const {
    record: answer,
    failure: answerFailure,
    load: loadAnswer,
  } = useRecord('sessionAnswer', () =>
    fitting.programme || fitting.view?.closed ? undefined : fitting.round?.id,
  );
  watch(
    () => fitting.view,
    () => Promise.all([load(), loadAnswer()]),
  );
  return {
    next: computed(() => record.value?.next),
    /** What follows from the last session where no programme goes on. */
    answer,
    answerFailure,
    loadAnswer,
    trouble: computed(() => record.value?.trouble),
    failure,
    load,
  };
});
