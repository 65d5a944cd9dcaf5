<script setup lang="ts">
import { useElementSize } from '@vueuse/core';
import { computed, nextTick, ref, shallowRef } from 'vue';
import {
  markedOf,
  movedTo,
  steppedOut,
  type Corners,
  type Hold,
  type OutlineRead,
  type Spot2,
} from '@kevro/core';
import { useUnits } from '../stores/units';
import type { Part } from './photo';

/** A photo with what was found in it: the corners of the sheet and the points of the outline, each of which can be dragged or stepped by keys. */
const props = defineProps<{
  address: string;
  size: { width: number; height: number };
  /** The part of it that is shown. */
  part: Part;
  corners?: Corners | undefined;
  curves?: { outer: Spot2[]; inner: Spot2[] } | undefined;
  /** Whether the face has an edge of its own within the hoop. */
  hasHoop: boolean;
}>();
const read = defineModel<OutlineRead | undefined>('read');
const emit = defineEmits<{ corners: [corners: Corners] }>();
const units = useUnits();

const ZOOMS = [1, 2, 4];
const zoom = ref(0);
const svg = ref<SVGSVGElement>();
const { width: shownPx } = useElementSize(svg);
/** How many elements of the photo a pixel of the screen is: marks are as large at every zoom. */
const scale = computed(() => props.part.width / Math.max(1, shownPx.value));
const path = (points: readonly Spot2[] | undefined): string =>
  points ? `M ${points.map(({ x, y }) => `${x.toFixed(1)} ${y.toFixed(1)}`).join(' L ')} Z` : '';
/** The corners while one of them is dragged. */
const dragged = shallowRef<Corners>();
const corners = computed(() => dragged.value ?? props.corners);
const marks = computed(() => read.value && markedOf(read.value));
interface Mark {
  key: string;
  hold: Hold;
  at: Spot2;
  said: string;
  value: string;
  isFirst: boolean;
}
const held = computed<Mark[]>(() => {
  const [on, at] = [read.value, marks.value];
  if (!on || !at) return [];
  const points = [0, 1].flatMap((side) =>
    on.points.flatMap(([fromTip, half], i): Mark[] => {
      const isEnd = i === 0 || i === on.points.length - 1;
      const place = at.sides[side]?.[i];
      if (!place || (isEnd && side > 0)) return [];
      const said =
        i === 0 ? 'Tip' : isEnd ? 'Lower end of the head' : `Point ${i} of ${on.points.length - 2}`;
      const from = `${units.showFound('length', fromTip)} below the tip`;
      const value = isEnd ? from : `half the width ${units.showFound('length', half)}, ${from}`;
      return [{ key: `${side} ${i}`, hold: i, at: place, said, value, isFirst: i === 0 }];
    }),
  );
  const length = `length ${units.showFound('length', on.lengthCm)}`;
  return [...points, { key: 'butt', hold: 'butt', at: at.butt, said: 'Butt', value: length, isFirst: false }];
});

function placeOf({ clientX, clientY }: PointerEvent): Spot2 {
  const matrix = svg.value?.getScreenCTM()?.inverse();
  const { x, y } = new DOMPoint(clientX, clientY).matrixTransform(matrix);
  return { x, y };
}
let hold: { point: Hold } | { corner: number } | undefined;
/** A finger takes hold of the mark that is nearest to it, within this, px. */
const REACH_PX = 22;
function take(event: PointerEvent): void {
  if (event.button !== 0) return;
  const place = placeOf(event);
  const marks = [
    ...(corners.value ?? []).map((at, corner) => ({ at, hold: { corner } })),
    ...held.value.map(({ at, hold: point }) => ({ at, hold: { point } })),
  ].map((mark) => ({ ...mark, far: Math.hypot(mark.at.x - place.x, mark.at.y - place.y) }));
  const [nearest] = marks.toSorted((one, other) => one.far - other.far);
  if (!nearest || nearest.far > REACH_PX * scale.value) return;
  event.preventDefault();
  svg.value?.setPointerCapture(event.pointerId);
  hold = nearest.hold;
}
function drag(event: PointerEvent): void {
  if (!hold) return;
  const place = placeOf(event);
  if ('point' in hold) {
    if (read.value) read.value = movedTo(read.value, hold.point, place);
  } else if (corners.value) dragged.value = corners.value.with(hold.corner, place) as unknown as Corners;
}
function drop(): void {
  if (hold && 'corner' in hold) settle();
  hold = undefined;
}
/** The sheet is looked at anew where its corners were put. */
function settle(): void {
  if (dragged.value) emit('corners', dragged.value);
  dragged.value = undefined;
}

const FINE_CM = 0.02;
const COARSE_CM = 0.2;
/** Which mark the keys go to: one stop for all of them. */
const current = ref('0 0');
const stop = computed(() =>
  held.value.some(({ key }) => key === current.value) ? current.value : held.value[0]?.key,
);
async function goTo(key: string | undefined): Promise<void> {
  if (!key) return;
  current.value = key;
  await nextTick();
  svg.value?.querySelector<SVGElement>(`[data-mark="${key}"]`)?.focus();
}
function key(event: KeyboardEvent, mark: Mark): void {
  const at = held.value.findIndex((one) => one.key === mark.key);
  const by = event.shiftKey ? COARSE_CM : FINE_CM;
  const steps: Record<string, () => void> = {
    ArrowRight: () => void goTo(held.value[(at + 1) % held.value.length]?.key),
    ArrowLeft: () => void goTo(held.value.at(at - 1)?.key),
    ArrowUp: () => (read.value = read.value && steppedOut(read.value, mark.hold, by)),
    ArrowDown: () => (read.value = read.value && steppedOut(read.value, mark.hold, -by)),
  };
  const step = steps[event.key];
  if (!step) return;
  event.preventDefault();
  step();
}
const ARROWS: Record<string, readonly [number, number]> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
function cornerKey(event: KeyboardEvent, i: number): void {
  const way = ARROWS[event.key];
  const now = corners.value;
  const from = now?.[i];
  if (!way || !now || !from) return;
  event.preventDefault();
  const by = event.shiftKey ? 20 : 2;
  dragged.value = now.with(i, { x: from.x + by * way[0], y: from.y + by * way[1] }) as unknown as Corners;
}
</script>

<template>
  <div class="zoom">
    <v-btn size="small" variant="text" :disabled="zoom === 0" @click="zoom--">Smaller</v-btn>
    <v-btn size="small" variant="text" :disabled="zoom === ZOOMS.length - 1" @click="zoom++">Larger</v-btn>
  </div>
  <div class="around" tabindex="-1">
    <svg
      ref="svg"
      :viewBox="`${part.x} ${part.y} ${part.width} ${part.height}`"
      :style="{ width: `${100 * (ZOOMS[zoom] ?? 1)}%` }"
      role="group"
      aria-label="The photo with the sheet and the outline"
      @pointerdown="take"
      @pointermove="drag"
      @pointerup="drop"
      @pointercancel="drop"
    >
      <image :href="address" :width="size.width" :height="size.height" />
      <path v-if="corners" class="sheet" :d="path(corners)" :stroke-width="2 * scale" />
      <path v-if="curves" class="under" :d="path(curves.outer)" :stroke-width="5 * scale" />
      <path v-if="curves" class="outer" :d="path(curves.outer)" :stroke-width="2.4 * scale" />
      <path
        v-if="curves && hasHoop"
        class="inner"
        :d="path(curves.inner)"
        :stroke-width="1.6 * scale"
        :stroke-dasharray="`${6 * scale} ${5 * scale}`"
      />
      <line
        v-if="marks"
        class="axis"
        :x1="marks.butt.x"
        :y1="marks.butt.y"
        :x2="marks.tip.x"
        :y2="marks.tip.y"
        :stroke-width="1.4 * scale"
        :stroke-dasharray="`${8 * scale} ${6 * scale}`"
      />
      <g
        v-for="(corner, i) in corners ?? []"
        :key="`corner ${i}`"
        class="mark"
        role="button"
        tabindex="0"
        :aria-label="`Corner ${i + 1} of the sheet`"
        :transform="`translate(${corner.x} ${corner.y})`"
        @keydown="cornerKey($event, i)"
        @keyup="settle"
      >
        <circle class="reach" :r="REACH_PX * scale" />
        <rect
          class="corner"
          :x="-7 * scale"
          :y="-7 * scale"
          :width="14 * scale"
          :height="14 * scale"
          :stroke-width="2.4 * scale"
        />
      </g>
      <g
        v-for="mark in held"
        :key="mark.key"
        class="mark"
        role="slider"
        :data-mark="mark.key"
        :tabindex="mark.key === stop ? 0 : -1"
        :aria-label="mark.said"
        aria-orientation="vertical"
        :aria-valuenow="mark.hold === 'butt' ? 0 : mark.hold"
        :aria-valuetext="mark.value"
        :transform="`translate(${mark.at.x} ${mark.at.y})`"
        @focus="current = mark.key"
        @keydown="key($event, mark)"
      >
        <circle class="reach" :r="REACH_PX * scale" />
        <circle class="point" :r="5 * scale" :stroke-width="2 * scale" />
      </g>
    </svg>
  </div>
</template>

<style scoped>
.zoom {
  display: flex;
  justify-content: flex-end;
}
.around {
  overflow: auto;
  max-height: 74vh;
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 6px;
}
svg {
  display: block;
}
path,
line {
  fill: none;
}
.under {
  stroke: #fff;
}
.outer,
.inner {
  stroke: rgb(var(--v-theme-reference));
}
.axis {
  stroke: #fff;
}
.sheet {
  stroke: rgb(var(--v-theme-reference));
}
.mark {
  cursor: grab;
  touch-action: none;
}
.mark:active {
  cursor: grabbing;
}
.reach {
  fill: transparent;
}
.point,
.corner {
  fill: #fff;
  stroke: rgb(var(--v-theme-reference));
}
.mark:focus-visible .point,
.mark:focus-visible .corner {
  fill: rgb(var(--v-theme-reference));
  stroke: #fff;
}
</style>
