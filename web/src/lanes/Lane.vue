<script setup lang="ts">
import { computed, shallowRef, useId } from 'vue';
import { type SpecKey, isPlanned, pointsHeadLight, sportData, targetOf, type AnySpecKey } from '@kevro/core';
import type { OfFrame } from '../ui/typed';
import { useShop } from '../stores/shop';
import { useUnits } from '../stores/units';
import { SPEC_NAMES, toTarget } from '../words';
import LaneAim from './LaneAim.vue';
import { laneDomain, laneScale, standing, type LaneMarks } from './lane';

const props = defineProps<{
  spec: AnySpecKey;
  marks: LaneMarks;
  shape: OfFrame;
  width: number;
  compact?: boolean;
  /** The aim may be moved here. */
  aimable?: boolean;
}>();
const emit = defineEmits<{ open: [spec: SpecKey]; aim: [spec: SpecKey, value: number] }>();

const shop = useShop();
const units = useUnits();
const hatch = useId();
const checked = computed(
  () =>
    props.marks.checked !== undefined &&
    (isPlanned(props.spec) || props.marks.checked[props.spec] !== undefined),
);
const own = computed(() => ({
  // Once it was checked, what was found stands back. A rating is what it was: weight leaves it.
  found: checked.value ? props.marks.measured?.[props.spec] : undefined,
  measured: (checked.value ? props.marks.checked : props.marks.measured)?.[props.spec],
  predicted: props.marks.predicted?.[props.spec],
  band: props.marks.guide?.[props.spec],
  wall: props.marks.walls?.[props.spec],
}));
/** The setups' marks: they stay while a plan moves. */
const setups = computed(() => props.marks.setups);
const setupTicks = computed(() =>
  (setups.value ?? []).flatMap((s) => {
    const value = s.specs[props.spec];
    return value === undefined ? [] : [{ id: s.id, value, marked: s.marked }];
  }),
);
/** What is shown is an estimate: a plan on an estimate is one too. */
const guessed = computed(() => props.marks.estimated?.includes(props.spec) ?? false);
const aimed = computed(() =>
  isPlanned(props.spec) ? targetOf(props.marks.aim ?? {}, props.spec) : undefined,
);
const shown = computed(() =>
  checked.value ? own.value.measured : (own.value.predicted ?? own.value.measured),
);
const measuredUncertainty = computed(
  () => (checked.value ? props.marks.checkedUncertainty : props.marks.measuredUncertainty)?.[props.spec],
);
const uncertainty = computed(() =>
  own.value.predicted !== undefined && !checked.value
    ? props.marks.predictedUncertainty?.[props.spec]
    : measuredUncertainty.value,
);
/** While the aim is dragged the lane stands still under it. */
const held = shallowRef<[number, number]>();
const scale = computed(() => laneScale(held.value ?? laneDomain(props.spec, props.marks), props.width));
const x = (value: number): number => scale.value.x(value);
const stand = computed(() => standing(props.spec, props.marks, shop.sportOf(props.shape.sport)));

const show = (value: number, extra = 0): string => units.show(props.spec, value, props.shape, extra);
/** Half of a number beside the end of the lane would be cut off. */
const NEAR_END = 20;
const anchorAt = (at: number): 'start' | 'middle' | 'end' => {
  if (at < NEAR_END) return 'start';
  return at > props.width - NEAR_END ? 'end' : 'middle';
};
/** Ticks of a balance lane are labelled in the shown unit; a tick's own value stays in cm. */
const tickLabel = (value: number): string => {
  if (props.spec === 'balanceCm' && units.way.balance === 'points') {
    return pointsHeadLight(value, props.shape.lengthCm).toFixed(1);
  }
  if (props.spec === 'massG' && units.way.mass === 'oz') return show(value);
  return props.spec === 'balanceCm' && units.way.balance === 'in'
    ? show(value)
    : String(Number(value.toFixed(2)));
};
const bracket = computed(() => {
  const t = aimed.value;
  if (!t) return '';
  const left = x(t.value - t.tolerance) - 3;
  const right = x(t.value + t.tolerance) + 3;
  return `M ${left + 7} 9 H ${left} V 45 H ${left + 7} M ${right - 7} 9 H ${right} V 45 H ${right - 7}`;
});
const whisker = (value: number, u: number | undefined): [number, number] => [
  x(value - 2 * (u ?? 0)),
  x(value + 2 * (u ?? 0)),
];
const measuredWhisker = computed(() => whisker(own.value.measured ?? 0, measuredUncertainty.value));
const predictedWhisker = computed(() =>
  whisker(own.value.predicted ?? 0, props.marks.predictedUncertainty?.[props.spec]),
);
const unitWords = computed(() => {
  const unit = units.unit(props.spec);
  if (props.spec !== 'balanceCm' || shown.value === undefined) return unit;
  if (units.way.balance === 'points') return `points · ${shown.value.toFixed(1)} cm`;
  const points = pointsHeadLight(shown.value, props.shape.lengthCm);
  return `${unit} · ${Math.abs(points).toFixed(1)} pts ${points < 0 ? 'HH' : 'HL'}`;
});
const steps = computed(() => {
  const s = stand.value?.steps ?? 0;
  return `${Math.abs(s).toFixed(1)} steps`;
});
/** What is to do: a sign alone reads backwards as often as not. */
const toGo = computed(() => {
  const over = stand.value?.difference ?? 0;
  return toTarget(props.spec, over, units.sayWidth(props.spec, Math.abs(over), props.shape.sport));
});
const spoken = computed(() => {
  const words = [SPEC_NAMES[props.spec]];
  if (own.value.found !== undefined) words.push(`found ${show(own.value.found)}`);
  if (own.value.measured !== undefined)
    words.push(`${guessed.value ? 'estimated' : 'measured'} ${show(own.value.measured)}`);
  if (own.value.predicted !== undefined) words.push(`predicted ${show(own.value.predicted)}`);
  if (aimed.value) words.push(`aim ${show(aimed.value.value)}`);
  return `${words.join(', ')} ${units.unit(props.spec)}`;
});
</script>

<template>
  <div class="lane" :class="{ compact }">
    <div class="name">
      {{ SPEC_NAMES[spec] }}
      <div class="unit">{{ unitWords }}</div>
    </div>
    <svg :width="width" :height="compact ? 60 : 70" :role="aimable ? 'group' : 'img'" :aria-label="spoken">
      <template v-if="shown !== undefined || setupTicks.length > 0 || aimed">
        <defs>
          <pattern
            :id="hatch"
            width="6"
            height="6"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <line x1="0" y1="0" x2="0" y2="6" class="hatch" />
          </pattern>
        </defs>
        <rect
          v-if="own.band"
          :x="x(own.band[0])"
          y="26"
          :width="Math.max(0, x(own.band[1]) - x(own.band[0]))"
          height="14"
          :fill="`url(#${hatch})`"
        />
        <line x1="8" :x2="width - 8" y1="40" y2="40" class="base" />
        <template v-for="t in scale.ticks" :key="t">
          <line :x1="x(t)" :x2="x(t)" y1="40" y2="44" class="base" />
          <text :x="x(t)" :y="compact ? 57 : 67" :text-anchor="anchorAt(x(t))" class="tick">
            {{ tickLabel(t) }}
          </text>
        </template>
        <line
          v-for="tick in compact ? [] : setupTicks"
          :key="tick.id"
          :x1="x(tick.value)"
          :x2="x(tick.value)"
          y1="46"
          :y2="tick.marked ? 57 : 52"
          class="setup"
          :class="{ marked: tick.marked }"
        />
        <g v-if="own.wall" class="wall">
          <line :x1="x(own.wall.value)" :x2="x(own.wall.value)" y1="14" y2="44" />
          <!-- Above the bars and the bracket, which may stand right beside it. -->
          <text
            :x="Math.min(x(own.wall.value), width - 8)"
            y="10"
            :text-anchor="x(own.wall.value) > width - 40 ? 'end' : 'middle'"
          >
            {{ own.wall.name }}
          </text>
        </g>
        <path v-if="aimed && !aimable" :d="bracket" class="aim" />
        <line
          v-if="own.found !== undefined"
          :x1="x(own.found)"
          :x2="x(own.found)"
          y1="24"
          y2="40"
          class="found"
        />
        <g v-if="own.measured !== undefined" class="measured" :class="{ guessed }">
          <line :x1="measuredWhisker[0]" :x2="measuredWhisker[1]" y1="21" y2="21" />
          <rect :x="x(own.measured) - 2.5" y="11" width="5" height="29" />
        </g>
        <g v-if="own.predicted !== undefined" class="predicted">
          <line :x1="predictedWhisker[0]" :x2="predictedWhisker[1]" y1="21" y2="21" />
          <rect :x="x(own.predicted) - 3.5" y="12" width="7" height="28" />
        </g>
        <!-- Last, so that it lies over whatever stands in the same place. -->
        <LaneAim
          v-if="aimed && aimable"
          :name="SPEC_NAMES[spec]"
          :said="`${show(aimed.value)} ${units.unit(spec)}`"
          :target="aimed"
          :step="sportData(shape.sport).aimStep[spec]"
          :scale="scale"
          :width="width"
          @hold="held = laneDomain(spec, marks)"
          @release="held = undefined"
          @move="emit('aim', spec as SpecKey, $event)"
        >
          <path :d="bracket" class="aim" />
        </LaneAim>
      </template>
      <text v-else x="8" y="40" class="tick">not measured yet</text>
    </svg>
    <div class="value">
      <template v-if="shown !== undefined">
        <button
          v-if="isPlanned(spec)"
          type="button"
          class="big"
          :aria-label="`${SPEC_NAMES[spec]} ${show(shown)}: show how it came about`"
          @click="emit('open', spec as SpecKey)"
        >
          {{ show(shown) }}
        </button>
        <span v-else class="big">{{ show(shown) }}</span>
        <span v-if="uncertainty !== undefined" class="pm">
          ±{{ units.showWidth(spec, 2 * uncertainty, shape.sport) }}</span
        >
        <b v-if="guessed" class="guess"> est.</b>
        <span v-if="marks.stated?.includes(spec)" class="pm"> as stated</span>
      </template>
      <span v-else class="big none">—</span>
      <div v-if="stand && aimed" class="line">
        <template v-if="stand.inside"
          >target {{ show(aimed.value) }} <b class="good">in tolerance</b></template
        >
        <template v-else
          >target {{ show(aimed.value) }}: <b class="miss">{{ toGo }}</b></template
        >
      </div>
      <div v-if="stand && !stand.inside && own.predicted === undefined" class="line">{{ steps }} away</div>
      <div v-if="checked && own.predicted !== undefined && own.measured !== undefined" class="line">
        planned {{ show(own.predicted) }},
        {{ units.showChange(spec, own.measured - own.predicted, shape.sport) }}
      </div>
      <div v-else-if="own.predicted !== undefined && own.measured !== undefined" class="line">
        was {{ show(own.measured) }}, {{ units.showChange(spec, own.predicted - own.measured, shape.sport) }}
      </div>
    </div>
  </div>
</template>

<style scoped>
.lane {
  /* What moves in one lane moves nothing around it. */
  contain: layout;
  display: grid;
  grid-template-columns: 112px 1fr 190px;
  align-items: center;
  min-height: 73px;
  border-top: 1px solid rgb(var(--v-theme-line));
}
.compact {
  min-height: 60px;
}
.name {
  font-weight: 700;
}
.unit {
  font-weight: 400;
  font-size: 13px;
  color: rgb(var(--v-theme-soft));
}
svg {
  display: block;
  overflow: hidden;
}
.hatch {
  stroke: rgb(var(--v-theme-band));
  stroke-width: 2;
}
.base {
  stroke: rgb(var(--v-theme-ink));
  stroke-width: 0.9;
}
.tick {
  font-size: 12px;
  fill: rgb(var(--v-theme-soft));
}
.setup {
  stroke: rgb(var(--v-theme-reference));
  stroke-width: 1.4;
}
.setup.marked {
  stroke-width: 3.5;
}
.wall line {
  stroke: rgb(var(--v-theme-brick));
  stroke-width: 4;
}
.wall text {
  font-size: 12px;
  fill: rgb(var(--v-theme-brick));
}
.aim {
  fill: none;
  stroke: rgb(var(--v-theme-aim));
  stroke-width: 3;
}
.measured rect {
  fill: rgb(var(--v-theme-ink));
}
.measured.guessed rect {
  fill: rgb(var(--v-theme-sheet));
  stroke: rgb(var(--v-theme-ink));
  stroke-width: 1.4;
  stroke-dasharray: 2.5 2;
}
.found {
  stroke: rgb(var(--v-theme-soft));
  stroke-width: 3;
  opacity: 0.55;
}
.guess {
  font-size: 13px;
  color: rgb(var(--v-theme-warn));
}
.measured line,
.predicted line {
  stroke: rgb(var(--v-theme-ink));
  stroke-width: 1.5;
}
.predicted rect {
  fill: rgb(var(--v-theme-sheet));
  stroke: rgb(var(--v-theme-ink));
  stroke-width: 1.8;
}
.value {
  text-align: right;
  line-height: 1.25;
}
.big {
  font-size: 26px;
  font-weight: 700;
  letter-spacing: -0.01em;
  line-height: 1.1;
}
button.big:hover {
  text-decoration: underline;
  text-decoration-thickness: 2px;
  text-underline-offset: 3px;
}
.none {
  color: rgb(var(--v-theme-soft));
}
.pm,
.line {
  font-size: 13px;
  color: rgb(var(--v-theme-soft));
  white-space: nowrap;
}
@container (max-width: 519px) {
  .lane {
    grid-template-columns: 1fr 190px;
    padding: 6px 0;
  }
  .lane svg {
    grid-column: 1 / 3;
    grid-row: 2;
  }
}
</style>
