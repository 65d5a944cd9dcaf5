<script setup lang="ts">
import { computed } from 'vue';
import { CM_PER_INCH } from '@kevro/core';
import type { RailScale } from './scale';

const props = defineProps<{ scale: RailScale; lengthCm: number }>();
const cms = computed(() => Array.from({ length: Math.floor(props.lengthCm) + 1 }, (_, i) => i));
const inches = computed(() =>
  Array.from({ length: Math.floor(props.lengthCm / CM_PER_INCH) + 1 }, (_, i) => i),
);
/** A number this near to the end would stand in the length's own way, cm. */
const nearEnd = computed(() => 62 / props.scale.k);
const tick = (cm: number): number => (cm % 10 === 0 ? 12 : cm % 5 === 0 ? 8 : 4);
</script>

<template>
  <g class="ruler" aria-hidden="true">
    <line :x1="scale.px(0)" :x2="scale.px(lengthCm)" :y1="scale.rulerY" :y2="scale.rulerY" />
    <template v-for="cm in cms" :key="cm">
      <line
        :x1="scale.px(cm)"
        :x2="scale.px(cm)"
        :y1="scale.rulerY"
        :y2="scale.rulerY + tick(cm)"
        :class="{ ten: cm % 10 === 0 }"
      />
      <text
        v-if="cm % 10 === 0 && lengthCm - cm > nearEnd"
        :x="scale.px(cm)"
        :y="scale.rulerY + 27"
        text-anchor="middle"
        >{{ cm }}</text
      >
    </template>
    <line
      v-for="inch in inches"
      :key="`in${inch}`"
      :x1="scale.px(inch * CM_PER_INCH)"
      :x2="scale.px(inch * CM_PER_INCH)"
      :y1="scale.rulerY - (inch % 6 === 0 ? 7 : 4)"
      :y2="scale.rulerY"
      class="inch"
    />
    <text :x="scale.px(lengthCm)" :y="scale.rulerY + 27" text-anchor="end">{{ lengthCm.toFixed(1) }} cm</text>
  </g>
</template>

<style scoped>
line {
  stroke: rgb(var(--v-theme-ink));
  stroke-width: 0.7;
}
.ten {
  stroke-width: 1.3;
}
.inch {
  stroke: rgb(var(--v-theme-soft));
}
text {
  fill: rgb(var(--v-theme-soft));
  font-size: 12.5px;
}
</style>
