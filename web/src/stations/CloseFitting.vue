<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { CLOSINGS, isOver, type Closing } from '@kevro/core';
import type { FittingView } from '@kevro/contract';
import { api } from '../api/client';
import FormDialog from '../forms/FormDialog.vue';
import { useDraft } from '../forms/draft';
import { counted } from '../words/counted';
import { dayWords } from '../words/days';
import { items } from '../words/players';
import { useFitting } from '../stores/fitting';
import { CLOSING_NAMES } from '../words';

/** Closes a fitting with how it ended, or opens a closed one again: where it was, or with a new round. */
const props = defineProps<{ view: FittingView }>();
const open = defineModel<boolean>({ required: true });
const fitting = useFitting();
const draft = useDraft(() => ({ how: 'handed-over' as Closing, note: '', newRound: false }));
const form = draft.value;
/** Which of the two it was opened for: while it goes away it does not become the other. */
const reopening = ref(false);
// It may be asked for before it has come.
watch(
  open,
  (now) => {
    if (!now) return;
    reopening.value = props.view.closed !== null;
    draft.begin(`close ${props.view.id}`, { how: 'handed-over', note: '', newRound: false });
  },
  { immediate: true },
);
const choices = items(Object.fromEntries(CLOSINGS.map((c) => [c, CLOSING_NAMES[c]])) as typeof CLOSING_NAMES);
/** What is left to do on each frame: said before it is closed. */
const leftOpen = computed(() =>
  props.view.frames.flatMap(({ frame, rounds }) => {
    const { state, plans } = rounds.at(-1) ?? {};
    const steps = plans?.find(({ id }) => id === state?.planId)?.steps ?? [];
    const left = steps.filter(({ key }) => !isOver(state?.steps[key]?.mark)).length;
    if (left > 0) return [`${frame.tag}: ${counted(left, 'bench step', 'bench steps')} left`];
    return state?.built && state.stations.check !== 'done' ? [`${frame.tag}: not checked`] : [];
  }),
);
const submit = async (key: string): Promise<void> =>
  fitting.stored(
    reopening.value
      ? await api('reopenFitting', { id: props.view.id, body: { newRound: form.value.newRound, key } })
      : await api('closeFitting', {
          id: props.view.id,
          body: { how: form.value.how, note: form.value.note, key },
        }),
  );
</script>

<template>
  <FormDialog
    v-model="open"
    :title="reopening ? 'Reopen fitting' : 'Close fitting'"
    :store="reopening ? 'Reopen' : 'Close fitting'"
    :submit="submit"
    :draft="draft"
  >
    <template #default="{ at }">
      <template v-if="reopening">
        <p v-if="view.closed" class="mb-0">
          Closed on {{ dayWords(view.closed.at) }}: {{ CLOSING_NAMES[view.closed.how]
          }}{{ view.closed.note ? `, ${view.closed.note}` : '' }}. It goes on where it was, plan and ticks
          too.
        </p>
        <v-checkbox v-model="form.newRound" label="Begin a new round instead" hide-details />
      </template>
      <template v-else>
        <div v-if="leftOpen.length > 0" class="warn" role="status">
          <p v-for="line in leftOpen" :key="line" class="mb-0">{{ line }}</p>
        </div>
        <v-select v-model="form.how" :items="choices" label="How it ended" :error-messages="at('how')" />
        <v-text-field v-model="form.note" label="Note" :error-messages="at('note')" />
        <p class="soft small mb-0">Nothing is lost: it stays under Today, among the closed ones.</p>
      </template>
    </template>
  </FormDialog>
</template>
