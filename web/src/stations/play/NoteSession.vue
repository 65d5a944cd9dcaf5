<script setup lang="ts">
import { ref, watch } from 'vue';
import { nanoid } from 'nanoid';
import { api } from '../../api/client';
import FormDialog from '../../parts/FormDialog.vue';
import { useDraft } from '../../parts/draft';
import { useKept } from '../../parts/kept';
import SessionFields from '../../played/SessionFields.vue';
import { emptySession, sessionBody } from '../../played/session-draft';
import { useFitting } from '../../stores/fitting';

/** Notes how a session with the frame went. */
const open = defineModel<boolean>({ required: true });
const fitting = useFitting();
const by = useKept('kevro-by', '');
const draft = useDraft(() => emptySession(by.value));
const { value } = draft;
const key = ref('');
watch(
  open,
  (now) => {
    if (!now) return;
    key.value = nanoid();
    draft.begin(`session ${fitting.round?.id ?? ''}`, emptySession(by.value));
  },
  { immediate: true },
);
async function submit(): Promise<void> {
  const { view, round } = fitting;
  if (!view || !round) return;
  await api('addSession', {
    id: view.id,
    body: { key: key.value, roundId: round.id, ...sessionBody(value.value) },
  });
  await fitting.stored();
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
      <SessionFields v-model="value" :at="at" who="Noted by" />
    </template>
  </FormDialog>
</template>
