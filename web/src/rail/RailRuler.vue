<script setup lang="ts">
import { computed } from 'vue';
import { CM_PER_INCH } from '@kevro/core';
import { useUnits } from '../stores/units';
import type { RailScale } from './scale';

const props = defineProps<{ scale: RailScale; lengthCm: number }>();
const units = useUnits();
/** Numbers stand in the unit that lengths are said in; the other one has its ticks on the other side. */
const inInches = computed(() => units.way.length === 'in');
/** Every cm, or every inch, of the frame. */
const marks = (inch: boolean) => {
  const each = inch ? CM_PER_INCH : 1;
  return Array.from({ length: Math.floor(props.lengthCm / each) + 1 }, (_, n) => ({ n, cm: n * each }));
};
const numbered = computed(() => marks(inInches.value));
const other = computed(() => marks(!inInches.value));
/** Inches are fewer: every fifth has its number, of cm every tenth. */
const isNumbered = (n: number): boolean => n % (inInches.value ? 5 : 10) === 0;
/** A number this near to the end would stand in the length's own way, cm. */
const nearEnd = computed(() => 62 / props.scale.k);
const tick = (n: number): number => (isNumbered(n) ? 12 : !inInches.value && n % 5 !== 0 ? 4 : 8);
</script>

<template>
  <g class="ruler" aria-hidden="true">
    <line :x1="scale.px(0)" :x2="scale.px(lengthCm)" :y1="scale.rulerY" :y2="scale.rulerY" />
    <template v-for="{ n, cm } in numbered" :key="n">
      <line
        :x1="scale.px(cm)"
        :x2="scale.px(cm)"
        :y1="scale.rulerY"
        :y2="scale.rulerY + tick(n)"
        :class="{ ten: isNumbered(n) }"
      />
      <text
        v-if="isNumbered(n) && lengthCm - cm > nearEnd"
        :x="scale.px(cm)"
        :y="scale.rulerY + 27"
        text-anchor="middle"
        >{{ n }}</text
      >
    </template>
    <line
      v-for="{ n, cm } in other"
      :key="`other${n}`"
      :x1="scale.px(cm)"
      :x2="scale.px(cm)"
      :y1="scale.rulerY - 4"
      :y2="scale.rulerY"
      class="other"
    />
    <text :x="scale.px(lengthCm)" :y="scale.rulerY + 27" text-anchor="end"
      >{{ units.benchLength(lengthCm) }} {{ units.way.length }}</text
    >
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
.other {
  stroke: rgb(var(--v-theme-soft));
}
text {
  fill: rgb(var(--v-theme-soft));
  font-size: 12.5px;
}
</style>
