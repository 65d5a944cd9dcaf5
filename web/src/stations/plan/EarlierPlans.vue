<script setup lang="ts">
import { computed } from 'vue';
import type { Frame } from '@kevro/core';
import type { PlanRecord, RoundView } from '@kevro/contract';
import { momentWords } from '../../words/days';
import { LAPSE_WORDS, SCHOOL_NAMES } from '../../words';
import { doingWords } from '../../words/plan';

/** Plans of this round that stand no more: kept, with why, and one click lays them out again from where the round starts now. */
const props = defineProps<{ round: RoundView; frame: Frame }>();
const emit = defineEmits<{ again: [plan: PlanRecord] }>();
const lapsed = computed(() =>
  props.round.plans
    .flatMap((plan) => {
      const why = props.round.state.lapsed[plan.id];
      return why ? [{ plan, why }] : [];
    })
    .toReversed(),
);
</script>

<template>
  <details v-if="lapsed.length > 0">
    <summary class="heading">Earlier plans of this round ({{ lapsed.length }})</summary>
    <ul>
      <li v-for="{ plan, why } in lapsed" :key="plan.id">
        <div>
          <b>{{ plan.byHand ? 'Changed by hand' : SCHOOL_NAMES[plan.school] }}</b>
          <span class="soft small"> {{ momentWords(plan.createdAt) }} · {{ LAPSE_WORDS[why] }}</span>
        </div>
        <div class="soft small">{{ doingWords(plan, frame) }}</div>
        <button type="button" class="again small" @click="emit('again', plan)">Use again</button>
      </li>
    </ul>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  min-height: 28px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  border-top: 1px solid rgb(var(--v-theme-line));
  padding: 6px 0;
}
.again {
  text-decoration: underline;
  text-underline-offset: 3px;
  min-height: 28px;
}
</style>
