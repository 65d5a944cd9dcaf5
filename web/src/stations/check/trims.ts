import { computed, onBeforeUnmount, shallowRef, watch, type Ref } from 'vue';
import type { Trim, TrimRequest } from '@kevro/core';
import { fieldError } from '@kevro/contract';
import { plainly, same } from '../../ui/same';
import type { PlanWorker } from '../../workers/plan.worker';
import PlanWorkerFile from '../../workers/plan.worker?worker';
import { useWorker } from '../../workers/use-worker';

/** Works out the smallest corrections of a build in a worker. */
export function useTrims() {
  /** Undefined until they are worked out. */
  const trims = shallowRef<Trim[]>();
  const { failure, ask, stop } = useWorker<PlanWorker>(() => new PlanWorkerFile());

  function work(request: TrimRequest | undefined): void {
    stop();
    trims.value = undefined;
    failure.value = '';
    if (!request) return;
    void ask(
      (worker) => worker.trim(plainly(request)),
      (answer) => {
        trims.value = answer.found;
        failure.value = answer.problems.map((p) => fieldError(p).message).join(' ');
      },
    );
  }
  onBeforeUnmount(stop);
  return { trims, failure, work };
}

/** Left as it is, outside the aim. */
export const LEAVE = 'leave';

/**
 * Which way is taken: a trim by its number, the first while none was chosen, or left as it is. What was chosen stays for its check, however often the trims are
 * worked out anew: parts of the shop may come after them.
 */
export function useChosenTrim(trims: Ref<Trim[] | undefined>, checkId: () => string | undefined) {
  const picked = shallowRef<Trim['changes'] | typeof LEAVE>();
  watch(checkId, () => (picked.value = undefined));
  const chosen = computed<number | typeof LEAVE | undefined>({
    get: () => {
      if (picked.value === LEAVE) return LEAVE;
      if (!trims.value || trims.value.length === 0) return undefined;
      return Math.max(
        0,
        trims.value.findIndex(({ changes }) => same(changes, picked.value)),
      );
    },
    set: (to) => {
      picked.value = typeof to === 'number' ? trims.value?.[to]?.changes : to;
    },
  });
  const trim = computed(() => (typeof chosen.value === 'number' ? trims.value?.[chosen.value] : undefined));
  return { chosen, trim };
}
