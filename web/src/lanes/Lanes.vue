<script setup lang="ts">
import { useElementSize } from '@vueuse/core';
import { computed, ref } from 'vue';
import { DERIVED, derivedOf, specsToShow, type DerivedKey, type NumberKey, type SpecKey } from '@kevro/core';
import type { OfFrame } from '../ui/typed';
import { useUnits } from '../stores/units';
import { DERIVED_HINTS, DERIVED_NAMES } from '../words';
import Lane from './Lane.vue';
import type { LaneMarks } from './lane';

const props = defineProps<{
  marks: LaneMarks;
  shape: OfFrame;
  axisCm: number;
  compact?: boolean;
  /** The aim may be moved in the lanes. */
  aimable?: boolean;
}>();
const emit = defineEmits<{ open: [what: NumberKey]; aim: [spec: SpecKey, value: number] }>();

const units = useUnits();
/** A rating has a lane where it is known of this frame, or of one beside it. */
const keys = computed(() => {
  const { measured, checked, setups = [] } = props.marks;
  return specsToShow([measured, checked, ...setups.filter(({ marked }) => marked).map(({ specs }) => specs)]);
});
const box = ref<HTMLElement>();
const { width } = useElementSize(box);
/** Narrower than this, a lane stands below its name and number. */
const NARROW = 520;
const BESIDE = 112 + 190;
const laneWidth = computed(() => Math.max(160, width.value < NARROW ? width.value : width.value - BESIDE));

/** The derived numbers that stand under the lanes. */
const SHOWN: readonly DerivedKey[] = ['recoilWeight'];
/** What a change of one means, where it means something to a hand. */
const CHANGE_WORDS: Partial<Record<DerivedKey, [more: string, less: string, same: string]>> = {
  recoilWeight: [
    'steadier when the ball comes at you',
    'livelier when the ball comes at you',
    'as steady as before when the ball comes at you',
  ],
};
const rows = computed(() =>
  SHOWN.map((key) => {
    const of = (specs: LaneMarks['measured']) =>
      derivedOf(key, specs ?? {}, props.axisCm, props.shape.lengthCm);
    const before = of(props.marks.measured);
    const now = props.marks.checked ?? props.marks.predicted;
    const after = now && of(now);
    // An inertia is shown as finely as the swing weight of the sport.
    const show = (value: number): string => value.toFixed(units.digits('swingWeight', props.shape.sport));
    const words = CHANGE_WORDS[key];
    let hint = DERIVED_HINTS[key];
    if (before !== undefined && after !== undefined && words) {
      const [more, less, same] = words;
      if (show(before) === show(after)) hint = same;
      else hint = `${after > before ? more : less}: ${show(before)} → ${show(after)}`;
    }
    const value = after ?? before;
    return {
      key,
      name: DERIVED_NAMES[key],
      unit: DERIVED[key].unit,
      hint: value === undefined ? '' : hint,
      value: value === undefined ? undefined : show(value),
      was: after !== undefined && before !== undefined ? show(before) : undefined,
    };
  }),
);
</script>

<template>
  <div ref="box" class="lanes">
    <Lane
      v-for="key in keys"
      :key="key"
      :spec="key"
      :marks="marks"
      :shape="shape"
      :width="laneWidth"
      :compact="compact"
      :aimable="aimable"
      @open="emit('open', $event)"
      @aim="(spec, value) => emit('aim', spec, value)"
    />
    <div v-for="row in rows" :key="row.key" class="derived">
      <div class="name">
        {{ row.name }}
        <div class="unit">{{ row.unit }}</div>
      </div>
      <div class="soft small">{{ row.hint }}</div>
      <div class="value">
        <button
          v-if="row.value !== undefined"
          type="button"
          class="number"
          :aria-label="`${row.name} ${row.value}: show how it came about`"
          @click="emit('open', row.key)"
        >
          {{ row.value }}
        </button>
        <span v-else class="number soft">—</span>
        <span v-if="row.was !== undefined" class="soft small"> was {{ row.was }}</span>
      </div>
    </div>
  </div>
</template>

<style scoped>
.lanes {
  container-type: inline-size;
}
.derived {
  display: grid;
  grid-template-columns: 112px 1fr 190px;
  align-items: center;
  min-height: 46px;
  border-top: 1px solid rgb(var(--v-theme-line));
}
.name {
  font-weight: 600;
  font-size: 14px;
  line-height: 1.25;
}
.unit {
  font-weight: 400;
  font-size: 13px;
  color: rgb(var(--v-theme-soft));
}
.value {
  text-align: right;
}
.number {
  font-size: 19px;
  font-weight: 700;
}
button.number:hover {
  text-decoration: underline;
}
@container (max-width: 519px) {
  .derived {
    grid-template-columns: 1fr 190px;
  }
  .derived .soft.small:nth-child(2) {
    display: none;
  }
}
</style>
