import { useManualRefHistory } from '@vueuse/core';
import { shallowRef } from 'vue';

/** States with undo and redo. Changes with the same `mark` in a row (a drag, a held key) become one step. */
export function useHistory<T>(first: T) {
  const now = shallowRef<T>(first);
  const { commit, clear, canUndo, canRedo, ...history } = useManualRefHistory(now);
  let lastMark: string | undefined;
  /** Ends a run of changes, so that the next one is a step of its own. */
  const rest = (): void => {
    lastMark = undefined;
  };
  function change(next: T, mark?: string): void {
    if (mark !== undefined && mark === lastMark) history.undo();
    lastMark = mark;
    now.value = next;
    commit();
  }
  function undo(): void {
    history.undo();
    rest();
  }
  function redo(): void {
    history.redo();
    rest();
  }
  function restart(state: T): void {
    now.value = state;
    commit();
    clear();
    rest();
  }
  return { now, change, rest, undo, redo, restart, canUndo, canRedo };
}
