<script setup lang="ts">
import { reactive, watch } from 'vue';
import { KINDS, type InstrumentKind } from '@kevro/contract';
import { api } from '../api/client';
import AddDialog from '../parts/AddDialog.vue';
import { typedNumber, typedOrNull } from '../parts/typed-number';
import { items } from '../players/words';
import { KIND_WORDS } from './words';

/** A new simulated instrument, by its data sheet. */
const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ stored: [] }>();
const SHEETS: Record<
  InstrumentKind,
  { repeatability: string; accuracy: string; resolution: string; drift: string }
> = {
  scale: { repeatability: '0.1', accuracy: '0.15', resolution: '0.1', drift: '0.01' },
  board: { repeatability: '0.03', accuracy: '0.04', resolution: '0.05', drift: '0' },
  machine: { repeatability: '0.4', accuracy: '2', resolution: '0.1', drift: '0.02' },
};
const empty = () => ({ name: '', kind: 'scale' as InstrumentKind, ...SHEETS.scale, warmUp: '1', axis: '' });
const draft = reactive(empty());
watch(open, () => Object.assign(draft, empty()));
watch(
  () => draft.kind,
  (kind) => Object.assign(draft, SHEETS[kind]),
);
const submit = () =>
  api('addInstrument', {
    body: {
      name: draft.name,
      kind: draft.kind,
      note: 'simulated stand-in',
      sheet: {
        repeatability: typedNumber(draft.repeatability),
        accuracy: typedNumber(draft.accuracy),
        resolution: typedNumber(draft.resolution),
        driftPerHour: typedNumber(draft.drift),
        warmUpMinutes: typedNumber(draft.warmUp),
        axisCm: KINDS[draft.kind].calibrates ? typedOrNull(draft.axis) : null,
      },
    },
  });
</script>

<template>
  <AddDialog v-model="open" title="Add a simulated instrument" :submit="submit" @stored="emit('stored')">
    <template #default="{ at }">
      <div class="two">
        <v-text-field v-model="draft.name" label="Name" autofocus :error-messages="at('name')" />
        <v-select v-model="draft.kind" :items="items(KIND_WORDS)" label="What it is" />
      </div>
      <p class="soft small mb-0">From its data sheet, each as a standard uncertainty:</p>
      <div class="two">
        <v-text-field
          v-model="draft.repeatability"
          label="Repeatability of a reading"
          :suffix="KINDS[draft.kind].unit"
          :error-messages="at('sheet.repeatability')"
        />
        <v-text-field
          v-model="draft.accuracy"
          label="Accuracy uncalibrated"
          :suffix="KINDS[draft.kind].unit"
          :error-messages="at('sheet.accuracy')"
        />
        <v-text-field
          v-model="draft.resolution"
          label="Shows steps of"
          :suffix="KINDS[draft.kind].unit"
          :error-messages="at('sheet.resolution')"
        />
        <v-text-field
          v-model="draft.drift"
          label="Drift an hour"
          :suffix="KINDS[draft.kind].unit"
          :error-messages="at('sheet.driftPerHour')"
        />
        <v-text-field
          v-model="draft.warmUp"
          label="Warms up in"
          suffix="min"
          :error-messages="at('sheet.warmUpMinutes')"
        />
        <v-text-field
          v-if="KINDS[draft.kind].calibrates"
          v-model="draft.axis"
          label="Turns about, if not the sport’s own"
          suffix="cm"
          :error-messages="at('sheet.axisCm')"
        />
      </div>
    </template>
  </AddDialog>
</template>
