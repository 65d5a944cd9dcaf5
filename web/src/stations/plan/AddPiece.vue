<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { partRule, type Frame, type Part, type ZoneName } from '@kevro/core';
import { ZONE_NAMES } from '../../words';

/** Puts another piece on: of which part, and where. */
const props = defineProps<{ frame: Frame; parts: readonly Part[] }>();
const emit = defineEmits<{ add: [zone: ZoneName, part: Part] }>();
/** Its fields are made when they are opened first. */
const made = ref(false);
const partId = ref<string>();
const part = computed(() => props.parts.find(({ id }) => id === partId.value) ?? props.parts[0]);
const zones = computed(() => {
  const { value: of } = part;
  if (!of) return [];
  const { paths } = partRule(of);
  return props.frame.sport.zones
    .filter(({ path, slot }) => paths.includes(slot === undefined ? path : 'slot'))
    .map(({ name }) => ({ value: name, title: ZONE_NAMES[name] }));
});
const zone = ref<ZoneName>();
watch(
  zones,
  (now) => {
    if (!now.some(({ value }) => value === zone.value)) zone.value = now[0]?.value;
  },
  { immediate: true },
);
function add(): void {
  if (zone.value && part.value) emit('add', zone.value, part.value);
}
</script>

<template>
  <details class="add" @toggle.once="made = true">
    <summary>Add a piece</summary>
    <form v-if="made" class="fields" @submit.prevent="add">
      <v-select
        :model-value="part?.id ?? null"
        :items="parts.map(({ id, name }) => ({ value: id, title: name }))"
        label="Material"
        hide-details
        @update:model-value="partId = $event ?? undefined"
      />
      <v-select v-model="zone" :items="zones" label="Place" hide-details />
      <v-btn type="submit" variant="outlined" :disabled="!zone">Add</v-btn>
    </form>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  padding: 4px 0;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.fields :deep(.v-btn) {
  grid-column: 1 / -1;
}
</style>
