<script setup lang="ts">
import { partWeight } from '../../words/part-weight';
import { computed, ref } from 'vue';
import type { Aim, Frame, Plan } from '@kevro/core';
import { counted } from '../../words/counted';
import { useUnits } from '../../stores/units';
import { SCHOOL_NAMES } from '../../words';
import { doingWords, missWords } from '../../words/plan';

/** The ways to get there, best first: what each puts where, and what it misses. */
const props = defineProps<{
  plans: readonly Plan[];
  aim: Aim;
  frame: Frame;
  on: Plan['school'] | undefined;
}>();
const emit = defineEmits<{ pick: [plan: Plan]; table: [] }>();

const units = useUnits();
const SHOWN_FIRST = 3;
const showAll = ref(false);
const shown = computed(() => (showAll.value ? props.plans : props.plans.slice(0, SHOWN_FIRST)));
/** The chance that the check finds it inside, with the instruments' own errors. */
const passes = ({ chance }: Plan): string => `${Math.round(100 * chance)} % pass`;
const judged = (plan: Plan): string =>
  plan.withinTolerance
    ? `${counted(plan.places, 'place', 'places')} · ${partWeight(plan.addedG)} · ${passes(plan)}`
    : missWords(
        props.aim,
        plan.deviation,
        (key, amount) => units.sayWidth(key, amount, props.frame.sport.sport),
        { sport: props.frame.sport, hand: plan.specs.swingWeight },
      );
</script>

<template>
  <div class="line">
    <h2 class="heading">Placements</h2>
    <button type="button" class="link small" @click="emit('table')">Compare all</button>
  </div>
  <ul class="ways">
    <li v-for="plan in shown" :key="plan.school">
      <button
        type="button"
        class="way"
        :class="{ on: on === plan.school }"
        :aria-pressed="on === plan.school"
        @click="emit('pick', plan)"
      >
        <span class="line">
          <b>{{ SCHOOL_NAMES[plan.school] }}</b>
          <span :class="plan.withinTolerance ? 'good' : 'miss'" class="judged">{{ judged(plan) }}</span>
        </span>
        <span class="soft small">{{ doingWords(plan, frame) }}</span>
        <span v-if="!plan.proven" class="soft small d-block"
          >Search stopped early: a better plan may exist</span
        >
      </button>
    </li>
  </ul>
  <button v-if="plans.length > SHOWN_FIRST" type="button" class="more small" @click="showAll = !showAll">
    {{ showAll ? 'Show fewer' : `Show ${plans.length - SHOWN_FIRST} more` }}
  </button>
</template>

<style scoped>
.ways {
  list-style: none;
  padding: 0;
  margin: 0;
}
.ways li + li {
  margin-top: 6px;
}
.way {
  display: block;
  width: 100%;
  text-align: left;
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 4px;
  background: rgb(var(--v-theme-paper));
  padding: 8px 10px;
}
.way.on {
  border: 2px solid rgb(var(--v-theme-ink));
  background: rgb(var(--v-theme-sheet));
  padding: 7px 9px;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 0 10px;
}
.line b {
  white-space: nowrap;
}
.judged {
  font-weight: 600;
  font-size: 13.5px;
  text-align: right;
}
.more {
  text-decoration: underline;
  color: rgb(var(--v-theme-soft));
  padding: 4px 0;
  align-self: flex-start;
}
</style>
