<script setup lang="ts">
import { computed } from 'vue';
import { SPEC_KEYS, targetOf, type Aim } from '@kevro/core';
import { dayWords } from '../../words/days';
import { useFitting } from '../../stores/fitting';
import { useUnits } from '../../stores/units';
import { WAY_WORDS } from '../../words';

/** Every aim that was set for this frame in this fitting, newest first: who decided, from what, and why. */
const fitting = useFitting();
const units = useUnits();
const aims = computed(() => {
  const entry = fitting.view?.frames.find(({ frame }) => frame.id === fitting.record?.id);
  return (entry?.rounds ?? [])
    .flatMap(({ number, aims: of }) => of.map((aim) => ({ ...aim, round: number })))
    .toReversed();
});
const numbers = (aim: Aim): string => {
  const shape = fitting.record?.shape;
  if (!shape) return '';
  return SPEC_KEYS.flatMap((key) => {
    const target = targetOf(aim, key);
    return target ? [units.show(key, target.value, shape)] : [];
  }).join(' · ');
};
</script>

<template>
  <details v-if="aims.length > 0">
    <summary>
      {{ aims.length === 1 ? 'Targets set' : `${aims.length} targets set` }}
    </summary>
    <ol>
      <li v-for="aim in aims" :key="aim.id">
        <b class="num">{{ numbers(aim.target) }}</b>
        <span class="soft small ml-2">
          {{ dayWords(aim.createdAt) }}, round {{ aim.round }}, {{ WAY_WORDS[aim.way]
          }}{{ aim.by ? `, by ${aim.by}` : '' }}{{ aim.id === fitting.aim?.id ? ', current' : '' }}</span
        >
        <div v-if="aim.note" class="small">{{ aim.note }}</div>
        <div v-for="guard in aim.guards" :key="guard.code" class="small warn">
          despite a warning: {{ guard.note }}
        </div>
      </li>
    </ol>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  font-size: 13.5px;
  color: rgb(var(--v-theme-soft));
}
ol {
  list-style: none;
  padding: 0;
  margin: 4px 0 0;
}
li {
  border-top: 1px solid rgb(var(--v-theme-line));
  padding: 5px 0;
}
</style>
