<script setup lang="ts">
import { partWeightLabel, partUnit } from '../../words/part-weight';
import { ref, watch } from 'vue';
import { clockOf, middleOf, spanCmOf, type Frame, type Part, type Placement } from '@kevro/core';
import NumberField from '../../forms/NumberField.vue';
import { numberOf, type Typed } from '../../ui/typed';

/** The chosen piece by numbers: its grams, its length, the hour on the clock where its middle lies. */
const props = defineProps<{ frame: Frame; placement: Placement; part: Part | undefined }>();
const emit = defineEmits<{ grams: [massG: number]; span: [cm: number]; clock: [hour: number] }>();

const grams = ref<Typed>(null);
const span = ref<Typed>(null);
const hour = ref<Typed>(null);
const rounded = (value: number, digits: number): number => Number(value.toFixed(digits));
watch(
  () => props.placement,
  (p) => {
    grams.value = rounded(p.massG, 2);
    span.value = spanCmOf(p) > 0 ? rounded(spanCmOf(p), 2) : null;
    hour.value = p.path === 'rim' ? rounded(clockOf(props.frame, middleOf(props.frame, p)), 2) : null;
  },
  { immediate: true },
);
/** What is typed counts when the field is left, so that it is not laid anew with every digit. */
function leave(typed: Typed, now: number, say: (value: number) => void): void {
  const value = numberOf(typed);
  if (value !== undefined && value > 0 && Math.abs(value - now) > 1e-9) say(value);
}
</script>

<template>
  <div class="editor" role="group" aria-label="The chosen piece">
    <NumberField
      v-model="grams"
      :label="partWeightLabel()"
      measure="mass"
      :unit="partUnit()"
      hide-details="auto"
      @left="leave(grams, rounded(placement.massG, 2), (value) => emit('grams', value))"
      @keydown.enter="leave(grams, rounded(placement.massG, 2), (value) => emit('grams', value))"
    />
    <NumberField
      v-if="span !== null"
      v-model="span"
      label="Length"
      measure="length"
      hide-details="auto"
      @left="leave(span, rounded(spanCmOf(placement), 2), (value) => emit('span', value))"
      @keydown.enter="leave(span, rounded(spanCmOf(placement), 2), (value) => emit('span', value))"
    />
    <NumberField
      v-if="hour !== null"
      v-model="hour"
      label="Hour"
      hide-details="auto"
      @left="leave(hour, -1, (value) => emit('clock', value))"
      @keydown.enter="leave(hour, -1, (value) => emit('clock', value))"
    />
  </div>
</template>

<style scoped>
.editor {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 6px;
}
</style>
