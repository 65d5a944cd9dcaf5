import { computed, ref, watch } from 'vue';
import type { Change, School } from '@kevro/core';
import { useFitting } from '../../stores/fitting';
import { useHistory } from './history';
import { useKept } from '../../parts/kept';

/** What the plan does as it stands now, the parts it is made of, and the school it started from. */
export interface Standing extends Change {
  school: School | undefined;
  byHand: boolean;
}

/**
 * The standing plan of the open fitting with undo and redo: starts from the stored plan, or from a draft changed by hand. A draft is kept until it is
 * stored.
 */
export function useStanding() {
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
  const history = useHistory<Standing>(start);
  const asStored = ref(JSON.stringify(start));
  const dirty = computed(
    () => history.now.value.byHand && JSON.stringify(history.now.value) !== asStored.value,
  );

  const key = `kevro-plan-2-${fitting.aim?.id ?? ''}-${fitting.measurement?.id ?? ''}`;
  const draft = useKept<Standing | null>(key, null, {
    writeDefaults: false,
    serializer: {
      read: (text) => JSON.parse(text) as Standing | null,
      write: (value) => JSON.stringify(value),
    },
  });
  if (!stored && draft.value?.parts) history.restart(draft.value);
  watch(history.now, (now) => {
    draft.value = now.byHand ? now : null;
  });
  /** Call when what stands has been stored. */
  function markStored(): void {
    asStored.value = JSON.stringify(history.now.value);
    draft.value = null;
  }
  return { history, dirty, markStored, startedEmpty: !stored && !history.now.value.byHand };
}
