<script setup lang="ts">
import { watch } from 'vue';
import type { LOOK_AGAIN_WHYS } from '@kevro/contract';
import { api } from '../api/client';
import FormDialog from '../forms/FormDialog.vue';
import { shopDay } from '../words/days';
import { useDraft } from '../forms/draft';
import { LOOK_AGAIN_WORDS, items } from '../words/players';

/** Sets a day on which a player is to be looked at again: Today then reminds of it. */
const props = defineProps<{ playerId: string; fittingId?: string }>();
const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ stored: [] }>();
const HALF_YEAR_MS = 182 * 86_400_000;
const empty = () => ({
  dueOn: shopDay(new Date(Date.now() + HALF_YEAR_MS).toISOString()),
  why: 'asked' as (typeof LOOK_AGAIN_WHYS)[number],
  note: '',
});
const draft = useDraft(empty);
const form = draft.value;
watch(open, (now) => now && draft.begin(`look again ${props.playerId}`, empty()), { immediate: true });
const submit = (key: string) =>
  api('addLookAgain', {
    body: { playerId: props.playerId, fittingId: props.fittingId ?? null, ...form.value, key },
  });
</script>

<template>
  <FormDialog
    v-model="open"
    title="Look again"
    store="Set the day"
    :submit="submit"
    :draft="draft"
    @stored="emit('stored')"
  >
    <template #default="{ at }">
      <v-text-field v-model="form.dueOn" type="date" label="On" :error-messages="at('dueOn')" />
      <v-select v-model="form.why" :items="items(LOOK_AGAIN_WORDS)" label="Why" />
      <v-text-field v-model="form.note" label="Note" :error-messages="at('note')" />
    </template>
  </FormDialog>
</template>
