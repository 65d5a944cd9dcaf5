import { computed, ref, watch } from 'vue';
import type { Part } from '@kevro/core';
import { useCatalogue } from '../../stores/catalogue';
import { useFitting } from '../../stores/fitting';
import { useKept } from '../../ui/kept';

/** The shop's parts that a plan may use: those of the standing plan, else those chosen last on this device, else the first along the hoop and the first in the handle. */
export function useShopParts() {
  const fitting = useFitting();
  const catalogue = useCatalogue();
  const chosen = useKept<string[]>('kevro-parts', []);
  const planned = fitting.plan?.parts.map(({ id }) => id) ?? [];
  if (planned.length > 0) chosen.value = planned;
  const choices = computed<Part[]>(() => catalogue.layable(['rim', 'throat', 'handle', 'slot']));
  const parts = computed<Part[]>(() => {
    const own = choices.value.filter(({ id }) => chosen.value.includes(id));
    const { layable } = catalogue;
    const missing = (paths: Parameters<typeof layable>[0]): Part[] => {
      const able = layable(paths);
      return able.some((part) => own.includes(part)) ? [] : able.slice(0, 1);
    };
    return own.length > 0 ? own : [...missing(['rim']), ...missing(['handle'])];
  });
  const none = computed(() => catalogue.rows !== undefined && choices.value.length === 0);
  /** Why the shop's parts are not known. */
  const failure = ref('');
  async function load(): Promise<void> {
    failure.value = '';
    try {
      await catalogue.load();
    } catch (error) {
      failure.value = error instanceof Error ? error.message : String(error);
    }
  }
  watch(
    () => catalogue.rows,
    (rows) => rows ?? load(),
    { immediate: true },
  );
  const choose = (ids: readonly string[]): void => {
    chosen.value = [...ids];
  };
  return { parts, choices, choose, none, failure, load };
}
