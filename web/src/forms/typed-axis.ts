import { computed } from 'vue';
import type { SportData } from '@kevro/core';
import { useKept } from '../ui/kept';

/**
 * About which axis the swing weights of a source are, in a sport that quotes them about more than one: asked once a source, and remembered on this device.
 * @param source what they come from: a machine that is typed off, or whoever a list is from
 */
export function useTypedAxis(sport: () => Pick<SportData, 'sport' | 'quotedAxesCm'>, source: () => string) {
  const all = useKept<Partial<Record<string, number>>>('kevro-axis-of-source', {});
  const key = computed(() => `${sport().sport} ${source().trim().toLowerCase()}`);
  const asks = computed(() => sport().quotedAxesCm !== undefined);
  const axisCm = computed<number | undefined>({
    get: () => (asks.value ? all.value[key.value] : undefined),
    set: (cm) => {
      all.value = { ...all.value, [key.value]: cm };
    },
  });
  return { asks, axisCm };
}
