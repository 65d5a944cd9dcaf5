<script setup lang="ts">
import { computed } from 'vue';
import MeasureBench from '../measure/MeasureBench.vue';
import { useFramePage } from './frame-page';
import NotOpened from '../ui/NotOpened.vue';

/** Measuring a frame outside any fitting: shop stock, or a frame that came in. */
const props = defineProps<{ id: string }>();
const { page, failure, load, changed } = useFramePage(() => props.id);
const newest = computed(() => page.value?.measurements.find(({ counts }) => counts));
const marks = computed(() => ({
  measured: newest.value?.specs,
  measuredUncertainty: newest.value?.uncertainty,
  estimated: newest.value?.estimated,
}));
</script>

<template>
  <NotOpened v-if="failure" what="frame" :why="failure" @again="load" />
  <MeasureBench
    v-else-if="page"
    :key="id"
    :frame="page.frame"
    :measurement="newest"
    :marks="marks"
    @stored="changed"
  >
    <template #onward>
      <v-btn color="primary" size="large" block :to="`/frames/${id}`">Go to {{ page.frame.tag }}</v-btn>
    </template>
  </MeasureBench>
  <div v-else class="page" role="status"><p class="soft">Loading…</p></div>
</template>
