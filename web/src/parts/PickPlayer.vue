<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { Player } from '@kevro/contract';
import { api } from '../api/client';
import { useSearch } from './search';

/** Chooses one player among however many there are. */
const { none, error } = defineProps<{ label: string; none?: string; error?: string; autofocus?: boolean }>();
const id = defineModel<string | null>({ required: true });
const emit = defineEmits<{ picked: [player: Player | undefined] }>();

const chosen = ref<Player>();
const name = computed(() => chosen.value?.name ?? none ?? '');
const { rows, total, text, failure } = useSearch<Player>(
  (query) => api('players', { query }),
  name,
  (player) => player.name,
);
watch(
  id,
  async (now) => {
    if (now === null) chosen.value = undefined;
    else if (chosen.value?.id !== now) {
      chosen.value =
        rows.value.find((p) => p.id === now) ?? (await api('player', { id: now }).catch(() => undefined));
    }
    emit('picked', chosen.value);
  },
  { immediate: true },
);
const items = computed(() => {
  const known = rows.value.some((p) => p.id === id.value);
  const all = chosen.value && !known ? [chosen.value, ...rows.value] : rows.value;
  return [
    ...(none ? [{ value: null, title: none }] : []),
    ...all.map((p) => ({ value: p.id, title: p.name })),
  ];
});
const hint = computed(() =>
  total.value > rows.value.length ? `${total.value} in all: type to find more` : '',
);
</script>

<template>
  <v-autocomplete
    v-model="id"
    v-model:search="text"
    :items="items"
    :label="label"
    :autofocus="autofocus"
    :hint="hint"
    no-filter
    :error-messages="(error ?? failure) ? [error ?? failure] : []"
  />
</template>
