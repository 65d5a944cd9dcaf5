import { defineStore } from 'pinia';
import { computed, watch } from 'vue';
import { partRule, type Part, type Path } from '@kevro/core';
import { api } from '../api/client';
import { useAsked } from '../api/queries';
import { useSaved } from './saved';

/** The parts of the shop. */
export const useCatalogue = defineStore('catalogue', () => {
  const { record, failure, load } = useAsked(
    'parts',
    () => '',
    () => api('parts'),
  );
  const rows = computed(() => record.value);
  /** Those that are still used, in the shop's order. */
  const inUse = computed<Part[]>(() =>
    (rows.value ?? []).filter(({ retired }) => !retired).map(({ part }) => part),
  );
  /** Those that can be laid along one of these lines. */
  const layable = (paths: readonly Path[]): Part[] =>
    inUse.value.filter((part) => partRule(part).paths.some((path) => paths.includes(path)));
  return { rows, failure, load, inUse, layable };
});

/** The parts for a page that lists none: why they are not known is said in the foot line. */
export function useCatalogueBeside(): ReturnType<typeof useCatalogue> {
  const catalogue = useCatalogue();
  watch(
    () => catalogue.failure,
    (why) => why && useSaved().failed(new Error(why)),
    { immediate: true },
  );
  return catalogue;
}
