<script setup lang="ts">
import { ref, watch } from 'vue';
import type { Sport } from '@kevro/core';
import type { Measurement } from '@kevro/contract';
import { api } from '../../api/client';
import { quantityList } from '../../measure/quantities';
import { dayWords } from '../../parts/day-words';
import { dressWords } from '../../parts/dress-words';
import { useUnits } from '../../stores/units';

const props = defineProps<{ frameId: string; newest?: string; lengthCm: number; sport: Sport }>();
const units = useUnits();
const list = ref<Measurement[]>([]);
watch(
  () => [props.frameId, props.newest],
  async () => {
    list.value = await api('measurements', { id: props.frameId }).catch(() => []);
  },
  { immediate: true },
);
</script>

<template>
  <section v-if="list.length > 0">
    <h2 class="heading mb-1">Measured so far</h2>
    <ul>
      <li v-for="m in list" :key="m.id">
        <div>
          {{ units.show('massG', m.specs.massG, lengthCm) }} {{ units.unit('massG') }} ·
          {{ units.show('balanceCm', m.specs.balanceCm, lengthCm)
          }}{{ units.way.balance === 'points' ? '' : ` ${units.unit('balanceCm')}` }} ·
          {{ m.specs.swingWeight.toFixed(0) }}
          <template v-if="m.specs.twistWeight"> · {{ m.specs.twistWeight.toFixed(1) }}</template>
          <span v-if="m.estimated.length > 0" class="warn small">
            · est. {{ quantityList(m.estimated) }}</span
          >
        </div>
        <div class="soft small">{{ dayWords(m.takenAt) }} · {{ dressWords(m.dress, sport) }}</div>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  border-top: 1px solid rgb(var(--v-theme-line));
  padding: 6px 0;
}
</style>
