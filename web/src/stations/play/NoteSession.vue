<script setup lang="ts">
import { computed, watch } from 'vue';
import { programmeTraits } from '@kevro/core';
import { sendOrKeep } from '../../api/waiting';
import FormDialog from '../../forms/FormDialog.vue';
import { useDraft } from '../../forms/draft';
import { useKept } from '../../ui/kept';
import SessionFields from '../../forms/SessionFields.vue';
import { checkSession, emptySession, sessionBody } from '../../forms/session-draft';
import { useFitting } from '../../stores/fitting';
import { dayWords } from '../../words/days';

/** Notes how a session with the frame went. */
const open = defineModel<boolean>({ required: true });
const fitting = useFitting();
const by = useKept('kevro-by', '');
const draft = useDraft(() => emptySession(by.value));
const { value } = draft;
watch(
  open,
  (now) => {
    if (!now) return;
    draft.begin(`session ${fitting.round?.id ?? ''}`, emptySession(by.value));
  },
  { immediate: true },
);
/** Strings are the lever: where balls landed is asked first. */
const asksOfBall = computed(
  () => fitting.programme !== undefined && programmeTraits(fitting.programme.name).changesStrings === true,
);
async function submit(key: string): Promise<void> {
  const { view, round } = fitting;
  if (!view || !round) return;
  checkSession(value.value);
  const stored = await sendOrKeep('addSession', {
    id: view.id,
    body: { key, roundId: round.id, ...sessionBody(value.value) },
    what: `${view.player.name} played on ${dayWords(value.value.playedOn)}`,
  });
  if (stored) await fitting.stored();
}
</script>

<template>
  <FormDialog
    v-model="open"
    title="How did it play?"
    store="Note it"
    :width="560"
    :submit="submit"
    :draft="draft"
  >
    <template #default="{ at }">
      <SessionFields v-model="value" :at="at" who="Noted by" :asks-of-ball="asksOfBall" />
    </template>
  </FormDialog>
</template>
