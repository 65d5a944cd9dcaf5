<script setup lang="ts">
import { computed } from 'vue';
import { SPECS, zoneOf, type Placement } from '@kevro/core';
import { ZONE_NAMES, stepHeading, stepWhy, type ProgrammeOutlook } from '@kevro/contract';
import { useCatalogueBeside } from '../../stores/catalogue';
import { useFitting } from '../../stores/fitting';
import { useUnits } from '../../stores/units';
import { counted } from '../../words/counted';
import { jobWords } from '../../words/strings';
import { partUnit, partWeight } from '../../words/part-weight';

/** What is to be done next and why, with the pieces that are laid on and taken off for it. */
const { next } = defineProps<{ next: NonNullable<ProgrammeOutlook['next']> }>();
const fitting = useFitting();
const catalogue = useCatalogueBeside();
const units = useUnits();
const sport = computed(() => fitting.record?.shape.sport ?? 'tennis');

const piece = (p: Placement): string => {
  const part = catalogue.inUse.find(({ id }) => id === p.partId);
  const zone = fitting.frame ? ZONE_NAMES[zoneOf(fitting.frame, p)].toLowerCase() : '';
  return `${partWeight(p.massG, 2)}${part ? ` ${part.name}` : ''}, ${zone}`;
};
const lines = computed(() => {
  const { ready } = next;
  if (!ready) return [];
  return [
    ...ready.removals.map(({ of, left }) =>
      left ? `shorten to ${partWeight(left.massG, 2)}: ${piece(of)}` : `take off ${piece(of)}`,
    ),
    ...ready.placements.map((p) => `put on ${piece(p)}`),
    ...(ready.job ? [`string it: ${jobWords(ready.job)}`] : []),
  ];
});
const becomes = computed(() => {
  const { ready } = next;
  const { record } = fitting;
  if (!ready || !record) return '';
  if (ready.job) return 'Weight and balance stay as they are; weigh it when it is strung.';
  const pieces = ready.placements.length + ready.removals.length;
  return `${SPECS.swingWeight.name} ${units.show('swingWeight', ready.before.swingWeight, record.shape)} → ${units.show('swingWeight', ready.specs.swingWeight, record.shape)} kg·cm² · ${counted(pieces, 'piece', 'pieces')}`;
});
const short = computed(() => (next.ready?.short.length ?? 0) > 0);
</script>

<template>
  <p class="title" :class="{ miss: next.state === 'stopped' }" role="status">
    {{ stepHeading({ ...next, tensionUnit: fitting.bed?.stringing.unit }, partUnit()) }}
  </p>
  <p class="mb-2">{{ stepWhy(sport, next) }}</p>
  <slot />
  <div v-if="next.ready" class="ready">
    <b>Ready plan</b>
    <ul>
      <li v-for="line in lines" :key="line">{{ line }}</li>
    </ul>
    <p v-if="short" class="warn small mb-0">
      Not enough material in stock for this step. Add some, or choose another.
    </p>
    <p v-else class="soft small mb-0">{{ becomes }}</p>
  </div>
</template>

<style scoped>
.title {
  font-size: 23px;
  font-weight: 700;
  line-height: 1.2;
  margin: 4px 0 8px;
}
.ready {
  border: 2px solid rgb(var(--v-theme-ink));
  padding: 8px 12px;
  margin-bottom: 10px;
}
.ready ul {
  list-style: none;
  padding: 0;
  margin: 2px 0 4px;
}
</style>
