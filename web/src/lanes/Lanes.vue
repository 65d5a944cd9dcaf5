<script setup lang="ts">
import { useElementSize } from '@vueuse/core';
import { computed, ref } from 'vue';
import { recoilWeight, type AxisSpecs, type KnownSpecs, type SpecKey } from '@kevro/core';
import Lane from './Lane.vue';
import { SPEC_KEYS, type LaneMarks } from './lane';

const props = defineProps<{ marks: LaneMarks; lengthCm: number; axisCm: number; compact?: boolean }>();
const emit = defineEmits<{ open: [what: SpecKey | 'recoil'] }>();

const box = ref<HTMLElement>();
const { width } = useElementSize(box);
/** Narrower than this, a lane stands below its name and number. */
const NARROW = 520;
const BESIDE = 112 + 190;
const laneWidth = computed(() => Math.max(160, width.value < NARROW ? width.value : width.value - BESIDE));

const recoilOf = (specs: KnownSpecs | undefined): number | undefined => {
  const { massG, balanceCm, swingWeight } = specs ?? {};
  if (massG === undefined || balanceCm === undefined || swingWeight === undefined) return undefined;
  const whole: AxisSpecs = { massG, balanceCm, swingWeight, axisCm: props.axisCm };
  return recoilWeight(whole);
};
const before = computed(() => recoilOf(props.marks.measured));
const after = computed(() => recoilOf(props.marks.predicted));
const recoil = computed(() => after.value ?? before.value);
const words = computed(() => {
  if (before.value === undefined || after.value === undefined) return 'inertia about the balance point';
  const change = after.value - before.value;
  if (Math.abs(change) < 0.5) return 'as steady as before when the ball comes at you';
  return `${change > 0 ? 'steadier' : 'livelier'} when the ball comes at you: ${before.value.toFixed(0)} → ${after.value.toFixed(0)}`;
});
</script>

<template>
  <div ref="box" class="lanes">
    <Lane
      v-for="key in SPEC_KEYS"
      :key="key"
      :spec="key"
      :marks="marks"
      :length-cm="lengthCm"
      :width="laneWidth"
      :compact="compact"
      @open="emit('open', $event)"
    />
    <div class="recoil">
      <div class="name">
        Recoil weight
        <div class="unit">kg·cm²</div>
      </div>
      <div class="soft small">{{ recoil === undefined ? '' : words }}</div>
      <div class="value">
        <button
          v-if="recoil !== undefined"
          type="button"
          class="number"
          :aria-label="`Recoil weight ${recoil.toFixed(0)}: show how it came about`"
          @click="emit('open', 'recoil')"
        >
          {{ recoil.toFixed(0) }}
        </button>
        <span v-else class="number soft">—</span>
        <span v-if="after !== undefined && before !== undefined" class="soft small">
          was {{ before.toFixed(0) }}</span
        >
      </div>
    </div>
  </div>
</template>

<style scoped>
.lanes {
  container-type: inline-size;
}
.recoil {
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
  .recoil {
    grid-template-columns: 1fr 190px;
  }
  .recoil .soft.small:nth-child(2) {
    display: none;
  }
}
</style>
