import { useLocalStorage } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import type { Materials, Placement, School } from '@kevro/core';
import { useFitting } from '../../stores/fitting';
import { useHistory } from './history';

/** What the plan puts on as it stands now: the school it started from, the placements, and what they are made of. */
export interface Standing {
  school: School | undefined;
  byHand: boolean;
  placements: Placement[];
  /** The materials that the placements were laid out in; weights and lengths belong to them. */
  materials: Materials | undefined;
}

/**
 * The standing plan of the open fitting with undo and redo: starts from the stored plan, or from a draft changed by hand. A draft is kept until it is
 * stored.
 */
export function useStanding() {
  const fitting = useFitting();
  const stored = fitting.view?.plan ?? undefined;
  const start: Standing = {
    school: stored?.school,
    byHand: stored?.byHand ?? false,
    placements: stored?.placements ?? [],
    materials: stored?.materials,
  };
  const history = useHistory<Standing>(start);
  const asStored = ref(JSON.stringify(start));
  const dirty = computed(
    () => history.now.value.byHand && JSON.stringify(history.now.value) !== asStored.value,
  );

  const key = `kevro-plan-${fitting.view?.aim?.id ?? ''}-${fitting.measurement?.id ?? ''}`;
  const draft = useLocalStorage<Standing | null>(key, null, {
    writeDefaults: false,
    serializer: {
      read: (text) => JSON.parse(text) as Standing | null,
      write: (value) => JSON.stringify(value),
    },
  });
  if (!stored && draft.value?.materials) history.restart(draft.value);
  watch(history.now, (now) => {
    draft.value = now.byHand ? now : null;
  });
  /** Call when what stands has been stored. */
  function markStored(): void {
    asStored.value = JSON.stringify(history.now.value);
    draft.value = null;
  }
  return {
    history,
    dirty,
    markStored,
    startedEmpty: start.materials === undefined && !history.now.value.byHand,
  };
}
