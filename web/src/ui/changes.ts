import { useDebounceFn } from '@vueuse/core';
import { onScopeDispose } from 'vue';

/** Something that was stored, here or elsewhere: what kind of record, and which. */
export interface Changed {
  kind: string;
  id: string | null;
}
/** Undefined where it is not known what changed: the page was not told for a while. */
type Listener = (change: Changed | undefined) => void;
const listeners = new Set<Listener>();
export const tellChanged: Listener = (change) => {
  for (const listener of listeners) listener(change);
};

/** What comes together is read anew once, ms. */
const TOGETHER_MS = 200;
/** Reads anew what was changed elsewhere, as long as the component or store stands. @param of kinds of records that it is about; all if left out */
export function onChanged(load: (change: Changed | undefined) => unknown, of?: readonly string[]): void {
  const soon = useDebounceFn((change: Changed | undefined) => load(change), TOGETHER_MS, {
    maxWait: 5 * TOGETHER_MS,
  });
  const listener: Listener = (change) => {
    if (!change || !of || of.includes(change.kind)) void soon(change);
  };
  listeners.add(listener);
  onScopeDispose(() => listeners.delete(listener));
}
