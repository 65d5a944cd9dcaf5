import { defineStore } from 'pinia';
import { computed } from 'vue';
import type { EditedGuides } from '@kevro/core';
import { api } from '../api/client';
import { useAsked } from '../api/queries';

/** The guides as the shop has them. Where the server does not answer they are as they ship. */
export const useGuides = defineStore('guides', () => {
  const { record, failure, load } = useAsked(
    'guides',
    () => '',
    () => api('guides'),
  );
  const rows = computed(() => record.value);
  const edited = computed<EditedGuides>(() => {
    const found: EditedGuides = {};
    for (const { sport, name, bands, edited: own } of rows.value ?? [])
      if (own) found[sport] = { ...found[sport], [name]: bands };
    return found;
  });
  return { rows, failure, edited, load };
});
