<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core';
import { computed, ref } from 'vue';
import { nanoid } from 'nanoid';
import { sentence, type NewReading } from '@kevro/contract';
import { surestPivot } from '@kevro/core';
import { useKeys } from '../ui/keys';
import NumberField from '../forms/NumberField.vue';
import { useUnits } from '../stores/units';
import type { CaptureBench } from './capture';
import { PENDULUM_HANGS, THREADS_HANGS, useHangs, type HangField } from './hangs';
import { numberOf, type Typed } from '../ui/typed';

/** A pendulum or two threads, timed by hand: how it hangs, then start and stop. */
const props = defineProps<{ method: 'pendulum' | 'threads'; bench: CaptureBench }>();
const units = useUnits();
const emit = defineEmits<{ timed: [reading: NewReading] }>();

const FIELDS: Record<typeof props.method, readonly HangField[]> = {
  pendulum: [
    ...PENDULUM_HANGS,
    { name: 'amplitudeDeg', label: 'Start angle', measure: 'angle' },
    { name: 'endAmplitudeDeg', label: 'End angle', measure: 'angle', open: true },
  ],
  threads: THREADS_HANGS,
};
const HOW: Record<typeof props.method, string> = {
  pendulum:
    'Hang it by the handle on a thin rod across it. Let it swing a little, face first. Count full swings, there and back.',
  threads:
    'Hang it butt down by two upright threads of one length, tied to the head at 3 and 9 o’clock. Twist it a little about its long axis and count full twists, there and back.',
};
const set = useHangs();
const best = computed(() =>
  props.method === 'pendulum'
    ? surestPivot(props.bench.settledFrame, props.bench.specs.value, numberOf(set.value.swings))
    : undefined,
);
const timed = ref<Typed>(null);
const startedAt = ref<number>();
const now = ref(0);
const { pause, resume } = useIntervalFn(
  () => {
    now.value = performance.now();
  },
  50,
  { immediate: false },
);
const running = computed(() => startedAt.value !== undefined);
const seconds = computed(() =>
  startedAt.value === undefined ? undefined : (now.value - startedAt.value) / 1000,
);
const failure = ref<Record<string, string>>({});

function start(): void {
  timed.value = null;
  startedAt.value = now.value = performance.now();
  resume();
}
function stop(): void {
  if (startedAt.value === undefined) return;
  timed.value = Number(((performance.now() - startedAt.value) / 1000).toFixed(2));
  startedAt.value = undefined;
  pause();
  enter();
}
const toggle = (): void => (running.value ? stop() : start());
useKeys({ ' ': toggle });

/** What was timed becomes a reading; a field that is no number says so and nothing is lost. */
function enter(): void {
  const given = FIELDS[props.method].filter(({ name, open }) => !open || set.value[name] !== null);
  const names = [...given.map((f) => f.name), 'swings', 'seconds'];
  const values = names.map((name) => numberOf(name === 'seconds' ? timed.value : set.value[name]));
  failure.value = Object.fromEntries(
    names.flatMap((name, i) => {
      const value = values[i];
      if (value === undefined) return [[name, sentence('not-a-number')]];
      if (name === 'swings' && !(Number.isInteger(value) && value > 0))
        return [[name, sentence('not-whole')]];
      return value < 0 ? [[name, sentence('not-positive')]] : [];
    }),
  );
  if (Object.keys(failure.value).length > 0) return;
  const timing = Object.fromEntries(names.map((name, i) => [name, values[i]]));
  const quantity = props.method === 'pendulum' ? 'swingWeight' : 'twistWeight';
  emit('timed', { means: props.method, key: nanoid(), quantity, timing } as NewReading);
}
</script>

<template>
  <div class="watch">
    <p class="soft small mb-0">
      {{ HOW[method] }}
      <template v-if="best"
        >Most accurate hung {{ units.showMeasure('length', best.pivotCm) }} from the butt: ±{{
          (2 * best.uncertainty).toFixed(1)
        }}
        kg·cm².</template
      >
    </p>
    <div class="fields">
      <NumberField
        v-for="f in FIELDS[method]"
        :key="f.name"
        v-model="set[f.name]!"
        :label="f.label"
        :measure="f.measure"
        :error="failure[f.name]"
      />
      <NumberField v-model="set.swings!" label="Full swings" :error="failure.swings" />
      <NumberField
        v-model="timed"
        label="Time"
        measure="time"
        :error="failure.seconds"
        @keydown.enter.prevent="enter"
      />
    </div>
    <div class="face">
      <output class="digits" aria-live="off"
        >{{ (seconds ?? numberOf(timed) ?? 0).toFixed(1) }}<small> s</small></output
      >
      <v-btn color="primary" :variant="running ? 'flat' : 'outlined'" size="large" @click="toggle">
        {{ running ? `Stop after ${set.swings}` : 'Start' }}<kbd class="ml-2">space</kbd>
      </v-btn>
    </div>
  </div>
</template>

<style scoped>
.watch {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  align-items: start;
}
.face {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.digits {
  font-size: 56px;
  font-weight: 700;
  line-height: 1.05;
  letter-spacing: -0.02em;
}
.digits small {
  font-size: 22px;
  font-weight: 400;
}
</style>
