<script setup lang="ts">
import { computed } from 'vue';
import type { Frame, Judgement } from '@kevro/core';
import { judgementLines, type Saying } from '@kevro/contract';
import { dayWords } from '../words/days';
import { useUnits } from '../stores/units';

/** What the readings give away, the gravest first. */
const props = defineProps<{ judgements: readonly Judgement[]; frame: Frame }>();
const WORDS = { wrong: 'Cannot be', warn: 'Look again', note: 'Good to know' };
const units = useUnits();
const say = computed<Saying>(() => {
  const { lengthCm } = props.frame;
  const { sport } = props.frame.sport;
  return {
    value: (key, value) =>
      key === 'balanceCm' && units.way.balance === 'points'
        ? units.show(key, value, { sport, lengthCm })
        : `${units.show(key, value, { sport, lengthCm })} ${units.unit(key)}`,
    amount: (key, amount) => units.sayWidth(key, amount, sport),
    length: (cm) => `${units.benchLength(cm)} ${units.way.length}`,
    day: dayWords,
  };
});
const lines = computed(() => judgementLines(props.judgements, props.frame, say.value));
</script>

<template>
  <ul v-if="lines.length > 0" class="judgements" aria-label="What the readings say" role="list">
    <li v-for="line in lines" :key="line.text" :class="line.weight">
      <b>{{ WORDS[line.weight] }}.</b> {{ line.text }}
    </li>
  </ul>
</template>

<style scoped>
.judgements {
  list-style: none;
  margin: 4px 0 8px;
  padding: 0;
}
li {
  border-left: 4px solid rgb(var(--v-theme-line));
  padding: 3px 0 3px 10px;
  margin-bottom: 4px;
}
li.wrong {
  border-left: 8px double rgb(var(--v-theme-brick));
}
li.wrong b {
  color: rgb(var(--v-theme-brick));
}
li.warn {
  border-left-color: rgb(var(--v-theme-warn));
  border-left-style: dashed;
  color: inherit;
}
li.warn b {
  color: rgb(var(--v-theme-warn));
}
li.note b {
  color: rgb(var(--v-theme-soft));
}
</style>
