<script setup lang="ts">
import { ref } from 'vue';
import type { LaneTicks } from './lane';

/** The aim of a lane as something to take hold of: dragged, or moved with the arrow keys by what a fitter of the sport rounds to, with Shift by five of it. */
const props = defineProps<{
  name: string;
  said: string;
  target: { value: number; tolerance: number };
  step: number;
  scale: LaneTicks;
  width: number;
}>();
/** While it is held the lane stands still under it. */
const emit = defineEmits<{ hold: []; release: []; move: [value: number] }>();
const MARGIN = 8;
const held = ref(false);

function moveTo(value: number): void {
  emit('move', Number((Math.round(value / props.step) * props.step).toFixed(6)));
}
function grab(event: PointerEvent): void {
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
  held.value = true;
  emit('hold');
}
function drag(event: PointerEvent): void {
  const left = (event.currentTarget as SVGElement).ownerSVGElement?.getBoundingClientRect().left;
  if (!held.value || left === undefined) return;
  moveTo(props.scale.at(Math.max(MARGIN, Math.min(props.width - MARGIN, event.clientX - left))));
}
function letGo(): void {
  held.value = false;
  emit('release');
}
function nudge(event: KeyboardEvent): void {
  const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
  if (!way) return;
  event.preventDefault();
  moveTo(props.target.value + way * props.step * (event.shiftKey ? 5 : 1));
}
</script>

<template>
  <g
    class="hold"
    tabindex="0"
    role="slider"
    :aria-label="`Aim of ${name.toLowerCase()}`"
    :aria-valuenow="target.value"
    :aria-valuetext="said"
    @pointerdown="grab"
    @pointermove="drag"
    @pointerup="letGo"
    @pointercancel="letGo"
    @keydown="nudge"
  >
    <rect
      :x="scale.x(target.value - target.tolerance) - 22"
      y="2"
      :width="scale.x(target.value + target.tolerance) - scale.x(target.value - target.tolerance) + 44"
      height="50"
      fill="transparent"
    />
    <slot />
  </g>
</template>

<style scoped>
.hold {
  cursor: ew-resize;
  touch-action: none;
}
</style>
