<script setup lang="ts">
import { computed } from 'vue';
import type { SpecKey } from '@kevro/core';
import { useFitting } from '../../stores/fitting';
import { useLearned } from '../../stores/learned';
import { useUnits } from '../../stores/units';
import { isSpec, learnedWords, otherwiseWords, type LearnedTold } from '../../words/learned';
import { usePlayersGuide } from './players-guide';
import type { useAimDraft } from './aim-draft';

/** What sessions of players alike say, beside what the guide says; nothing where there is nothing to say. */
const props = defineProps<{ aim: ReturnType<typeof useAimDraft> }>();
const fitting = useFitting();
const units = useUnits();
const { told, among } = useLearned();

const saying = computed(() => ({
  shape: props.aim.shape.value,
  show: units.show,
  unit: units.unit,
  tension: fitting.bed?.stringing.unit ?? ('kg' as const),
}));
const { bands } = usePlayersGuide(props.aim);
/** Where this player is happiest among those; the middle of them for somebody who played nothing yet. */
function forThisPlayer({ what, happiest: { from, to } }: LearnedTold): number {
  return among.value.find((one) => one.what === what)?.among ?? (from + to) / 2;
}
const lines = computed(() =>
  told.value.map((one) => {
    const key = isSpec(one.what) ? one.what : undefined;
    return {
      one,
      key,
      words: learnedWords(one, saying.value),
      otherwise: key ? otherwiseWords(one, bands.value?.[key], saying.value) : '',
      value: forThisPlayer(one),
    };
  }),
);
const shown = (key: SpecKey, value: number): string =>
  `${units.show(key, value, props.aim.shape.value)} ${units.unit(key)}`;
</script>

<template>
  <section v-if="lines.length > 0" aria-label="What sessions here say" class="learned small">
    <h3 class="heading">What sessions here say</h3>
    <p v-for="{ one, key, words, otherwise, value } in lines" :key="one.what" class="mb-1">
      {{ words }} <span v-if="otherwise">{{ otherwise }}</span>
      <button v-if="key" type="button" class="link" @click="aim.typedByHand(key, Number(value.toFixed(2)))">
        Aim at {{ shown(key, value) }}
      </button>
    </p>
  </section>
</template>
