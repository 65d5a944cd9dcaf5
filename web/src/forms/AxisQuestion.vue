<script setup lang="ts">
import { SPEC_NAMES } from '../words';
import { computed } from 'vue';
import type { SportData } from '@kevro/core';
import { useUnits } from '../stores/units';

/** Asks about which axis swing weights of a source are. Until it is answered they count about the sport's own. */
const props = defineProps<{ sport: Pick<SportData, 'axisCm' | 'quotedAxesCm'> }>();
const axis = defineModel<number | undefined>({ required: true });
const units = useUnits();
const items = computed(() =>
  (props.sport.quotedAxesCm ?? []).map((cm) => ({
    value: cm,
    title: cm === 0 ? 'the end of the butt' : `${units.showMeasure('length', cm)} from the butt`,
  })),
);
</script>

<template>
  <v-select
    v-model="axis"
    :items="items"
    :label="`${SPEC_NAMES.swingWeight}s are about`"
    :hint="
      axis === undefined
        ? `Not said yet: counted about ${units.showMeasure('length', sport.axisCm)}. Asked once a source.`
        : ''
    "
    persistent-hint
  />
</template>
