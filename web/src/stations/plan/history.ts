import { computed, shallowRef } from 'vue';

/** States with undo and redo. Changes with the same `mark` in a row (a drag, a held key) become one step. */
export function useHistory<T>(first: T) {
  const past = shallowRef<T[]>([]);
  const future = shallowRef<T[]>([]);
  const now = shallowRef<T>(first);
  let lastMark: string | undefined;

  function change(next: T, mark?: string): void {
    if (mark === undefined || mark !== lastMark) past.value = [...past.value, now.value];
    lastMark = mark;
    future.value = [];
    now.value = next;
  }
  /** Ends a run of changes, so that the next one is a step of its own. */
  const rest = (): void => {
    lastMark = undefined;
  };
  function undo(): void {
    const back = past.value.at(-1);
    if (back === undefined) return;
    past.value = past.value.slice(0, -1);
    future.value = [now.value, ...future.value];
    now.value = back;
    rest();
  }
  function redo(): void {
    const [next, ...later] = future.value;
    if (next === undefined) return;
    past.value = [...past.value, now.value];
    future.value = later;
    now.value = next;
    rest();
  }
  function restart(state: T): void {
    past.value = [];
    future.value = [];
    now.value = state;
    rest();
  }
  const canUndo = computed(() => past.value.length > 0);
  const canRedo = computed(() => future.value.length > 0);
  return { now, change, rest, undo, redo, restart, canUndo, canRedo };
}
