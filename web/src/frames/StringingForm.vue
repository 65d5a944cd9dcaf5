<script setup lang="ts">
import { reactive, ref } from 'vue';
import { KG_PER_POUND, parseNumber } from '@kevro/core';
import type { Stringing } from '@kevro/contract';
import { api } from '../api/client';
import AddDialog from '../parts/AddDialog.vue';
import { typedNumber, typedOrNull } from '../parts/typed-number';

/** New strings in a frame. The tension is said in lb or kg and stored in kg. */
const props = defineProps<{ frameId: string; last?: Stringing }>();
const emit = defineEmits<{ stored: [] }>();
const open = ref(false);
const today = (): string => new Date().toLocaleDateString('sv');
const empty = () => ({
  strungOn: today(),
  mains: props.last?.mains ?? '',
  crosses: props.last && props.last.crosses !== props.last.mains ? props.last.crosses : '',
  mainsMm: props.last?.mainsMm ? String(props.last.mainsMm) : '',
  crossesMm: props.last?.crossesMm ? String(props.last.crossesMm) : '',
  mainsTension: '',
  crossesTension: '',
  unit: props.last?.unit ?? ('kg' as 'lb' | 'kg'),
  preStretch: '',
  note: '',
});
const draft = reactive(empty());
function show(): void {
  Object.assign(draft, empty());
  open.value = true;
}
defineExpose({ show });

const toKg = (text: string): number => {
  const value = parseNumber(text);
  return value === undefined ? typedNumber(text) : draft.unit === 'lb' ? value * KG_PER_POUND : value;
};
const submit = () =>
  api('addStringing', {
    id: props.frameId,
    body: {
      strungOn: draft.strungOn,
      mains: draft.mains,
      crosses: draft.crosses,
      mainsMm: typedOrNull(draft.mainsMm),
      crossesMm: typedOrNull(draft.crossesMm || draft.mainsMm),
      mainsKg: toKg(draft.mainsTension),
      crossesKg: toKg(draft.crossesTension || draft.mainsTension),
      unit: draft.unit,
      preStretchPercent: typedNumber(draft.preStretch || '0'),
      note: draft.note,
    },
  });
</script>

<template>
  <AddDialog v-model="open" title="New strings" store="Store" :submit="submit" @stored="emit('stored')">
    <template #default="{ at }">
      <v-text-field v-model="draft.strungOn" type="date" label="Strung on" :error-messages="at('strungOn')" />
      <div class="two">
        <v-text-field v-model="draft.mains" label="Mains" autofocus :error-messages="at('mains')" />
        <v-text-field
          v-model="draft.mainsMm"
          label="Gauge of the mains"
          suffix="mm"
          inputmode="decimal"
          :error-messages="at('mainsMm')"
        />
        <v-text-field v-model="draft.crosses" label="Crosses, if other" :error-messages="at('crosses')" />
        <v-text-field
          v-model="draft.crossesMm"
          label="Gauge of the crosses"
          suffix="mm"
          inputmode="decimal"
          :error-messages="at('crossesMm')"
        />
      </div>
      <v-radio-group v-model="draft.unit" label="Tension in" inline>
        <v-radio label="kg" value="kg" /><v-radio label="lb" value="lb" />
      </v-radio-group>
      <div class="two">
        <v-text-field
          v-model="draft.mainsTension"
          label="Mains at"
          :suffix="draft.unit"
          inputmode="decimal"
          :error-messages="at('mainsKg')"
        />
        <v-text-field
          v-model="draft.crossesTension"
          label="Crosses at, if other"
          :suffix="draft.unit"
          inputmode="decimal"
          :error-messages="at('crossesKg')"
        />
      </div>
      <v-text-field
        v-model="draft.preStretch"
        label="Pre-stretch"
        suffix="%"
        inputmode="decimal"
        :error-messages="at('preStretchPercent')"
      />
      <v-text-field v-model="draft.note" label="Note" :error-messages="at('note')" />
    </template>
  </AddDialog>
</template>
