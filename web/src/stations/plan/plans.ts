import { ref, shallowRef } from 'vue';
import { bestFirst, distinctPlans, type Plan, type PlanRequest } from '@kevro/core';
import { fieldError, type FieldError } from '@kevro/contract';
import type { PlanWorker } from '../../workers/plan.worker';
import PlanWorkerFile from '../../workers/plan.worker?worker';
import { plainly } from '../../ui/same';
import { useWorker } from '../../workers/use-worker';

/** Plans already made on this visit, by what was asked for. */
const made = new Map<string, Plan[]>();

/** Works plans out in a worker: shows how far it is, and can be stopped. */
export function usePlans() {
  const plans = shallowRef<Plan[]>([]);
  const share = ref(0);
  const errors = ref<FieldError[]>([]);
  const { working, failure, ask, stop } = useWorker<PlanWorker>(() => new PlanWorkerFile());

  function make(request: PlanRequest): void {
    stop();
    failure.value = '';
    errors.value = [];
    const asked = JSON.stringify(request);
    const known = made.get(asked);
    plans.value = known ?? [];
    if (known) return;
    share.value = 0;
    const show = (found: Plan[], of: number): void => {
      plans.value = distinctPlans(request.shape, bestFirst(found));
      share.value = of;
    };
    void ask(
      (worker, heard) => worker.make(plainly(request), heard(show)),
      (answer) => {
        errors.value = answer.problems.map(fieldError);
        if (!answer.found) return;
        show(answer.found, 1);
        made.set(asked, plans.value);
      },
    );
  }

  return { plans, working, share, failure, errors, make, stop };
}
