<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core';
import { computed, onBeforeUnmount, watch } from 'vue';
import { specName, hardToJudge, swapsTo, type Aim, type Guard, type SpecKey } from '@kevro/core';
import { guardSentence } from '@kevro/contract';
import { counted } from '../../words/counted';
import { useFitting } from '../../stores/fitting';
import { useShop } from '../../stores/shop';
import { useUnits } from '../../stores/units';
import { percent } from '../../words/chance';
import { missWords } from '../../words/plan';
import { usePlans } from '../plan/plans';
import { useShopParts } from '../plan/shop-parts';
import type { useAimDraft } from './aim-draft';

/** Whether this frame gets to an aim, and what speaks against it. */
const props = defineProps<{ aim: ReturnType<typeof useAimDraft>; guards: readonly Guard[] }>();
const fitting = useFitting();
const units = useUnits();
const draft = props.aim.kept.value;
const { parts } = useShopParts();
const shop = useShop();
const { plans, working, make, stop } = usePlans();
onBeforeUnmount(stop);

const say = (spec: SpecKey, width: number): string =>
  units.sayWidth(spec, width, props.aim.shape.value.sport);
/** What the instruments judge badly. */
const hard = computed(() => {
  const { frame, before, instruments } = fitting;
  return frame && before && instruments
    ? hardToJudge(frame, before, instruments, props.aim.read.value.aim)
    : [];
});

/** The best way there, worked out beside the page while the aim is typed. */
const ask = useDebounceFn((aim: Aim) => {
  const { record, before, dress, instruments } = fitting;
  if (!record || !before || parts.value.length === 0) return;
  make({
    shape: record.shape,
    specs: before,
    target: aim,
    parts: parts.value,
    schools: ['free'],
    dress: dress ?? {},
    swaps: draft.value.finish && dress ? swapsTo(dress, draft.value.finish) : [],
    wanted: shop.wanted,
    leastG: shop.sportOf(record.shape.sport).smallestPieceG,
    ...(instruments ? { instruments } : {}),
  });
}, 250);
watch(
  [() => props.aim.read.value, parts, () => draft.value.finish],
  ([{ aim, errors }]) => {
    stop();
    if (Object.keys(errors).length === 0 && Object.keys(aim).length > 0) void ask(aim);
  },
  { immediate: true },
);
const gets = computed(() => {
  const [best] = plans.value;
  if (!best) return working.value ? { words: 'Looking for a way there…', good: true } : undefined;
  const { sport } = props.aim.shape.value;
  const grams = `${units.sayWidth('massG', best.addedG, sport)} in ${counted(best.places, 'place', 'places')}`;
  if (best.withinTolerance)
    return {
      words: `Reachable with ${grams}; ${percent(best.chance)} of such builds pass the first check.`,
      good: true,
    };
  const miss = missWords(
    props.aim.read.value.aim,
    best.deviation,
    (key, amount) => units.sayWidth(key, amount, sport),
    { sport: shop.sportOf(sport), hand: best.specs.swingWeight },
  );
  return { words: `Not reachable with these parts: ${miss}.`, good: false };
});
</script>

<template>
  <p v-if="gets" class="small my-0" :class="gets.good ? 'soft' : 'warn'" role="status">{{ gets.words }}</p>
  <template v-for="one in hard" :key="one.spec">
    <div v-if="one.because === 'tight'" class="guard">
      <p class="small my-0" role="status">
        ⚠ Your instruments can’t judge {{ specName(one.spec) }} to ±{{ say(one.spec, one.tolerance) }}. They
        can judge ±{{ say(one.spec, one.judgeable) }}.
      </p>
      <button type="button" class="link small" @click="aim.loosen(one)">
        Use ±{{ say(one.spec, one.judgeable) }}
      </button>
    </div>
    <p v-else class="small my-0 warn" role="status">
      ⚠ Your instruments judge {{ specName(one.spec) }} only to ±{{ say(one.spec, one.judgeable) }}, more than
      a player feels.{{
        one.spec === 'twistWeight' ? ' Two threads read it closer.' : ' Read it more often.'
      }}
    </p>
  </template>
  <div v-for="guard in guards" :key="guard.code" class="guard" :class="guard.strength">
    <p class="small my-0" role="status">⚠ {{ guardSentence(guard, fitting.view?.player.name) }}</p>
    <button v-if="guard.at" type="button" class="link small" @click="aim.take(guard.at)">
      {{ guard.code === 'out-of-reach' ? 'Take the nearest' : 'Use the smaller step' }}
    </button>
    <v-text-field
      v-if="guard.strength === 'strong'"
      v-model="draft.overridden[guard.code]"
      label="Reason to override"
      density="compact"
      hide-details
      class="mt-1"
    />
  </div>
</template>

<style scoped>
.guard {
  border-left: 4px solid rgb(var(--v-theme-warn));
  padding: 2px 0 2px 10px;
  color: rgb(var(--v-theme-warn));
}
.guard.strong {
  border-color: rgb(var(--v-theme-brick));
  color: rgb(var(--v-theme-brick));
}
</style>
