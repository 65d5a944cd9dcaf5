<script setup lang="ts">
import { computed } from 'vue';
import type { SpecKey, Target } from '@kevro/core';
import { laneScale } from '../lanes/lane';
import type { OfFrame } from '../ui/typed';
import { useUnits } from '../stores/units';
import { SPEC_NAMES } from '../words';

/** One spec of all frames of a set: each as it is, where its plan brings it, and what is common to them. */
const props = defineProps<{
  spec: SpecKey;
  frames: readonly { id: string; before: number | undefined; after: number | undefined }[];
  target: Target | undefined;
  shape: OfFrame;
}>();
const units = useUnits();
const WIDTH = 500;
const ROW = 9;
const HEIGHT = computed(() => 30 + ROW * props.frames.length);
const base = computed(() => 8 + ROW * props.frames.length);
const scale = computed(() => {
  const { target, frames } = props;
  const values = [
    ...frames.flatMap(({ before, after }) => [before, after]),
    ...(target ? [target.value - target.tolerance, target.value + target.tolerance] : []),
  ].filter((v) => v !== undefined);
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const margin = Math.max((high - low) * 0.12, Math.abs(high) * 1e-4);
  return laneScale([low - margin, high + margin], WIDTH);
});
const x = (value: number): number => scale.value.x(value);
const bracket = computed(() => {
  const { target } = props;
  if (!target) return '';
  const [from, to] = [x(target.value - target.tolerance), x(target.value + target.tolerance)];
  return `M ${from + 6} 4 H ${from} V ${base.value} H ${from + 6} M ${to - 6} 4 H ${to} V ${base.value} H ${to - 6}`;
});
const label = (value: number): string => units.show(props.spec, value, props.shape, 1);
</script>

<template>
  <div class="lane">
    <div class="name">
      {{ SPEC_NAMES[spec] }}
      <div class="soft small">{{ units.unit(spec) }}</div>
    </div>
    <svg
      :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
      role="img"
      :aria-label="`${SPEC_NAMES[spec]} of each frame, before and after`"
    >
      <line x1="8" :x2="WIDTH - 8" :y1="base" :y2="base" class="base" />
      <template v-for="t in scale.ticks" :key="t">
        <line :x1="x(t)" :x2="x(t)" :y1="base" :y2="base + 4" class="base" />
        <text :x="x(t)" :y="base + 17" text-anchor="middle" class="tick">{{ label(t) }}</text>
      </template>
      <path v-if="target" :d="bracket" class="aim" />
      <template v-for="(one, i) in frames" :key="one.id">
        <line
          v-if="one.before !== undefined && one.after !== undefined"
          :x1="x(one.before)"
          :x2="x(one.after)"
          :y1="6 + ROW * i"
          :y2="6 + ROW * i"
          class="base"
        />
        <circle v-if="one.before !== undefined" :cx="x(one.before)" :cy="6 + ROW * i" r="4" class="before" />
        <circle v-if="one.after !== undefined" :cx="x(one.after)" :cy="6 + ROW * i" r="4" class="after" />
      </template>
    </svg>
    <div class="num">
      <template v-if="target"
        ><span class="soft">target</span> <b>{{ units.show(spec, target.value, shape) }}</b></template
      >
      <span v-else class="soft">any</span>
    </div>
  </div>
</template>

<style scoped>
.lane {
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr) 110px;
  align-items: center;
  border-top: 1px solid rgb(var(--v-theme-line));
  padding: 4px 0;
}
.name {
  font-weight: 700;
  line-height: 1.25;
}
.name div {
  font-weight: 400;
}
svg {
  display: block;
  width: 100%;
}
.base {
  stroke: rgb(var(--v-theme-ink));
  stroke-width: 0.9;
}
.tick {
  font-size: 12px;
  fill: rgb(var(--v-theme-soft));
}
.aim {
  fill: none;
  stroke: rgb(var(--v-theme-aim));
  stroke-width: 3;
}
.before {
  fill: rgb(var(--v-theme-ink));
}
.after {
  fill: rgb(var(--v-theme-sheet));
  stroke: rgb(var(--v-theme-ink));
  stroke-width: 1.8;
}
@media (max-width: 700px) {
  .lane {
    grid-template-columns: minmax(0, 1fr) 110px;
  }
  .lane svg {
    grid-column: 1 / 3;
    grid-row: 2;
  }
}
</style>
