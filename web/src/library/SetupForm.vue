<script setup lang="ts">
import { computed, ref } from 'vue';
import {
  CONFIDENCES,
  SOURCE_KINDS,
  ALL_SPEC_KEYS,
  SPORTS,
  isStrung,
  type Confidence,
  type Dress,
  type AnySpecKey,
  type Sport,
} from '@kevro/core';
import type { Setup, SourceKind } from '@kevro/contract';
import { api } from '../api/client';
import AxisQuestion from '../forms/AxisQuestion.vue';
import DressForm from '../forms/DressForm.vue';
import FormDialog from '../forms/FormDialog.vue';
import MoreFields from '../ui/MoreFields.vue';
import NumberField from '../forms/NumberField.vue';
import { useDraft } from '../forms/draft';
import { numberOf, sent, sentOrNone, sentOrNull, type Typed } from '../ui/typed';
import { useTypedAxis } from '../forms/typed-axis';
import { SPORT_ITEMS } from '../words/players';
import { CONFIDENCE_NAMES, SOURCE_NAMES, SPEC_NAMES } from '../words';

/** A setup, added or changed. A value that was not published stays empty. */
const emit = defineEmits<{ stored: [setup: Setup] }>();
const open = ref(false);
const before = ref<Setup>();
/** As players play: strung where there are strings, with a grip and an overgrip. */
const playedDress = (sport: Sport): Dress => ({
  ...SPORTS[sport].dress.bare,
  baseGrip: 'synthetic',
  overgrips: 1,
  ...(isStrung(sport) ? { strings: true } : {}),
});
const draftOf = (s?: Setup) => ({
  name: s?.name ?? '',
  frameName: s?.frameName ?? '',
  paint: s?.paint ?? '',
  link: s?.link ?? '',
  reportedOn: s?.reportedOn ?? '',
  confidence: s?.confidence ?? ('medium' as Confidence),
  style: s?.style ?? '',
  head: (s?.shape.headAreaCm2 ?? null) as Typed,
  told: Object.fromEntries(ALL_SPEC_KEYS.map((key) => [key, s?.asReported[key] ?? ''])) as Record<
    AnySpecKey,
    string
  >,
  pattern: s?.facts.pattern ?? '',
  beam: s?.facts.beam ?? '',
  gripSize: s?.facts.gripSize ?? '',
  leftRight: (s?.facts.leftRightG ?? null) as Typed,
  note: s?.facts.note ?? '',
  strings: { mains: '', crosses: '', gauge: '', tension: '', ...s?.strings },
  sourceKind: s?.sourceKind ?? ('published' as SourceKind),
  source: s?.source ?? '',
  year: (s?.year ?? null) as Typed,
  sport: s?.shape.sport ?? ('tennis' as Sport),
  shape: s?.shape.shape ?? null,
  length: (s?.shape.lengthCm ?? SPORTS.tennis.lengthCm) as Typed,
  dress: s?.dress ?? playedDress('tennis'),
  specs: Object.fromEntries(ALL_SPEC_KEYS.map((key) => [key, s?.specs[key] ?? null])) as Record<
    AnySpecKey,
    Typed
  >,
  axis: (s?.specs.axisCm ?? null) as Typed,
});
const draft = useDraft(() => draftOf());
const form = draft.value;
function show(of?: Setup): void {
  before.value = of;
  draft.begin(`setup ${of?.id ?? 'new'}`, draftOf(of));
  open.value = true;
}
defineExpose({ show });

const sure = CONFIDENCES.map((value) => ({ value, title: CONFIDENCE_NAMES[value] }));
/** What was left empty is not known. */
const filled = (of: Record<string, string | number | undefined>) =>
  Object.fromEntries(Object.entries(of).filter(([, value]) => value !== '' && value !== undefined));
const kinds = SOURCE_KINDS.map((kind) => ({ value: kind, title: SOURCE_NAMES[kind] }));
const sport = computed(() => SPORTS[form.value.sport]);
const lengthCm = computed(() => numberOf(form.value.length) ?? sport.value.lengthCm);
/** A change of sport brings its usual length and its own named shapes. */
function changeSport(sport: Sport): void {
  Object.assign(form.value, {
    sport,
    length: SPORTS[sport].lengthCm,
    shape: null,
    dress: playedDress(sport),
  });
}
const typedAxis = useTypedAxis(
  () => sport.value,
  () => form.value.source,
);
/** A swing weight without its axis, in a sport that quotes more than one. */
const asksAxis = computed(
  () =>
    typedAxis.asks.value &&
    sentOrNone(form.value.specs.swingWeight) !== undefined &&
    sentOrNone(form.value.axis) === undefined,
);
const shapes = computed(() => Object.keys(sport.value.shapes));
function submit(key: string): Promise<Setup> {
  const f = form.value;
  const specs = Object.fromEntries(
    [
      ...ALL_SPEC_KEYS.map((key) => [key, sentOrNone(f.specs[key])] as const),
      ['axisCm', asksAxis.value ? typedAxis.axisCm.value : sentOrNone(f.axis)],
    ].filter(([, value]) => value !== undefined),
  );
  const body = {
    name: f.name,
    frameName: f.frameName,
    sourceKind: f.sourceKind,
    source: f.source,
    paint: f.paint,
    link: f.link,
    reportedOn: f.reportedOn || null,
    confidence: f.confidence,
    style: f.style,
    asReported: filled(f.told),
    facts: filled({
      pattern: f.pattern,
      beam: f.beam,
      gripSize: f.gripSize,
      leftRightG: sentOrNone(f.leftRight),
      note: f.note,
    }),
    strings: filled(f.strings),
    year: sentOrNull(f.year),
    shape: {
      ...before.value?.shape,
      sport: f.sport,
      lengthCm: sent(f.length),
      shape: f.shape ?? undefined,
      headAreaCm2: sentOrNone(f.head),
    },
    dress: f.dress,
    specs,
  };
  return before.value
    ? api('editSetup', { id: before.value.id, body })
    : api('addSetup', { body: { ...body, key } });
}
</script>

<template>
  <FormDialog
    v-model="open"
    :title="before ? `Change ${before.name}` : 'Add a setup'"
    :store="before ? 'Store' : 'Add'"
    :width="640"
    :submit="submit"
    :draft="draft"
    @stored="emit('stored', $event as Setup)"
  >
    <template #default="{ at, said }">
      <div class="two">
        <v-text-field v-model="form.name" v-first label="Whose frame" :error-messages="at('name')" />
        <v-select
          :model-value="form.sport"
          :items="SPORT_ITEMS"
          label="Sport"
          @update:model-value="changeSport"
        />
      </div>
      <p class="soft small mb-0">Leave unpublished values empty.</p>
      <div class="two">
        <NumberField
          v-for="key in ALL_SPEC_KEYS"
          :key="key"
          v-model="form.specs[key]"
          :label="SPEC_NAMES[key]"
          :spec="key"
          :shape="{ sport: form.sport, lengthCm }"
          :error="said(`specs.${key}`)"
        />
      </div>
      <AxisQuestion v-if="asksAxis" v-model="typedAxis.axisCm.value" :sport="sport" />
      <div class="two">
        <v-select v-model="form.sourceKind" :items="kinds" label="Kind of source" />
        <v-text-field v-model="form.source" label="Where it comes from" :error-messages="at('source')" />
        <v-select v-model="form.confidence" :items="sure" label="Confidence" />
        <NumberField v-model="form.year" label="Year" :error="said('year')" />
      </div>
      <DressForm v-model="form.dress" :sport="form.sport" :error="said('dress')" />
      <MoreFields title="What frame it is" :open="before !== undefined">
        <div class="two">
          <v-text-field v-model="form.frameName" label="Model, if known" :error-messages="at('frameName')" />
          <v-text-field v-model="form.paint" label="Painted as, if different" :error-messages="at('paint')" />
        </div>
        <div class="three">
          <NumberField
            v-model="form.length"
            label="Length"
            measure="length"
            :error="said('shape.lengthCm')"
          />
          <NumberField
            v-model="form.head"
            label="Head size"
            measure="area"
            :error="said('shape.headAreaCm2')"
          />
          <v-select v-if="shapes.length > 0" v-model="form.shape" :items="shapes" label="Shape" clearable />
          <NumberField
            v-model="form.axis"
            :label="`${SPEC_NAMES.swingWeight} pivot, if unusual`"
            measure="length"
            unit="cm"
            :error="said('specs.axisCm')"
          />
        </div>
      </MoreFields>
      <MoreFields title="As published">
        <div class="two">
          <v-text-field
            v-for="key in ALL_SPEC_KEYS"
            :key="key"
            v-model="form.told[key]"
            :label="`${SPEC_NAMES[key]} as published, with unit`"
            :error-messages="at(`asReported.${key}`)"
          />
          <v-text-field v-model="form.link" label="Link" :error-messages="at('link')" />
          <v-text-field
            v-model="form.reportedOn"
            type="date"
            label="Published on"
            :error-messages="at('reportedOn')"
          />
          <v-text-field v-model="form.style" label="How they play" :error-messages="at('style')" />
          <v-text-field v-model="form.gripSize" label="Grip size" :error-messages="at('facts.gripSize')" />
        </div>
        <div class="three">
          <v-text-field v-model="form.beam" label="Beam, mm" :error-messages="at('facts.beam')" />
          <NumberField
            v-model="form.leftRight"
            label="Left side heavier by"
            measure="mass"
            unit="g"
            signed
            :error="said('facts.leftRightG')"
          />
          <v-text-field v-model="form.note" label="Note" :error-messages="at('facts.note')" />
        </div>
        <div v-if="isStrung(form.sport)" class="two">
          <v-text-field v-model="form.pattern" label="String pattern" :error-messages="at('facts.pattern')" />
          <v-text-field
            v-model="form.strings.tension"
            label="Tension"
            :error-messages="at('strings.tension')"
          />
          <v-text-field v-model="form.strings.mains" label="Mains" :error-messages="at('strings.mains')" />
          <v-text-field
            v-model="form.strings.crosses"
            label="Crosses"
            :error-messages="at('strings.crosses')"
          />
        </div>
      </MoreFields>
    </template>
  </FormDialog>
</template>
