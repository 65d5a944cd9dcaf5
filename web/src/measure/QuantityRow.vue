<script setup lang="ts">
import { computed } from 'vue';
import type { Quantity } from '@kevro/core';
import { sentence } from '@kevro/contract';
import NumberField from '../forms/NumberField.vue';
import { timesWords } from '../words/chance';
import type { CaptureBench } from './capture';
import { MEANS_WORDS, QUANTITY_NAMES, useQuantities } from './quantities';

/** One quantity: a field to type it, what stands of it, and its readings. */
const props = defineProps<{
  quantity: Quantity;
  bench: CaptureBench;
  active: boolean;
  /** How often it is to be read, and how often more. */
  times: number;
  left: number;
}>();
const emit = defineEmits<{ activate: []; next: [] }>();
const { unit, show, showBand } = useQuantities();

const { shape } = props.bench.frame;
const standing = computed(() => props.bench.found.value.settled[props.quantity]);
const readings = computed(() => {
  const { values, outliers, waiting } = props.bench.found.value;
  return (props.bench.capture.value?.readings ?? [])
    .filter((r) => r.quantity === props.quantity)
    .map((r) => {
      const value = values[r.id];
      const waits = waiting[r.id];
      return {
        id: r.id,
        setAside: r.setAside,
        text: value === undefined ? 'waits' : show(props.quantity, value, shape, 1),
        means: MEANS_WORDS[r.means],
        outlying: outliers.includes(r.id),
        problem: waits ? sentence(waits) : '',
      };
    });
});
const outlying = computed(() => readings.value.filter((r) => r.outlying && !r.setAside));
const problem = computed(() => readings.value.find((r) => r.problem && !r.setAside)?.problem);

async function enter(event: KeyboardEvent): Promise<void> {
  event.preventDefault();
  // With nothing typed, Enter only goes on.
  const empty = props.bench.typed.value[props.quantity] === null;
  const entered = empty || (await props.bench.enter(props.quantity));
  // Who went on meanwhile is not called back.
  if (entered && !event.shiftKey && document.activeElement === event.target) emit('next');
}
const typed = computed({
  get: () => props.bench.typed.value[props.quantity],
  set: (now) => {
    props.bench.type(props.quantity, now);
  },
});
/** Left/right is no spec: which side is heavier, in grams. */
const asked = computed(() =>
  props.quantity === 'leftRightG'
    ? { measure: 'mass' as const, unit: 'g', signed: true }
    : { spec: props.quantity, shape },
);
</script>

<template>
  <div class="quantity" :class="{ active }" role="group" :aria-label="QUANTITY_NAMES[quantity]">
    <div class="row">
      <NumberField
        v-model="typed"
        :label="QUANTITY_NAMES[quantity]"
        v-bind="asked"
        :error="bench.errorAt(quantity)"
        @keydown.enter="enter"
        @focused="emit('activate')"
        @left="typed !== null && bench.left.value.add(quantity)"
      />
      <button type="button" class="stands" :aria-pressed="active" @click="emit('activate')">
        <span class="d-sr-only">Take {{ QUANTITY_NAMES[quantity] }}: </span>
        <template v-if="standing">
          <b>{{ show(quantity, standing.value, shape) }}</b>
          <span class="soft small">
            ±{{ showBand(quantity, standing.uncertainty, shape) }} {{ unit(quantity) }}
            <b v-if="standing.estimated" class="warn">est.</b>
          </span>
          <span
            v-if="times > 1 && !standing.estimated"
            class="small d-block"
            :class="left > 0 ? 'warn' : 'soft'"
          >
            {{ times - left }} of {{ times }} read
          </span>
        </template>
        <span v-else class="soft small">{{
          times > 1
            ? `read ${timesWords(times)}`
            : quantity === 'twistWeight' || quantity === 'leftRightG'
              ? 'if you can'
              : 'no reading'
        }}</span>
      </button>
    </div>
    <ul v-if="readings.length > 0 && (active || outlying.length > 0 || problem)" class="chips">
      <li v-for="r in readings" :key="r.id">
        <button
          type="button"
          class="chip"
          :class="{ aside: r.setAside, outlying: r.outlying && !r.setAside }"
          :aria-pressed="r.setAside"
          :aria-label="`${QUANTITY_NAMES[quantity]} reading ${r.text}, ${r.means}${r.outlying ? ', looks off' : ''}: ${r.setAside ? 'restore it' : 'ignore it'}`"
          :title="r.setAside ? 'Restore it' : 'Ignore it'"
          @click="bench.setAside(r.id, !r.setAside)"
        >
          {{ r.text }} <span class="means">{{ r.means }}</span>
        </button>
      </li>
    </ul>
    <p v-if="outlying.length > 0" class="warn small mb-0">
      {{ outlying.map((r) => r.text).join(', ') }} looks off. Click to ignore it, or read again.
    </p>
    <p v-if="problem" class="warn small mb-0">{{ problem }}</p>
  </div>
</template>

<style scoped>
.quantity {
  padding: 5px 8px;
  border-left: 4px solid transparent;
}
.quantity.active {
  border-left-color: rgb(var(--v-theme-reference));
  background: rgb(var(--v-theme-paper));
}
.row {
  display: grid;
  grid-template-columns: minmax(190px, 1fr) minmax(100px, 172px);
  gap: 10px;
  align-items: center;
}
.stands {
  text-align: right;
  min-height: 40px;
  line-height: 1.2;
}
.stands > b {
  font-size: 23px;
  margin-right: 6px;
  white-space: nowrap;
}
.stands > .small {
  white-space: nowrap;
}
.chips {
  list-style: none;
  padding: 6px 0 0;
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.chip {
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 3px;
  background: rgb(var(--v-theme-sheet));
  padding: 4px 8px;
  font-weight: 600;
}
.chip .means {
  font-weight: 400;
  font-size: 12.5px;
  color: rgb(var(--v-theme-soft));
}
.chip.aside {
  text-decoration: line-through;
  color: rgb(var(--v-theme-soft));
}
.chip.outlying {
  border: 2px dashed rgb(var(--v-theme-warn));
}
</style>
