<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import type { FrameRow, Player } from '@kevro/contract';
import { Refused, api } from '../api/client';

const open = defineModel<boolean>({ required: true });
const router = useRouter();
const players = ref<Player[]>([]);
const frames = ref<FrameRow[]>([]);
const playerId = ref<string | null>(null);
const frameId = ref<string | null>(null);
const failure = ref('');
const tried = ref(false);
const busy = ref(false);

watch(open, async (now) => {
  if (!now) return;
  playerId.value = frameId.value = null;
  failure.value = '';
  tried.value = false;
  try {
    const [known, all] = await Promise.all([
      api('players', { query: { limit: 500 } }),
      api('frames', { query: { limit: 500 } }),
    ]);
    players.value = known.rows;
    frames.value = all.rows;
  } catch (error) {
    failure.value = error instanceof Error ? error.message : String(error);
  }
});

const frameItems = computed(() => {
  const own = (f: FrameRow): boolean => f.ownerId === playerId.value;
  return [...frames.value]
    .sort((a, b) => Number(own(b)) - Number(own(a)))
    .map((f) => ({
      value: f.id,
      title: `${f.tag} · ${f.maker} ${f.model}`,
      subtitle: f.ownerName ?? 'shop stock',
    }));
});
watch(playerId, (id) => {
  const own = frames.value.filter((f) => f.ownerId === id);
  if (own.length === 1) frameId.value = own[0]?.id ?? null;
});

async function start(): Promise<void> {
  tried.value = true;
  if (!playerId.value || !frameId.value || busy.value) return;
  busy.value = true;
  try {
    const fitting = await api('openFitting', { body: { playerId: playerId.value, frameId: frameId.value } });
    open.value = false;
    await router.push(`/fittings/${fitting.id}/measure`);
  } catch (error) {
    failure.value = error instanceof Refused ? error.message : String(error);
  } finally {
    busy.value = false;
  }
}
const need = (id: string | null, what: string): string[] => (tried.value && !id ? [`Choose a ${what}.`] : []);
</script>

<template>
  <v-dialog v-model="open" max-width="520">
    <v-card class="pa-5">
      <form novalidate @submit.prevent="start">
        <h2 class="text-h6 mb-3">Open a fitting</h2>
        <v-autocomplete
          v-model="playerId"
          :items="players"
          item-title="name"
          item-value="id"
          label="Player"
          autofocus
          class="mb-3"
          :error-messages="need(playerId, 'player')"
        />
        <v-autocomplete
          v-model="frameId"
          :items="frameItems"
          item-props
          label="Frame"
          :error-messages="need(frameId, 'frame')"
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
