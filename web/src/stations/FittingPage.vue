<script setup lang="ts">
import { watch } from 'vue';
import { RouterView, useRoute } from 'vue-router';
import { useFitting } from '../stores/fitting';
import { onChanged } from '../ui/changes';

const props = defineProps<{ id: string }>();
const fitting = useFitting();
const route = useRoute();
watch(
  () => props.id,
  (id) => void fitting.open(id),
  { immediate: true },
);
onChanged(() => fitting.refresh());
/** Which frame of a set is worked on stands in the address. */
watch(
  () => route.query.frame,
  (frame) => {
    fitting.frameId = typeof frame === 'string' ? frame : undefined;
  },
  { immediate: true },
);
</script>

<template>
  <div v-if="fitting.failure" class="page">
    <h1>This fitting could not be opened</h1>
    <p class="my-3">{{ fitting.failure }}</p>
    <v-btn color="primary" @click="fitting.open(id)">Try again</v-btn>
    <v-btn variant="text" :to="{ name: 'today' }">Go to Today</v-btn>
  </div>
  <RouterView v-else-if="fitting.view" :key="fitting.round?.id ?? fitting.view.id" />
  <div v-else class="page" role="status">
    <v-progress-linear indeterminate color="primary" aria-label="Opening the fitting" />
    <p class="soft mt-3">Opening the fitting…</p>
  </div>
</template>
