<script setup lang="ts">
import { computed, ref } from 'vue';
import { DRIVER_TRAITS, KINDS, type DriverName, type Instrument, type InstrumentKind } from '@kevro/contract';
import { api } from '../api/client';
import FormDialog from '../forms/FormDialog.vue';
import NumberField from '../forms/NumberField.vue';
import { useDraft } from '../forms/draft';
import { sent, sentOrNull, type Typed } from '../ui/typed';
import { items } from '../words/players';
import { KIND_WORDS } from '../words/instruments';
import ChoiceRow from '../ui/ChoiceRow.vue';
import PortPart from './PortPart.vue';
import { linkOf, portDraftOf } from './port-draft';

/** An instrument by its data sheet, added or changed: a device at a port, or a simulated one. */
const emit = defineEmits<{ stored: [instrument: Instrument] }>();
const open = ref(false);
const before = ref<Instrument>();
const SHEETS: Record<
  InstrumentKind,
  [repeatability: number, accuracy: number, resolution: number, drift: number]
> = {
  scale: [0.1, 0.15, 0.1, 0.01],
  board: [0.03, 0.04, 0.05, 0],
  machine: [0.4, 2, 0.1, 0.02],
};
function sheetOf(kind: InstrumentKind) {
  const [repeatability, accuracy, resolution, drift] = SHEETS[kind];
  return { repeatability, accuracy, resolution, drift } as Record<
    'repeatability' | 'accuracy' | 'resolution' | 'drift',
    Typed
  >;
}
const draftOf = (i?: Instrument) => ({
  name: i?.name ?? '',
  kind: i?.kind ?? ('scale' as InstrumentKind),
  ...(i
    ? {
        repeatability: i.sheet.repeatability as Typed,
        accuracy: i.sheet.accuracy as Typed,
        resolution: i.sheet.resolution as Typed,
        drift: i.sheet.driftPerHour as Typed,
      }
    : sheetOf('scale')),
  warmUp: (i?.sheet.warmUpMinutes ?? 1) as Typed,
  axis: (i?.sheet.axisCm ?? null) as Typed,
  driver: i?.driver ?? ('serial' as DriverName),
  port: portDraftOf(i?.link),
});
const driverChoices = [
  { value: 'serial' as const, title: 'plugged in at a port' },
  { value: 'stand-in' as const, title: 'simulated' },
];
const draft = useDraft(() => draftOf());
const form = draft.value;
const traits = computed(() => DRIVER_TRAITS[form.value.driver]);
function show(of?: Instrument): void {
  before.value = of;
  draft.begin(`instrument ${of?.id ?? 'new'}`, draftOf(of));
  open.value = true;
}
defineExpose({ show });
const choose = (kind: InstrumentKind): void => void Object.assign(form.value, { kind, ...sheetOf(kind) });

const submit = (key: string): Promise<Instrument> => {
  const f = form.value;
  const body = {
    name: f.name,
    kind: f.kind,
    note: before.value?.note ?? (traits.value.hasPort ? '' : 'simulated'),
    driver: f.driver,
    link: traits.value.hasPort ? linkOf(f.port) : null,
    sheet: {
      repeatability: sent(f.repeatability),
      accuracy: sent(f.accuracy),
      resolution: sent(f.resolution),
      driftPerHour: sent(f.drift),
      warmUpMinutes: traits.value.tellsWarm ? sent(f.warmUp) : 0,
      axisCm: KINDS[f.kind].calibrates ? sentOrNull(f.axis) : null,
    },
  };
  return before.value
    ? api('editInstrument', { id: before.value.id, body })
    : api('addInstrument', { body: { ...body, key } });
};
</script>

<template>
  <FormDialog
    v-model="open"
    :title="before ? `Change ${before.name}` : 'Add an instrument'"
    :store="before ? 'Store' : 'Add'"
    :submit="submit"
    :draft="draft"
    @stored="emit('stored', $event as Instrument)"
  >
    <template #default="{ at, said }">
      <div class="two">
        <v-text-field v-model="form.name" v-first label="Name" :error-messages="at('name')" />
        <v-select
          :model-value="form.kind"
          :items="items(KIND_WORDS)"
          label="Kind"
          :disabled="before !== undefined"
          @update:model-value="choose"
        />
      </div>
      <ChoiceRow v-if="!before" v-model="form.driver" label="How it is read" :choices="driverChoices" />
      <PortPart
        v-if="traits.hasPort"
        v-model="form.port"
        :kind="form.kind"
        :own="before?.name ?? ''"
        :said="said"
      />
      <p class="soft small mb-0">From the data sheet, as one standard deviation:</p>
      <div class="two">
        <NumberField
          v-model="form.repeatability"
          label="Repeatability of a reading"
          :unit="KINDS[form.kind].unit"
          :measure="KINDS[form.kind].measure"
          :error="said('sheet.repeatability')"
        />
        <NumberField
          v-model="form.accuracy"
          label="Accuracy uncalibrated"
          :unit="KINDS[form.kind].unit"
          :measure="KINDS[form.kind].measure"
          :error="said('sheet.accuracy')"
        />
        <NumberField
          v-model="form.resolution"
          label="Resolution"
          :unit="KINDS[form.kind].unit"
          :measure="KINDS[form.kind].measure"
          :error="said('sheet.resolution')"
        />
        <NumberField
          v-model="form.drift"
          label="Drift an hour"
          :unit="KINDS[form.kind].unit"
          :measure="KINDS[form.kind].measure"
          :error="said('sheet.driftPerHour')"
        />
        <NumberField
          v-if="traits.tellsWarm"
          v-model="form.warmUp"
          label="Warms up in"
          measure="minutes"
          :error="said('sheet.warmUpMinutes')"
        />
        <NumberField
          v-if="KINDS[form.kind].calibrates"
          v-model="form.axis"
          label="Pivot, if unusual"
          measure="length"
          unit="cm"
          :error="said('sheet.axisCm')"
        />
      </div>
    </template>
  </FormDialog>
</template>
