<script setup lang="ts">
import { computed } from 'vue';
import { BASE_GRIPS, isStrung, sportData, type Dress, type Sport } from '@kevro/core';
import { BASE_GRIP_NAMES } from '../words';
import NumberField from './NumberField.vue';
import { dressProblem } from '../words/dress';
import { sent, type Typed } from '../ui/typed';
import { partUnit, partNumber } from '../words/part-weight';

/**
 * What is on the frame. Comes before the readings, because they all depend on it. What is typed for the strings stands in the dress as
 * typed, also where it is no weight: see `dressProblem`.
 */
const dress = defineModel<Dress>({ required: true });
const { sport = 'tennis', error = '' } = defineProps<{ sport?: Sport; error?: string }>();
const strung = computed(() => isStrung(sport));
const set = (change: Partial<Dress>): void => {
  dress.value = { ...dress.value, ...change };
};
const overgrips = computed(() => dress.value.overgrips ?? 0);
const strings = computed<Typed>({
  get: () => (typeof dress.value.strings === 'object' ? dress.value.strings.massG : null),
  set: (typed) => set({ strings: typed === null ? true : { massG: sent(typed) } }),
});
const problem = computed(() =>
  typeof strings.value === 'number' ? (dressProblem(dress.value) ?? error) : error,
);
const GRIPS = BASE_GRIPS.map((value) => ({ value, title: BASE_GRIP_NAMES[value] }));
</script>

<template>
  <div class="dress">
    <div v-if="strung" class="row">
      <v-switch
        :model-value="Boolean(dress.strings)"
        label="Strung"
        @update:model-value="set({ strings: Boolean($event) })"
      />
      <NumberField
        v-if="dress.strings"
        v-model="strings"
        label="strings"
        measure="mass"
        :unit="partUnit()"
        :placeholder="`about ${partNumber(sportData(sport).typicalParts.strings.massG, 0)}`"
        :error="problem"
      />
    </div>
    <div class="row grip">
      <v-select
        :model-value="dress.baseGrip ?? 'none'"
        :items="GRIPS"
        label="Base grip"
        @update:model-value="set({ baseGrip: $event })"
      />
      <div class="stepper" role="group" aria-label="Overgrips">
        <v-btn
          variant="outlined"
          size="small"
          aria-label="One overgrip less"
          :disabled="overgrips === 0"
          @click="set({ overgrips: overgrips - 1 })"
          >−</v-btn
        >
        <span class="count"
          ><b>{{ overgrips }}</b> over</span
        >
        <v-btn
          variant="outlined"
          size="small"
          aria-label="One overgrip more"
          :disabled="overgrips >= 6"
          @click="set({ overgrips: overgrips + 1 })"
          >+</v-btn
        >
      </div>
    </div>
    <v-checkbox
      v-if="strung"
      :model-value="dress.dampener ?? false"
      label="Dampener in the strings"
      @update:model-value="set({ dampener: Boolean($event) })"
    />
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  align-items: center;
  min-height: 46px;
}
.row.grip {
  grid-template-columns: minmax(0, 1fr) 140px;
}
.stepper {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.stepper :deep(.v-btn) {
  min-width: 36px;
  padding: 0 8px;
  height: 36px;
  font-size: 18px;
}
.count {
  white-space: nowrap;
}
</style>
