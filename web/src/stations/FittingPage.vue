<script setup lang="ts">
import { watch } from 'vue';
import { RouterView, useRoute } from 'vue-router';
import { useFitting } from '../stores/fitting';
import { onChanged } from '../ui/changes';
import NotOpened from '../ui/NotOpened.vue';

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
  <NotOpened v-if="fitting.failure" what="fitting" :why="fitting.failure" @again="fitting.open(id)" />
  <RouterView v-else-if="fitting.view" :key="fitting.round?.id ?? fitting.view.id" />
  <div v-else class="page" role="status">
    <v-progress-linear indeterminate color="primary" aria-label="Opening the fitting" />
    <p class="soft mt-3">Opening the fitting…</p>
  </div>
</template>
