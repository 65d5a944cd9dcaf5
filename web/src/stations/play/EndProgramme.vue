<script setup lang="ts">
import { watch } from 'vue';
import { programmeTraits } from '@kevro/core';
import { api } from '../../api/client';
import FormDialog from '../../forms/FormDialog.vue';
import { shopDay } from '../../words/days';
import { useDraft } from '../../forms/draft';
import { useKept } from '../../ui/kept';
import { useFitting } from '../../stores/fitting';
import { useOutlook } from './outlook';

/** Ends a programme, with a day to look again. */
const open = defineModel<boolean>({ required: true });
const fitting = useFitting();
const { next } = useOutlook();
const by = useKept('kevro-by', '');
const draft = useDraft(() => ({ lookAgainOn: '', note: '' }));
const form = draft.value;
const inDays = (days: number): string => shopDay(new Date(Date.now() + days * 86_400_000).toISOString());
watch(
  open,
  (now) => {
    const { programme } = fitting;
    if (!now || !programme) return;
    const found = next.value?.state === 'done';
    draft.begin(`end ${programme.id}`, {
      lookAgainOn: found ? inDays(programmeTraits(programme.name).lookAgainDays) : '',
      note: '',
    });
  },
  { immediate: true },
);
async function submit(key: string): Promise<void> {
  const { view, programme } = fitting;
  if (!view || !programme) return;
  const { lookAgainOn, note } = form.value;
  await fitting.stored(
    await api('actOnProgramme', {
      id: view.id,
      body: {
        key,
        programmeId: programme.id,
        act: 'end',
        note,
        by: by.value,
        ...(lookAgainOn ? { lookAgainOn } : {}),
      },
    }),
  );
}
</script>

<template>
  <FormDialog v-model="open" title="End the programme" store="End it" :submit="submit" :draft="draft">
    <template #default="{ at }">
      <p v-if="next?.ceiling" class="mb-0">The ceiling that it found is written down with the player.</p>
      <v-text-field
        v-model="form.lookAgainOn"
        type="date"
        label="Follow-up on"
        hint="Today then reminds of it; empty for no reminder"
        persistent-hint
        :error-messages="at('lookAgainOn')"
      />
      <v-text-field v-model="form.note" label="Note" :error-messages="at('note')" />
    </template>
  </FormDialog>
</template>
