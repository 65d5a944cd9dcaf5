import { computed } from 'vue';
import { checkOf, signOffOf, trimChain, weightsAfter } from '@kevro/core';
import { useFitting } from '../../stores/fitting';

/** The check of the open fitting's frame: what was read, against the aim and the plan. */
export function useChecked() {
  const fitting = useFitting();
  const check = computed(() => {
    const { round, plan } = fitting;
    return round && plan ? checkOf(round, plan.id) : undefined;
  });
  /** The pieces that were put on in this round, by the ids that they have on the frame. */
  const laid = computed(() => {
    const { round, plan } = fitting;
    return round && plan ? weightsAfter([], trimChain(round, plan), round) : [];
  });
  const signed = computed(() => {
    const { round, plan } = fitting;
    return round && plan ? signOffOf(round, plan.id) : undefined;
  });
  return { check, laid, signed };
}
