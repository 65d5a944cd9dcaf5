<script setup lang="ts">
import { useElementSize } from '@vueuse/core';
import { computed, ref } from 'vue';
import { zoneOf, type Dress, type Frame, type Placement, type SweetRegion } from '@kevro/core';
import { useUnits } from '../stores/units';
import { ZONE_NAMES } from '../words';
import { partWeight } from '../words/part-weight';
import RailHold from './RailHold.vue';
import RailRuler from './RailRuler.vue';
import RailSweet from './RailSweet.vue';
import RailWeight from './RailWeight.vue';
import { apartInHandle, frameDrawing, line, weightDrawing } from './drawing';
import { railScale } from './scale';

export interface Ghost {
  id: string;
  name: string;
  balanceCm: number;
}

const props = defineProps<{
  frame: Frame;
  dress?: Dress;
  measuredBalanceCm?: number;
  plannedBalanceCm?: number;
  sweetBefore?: SweetRegion;
  sweetAfter?: SweetRegion;
  ghosts?: readonly Ghost[];
  weights?: readonly Placement[];
  /** What stands beside a weight: on each side, or once for both. */
  weightLabels?: readonly string[];
  labelOnce?: boolean;
  /** The id of the chosen weight. */
  selected?: string;
  movable?: boolean;
  /** On paper, where there is nothing to measure, px. */
  fixedWidth?: number;
}>();
const emit = defineEmits<{
  select: [id: string];
  /** A weight is dragged to a point, cm; `last` when it is let go. */
  drag: [id: string, xCm: number, yCm: number, last: boolean];
}>();

const box = ref<HTMLElement>();
const { width } = useElementSize(box);
const units = useUnits();
const scale = computed(() => railScale(props.frame, props.fixedWidth ?? Math.max(280, width.value)));
const drawing = computed(() => frameDrawing(scale.value, props.frame, props.dress));
const show = (cm: number): string =>
  units.show('balanceCm', cm, { sport: props.frame.sport.sport, lengthCm: props.frame.lengthCm });

const FULCRUM_TOP = 24;
const fulcrum = (cm: number): string => {
  const x = scale.value.px(cm);
  const y = scale.value.rulerY - 2;
  return `M ${x} ${y - FULCRUM_TOP + 4} l 10 ${FULCRUM_TOP - 6} h -20 z`;
};
const differs = computed(
  () =>
    props.plannedBalanceCm !== undefined &&
    props.measuredBalanceCm !== undefined &&
    Math.abs(props.plannedBalanceCm - props.measuredBalanceCm) > 0.02,
);
/** Names of ghosts stand one above the other, left of where they balance. */
const ghostLabels = computed(() =>
  (props.ghosts ?? []).map((ghost, i) => ({ ...ghost, y: scale.value.rulerY - 38 - 18 * i })),
);
/** The measured number stands left of its fulcrum and the planned one right; the further head-light takes the left. */
const plannedLeft = computed(
  () => (props.plannedBalanceCm ?? 0) < (props.measuredBalanceCm ?? 0) && differs.value,
);

const drawings = computed(() => {
  const weights = props.weights ?? [];
  const each = weights.map((placement) => weightDrawing(scale.value, props.frame, placement));
  return apartInHandle(scale.value, props.frame, weights, each, props.weightLabels ?? []);
});
const drawn = computed(() =>
  (props.weights ?? []).flatMap((placement, i) => {
    const drawing = drawings.value[i];
    if (!drawing) return [];
    const { massG, sides, id } = placement;
    const zone = ZONE_NAMES[zoneOf(props.frame, placement)];
    return {
      id,
      drawing,
      spoken: `${zone}, ${partWeight(massG)}${sides === 2 ? ' in two halves' : ''}`,
    };
  }),
);

const summary = computed(() => {
  const parts = [`Frame, ${props.frame.lengthCm} cm long, drawn to scale.`];
  if (props.measuredBalanceCm !== undefined) parts.push(`Balance ${show(props.measuredBalanceCm)}.`);
  if (props.plannedBalanceCm !== undefined) parts.push(`Planned balance ${show(props.plannedBalanceCm)}.`);
  return parts.join(' ');
});
</script>

<template>
  <div ref="box" class="rail">
    <svg :width="scale.width" :height="scale.height" role="group" :aria-label="summary">
      <g class="outline">
        <path v-for="(d, i) in drawing.limbs" :key="i" :d="d" />
        <path :d="drawing.outer" class="hoop" />
      </g>
      <g class="mesh"><path v-for="(d, i) in drawing.mesh" :key="i" :d="d" /></g>
      <g class="outline">
        <path :d="drawing.inner" />
        <rect v-bind="drawing.handle" rx="4" class="handle" />
      </g>
      <g class="wraps"><path v-for="(d, i) in drawing.wraps" :key="i" :d="d" /></g>
      <rect v-bind="drawing.butt" rx="3" class="butt" />
      <circle
        v-if="drawing.dampener"
        :cx="scale.px(drawing.dampener.xCm)"
        :cy="scale.py(0)"
        r="6"
        class="dampener"
      />

      <path v-if="sweetBefore" :d="line(scale, sweetBefore.outline, true)" class="sweet before" />
      <path v-if="sweetAfter" :d="line(scale, sweetAfter.outline, true)" class="sweet after" />

      <RailRuler :scale="scale" :length-cm="frame.lengthCm" />

      <g class="hand">
        <line
          :x1="scale.px(frame.sport.axisCm)"
          :x2="scale.px(frame.sport.axisCm)"
          :y1="scale.py(0) - 44"
          :y2="scale.rulerY"
        />
        <circle :cx="scale.px(frame.sport.axisCm)" :cy="scale.py(0)" r="5" />
        <text :x="scale.px(frame.sport.axisCm)" :y="scale.py(0) - 62" text-anchor="middle">hand axis</text>
      </g>

      <g v-for="ghost in ghostLabels" :key="ghost.id" class="ghost">
        <line
          :x1="scale.px(ghost.balanceCm)"
          :x2="scale.px(ghost.balanceCm)"
          :y1="ghost.y - 5"
          :y2="scale.rulerY - FULCRUM_TOP"
        />
        <path :d="fulcrum(ghost.balanceCm)" />
        <text :x="scale.px(ghost.balanceCm) - 8" :y="ghost.y" text-anchor="end">
          {{ ghost.name }} {{ show(ghost.balanceCm) }}
        </text>
      </g>

      <g v-if="measuredBalanceCm !== undefined" class="balance">
        <line
          :x1="scale.px(measuredBalanceCm)"
          :x2="scale.px(measuredBalanceCm)"
          :y1="scale.py(0)"
          :y2="scale.rulerY - FULCRUM_TOP"
        />
        <path :d="fulcrum(measuredBalanceCm)" class="solid" />
        <text
          :x="scale.px(measuredBalanceCm) + (plannedLeft ? 15 : -15)"
          :y="scale.rulerY - 8"
          :text-anchor="plannedLeft ? 'start' : 'end'"
          class="strong"
        >
          {{ show(measuredBalanceCm) }}
        </text>
      </g>
      <g v-if="plannedBalanceCm !== undefined && differs" class="balance">
        <path :d="fulcrum(plannedBalanceCm)" class="open" />
        <text
          :x="scale.px(plannedBalanceCm) + (plannedLeft ? -15 : 15)"
          :y="scale.rulerY - 8"
          :text-anchor="plannedLeft ? 'end' : 'start'"
        >
          {{ show(plannedBalanceCm) }} planned
        </text>
      </g>

      <RailWeight
        v-for="(weight, i) in drawn"
        :key="weight.id"
        :drawing="weight.drawing"
        :label="weightLabels?.[i] ?? ''"
        :label-once="labelOnce ?? false"
        :selected="selected === weight.id"
        :spoken="movable ? undefined : weight.spoken"
      />
    </svg>
    <RailSweet :sport="frame.sport" :drawn="!fixedWidth && Boolean(sweetBefore || sweetAfter)" />
    <template v-if="movable">
      <template v-for="weight in drawn" :key="weight.id">
        <RailHold
          v-for="(hold, i) in weight.drawing.holds"
          :key="i"
          :scale="scale"
          :hold="hold"
          :spoken="weight.spoken"
          :selected="selected === weight.id"
          :again="i > 0"
          @select="emit('select', weight.id)"
          @drag="(xCm, yCm, last) => emit('drag', weight.id, xCm, yCm, last)"
        />
      </template>
    </template>
  </div>
</template>

<style scoped>
.rail {
  contain: layout;
  position: relative;
  width: 100%;
  overflow: hidden;
  line-height: 0;
}
svg {
  display: block;
  font-size: 13px;
}
.mesh path {
  stroke: rgb(var(--v-theme-mesh));
  stroke-width: 0.8;
}
.outline {
  fill: none;
  stroke: rgb(var(--v-theme-ink));
  stroke-width: 1.6;
}
.hoop {
  fill: rgb(var(--v-theme-paper));
}
.handle {
  fill: rgb(var(--v-theme-grip));
}
.wraps path {
  stroke: rgb(var(--v-theme-soft));
  stroke-width: 0.8;
  opacity: 0.55;
}
.butt,
.dampener {
  fill: rgb(var(--v-theme-ink));
}
.sweet {
  stroke: rgb(var(--v-theme-ink));
  fill: none;
}
.sweet.before {
  stroke-dasharray: 3 4;
  stroke-width: 1.2;
}
.sweet.after {
  stroke-width: 1.4;
  fill: rgb(var(--v-theme-ink));
  fill-opacity: 0.07;
}
.hand line {
  stroke: rgb(var(--v-theme-soft));
  stroke-dasharray: 2 3;
}
.hand circle {
  fill: rgb(var(--v-theme-sheet));
  stroke: rgb(var(--v-theme-ink));
  stroke-width: 1.5;
}
.hand text {
  fill: rgb(var(--v-theme-soft));
}
.balance line {
  stroke: rgb(var(--v-theme-ink));
  stroke-dasharray: 2 3;
}
.balance path {
  stroke: rgb(var(--v-theme-ink));
  stroke-width: 1.6;
}
.balance .solid {
  fill: rgb(var(--v-theme-ink));
}
.balance .open {
  fill: rgb(var(--v-theme-sheet));
}
.balance text {
  fill: rgb(var(--v-theme-ink));
}
.strong {
  font-weight: 700;
}
.ghost line {
  stroke: rgb(var(--v-theme-reference));
  stroke-dasharray: 2 3;
}
.ghost path {
  fill: none;
  stroke: rgb(var(--v-theme-reference));
  stroke-width: 1.6;
}
.ghost text {
  fill: rgb(var(--v-theme-reference));
}
</style>
