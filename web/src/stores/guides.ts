import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import type { EditedGuides } from '@kevro/core';
import type { GuideRow } from '@kevro/contract';
import { api } from '../api/client';

/** The guides as the shop has them. Where the server does not answer they are as they ship. */
export const useGuides = defineStore('guides', () => {
  const rows = shallowRef<GuideRow[]>();
  const failure = ref('');
  async function load(): Promise<void> {
    try {
      rows.value = await api('guides');
      failure.value = '';
    } catch (error) {
      failure.value = error instanceof Error ? error.message : String(error);
    }
  }
  const edited = computed<EditedGuides>(() => {
    const found: EditedGuides = {};
    for (const { sport, name, bands, edited: own } of rows.value ?? [])
      if (own) found[sport] = { ...found[sport], [name]: bands };
    return found;
  });
  void load();
  return { rows, failure, edited, load };
});
