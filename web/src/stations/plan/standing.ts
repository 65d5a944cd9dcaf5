import { computed, watch } from 'vue';
import type { Change, School } from '@kevro/core';
import { useDraft } from '../../forms/draft';
import { useFitting } from '../../stores/fitting';
import { useHistory } from './history';

/** What the plan does as it stands now, the parts it is made of, and the school it started from. */
export interface Standing extends Change {
  school: School | undefined;
  byHand: boolean;
}

/**
 * The standing plan of the open fitting with undo and redo: starts from the stored plan, or from a draft changed by hand. A draft is kept until it is
 * stored, also over a plan that is.
 */
export function useStanding(held: () => boolean = () => false) {
  const fitting = useFitting();
  const stored = fitting.plan;
  const start: Standing = {
    school: stored?.school,
    byHand: stored?.byHand ?? false,
    placements: stored?.placements ?? [],
    swaps: stored?.swaps ?? [],
    removals: stored?.removals ?? [],
    parts: stored?.parts ?? [],
  };
  const draft = useDraft<Standing>(() => start);
  draft.begin(`plan ${fitting.aim?.id ?? ''} ${fitting.measurement?.id ?? ''}`, start);
  const history = useHistory<Standing>(draft.dirty.value ? draft.value.value : start);
  const dirty = computed(() => history.now.value.byHand && draft.dirty.value);

  // Only what was changed by hand is worth keeping: a way of the solver is worked out again.
  watch([history.now, held], ([now, isHeld]) => {
    // While a weight is in the hand nothing is written down.
    if (!isHeld) draft.value.value = now.byHand ? now : draft.start.value;
  });
  // What an earlier draft brings in, or starting afresh, is a step like any other.
  watch(draft.value, (now) => {
    if (held()) return;
    const { byHand } = history.now.value;
    const meant = now.byHand || (byHand && !draft.dirty.value);
    if (meant && JSON.stringify(now) !== JSON.stringify(history.now.value)) history.change(now);
  });
  /** Call when what stands has been stored, by hand or not. */
  function markStored(): void {
    draft.value.value = history.now.value;
    draft.stored();
  }
  return { history, draft, dirty, markStored, startedEmpty: !stored && !history.now.value.byHand };
}
