<script setup lang="ts">
import { computed } from 'vue';
import {
  chanceAfterTrim,
  chanceToPass,
  errorSources,
  specErrors,
  type Aim,
  type AxisSpecs,
  type Care,
  type Change,
  type ErrorKind,
  type Frame,
  type SpecUncertainty,
} from '@kevro/core';
import type { Measurement } from '@kevro/contract';
import { SPEC_NAMES } from '../../words';
import { percent } from './plan-words';

/** How likely a build of what stands passes its check, what that hangs on most, and what would raise it. */
const props = defineProps<{
  frame: Frame;
  aim: Aim;
  specs: AxisSpecs;
  change: Change;
  measurement: Measurement;
  inside: boolean;
}>();

const chanceWith = (care: Care, instruments: SpecUncertainty) =>
  chanceToPass(
    props.frame,
    props.aim,
    props.specs,
    specErrors(props.specs, errorSources(props.frame, props.measurement.dress, props.change, care)),
    instruments,
  );
const now = computed(() => chanceWith({}, props.measurement.uncertainty));
const trimmed = computed(() =>
  chanceAfterTrim(props.frame, props.aim, props.specs, now.value.chance, props.measurement.uncertainty),
);
const MATTERS: Record<ErrorKind, string> = {
  density: 'true weights of tape and filling',
  placing: 'places where pieces end up',
  cutting: 'lengths that are cut',
  instruments: 'the instruments at the check',
};
const most = computed(() => now.value.contributions[0]);

/** What a bench scale leaves uncertain of a piece, g (from memory). */
const SCALE_G = 0.05;
/** The mean of three readings is as uncertain as one by √3 (JCGM 100:2008, 4.2.3), as far as it is chance. */
const thrice = computed(() => {
  const { uncertainty } = props.measurement;
  return Object.fromEntries(
    Object.entries(uncertainty).map(([key, u]) => [key, u / Math.sqrt(3)]),
  ) as unknown as SpecUncertainty;
});
/** Less than this is not worth a hand's turn. */
const WORTH = 0.02;
const raises = computed(() => {
  const ways = [
    {
      does: 'weigh each piece before it goes on',
      to: chanceWith({ weighedG: SCALE_G }, props.measurement.uncertainty).chance,
    },
    { does: 'take three readings of each at the check', to: chanceWith({}, thrice.value).chance },
  ];
  return ways.filter(({ to }) => to - now.value.chance > WORTH);
});
</script>

<template>
  <section class="sure small" aria-label="How sure">
    <p>
      Chance to pass first time <b>{{ percent(now.chance) }}</b><template v-if="inside"
        >, after one trim <b>{{ percent(trimmed) }}</b></template
      >.
    </p>
    <details v-if="most && now.narrowest">
      <summary class="soft">
        {{ SPEC_NAMES[now.narrowest] }} is the tightest: {{ MATTERS[most.what] }} matter most
      </summary>
      <p class="soft">{{ Math.round(100 * most.share) }} % of what it is unsure by comes from there.</p>
      <p v-for="{ does, to } in raises" :key="does" class="soft">
        {{ does[0]?.toUpperCase() }}{{ does.slice(1) }}: {{ percent(to) }}.
      </p>
    </details>
  </section>
</template>

<style scoped>
.sure p {
  margin: 0;
}
summary {
  cursor: pointer;
}
</style>
