<script setup lang="ts">
import { ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import type { FittingView } from '@kevro/contract';
import { api } from '../api/client';
import FormDialog from '../forms/FormDialog.vue';
import PickFrames from '../forms/PickFrames.vue';
import PickPlayer from '../forms/PickPlayer.vue';
import { useDraft } from '../forms/draft';
import { useFitting } from '../stores/fitting';
import { useSaved } from '../stores/saved';

/** Gives a fitting another player or other frames, or removes one that was opened by mistake. */
const props = defineProps<{ view: FittingView }>();
const open = defineModel<boolean>({ required: true });
const fitting = useFitting();
const saved = useSaved();
const router = useRouter();
const now = (): { playerId: string | null; frameIds: string[] } => ({
  playerId: props.view.player.id,
  frameIds: props.view.frames.map(({ frame }) => frame.id),
});
const draft = useDraft(now);
const form = draft.value;
const refused = ref('');
// It may be asked for before it has come.
watch(
  open,
  (opened) => {
    refused.value = '';
    if (opened) draft.begin(`change ${props.view.id}`, now());
  },
  { immediate: true },
);
const submit = async (): Promise<void> => {
  const { playerId, frameIds } = form.value;
  await fitting.stored(
    await api('editFitting', { id: props.view.id, body: { playerId: playerId ?? '', frameIds } }),
  );
};
async function remove(): Promise<void> {
  try {
    await api('removeFitting', { id: props.view.id, body: {} });
    open.value = false;
    saved.stored();
    await router.push({ name: 'today' });
  } catch (error) {
    refused.value = error instanceof Error ? error.message : String(error);
  }
}
</script>

<template>
  <FormDialog v-model="open" title="Change this fitting" store="Store" :submit="submit" :draft="draft">
    <template #default="{ said }">
      <PickPlayer
        v-model="form.playerId"
        v-first
        label="Player"
        :known="view.player"
        :error="said('playerId')"
      />
      <PickFrames
        v-model="form.frameIds"
        label="Frame, or a set"
        :owner-id="form.playerId"
        :error="said('frameIds')"
      />
      <p class="soft small mb-0">
        A frame with work in this fitting stays.
        <button type="button" class="link" @click="remove">Remove this fitting</button> if it was opened by
        mistake: that works while nothing is stored in it.
      </p>
      <p v-if="refused" class="miss mb-0" role="alert">{{ refused }}</p>
    </template>
  </FormDialog>
</template>
