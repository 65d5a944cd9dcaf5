import { ref, shallowRef } from 'vue';
import { bestFirst, distinctPlans, type Plan, type PlanRequest } from '@kevro/core';
import { fieldError, type FieldError } from '@kevro/contract';
import type { PlanMessage } from '../../workers/plan.worker';
import PlanWorker from '../../workers/plan.worker?worker';

/** Plans already made on this visit, by what was asked for. */
const made = new Map<string, Plan[]>();

/** Works plans out in a worker: shows how far it is, and can be stopped. */
export function usePlans() {
  const plans = shallowRef<Plan[]>([]);
  const working = ref(false);
  const share = ref(0);
  const failure = ref('');
  const errors = ref<FieldError[]>([]);
  let worker: Worker | undefined;

  function stop(): void {
    worker?.terminate();
    worker = undefined;
    working.value = false;
  }

  function make(request: PlanRequest): void {
    stop();
    failure.value = '';
    errors.value = [];
    const asked = JSON.stringify(request);
    const known = made.get(asked);
    plans.value = known ?? [];
    if (known) return;
    working.value = true;
    share.value = 0;
    worker = new PlanWorker();
    worker.onmessage = ({ data }: MessageEvent<PlanMessage>) => {
      if ('plans' in data) {
        plans.value = distinctPlans(request.shape, bestFirst(data.plans));
        share.value = data.done / data.of;
        if (data.done < data.of) return;
        made.set(asked, plans.value);
      } else if ('problems' in data) errors.value = data.problems.map(fieldError);
      else failure.value = data.failure;
      stop();
    };
    worker.onerror = (event) => {
      failure.value = event.message;
      stop();
    };
    worker.postMessage(JSON.parse(asked));
  }

  return { plans, working, share, failure, errors, make, stop };
}
