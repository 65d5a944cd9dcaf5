<script setup lang="ts">
import { computed, reactive, ref } from 'vue';
import { SPEC_KEYS, SPORTS, isStrung, unitOf } from '@kevro/core';
import type { FrameRecord } from '@kevro/contract';
import { api } from '../api/client';
import AddDialog from '../parts/AddDialog.vue';
import DressForm from '../parts/DressForm.vue';
import PickPlayer from '../parts/PickPlayer.vue';
import { SPORT_ITEMS } from '../players/words';
import { SPEC_NAMES, ZONE_NAMES } from '../words';
import { changeSport, draftOf, frameBody } from './frame-draft';

/** A frame, added or changed: what it is, what is on it, and what its maker states. */
const emit = defineEmits<{ stored: [frame: FrameRecord] }>();
const open = ref(false);
const before = ref<FrameRecord>();
const draft = reactive(draftOf());

function show(frame?: FrameRecord): void {
  before.value = frame;
  Object.assign(draft, draftOf(frame));
  open.value = true;
}
defineExpose({ show });

const shapes = computed(() => Object.keys(SPORTS[draft.sport].shapes));
const zones = computed(() =>
  SPORTS[draft.sport].zones.map(({ name }) => ({ value: name, title: ZONE_NAMES[name] })),
);
const strung = computed(() => isStrung(draft.sport));
async function submit(): Promise<void> {
  const body = frameBody(draft, before.value);
  const stored = before.value
    ? await api('editFrame', { id: before.value.id, body })
    : await api('addFrame', { body });
  emit('stored', stored);
}
const addWeight = (): void => {
  draft.weights.push({ what: '', grams: '', zone: 'tip', mirrored: false });
};
</script>

<template>
  <AddDialog
    v-model="open"
    :title="before ? `Change ${before.tag}` : 'Add a frame'"
    :store="before ? 'Store' : 'Add'"
    :width="760"
    :submit="submit"
  >
    <template #default="{ at }">
      <div class="three">
        <v-text-field v-model="draft.tag" label="Tag" autofocus :error-messages="at('tag')" />
        <v-select
          :model-value="draft.sport"
          :items="SPORT_ITEMS"
          label="Sport"
          @update:model-value="changeSport(draft, $event)"
        />
        <PickPlayer v-model="draft.ownerId" label="Owner" none="shop stock" :error="at('ownerId')[0]" />
      </div>
      <div class="three">
        <v-text-field v-model="draft.maker" label="Maker" :error-messages="at('maker')" />
        <v-text-field v-model="draft.model" label="Model" :error-messages="at('model')" />
        <v-text-field v-model="draft.paint" label="Paint says, if other" :error-messages="at('paint')" />
      </div>
      <div class="three">
        <v-text-field
          v-model="draft.length"
          label="Length"
          suffix="cm"
          inputmode="decimal"
          :error-messages="
            [...at('shape.lengthCm'), ...(at('shape.headAreaCm2').length > 0 ? [] : at('shape'))].slice(0, 1)
          "
        />
        <v-text-field
          v-if="strung"
          v-model="draft.area"
          label="Head"
          suffix="cm²"
          inputmode="decimal"
          :error-messages="at('shape.headAreaCm2')"
        />
        <v-text-field
          v-else
          v-model="draft.width"
          label="Width, if not usual"
          suffix="cm"
          inputmode="decimal"
          :error-messages="at('shape.headWidthCm')"
        />
        <v-select v-if="shapes.length > 0" v-model="draft.shape" :items="shapes" label="Shape" clearable />
        <v-text-field v-else v-model="draft.pattern" label="String pattern" :error-messages="at('pattern')" />
      </div>
      <div class="three">
        <v-text-field v-model="draft.beam" label="Beam or thickness, mm" :error-messages="at('beam')" />
        <v-text-field
          v-model="draft.stiffness"
          label="Stiffness"
          inputmode="decimal"
          :error-messages="at('stiffness')"
        />
        <v-text-field v-model="draft.gripSize" label="Grip size" :error-messages="at('gripSize')" />
      </div>
      <v-text-field v-model="draft.note" label="Note" :error-messages="at('note')" />

      <h3 class="heading">On it now</h3>
      <DressForm v-model="draft.onIt" :sport="draft.sport" />
      <div v-for="(weight, i) in draft.weights" :key="i" class="weight">
        <v-text-field
          v-model="weight.what"
          label="Weight: what it is"
          :error-messages="at(`weights.${i}.what`)"
        />
        <v-text-field
          v-model="weight.grams"
          label="In all"
          suffix="g"
          inputmode="decimal"
          :error-messages="at(`weights.${i}.massG`)"
        />
        <v-select
          v-model="weight.zone"
          :items="zones"
          label="Where"
          :error-messages="at(`weights.${i}.at`)"
        />
        <v-checkbox v-model="weight.mirrored" label="both sides" />
        <v-btn
          variant="text"
          size="small"
          :aria-label="`Take off weight ${i + 1}`"
          @click="draft.weights.splice(i, 1)"
          >Off</v-btn
        >
      </div>
      <div><v-btn variant="outlined" size="small" @click="addWeight">Note a weight on it</v-btn></div>

      <h3 class="heading">What the maker states of this model</h3>
      <p class="soft small mb-0">Shared by all frames of the same sport, maker and model.</p>
      <div v-for="key in SPEC_KEYS" :key="key" class="two">
        <v-text-field
          v-model="draft.specs[key]"
          :label="`${SPEC_NAMES[key]}, stated`"
          :suffix="unitOf(key)"
          inputmode="decimal"
          :error-messages="at(`nominal.specs.${key}`)"
        />
        <v-text-field
          v-model="draft.tolerance[key]"
          label="give or take"
          :suffix="unitOf(key)"
          inputmode="decimal"
          :error-messages="at(`nominal.tolerance.${key}`)"
        />
      </div>
      <h3 class="heading">The maker’s statement holds for a frame with this on it</h3>
      <DressForm v-model="draft.nominalDress" :sport="draft.sport" />
    </template>
  </AddDialog>
</template>

<style scoped>
.weight {
  display: grid;
  grid-template-columns: 1.4fr 0.8fr 1fr auto auto;
  gap: 10px;
  align-items: center;
}
</style>
