<script setup lang="ts">
import { computed, nextTick, ref, shallowRef, watch } from 'vue';
import type { Player } from '@kevro/contract';
import { api } from '../api/client';
import { howMany } from '../words/counted';
import { useRecord } from '../api/queries';
import { useSearch } from '../api/queries';

/** Chooses one player among however many there are. */
const {
  none,
  error,
  known = undefined,
} = defineProps<{
  label: string;
  none?: string;
  error?: string;
  /** The one that is chosen, where the page has it already: its name stands there at once. */
  known?: Player;
}>();
const id = defineModel<string | null>({ required: true });
const emit = defineEmits<{ picked: [player: Player | undefined] }>();

/** One that was found in the list, or was chosen elsewhere and is looked up. */
const listed = shallowRef<Player | undefined>(known);
const { record: found } = useRecord('player', () => (id.value === listed.value?.id ? undefined : id.value));
const chosen = computed(() => [listed.value, found.value].find((player) => player?.id === id.value));
const name = computed(() => chosen.value?.name ?? none ?? '');
const { rows, inAll, text, failure, onlyMatch } = useSearch<Player>(
  'players',
  (query) => api('players', { query }),
  name,
  (player) => player.name,
);
watch(
  [id, rows],
  ([now]) => {
    listed.value = rows.value.find((p) => p.id === now) ?? listed.value;
  },
  { immediate: true, flush: 'sync' },
);
watch(chosen, (player) => emit('picked', player), { immediate: true });
/**
 * A field must not show a key for a name: who is looked up stands there when the name is known. Only after the list has taken the name in, or the field would
 * find the key without it and show that.
 */
const shownId = ref<string | null>(null);
watch(
  () => (chosen.value ? id.value : null),
  (now) => {
    shownId.value = now;
    if (chosen.value && text.value.trim() === '') text.value = chosen.value.name;
  },
  { immediate: true, flush: 'post' },
);
const items = computed(() => {
  const known = rows.value.some((p) => p.id === id.value);
  const all = chosen.value && !known ? [chosen.value, ...rows.value] : rows.value;
  return [
    // What is typed for a player is not for nobody.
    ...(none && ['', none].includes(text.value.trim()) ? [{ value: null, title: none }] : []),
    ...all.map((p) => ({ value: p.id, title: p.name })),
  ];
});
const isOpen = ref(false);
/** A typed name that fits one player is chosen by Enter; the list does not know of it, and would stay over what comes below. */
async function chooseOnly(event: KeyboardEvent): Promise<void> {
  const only = await onlyMatch(event);
  if (!only) return;
  listed.value = only;
  id.value = only.id;
  text.value = only.name;
  // The whole name is searched for first, which opens it.
  await nextTick();
  isOpen.value = false;
}
const hint = computed(() =>
  inAll.value.total > rows.value.length ? `${howMany(inAll.value)} in all: type to find more` : '',
);
</script>

<template>
  <v-autocomplete
    v-model:search="text"
    v-model:menu="isOpen"
    :model-value="shownId"
    :items="items"
    :label="label"
    :hint="hint"
    no-filter
    :error-messages="(error ?? failure) ? [error ?? failure] : []"
    @keydown.enter.capture="chooseOnly"
    @update:model-value="id = $event"
  />
</template>
