<script setup lang="ts">
import { watch } from 'vue';
import { CLOSINGS, type Closing } from '@kevro/core';
import type { FittingView } from '@kevro/contract';
import { api } from '../api/client';
import FormDialog from '../forms/FormDialog.vue';
import { useDraft } from '../forms/draft';
import { dayWords } from '../words/days';
import { items } from '../words/players';
import { useFitting } from '../stores/fitting';
import { CLOSING_NAMES } from '../words';

/** Closes a fitting with how it ended, or opens a closed one again with a new round. */
const props = defineProps<{ view: FittingView }>();
const open = defineModel<boolean>({ required: true });
const fitting = useFitting();
const draft = useDraft(() => ({ how: 'handed-over' as Closing, note: '' }));
const form = draft.value;
// It may be asked for before it has come.
watch(
  open,
  (now) => {
    if (now) draft.begin(`close ${props.view.id}`, { how: 'handed-over', note: '' });
  },
  { immediate: true },
);
const choices = items(Object.fromEntries(CLOSINGS.map((c) => [c, CLOSING_NAMES[c]])) as typeof CLOSING_NAMES);
const submit = async (key: string): Promise<void> =>
  fitting.stored(
    props.view.closed
      ? await api('reopenFitting', { id: props.view.id, body: { key } })
      : await api('closeFitting', { id: props.view.id, body: { ...form.value, key } }),
  );
</script>

<template>
  <FormDialog
    v-model="open"
    :title="view.closed ? 'Reopen fitting' : 'Close fitting'"
    :store="view.closed ? 'Reopen' : 'Close fitting'"
    :submit="submit"
    :draft="draft"
  >
    <template #default="{ at }">
      <template v-if="view.closed">
        <p class="mb-0">
          Closed on {{ dayWords(view.closed.at) }}: {{ CLOSING_NAMES[view.closed.how]
          }}{{ view.closed.note ? `, ${view.closed.note}` : '' }}. Each frame begins a new round; the earlier
          ones stay.
        </p>
      </template>
      <template v-else>
        <v-select v-model="form.how" :items="choices" label="How it ended" :error-messages="at('how')" />
        <v-text-field v-model="form.note" label="Note" :error-messages="at('note')" />
        <p class="soft small mb-0">Nothing is lost: it stays under Today, among the closed ones.</p>
      </template>
    </template>
  </FormDialog>
</template>
