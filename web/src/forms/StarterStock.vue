<script setup lang="ts">
import { computed } from 'vue';
import type { Sport, Starter } from '@kevro/core';
import NumberField from './NumberField.vue';
import { isOn, offered, sampleWords, weightWords, type StarterDraft } from './starters';
import { partUnit } from '../words/part-weight';
import { vWide } from '../ui/wide-table';

/** Common parts to begin a stock with: a tick for each, and one field for who has weighed theirs. */
const { sports, said } = defineProps<{
  sports: readonly Sport[];
  /** The sentence for a field of the body that is sent. */
  said: (path: string) => string | undefined;
}>();
const draft = defineModel<StarterDraft>({ required: true });
const rows = computed(() => offered(sports));
/** The place of a row in what is sent: only ticked ones are. */
const placeOf = (starter: Starter): number =>
  rows.value.filter((one) => isOn(draft.value, one)).indexOf(starter);
const turn = (id: string, on: boolean | null): void => {
  draft.value.on[id] = on === true;
};
</script>

<template>
  <table v-wide class="plain wide">
    <thead>
      <tr>
        <th>Part</th>
        <th class="num">Typical weight</th>
        <th class="sample">Weigh yours</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="one in rows" :key="one.id">
        <td>
          <v-checkbox
            :model-value="isOn(draft, one)"
            :label="one.name"
            hide-details
            @update:model-value="turn(one.id, $event)"
          />
        </td>
        <td class="num">{{ weightWords(one.part) }}</td>
        <td>
          <NumberField
            v-if="sampleWords(one.part) && isOn(draft, one)"
            :model-value="draft.samples[one.id] ?? null"
            :label="sampleWords(one.part)!"
            measure="mass"
            :unit="partUnit()"
            :error="said(`starters.${placeOf(one)}.sampleG`)"
            @update:model-value="draft.samples[one.id] = $event"
          />
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table.plain tbody td {
  vertical-align: middle;
}
td.num {
  white-space: nowrap;
}
.sample {
  width: 230px;
}
</style>
