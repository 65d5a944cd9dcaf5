<script setup lang="ts">
/** Where to go on from, by what could not be opened. */
const ON = {
  frame: { name: 'Frames', to: '/frames' },
  player: { name: 'Players', to: '/players' },
  season: { name: 'Players', to: '/players' },
  fitting: { name: 'Today', to: '/' },
  instrument: { name: 'Instruments', to: '/settings/instruments' },
} as const;

/** In the place of a page that could not be opened: why, once more, and a way on. */
defineProps<{ what: keyof typeof ON; why: string }>();
const emit = defineEmits<{ again: [] }>();
</script>

<template>
  <div class="page" role="alert">
    <h1>This {{ what }} could not be opened</h1>
    <p class="my-3">{{ why }}</p>
    <v-btn color="primary" @click="emit('again')">Try again</v-btn>
    <v-btn variant="text" :to="ON[what].to">Go to {{ ON[what].name }}</v-btn>
  </div>
</template>
