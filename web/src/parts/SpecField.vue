<script setup lang="ts">
import { watch } from 'vue';
import type { SpecKey } from '@kevro/core';
import { WAYS, useUnits, type OfFrame } from '../stores/units';
import { SPEC_NAMES } from '../words';
import { readSpec } from './spec-text';

/** One typed spec in the units shown; other units may be typed with their sign. */
const props = defineProps<{
  spec: SpecKey;
  shape: OfFrame;
  error?: string;
  hint?: string;
  large?: boolean;
  label?: string;
}>();
const text = defineModel<string>({ required: true });
const emit = defineEmits<{ left: [] }>();
const units = useUnits();

// The number stays the same when the units change: what was typed is written anew.
watch(
  () => units.index,
  (_now, before) => {
    const value = readSpec(
      props.spec,
      text.value,
      WAYS[before % WAYS.length] ?? WAYS[0],
      props.shape.lengthCm,
    );
    if (value !== undefined) text.value = units.show(props.spec, value, props.shape, 1);
  },
);
</script>

<template>
  <v-text-field
    v-model="text"
    :label="`${label ?? SPEC_NAMES[spec]}, ${units.unit(spec)}`"
    :error-messages="error ? [error] : []"
    :hint="hint"
    :persistent-hint="Boolean(hint)"
    inputmode="decimal"
    autocomplete="off"
    :class="{ large }"
    @blur="emit('left')"
  />
</template>

<style scoped>
.large :deep(input) {
  font-size: 24px;
  font-weight: 700;
  padding-top: 4px;
  padding-bottom: 4px;
  min-height: 46px;
}
</style>
