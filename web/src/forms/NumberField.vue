<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { Measure, AnySpecKey } from '@kevro/core';
import { sentence } from '@kevro/contract';
import { useUnits } from '../stores/units';
import { isUnreadable, type OfFrame, type Typed } from '../ui/typed';

/**
 * The field for every number in the application. What is typed stays as typed until the field is left; it may be said in any unit of
 * what is asked for, with a decimal point or comma; what cannot be read stays and is said so. See `Typed` for what it holds.
 */
const props = defineProps<{
  label: string;
  /** One of the four specs, of this frame: shown in the units that the fitter thinks in. */
  spec?: AnySpecKey;
  shape?: OfFrame;
  /** A tolerance or a give-or-take of that spec. */
  width?: boolean;
  /** Anything else that is a number. */
  measure?: Measure;
  /** The unit shown, where it is always the same. */
  unit?: string;
  /** May be below zero: then the keyboard of a phone must have a minus. */
  signed?: boolean;
  error?: string;
  hint?: string;
  large?: boolean;
  placeholder?: string;
  disabled?: boolean;
}>();
const model = defineModel<Typed>({ required: true });
const emit = defineEmits<{ left: []; focused: [] }>();
const units = useUnits();
/** Whether the field was just come to: the first click takes hold of the whole number, so that what is typed replaces it. */
let fresh = false;
function come(): void {
  fresh = true;
  emit('focused');
}
function hold(event: MouseEvent): void {
  const { target } = event;
  if (fresh && target instanceof HTMLInputElement) target.select();
  fresh = false;
}

const writing = computed(() => {
  const { spec, shape, width } = props;
  if (spec && shape) return width ? units.widthWriting(spec, shape.sport) : units.writing(spec, shape);
  return units.measureWriting(props.measure ?? 'number', props.unit);
});
const write = (value: Typed): string =>
  typeof value === 'number' ? writing.value.write(value) : (value ?? '');
/** What the text in the field stands for. */
let own: Typed = model.value;
const text = ref(write(own));
const left = ref(isUnreadable(own));

function type(now: string | null): void {
  text.value = now ?? '';
  own = text.value.trim() === '' ? null : (writing.value.read(text.value) ?? text.value);
  model.value = own;
}
function leave(): void {
  left.value = true;
  text.value = write(own);
  emit('left');
}
// What is set from elsewhere, or shown in other units from now on, is written anew; what is being typed is not.
watch(model, (now) => {
  if (now === own) return;
  own = now;
  text.value = write(now);
});
watch(writing, () => {
  if (typeof own === 'number') text.value = write(own);
});
const problem = computed(
  () => props.error || (left.value && isUnreadable(model.value) ? sentence('not-a-number') : ''),
);
const named = computed(() => (writing.value.unit ? `${props.label}, ${writing.value.unit}` : props.label));
</script>

<template>
  <v-text-field
    :model-value="text"
    :label="named"
    :error-messages="problem ? [problem] : []"
    :hint="hint"
    :persistent-hint="Boolean(hint)"
    :placeholder="placeholder"
    :persistent-placeholder="Boolean(placeholder)"
    :disabled="disabled"
    :inputmode="signed || spec === 'balanceCm' ? 'text' : 'decimal'"
    autocomplete="off"
    autocapitalize="off"
    spellcheck="false"
    :class="{ large }"
    @update:model-value="type"
    @focus="come"
    @click="hold"
    @keydown="fresh = false"
    @blur="leave"
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
