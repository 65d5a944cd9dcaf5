<script setup lang="ts">
import { computed, ref } from 'vue';
import {
  quantitiesOf,
  byAnySpec,
  ALL_SPEC_KEYS,
  sportData,
  type Dress,
  type FrameShape,
  type AnySpecKey,
} from '@kevro/core';
import type { Measurement } from '@kevro/contract';
import { api } from '../api/client';
import DressForm from './DressForm.vue';
import FormDialog from './FormDialog.vue';
import NumberField from './NumberField.vue';
import { useDraft } from './draft';
import { sent, sentOrNone, type Typed } from '../ui/typed';
import { SPEC_NAMES } from '../words';

/** Puts a stored measurement right by a new one that takes its place, or marks it as wrong: each with its reason, and nothing is lost. */
const props = defineProps<{ shape: FrameShape }>();
const emit = defineEmits<{ stored: [measurement: Measurement] }>();
const of = ref<Measurement>();
/** A rating is asked for in sports that know it. */
const shown = computed(() =>
  ALL_SPEC_KEYS.filter((key) => quantitiesOf(sportData(props.shape.sport)).includes(key)),
);

const correcting = ref(false);
const draftOf = (m?: Measurement) => ({
  specs: Object.fromEntries(ALL_SPEC_KEYS.map((key) => [key, m?.specs[key] ?? null])) as Record<
    AnySpecKey,
    Typed
  >,
  dress: (m?.dress ?? {}) as Dress,
  note: m?.note ?? '',
  reason: '',
});
const draft = useDraft(() => draftOf());
const form = draft.value;
function correct(m: Measurement): void {
  of.value = m;
  draft.begin(`correction of ${m.id}`, draftOf(m));
  correcting.value = true;
}
function storeCorrection(key: string): Promise<Measurement> {
  const { specs, dress, note, reason } = form.value;
  const before = of.value as Measurement;
  return api('correctMeasurement', {
    id: before.id,
    body: {
      key,
      specs: {
        ...byAnySpec((spec) => sentOrNone(specs[spec])),
        massG: sent(specs.massG),
        balanceCm: sent(specs.balanceCm),
        swingWeight: sent(specs.swingWeight),
        axisCm: before.specs.axisCm,
      },
      dress,
      // What is put right by hand is an estimate no more.
      estimated: before.estimated.filter((q) => q === 'leftRightG' || specs[q] === (before.specs[q] ?? null)),
      leftRight: before.leftRight,
      note,
      reason,
    },
  });
}

const marking = ref(false);
const why = useDraft(() => ({ reason: '' }));
const whyForm = why.value;
function mark(m: Measurement): void {
  of.value = m;
  why.begin(`mark of ${m.id}`, { reason: '' });
  marking.value = true;
}
const storeMark = (): Promise<Measurement> =>
  api('countMeasurement', {
    id: of.value?.id ?? '',
    body: { counts: !of.value?.counts, reason: whyForm.value.reason },
  });
const sport = computed(() => sportData(props.shape.sport));
defineExpose({ correct, mark });
</script>

<template>
  <FormDialog
    v-model="correcting"
    title="Correct measurement"
    store="Store the correction"
    :submit="storeCorrection"
    :draft="draft"
    @stored="emit('stored', $event as Measurement)"
  >
    <template #default="{ at, said }">
      <p class="soft small mb-0">
        Replaces this one, which stays on record with your reason. Plans made from it will need redoing.
      </p>
      <div class="two">
        <NumberField
          v-for="(spec, i) in shown"
          :key="spec"
          v-model="form.specs[spec]"
          v-first="i === 0"
          :label="SPEC_NAMES[spec]"
          :spec="spec"
          :shape="shape"
          :error="said(`specs.${spec}`)"
        />
      </div>
      <DressForm v-model="form.dress" :sport="sport.sport" :error="said('dress')" />
      <v-text-field v-model="form.reason" label="Why" :error-messages="at('reason')" />
      <v-text-field v-model="form.note" label="Note" :error-messages="at('note')" />
    </template>
  </FormDialog>
  <FormDialog
    v-model="marking"
    :title="of?.counts ? 'Discard measurement' : 'Restore measurement'"
    :store="of?.counts ? 'Discard' : 'Restore'"
    :submit="storeMark"
    :draft="why"
    @stored="emit('stored', $event as Measurement)"
  >
    <template #default="{ at }">
      <p v-if="of?.counts" class="soft small mb-0">
        It stays on record with your reason but is no longer used.
      </p>
      <v-text-field v-model="whyForm.reason" v-first label="Why" :error-messages="at('reason')" />
    </template>
  </FormDialog>
</template>
