<script setup lang="ts">
import type { WeightDrawing } from './drawing';
import type { RailScale } from './scale';

/**
 * Takes hold of one side of a weight, by mouse, finger or key. An element of its own over the drawing: only so does the browser leave the
 * finger to it instead of scrolling the page.
 */
const props = defineProps<{
  scale: RailScale;
  hold: WeightDrawing['holds'][number];
  spoken: string;
  selected: boolean;
  /** The other side of the same weight is offered to keys already. */
  again: boolean;
}>();
const emit = defineEmits<{ select: []; drag: [xCm: number, yCm: number, last: boolean] }>();

/** A hand that only chooses trembles this far, px. */
const STILL_PX = 5;
let held: { x: number; y: number; moved: boolean; at: [number, number] } | undefined;

function down(event: PointerEvent): void {
  if (event.button !== 0) return;
  emit('select');
  (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
  held = {
    x: event.clientX,
    y: event.clientY,
    moved: false,
    at: [props.hold.middle.xCm, props.hold.middle.yCm],
  };
}
/** The middle of the weight goes as far as the hand does from where it took hold. */
let start: [number, number] = [0, 0];
function move(event: PointerEvent): void {
  if (!held) return;
  const [dx, dy] = [event.clientX - held.x, event.clientY - held.y];
  if (!held.moved) {
    if (Math.hypot(dx, dy) <= STILL_PX) return;
    held.moved = true;
    start = held.at;
  }
  const { k } = props.scale;
  held.at = [start[0] + dx / k, start[1] - dy / k];
  emit('drag', ...held.at, false);
}
function up(): void {
  if (held?.moved) emit('drag', ...held.at, true);
  held = undefined;
}
</script>

<template>
  <button
    type="button"
    class="hold"
    :class="{ selected }"
    :style="{
      transform: `translate(${hold.left}px, ${hold.top}px)`,
      width: `${hold.width}px`,
      height: `${hold.height}px`,
    }"
    :tabindex="again ? -1 : 0"
    :aria-hidden="again || undefined"
    :aria-label="spoken"
    :aria-pressed="selected"
    @focus="emit('select')"
    @click="emit('select')"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="up"
  />
</template>

<style scoped>
.hold {
  position: absolute;
  left: 0;
  top: 0;
  touch-action: none;
  cursor: grab;
  border-radius: 8px;
}
.hold:active {
  cursor: grabbing;
}
</style>
