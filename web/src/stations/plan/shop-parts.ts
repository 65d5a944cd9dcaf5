import { computed, ref } from 'vue';
import { partRule, type Part, type Path } from '@kevro/core';
import { api } from '../../api/client';
import { useCatalogue } from '../../stores/catalogue';
import { useFitting } from '../../stores/fitting';
import { useSaved } from '../../stores/saved';

/** The shop's parts that plans of the fitting may use: those that were said for it, else those of the standing plan, else the first along the hoop and the first in the handle. */
export function useShopParts() {
  const fitting = useFitting();
  const catalogue = useCatalogue();
  const saved = useSaved();
  /** What is chosen here, before it is stored. */
  const choosing = ref<readonly string[]>();
  const chosen = computed<readonly string[]>(() => {
    const said = choosing.value ?? fitting.view?.parts ?? [];
    return said.length > 0 ? said : (fitting.plan?.parts.map(({ id }) => id) ?? []);
  });
  const choices = computed<Part[]>(() => catalogue.layable(['rim', 'throat', 'handle', 'slot']));
  const parts = computed<Part[]>(() => {
    const own = choices.value.filter(({ id }) => chosen.value.includes(id));
    const { layable } = catalogue;
    const missing = (paths: Parameters<typeof layable>[0]): Part[] => {
      // Tape goes on the handle too; what is made for it comes first.
      const all = layable(paths);
      const made = all.filter((part) => !paths.includes('handle') || !partRule(part).onHandle);
      const able = made.length > 0 ? made : all;
      return able.some((part) => own.includes(part)) ? [] : able.slice(0, 1);
    };
    return own.length > 0 ? own : [...missing(['rim']), ...missing(['handle'])];
  });
  const none = computed(() => catalogue.rows !== undefined && choices.value.length === 0);
  /** Why the shop's parts are not known. */
  const failure = computed(() => (catalogue.rows ? '' : catalogue.failure));
  /** One after the other, so that the last choice is what is stored. */
  let storing: Promise<void> = Promise.resolve();
  const choose = (ids: readonly string[]): void => {
    const { view } = fitting;
    if (!view) return;
    const own = [...ids];
    choosing.value = own;
    storing = storing.then(async () => {
      try {
        await fitting.stored(await api('setParts', { id: view.id, body: own }));
      } catch (error) {
        saved.failed(error);
      }
      if (choosing.value === own) choosing.value = undefined;
    });
  };
  /** Where nothing of what is chosen goes on the hoop, or nothing in the handle: a plan may miss for that alone. */
  const only = computed<'hoop' | 'handle' | undefined>(() => {
    const takes = (part: Part, path: Path): boolean =>
      partRule(part).paths.includes(path) && !(path === 'handle' && partRule(part).onHandle);
    const goes = (path: Path): boolean => parts.value.some((part) => takes(part, path));
    const able = (path: Path): boolean => choices.value.some((part) => takes(part, path));
    if (parts.value.length === 0) return undefined;
    if (!goes('handle') && able('handle')) return 'hoop';
    return !goes('rim') && able('rim') ? 'handle' : undefined;
  });
  return { parts, choices, choose, only, none, failure, load: catalogue.load };
}
