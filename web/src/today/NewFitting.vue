<script setup lang="ts">
import { until } from '@vueuse/core';
import { ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { Refused, api } from '../api/client';
import PickFrames from '../parts/PickFrames.vue';
import PickPlayer from '../parts/PickPlayer.vue';

const open = defineModel<boolean>({ required: true });
const router = useRouter();
const playerId = ref<string | null>(null);
const frameIds = ref<string[]>([]);
const looking = ref(false);
const failure = ref('');
const tried = ref(false);
const busy = ref(false);

watch(open, (now) => {
  if (!now) return;
  playerId.value = null;
  frameIds.value = [];
  failure.value = '';
  tried.value = false;
});

async function start(): Promise<void> {
  // Enter may come before the one frame of the player that was just chosen.
  await until(looking).toBe(false);
  tried.value = true;
  if (!playerId.value || frameIds.value.length === 0 || busy.value) return;
  busy.value = true;
  try {
    const fitting = await api('openFitting', {
      body: { playerId: playerId.value, frameIds: frameIds.value },
    });
    open.value = false;
    await router.push(`/fittings/${fitting.id}/measure`);
  } catch (error) {
    failure.value = error instanceof Refused ? error.message : String(error);
  } finally {
    busy.value = false;
  }
}
const need = (there: boolean, what: string): string | undefined =>
  tried.value && !there ? `Choose a ${what}.` : undefined;
</script>

<template>
  <v-dialog v-model="open" max-width="520">
    <v-card class="pa-5">
      <form novalidate @submit.prevent="start">
        <h2 class="text-h6 mb-3">Open a fitting</h2>
        <PickPlayer
          v-model="playerId"
          label="Player"
          autofocus
          class="mb-3"
          :error="need(playerId !== null, 'player')"
        />
        <PickFrames
          v-model="frameIds"
          v-model:looking="looking"
          label="Frame, or a set"
          :owner-id="playerId"
          :error="need(frameIds.length > 0, 'frame')"
        />
        <p v-if="failure" class="miss mt-3 mb-0" role="alert">{{ failure }}</p>
        <p class="soft small mt-3 mb-0">Somebody new? Add them under Players and their frame under Frames.</p>
        <div class="d-flex ga-2 mt-4">
          <v-spacer />
          <v-btn variant="text" @click="open = false">Cancel</v-btn>
          <v-btn type="submit" color="primary" :loading="busy">Open and measure</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>
