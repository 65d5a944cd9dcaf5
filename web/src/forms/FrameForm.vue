<script setup lang="ts">
import { computed, ref } from 'vue';
import { SPEC_KEYS, SPORTS, isStrung } from '@kevro/core';
import type { FrameRecord } from '@kevro/contract';
import { api } from '../api/client';
import DressForm from './DressForm.vue';
import FormDialog from './FormDialog.vue';
import MoreFields from '../ui/MoreFields.vue';
import NumberField from './NumberField.vue';
import PickPlayer from './PickPlayer.vue';
import { useDraft } from './draft';
import { numberOf } from '../ui/typed';
import { SPORT_ITEMS } from '../words/players';
import { SPEC_NAMES, ZONE_NAMES } from '../words';
import PickModel from './PickModel.vue';
import { changeSport, draftOf, fillFrom, frameBody, newFrameDraft } from './frame-draft';
import { partUnit } from '../words/part-weight';
import { useShop } from '../stores/shop';

/** A frame, added or changed: what it is; and behind lines what is on it, its finer points and what its maker states. */
const emit = defineEmits<{ stored: [frame: FrameRecord] }>();
const open = ref(false);
const before = ref<FrameRecord>();
const shop = useShop();
const draft = useDraft(() => draftOf());
const form = draft.value;

/** @param ownerId whose frame it is, of a new one */
function show(frame?: FrameRecord, ownerId: string | null = null): void {
  before.value = frame;
  const start = frame ? draftOf(frame) : newFrameDraft(shop.usualSport);
  draft.begin(`frame ${frame?.id ?? 'new'}`, frame ? start : { ...start, ownerId });
  open.value = true;
}
defineExpose({ show });

const shapes = computed(() => Object.keys(SPORTS[form.value.sport].shapes));
const zones = computed(() =>
  SPORTS[form.value.sport].zones.map(({ name }) => ({ value: name, title: ZONE_NAMES[name] })),
);
const strung = computed(() => isStrung(form.value.sport));
/** The frame that the maker's numbers are of, as far as it is known. */
const stated = computed(() => ({
  sport: form.value.sport,
  lengthCm: numberOf(form.value.length) ?? SPORTS[form.value.sport].lengthCm,
}));
const submit = (key: string): Promise<FrameRecord> => {
  const body = frameBody(form.value, before.value);
  return before.value
    ? api('editFrame', { id: before.value.id, body })
    : api('addFrame', { body: { ...body, key } });
};
const addWeight = (): void => {
  form.value.weights.push({ what: '', grams: null, zone: 'tip', mirrored: false });
};
</script>

<template>
  <FormDialog
    v-model="open"
    :title="before ? `Change ${before.tag}` : 'Add a frame'"
    :store="before ? 'Store' : 'Add'"
    :width="760"
    :submit="submit"
    :draft="draft"
    @stored="emit('stored', $event as FrameRecord)"
  >
    <template #default="{ at, said }">
      <div class="three">
        <v-text-field v-model="form.tag" v-first label="Tag" :error-messages="at('tag')" />
        <v-text-field v-model="form.maker" label="Maker" :error-messages="at('maker')" />
        <v-text-field v-model="form.model" label="Model" :error-messages="at('model')" />
      </div>
      <PickModel v-if="!before" @picked="fillFrom(form, $event)" />
      <div class="three">
        <PickPlayer v-model="form.ownerId" label="Owner" none="shop stock" :error="at('ownerId')[0]" />
        <v-select
          :model-value="form.sport"
          :items="SPORT_ITEMS"
          label="Sport"
          @update:model-value="changeSport(form, $event)"
        />
        <v-select v-if="shapes.length > 0" v-model="form.shape" :items="shapes" label="Shape" clearable />
        <NumberField
          v-else
          v-model="form.area"
          label="Head"
          measure="area"
          :error="said('shape.headAreaCm2')"
        />
      </div>
      <v-checkbox
        v-if="form.outline"
        v-model="form.takesOutline"
        :label="form.outlineOf ? `With the outline of ${form.outlineOf}` : 'With its own outline'"
        hint="It goes before what is typed of the head."
        persistent-hint
      />
      <MoreFields title="Size, grip, note" :open="before !== undefined">
        <div class="three">
          <NumberField
            v-model="form.length"
            label="Length"
            measure="length"
            :error="said('shape.lengthCm') ?? (said('shape.headAreaCm2') ? undefined : said('shape'))"
          />
          <NumberField
            v-if="!strung"
            v-model="form.width"
            label="Width, if unusual"
            measure="length"
            :error="said('shape.headWidthCm')"
          />
          <v-text-field
            v-if="strung"
            v-model="form.pattern"
            label="String pattern"
            :error-messages="at('pattern')"
          />
          <v-text-field v-model="form.gripSize" label="Grip size" :error-messages="at('gripSize')" />
          <v-text-field v-model="form.beam" label="Beam or thickness, mm" :error-messages="at('beam')" />
          <NumberField v-model="form.stiffness" label="Stiffness" :error="said('stiffness')" />
          <v-text-field v-model="form.paint" label="Painted as, if different" :error-messages="at('paint')" />
        </div>
        <v-text-field v-model="form.note" label="Note" :error-messages="at('note')" />
      </MoreFields>

      <MoreFields title="Already on it" :open="form.weights.length > 0">
        <DressForm v-model="form.onIt" :sport="form.sport" :error="said('onIt')" />
        <div v-for="(weight, i) in form.weights" :key="i" class="weight">
          <v-text-field v-model="weight.what" label="Item" :error-messages="at(`weights.${i}.what`)" />
          <NumberField
            v-model="weight.grams"
            label="Total weight"
            measure="mass"
            :unit="partUnit()"
            :error="said(`weights.${i}.massG`)"
          />
          <v-select
            v-model="weight.zone"
            :items="zones"
            label="Where"
            :error-messages="at(`weights.${i}.at`)"
          />
          <v-checkbox v-model="weight.mirrored" label="both sides" />
          <v-btn variant="text" :aria-label="`Take off piece ${i + 1}`" @click="form.weights.splice(i, 1)"
            >Off</v-btn
          >
        </div>
        <div><v-btn variant="outlined" @click="addWeight">Add an item</v-btn></div>
      </MoreFields>

      <MoreFields title="Manufacturer’s specs" :open="Boolean(before?.nominal)">
        <p class="soft small mb-0">Shared by all frames of this model.</p>
        <div v-for="key in SPEC_KEYS" :key="key" class="two">
          <NumberField
            v-model="form.specs[key]"
            :label="SPEC_NAMES[key]"
            :spec="key"
            :shape="stated"
            :error="said(`nominal.specs.${key}`)"
          />
          <NumberField
            v-model="form.tolerance[key]"
            label="tolerance"
            :spec="key"
            :shape="stated"
            width
            :error="said(`nominal.tolerance.${key}`)"
          />
        </div>
        <h3 class="heading">Specs are for a frame with</h3>
        <DressForm v-model="form.nominalDress" :sport="form.sport" :error="said('nominal.dress')" />
      </MoreFields>
    </template>
  </FormDialog>
</template>

<style scoped>
.weight {
  display: grid;
  grid-template-columns: 1.4fr 0.8fr 1fr auto auto;
  gap: 10px;
  align-items: center;
}
@media (max-width: 600px) {
  .weight {
    grid-template-columns: 1fr;
  }
}
</style>
