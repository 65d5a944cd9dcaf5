<script setup lang="ts">
import type { WeightDrawing } from './drawing';

/** A weight as it is drawn; `RailHold` is what is taken hold of. */
defineProps<{
  drawing: WeightDrawing;
  label: string;
  labelOnce: boolean;
  selected: boolean;
  /** What it is, where nothing else says so. */
  spoken?: string;
}>();
</script>

<template>
  <g
    class="weight"
    :class="{ selected }"
    :role="spoken ? 'img' : undefined"
    :aria-label="spoken"
    :aria-hidden="spoken ? undefined : true"
  >
    <path
      v-for="(s, i) in drawing.strokes"
      :key="`halo${i}`"
      :d="s.d"
      :stroke-width="s.width + 12"
      class="halo"
    />
    <path v-for="(s, i) in drawing.strokes" :key="i" :d="s.d" :stroke-width="s.width" class="strip" />
  </g>
  <g class="labels" aria-hidden="true">
    <text
      v-for="(l, i) in labelOnce ? drawing.labels.slice(0, 1) : drawing.labels"
      :key="`l${i}`"
      :x="l.x"
      :y="l.y"
      :text-anchor="l.anchor"
    >
      {{ label }}
    </text>
  </g>
</template>

<style scoped>
.strip {
  fill: none;
  stroke: rgb(var(--v-theme-ink));
}
.halo {
  fill: none;
  stroke: transparent;
}
.selected .halo {
  stroke: rgb(var(--v-theme-reference));
  stroke-opacity: 0.4;
}
text {
  font-size: 14px;
  font-weight: 700;
  fill: rgb(var(--v-theme-ink));
  paint-order: stroke;
  stroke: rgb(var(--v-theme-paper));
  stroke-width: 4px;
}
</style>
