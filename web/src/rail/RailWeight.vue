<script setup lang="ts">
import { computed } from 'vue';
import { zoneOf, type Frame, type Placement } from '@kevro/core';
import { ZONE_NAMES } from '../words';
import { weightDrawing } from './drawing';
import type { RailScale } from './scale';

const props = defineProps<{
  scale: RailScale;
  frame: Frame;
  placement: Placement;
  label: string;
  labelOnce: boolean;
  selected: boolean;
  movable: boolean;
}>();
const emit = defineEmits<{ select: []; drag: [xCm: number, yCm: number, last: boolean] }>();

const drawing = computed(() => weightDrawing(props.scale, props.frame, props.placement));
const spoken = computed(
  () =>
    `${ZONE_NAMES[zoneOf(props.frame, props.placement)]}, ${props.placement.massG.toFixed(1)} g${props.placement.sides === 2 ? ' in two halves' : ''}`,
);

let held = false;
function point(event: PointerEvent): [number, number] {
  const svg = (event.currentTarget as SVGGElement).ownerSVGElement;
  const box = svg?.getBoundingClientRect() ?? { left: 0, top: 0 };
  const { px, k, axisY } = props.scale;
  return [(event.clientX - box.left - px(0)) / k, (axisY - (event.clientY - box.top)) / k];
}
function down(event: PointerEvent): void {
  emit('select');
  if (!props.movable) return;
  held = true;
  (event.currentTarget as SVGGElement).setPointerCapture(event.pointerId);
}
function move(event: PointerEvent): void {
  if (held) emit('drag', ...point(event), false);
}
function up(event: PointerEvent): void {
  if (held) emit('drag', ...point(event), true);
  held = false;
}
</script>

<template>
  <g
    class="weight"
    :class="{ selected, movable }"
    :tabindex="movable ? 0 : undefined"
    :role="movable ? 'button' : 'img'"
    :aria-label="spoken"
    :aria-pressed="movable ? selected : undefined"
    @focus="emit('select')"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="held = false"
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
.movable {
  cursor: grab;
  touch-action: none;
}
.selected .halo {
  stroke: rgb(var(--v-theme-reference));
  stroke-opacity: 0.4;
}
.weight:focus {
  outline: none;
}
.weight:focus-visible .halo {
  stroke: rgb(var(--v-theme-reference));
  stroke-opacity: 0.75;
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
