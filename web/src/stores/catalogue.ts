import { defineStore } from 'pinia';
import { computed } from 'vue';
import { partRule, type Part, type Path } from '@kevro/core';
import { api } from '../api/client';
import { useAsked } from '../api/queries';

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
