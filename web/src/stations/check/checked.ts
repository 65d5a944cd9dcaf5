import { computed } from 'vue';
import { trimChain, weightsAfter } from '@kevro/core';
import type { Measurement, PlanRecord, RoundView } from '@kevro/contract';
import { useFitting } from '../../stores/fitting';
import { readingOf } from '../step-reading';

/** The measurement that a plan's build was checked by. */
export const checkOf = (round: RoundView, plan: PlanRecord): Measurement | undefined =>
  readingOf(round, plan, 'final-check');

/** The check of the open fitting's frame: what was read, against the aim and the plan. */
export function useChecked() {
  const fitting = useFitting();
  const check = computed(() => {
    const { round, plan } = fitting;
    return round && plan ? checkOf(round, plan) : undefined;
  });
  /** The pieces that were put on in this round, by the ids that they have on the frame. */
  const laid = computed(() => {
    const { round, plan } = fitting;
    return round && plan ? weightsAfter([], trimChain(round, plan), round) : [];
  });
  /** The sign-off of this very check: measured again, it is to be signed off again. */
  const signed = computed(() =>
    fitting.round?.signOffs.findLast(
      ({ planId, measurementId }) => planId === fitting.plan?.id && measurementId === check.value?.id,
    ),
  );
  return { check, laid, signed };
}
