<script setup lang="ts">
import { computed } from 'vue';
import type { SportData, StrokeName } from '@kevro/core';
import ChoiceRow from '../ui/ChoiceRow.vue';
import { useStroke } from '../stores/stroke';
import { STROKE_NAMES } from '../words';

/** What the sweet spot is drawn for, or why there is none. */
const props = defineProps<{ sport: SportData; drawn: boolean }>();
const stroke = useStroke();
const choices = computed(() =>
  props.sport.strokes.map(({ name }) => ({ value: name, title: STROKE_NAMES[name] })),
);
const chosen = computed<StrokeName>({
  get: () => stroke.of(props.sport).name,
  set: (name) => stroke.choose(props.sport.sport, name),
});
</script>

<template>
  <p v-if="sport.shaft === 'bends'" class="none">
    No sweet spot is drawn: the shaft bends on impact, so a rigid model would be wrong.
  </p>
  <div v-else-if="drawn" class="stroke no-print">
    <span>Sweet spot for a</span>
    <ChoiceRow v-model="chosen" label="Sweet spot for a" :choices="choices" />
  </div>
</template>

<style scoped>
.none {
  margin: 0 12px 8px;
  font-size: 13.5px;
  line-height: 1.4;
  color: rgb(var(--v-theme-soft));
}
.stroke {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
  margin-bottom: 6px;
  line-height: 1.3;
  font-size: 13px;
  color: rgb(var(--v-theme-soft));
}
.stroke :deep(label) {
  min-width: 44px;
}
@media (min-width: 1200px) {
  /* Above the handle there is nothing. */
  .stroke {
    position: absolute;
    top: 0;
    left: 0;
    flex-direction: column;
    align-items: flex-start;
    gap: 2px;
  }
  .stroke :deep(label) {
    min-height: 28px;
  }
}
</style>
