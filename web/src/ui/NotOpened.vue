<script setup lang="ts">
import type { RouteLocationRaw } from 'vue-router';

/** In the place of a page that could not be opened: why, once more, and a way on. */
defineProps<{
  /** As it is called: frame, player. */
  what: string;
  why: string;
  /** The list that it stands in, or where else to go on. */
  on: { name: string; to: RouteLocationRaw };
}>();
const emit = defineEmits<{ again: [] }>();
</script>

<template>
  <div class="page" role="alert">
    <h1>This {{ what }} could not be opened</h1>
    <p class="my-3">{{ why }}</p>
    <v-btn color="primary" @click="emit('again')">Try again</v-btn>
    <v-btn variant="text" :to="on.to">Go to {{ on.name }}</v-btn>
  </div>
</template>
