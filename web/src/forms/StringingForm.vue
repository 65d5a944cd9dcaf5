<script setup lang="ts">
import { partWeight } from '../words/part-weight';
import { computed, ref } from 'vue';
import {
  STRING_KINDS,
  patternOf,
  settleFrame,
  stringMass,
  type FrameShape,
  type StringKind,
  type StringingJob,
} from '@kevro/core';
import { STRING_KIND_NAMES, type Stringing } from '@kevro/contract';
import { api } from '../api/client';
import FormDialog from './FormDialog.vue';
import NumberField from './NumberField.vue';
import { shopToday } from '../words/days';
import { KIND_ITEMS } from '../words/strings';
import { useDraft } from './draft';
import { sent, sentOrNull, type Typed } from '../ui/typed';

/** Strings in a frame, new or corrected. The tension is said in lb or kg and stored in kg. */
const props = defineProps<{
  frameId: string;
  shape: FrameShape;
  pattern: string;
  last?: Stringing;
  /** How the plan wants them to go in. */
  job?: StringingJob;
}>();
const emit = defineEmits<{ stored: [] }>();
const open = ref(false);
const before = ref<Stringing>();
const from = (s: Stringing | undefined) => ({
  mains: s?.mains ?? '',
  crosses: s && s.crosses !== s.mains ? s.crosses : '',
  mainsMm: (s?.mainsMm ?? null) as Typed,
  crossesMm: (s && s.crossesMm !== s.mainsMm ? s.crossesMm : null) as Typed,
  mainsKind: s?.mainsKind ?? null,
  crossesKind: s && s.crossesKind !== s.mainsKind ? s.crossesKind : null,
  by: s?.by ?? '',
  unit: s?.unit ?? ('kg' as 'lb' | 'kg'),
});
const empty = () => ({
  ...from(props.last),
  strungOn: shopToday(),
  mainsTension: null as Typed,
  crossesTension: null as Typed,
  preStretch: null as Typed,
  hoursPlayed: null as Typed,
  note: '',
  ...planned(props.job),
});
/** What the plan says of them: of what it leaves open the strings before are the best guess, but for what it changes. */
function planned(job: StringingJob | undefined) {
  if (!job) return {};
  const { mains = '', crosses = mains, mainsKind = null, crossesKind = mainsKind, unit } = job;
  const { mainsMm = null, crossesMm = mainsMm, mainsKg = null, crossesKg = mainsKg } = job;
  return {
    mains,
    crosses: crosses === mains ? '' : crosses,
    mainsKind,
    crossesKind: crossesKind === mainsKind ? null : crossesKind,
    mainsMm: mainsMm as Typed,
    crossesMm: (crossesMm === mainsMm ? null : crossesMm) as Typed,
    mainsTension: mainsKg as Typed,
    crossesTension: (crossesKg === mainsKg ? null : crossesKg) as Typed,
    preStretch: (job.preStretchPercent || null) as Typed,
    ...(unit ? { unit } : {}),
  };
}
const correcting = (s: Stringing) => ({
  ...from(s),
  strungOn: s.strungOn,
  mainsTension: s.mainsKg as Typed,
  crossesTension: (s.crossesKg === s.mainsKg ? null : s.crossesKg) as Typed,
  preStretch: (s.preStretchPercent || null) as Typed,
  hoursPlayed: s.hoursPlayed as Typed,
  note: s.note,
});
const draft = useDraft(empty);
const form = draft.value;
/** What such strings weigh in this frame, by what they may be made of: from the chords of its bed. */
const weighs = computed(() => {
  const pattern = patternOf(props.pattern);
  const gaugeMm = sentOrNull(form.value.mainsMm);
  const crossGaugeMm = sentOrNull(form.value.crossesMm) ?? gaugeMm;
  if (
    !pattern ||
    typeof gaugeMm !== 'number' ||
    typeof crossGaugeMm !== 'number' ||
    !(gaugeMm > 0 && crossGaugeMm > 0)
  )
    return '';
  const frame = settleFrame(props.shape);
  const weight = (material: StringKind, crossMaterial: StringKind): string =>
    partWeight(stringMass(frame, { ...pattern, gaugeMm, crossGaugeMm, material, crossMaterial }).massG);
  const { mainsKind, crossesKind } = form.value;
  const said = mainsKind
    ? [weight(mainsKind, crossesKind ?? mainsKind)]
    : STRING_KINDS.map((kind) => `${weight(kind, kind)} in ${STRING_KIND_NAMES[kind]}`);
  return `${pattern.mains} × ${pattern.crosses} of these weighs about ${said.join(', ')}; ± 10 %. Weigh them to be sure.`;
});
function show(of?: Stringing): void {
  before.value = of;
  draft.begin(`strings ${of?.id ?? `new ${props.frameId}`}`, of ? correcting(of) : empty());
  open.value = true;
}
defineExpose({ show });
const submit = (key: string) => {
  const f = form.value;
  const body = {
    strungOn: f.strungOn,
    mains: f.mains,
    crosses: f.crosses,
    mainsMm: sentOrNull(f.mainsMm),
    crossesMm: sentOrNull(f.crossesMm ?? f.mainsMm),
    mainsKg: sent(f.mainsTension),
    crossesKg: sent(f.crossesTension ?? f.mainsTension),
    unit: f.unit,
    preStretchPercent: sent(f.preStretch ?? 0),
    mainsKind: f.mainsKind,
    crossesKind: f.crossesKind ?? (f.crosses === '' || f.crosses === f.mains ? f.mainsKind : null),
    by: f.by,
    hoursPlayed: sentOrNull(f.hoursPlayed),
    readings: before.value?.readings ?? [],
    note: f.note,
  };
  return before.value
    ? api('editStringing', { id: before.value.id, body })
    : api('addStringing', { id: props.frameId, body: { ...body, key } });
};
</script>

<template>
  <FormDialog
    v-model="open"
    :title="before ? 'Correct the strings' : 'New strings'"
    store="Store"
    :submit="submit"
    :draft="draft"
    @stored="emit('stored')"
  >
    <template #default="{ at, said }">
      <v-text-field v-model="form.strungOn" type="date" label="Date" :error-messages="at('strungOn')" />
      <div class="two">
        <v-text-field v-model="form.mains" v-first label="Mains" :error-messages="at('mains')" />
        <NumberField
          v-model="form.mainsMm"
          label="Gauge of the mains"
          measure="thickness"
          :error="said('mainsMm')"
        />
        <v-text-field v-model="form.crosses" label="Crosses, if different" :error-messages="at('crosses')" />
        <NumberField
          v-model="form.crossesMm"
          label="Gauge of the crosses"
          measure="thickness"
          :error="said('crossesMm')"
        />
      </div>
      <div class="two">
        <v-select v-model="form.mainsKind" :items="KIND_ITEMS" label="Mains are" clearable />
        <v-select
          v-model="form.crossesKind"
          :items="KIND_ITEMS"
          label="Crosses are, if different"
          clearable
        />
      </div>
      <p v-if="weighs" class="soft small" aria-live="polite">{{ weighs }}</p>
      <v-radio-group v-model="form.unit" label="Tension in" inline>
        <v-radio label="kg" value="kg" /><v-radio label="lb" value="lb" />
      </v-radio-group>
      <div class="two">
        <NumberField
          v-model="form.mainsTension"
          label="Mains tension"
          measure="tension"
          :unit="form.unit"
          :error="said('mainsKg')"
        />
        <NumberField
          v-model="form.crossesTension"
          label="Crosses tension, if different"
          measure="tension"
          :unit="form.unit"
          :error="said('crossesKg')"
        />
      </div>
      <NumberField
        v-model="form.preStretch"
        label="Pre-stretch"
        measure="percent"
        :error="said('preStretchPercent')"
      />
      <div class="two">
        <v-text-field v-model="form.by" label="Strung by" :error-messages="at('by')" />
        <NumberField
          v-if="before"
          v-model="form.hoursPlayed"
          label="Hours played, if more than noted"
          measure="hours"
          :error="said('hoursPlayed')"
        />
      </div>
      <v-text-field v-model="form.note" label="Note" :error-messages="at('note')" />
    </template>
  </FormDialog>
</template>
