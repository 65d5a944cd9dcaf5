import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { partRule, type Part, type Path } from '@kevro/core';
import type { PartRow } from '@kevro/contract';
import { api } from '../api/client';
import { onChanged } from '../ui/changes';

/** The parts of the shop. */
export const useCatalogue = defineStore('catalogue', () => {
  const rows = shallowRef<PartRow[]>();
  async function load(): Promise<PartRow[]> {
    rows.value = await api('parts');
    return rows.value;
  }
  onChanged(() => rows.value && load().catch(() => undefined), ['part']);
  /** Those that are still used, in the shop's order. */
  const inUse = computed<Part[]>(() =>
    (rows.value ?? []).filter(({ retired }) => !retired).map(({ part }) => part),
  );
  /** Those that can be laid along one of these lines. */
  const layable = (paths: readonly Path[]): Part[] =>
    inUse.value.filter((part) => partRule(part).paths.some((path) => paths.includes(path)));
  return { rows, load, inUse, layable };
});
