import { useIntervalFn } from '@vueuse/core';
import type { Ref } from 'vue';
import { onChanged } from './changes';

/** How often a list that could not be read is asked for again, ms. */
const AGAIN_MS = 3000;

/** Reads a list anew when something was stored elsewhere; and again while there is a failure: a server that was away is back without anybody pressing anything. */
export function useAgain(failure: Ref<string>, load: () => Promise<void>): void {
  onChanged(load);
  useIntervalFn(() => {
    if (failure.value) void load();
  }, AGAIN_MS);
}
