<script setup lang="ts">
import { computed, onMounted, shallowRef } from 'vue';
import type { Learning, PlanRecord } from '@kevro/contract';
import { api } from '../../api/client';

/** What builds with the same rolls have taught so far: said beside the check, looked at and taken in Stock. */
const props = defineProps<{ plan: PlanRecord }>();
const learned = shallowRef<Learning>();
onMounted(async () => {
  learned.value = await api('learning').catch(() => undefined);
});
const own = computed(() => {
  const used = new Set(props.plan.placements.map(({ partId }) => partId));
  return (learned.value?.rolls ?? []).filter(({ partId }) => used.has(partId));
});
const words = ({ name, builds, share, uncertainty }: Learning['rolls'][number]): string =>
  `${builds === 1 ? 'One build' : `${builds} builds`} with ${name}: ${share < 0 ? '−' : '+'}${Math.abs(100 * share).toFixed(1)} % ±${(200 * uncertainty).toFixed(1)} off its label.`;
</script>

<template>
  <section v-if="own.length > 0" aria-label="What builds taught" class="small">
    <h2 class="heading">What builds taught</h2>
    <p v-for="roll in own" :key="roll.partId" class="mb-1">{{ words(roll) }}</p>
    <RouterLink :to="{ name: 'learning' }">Look at the evidence</RouterLink>
  </section>
</template>
