<script setup lang="ts">
import { computed, ref } from 'vue';
import type { KnownModel } from '@kevro/contract';
import { api } from '../api/client';
import { useSearch } from '../api/queries';
import { SPORT_NAMES } from '../words';

/** A make that the shop has had: chosen, it fills in what is known of it. */
const emit = defineEmits<{ picked: [model: KnownModel] }>();
const none = ref('');
const nameOf = (m: KnownModel): string => `${m.maker} ${m.model}`;
const { rows, text, failure } = useSearch<KnownModel>(
  'models',
  (query) => api('models', { query }),
  none,
  nameOf,
);
const items = computed(() =>
  rows.value.map((m, i) => ({
    value: i,
    title: nameOf(m),
    subtitle: `${SPORT_NAMES[m.sport]}, ${m.frames === 1 ? 'one frame' : `${m.frames} frames`} of it`,
  })),
);
function pick(at: number | null): void {
  const model = at === null ? undefined : rows.value[at];
  if (model) emit('picked', model);
}
</script>

<template>
  <v-autocomplete
    v-model:search="text"
    :items="items"
    label="Copy from a known model"
    item-props
    no-filter
    clearable
    :error-messages="failure ? [failure] : []"
    @update:model-value="pick"
  />
</template>
