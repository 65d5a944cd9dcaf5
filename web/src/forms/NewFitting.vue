<script setup lang="ts">
import { until } from '@vueuse/core';
import { nextTick, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import type { FittingView, FrameRecord, Player } from '@kevro/contract';
import { Refused, api } from '../api/client';
import FrameForm from './FrameForm.vue';
import FormDialog from './FormDialog.vue';
import PickFrames from './PickFrames.vue';
import PickPlayer from './PickPlayer.vue';
import { useDraft } from './draft';
import PlayerForm from './PlayerForm.vue';

/** A fitting is a player and one frame, or a set: those that are known, or new ones. */
interface Pair {
  playerId: string | null;
  frameIds: string[];
}
const router = useRouter();
const open = ref(false);
const draft = useDraft<Pair>(() => ({ playerId: null, frameIds: [] }));
const form = draft.value;
const looking = ref(false);
/** The open fitting of the same pair, which is asked about. */
const existing = ref<string>();
const goOn = ref<{ $el: HTMLElement }>();
const dialog = ref<{ send: () => Promise<void> }>();
const playerForm = ref<InstanceType<typeof PlayerForm>>();
const frameForm = ref<InstanceType<typeof FrameForm>>();

function show(pair: Pair = { playerId: null, frameIds: [] }): void {
  draft.begin(`fitting ${pair.frameIds.join()}`, pair);
  existing.value = undefined;
  open.value = true;
}
defineExpose({ show });
watch(form, () => (existing.value = undefined), { deep: true });

let evenIfOpen = false;
async function submit(key: string): Promise<FittingView> {
  // Enter may come before the one frame of the player that was just chosen.
  await until(looking).toBe(false);
  const { playerId, frameIds } = form.value;
  const missing = [
    ...(playerId === null ? [{ path: 'playerId', message: 'Choose a player.' }] : []),
    ...(frameIds.length === 0 ? [{ path: 'frameIds', message: 'Choose a frame.' }] : []),
  ];
  if (missing.length > 0) {
    throw new Refused(
      'missing',
      '',
      missing.map((one) => ({ ...one, code: 'missing' as const })),
    );
  }
  try {
    return await api('openFitting', { body: { playerId: playerId ?? '', frameIds, evenIfOpen, key } });
  } catch (error) {
    if (error instanceof Refused && error.existing) {
      existing.value = error.existing;
      void nextTick(() => goOn.value?.$el.focus());
    }
    throw error;
  }
}
const goTo = (id: string): Promise<unknown> => router.push(`/fittings/${id}/measure`);
function goOnWith(id: string): void {
  draft.afresh();
  open.value = false;
  void goTo(id);
}
async function another(): Promise<void> {
  evenIfOpen = true;
  await dialog.value?.send();
  evenIfOpen = false;
}
function newPlayer(player: Player): void {
  form.value.playerId = player.id;
}
function newFrame(frame: FrameRecord): void {
  form.value.frameIds = [...form.value.frameIds, frame.id];
}
</script>

<template>
  <FormDialog
    ref="dialog"
    v-model="open"
    title="Open a fitting"
    store="Open and measure"
    :submit="submit"
    :draft="draft"
    @stored="goTo(($event as FittingView).id)"
  >
    <template #default="{ said }">
      <div class="pick">
        <PickPlayer v-model="form.playerId" v-first label="Player" :error="said('playerId')" />
        <v-btn variant="outlined" @click="playerForm?.show()">New player</v-btn>
      </div>
      <div class="pick">
        <PickFrames
          v-model="form.frameIds"
          v-model:looking="looking"
          label="Frame, or a set"
          :owner-id="form.playerId"
          :error="said('frameIds')"
        />
        <v-btn variant="outlined" @click="frameForm?.show(undefined, form.playerId)">New frame</v-btn>
      </div>
    </template>
    <template #asked>
      <p v-if="existing" class="mb-0 d-flex flex-wrap ga-2">
        <v-btn ref="goOn" variant="outlined" @click="goOnWith(existing)">Continue that one</v-btn>
        <v-btn variant="outlined" @click="another">Open another anyway</v-btn>
      </p>
    </template>
  </FormDialog>
  <PlayerForm ref="playerForm" @stored="newPlayer" />
  <FrameForm ref="frameForm" @stored="newFrame" />
</template>

<style scoped>
.pick {
  display: grid;
  grid-template-columns: 1fr 130px;
  gap: 10px;
  align-items: start;
}
@media (max-width: 600px) {
  .pick {
    grid-template-columns: 1fr;
  }
}
</style>
