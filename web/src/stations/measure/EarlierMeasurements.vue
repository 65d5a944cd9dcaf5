<script setup lang="ts">
import { ref, watch } from 'vue';
import type { Measurement } from '@kevro/contract';
import { api } from '../../api/client';
import { quantityList } from '../../measure/quantities';
import { dayWords } from '../../parts/day-words';
import { dressWords } from '../../parts/dress-words';
import { useUnits, type OfFrame } from '../../stores/units';
import { PURPOSE_NAMES } from '../../words';

const props = defineProps<{
  frameId: string;
  newest?: string;
  /** The measurement that the round starts from. */
  startId: string | null;
  open: boolean;
  shape: OfFrame;
}>();
const emit = defineEmits<{ start: [measurementId: string] }>();
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
          {{ units.show('massG', m.specs.massG, shape) }} {{ units.unit('massG') }} ·
          {{ units.show('balanceCm', m.specs.balanceCm, shape)
          }}{{ units.way.balance === 'points' ? '' : ` ${units.unit('balanceCm')}` }} ·
          {{ units.show('swingWeight', m.specs.swingWeight, shape) }}
          <template v-if="m.specs.twistWeight">
            · {{ units.show('twistWeight', m.specs.twistWeight, shape) }}</template
          >
          <span v-if="m.estimated.length > 0" class="warn small">
            · est. {{ quantityList(m.estimated) }}</span
          >
        </div>
        <div class="soft small">
          {{ dayWords(m.takenAt) }} · {{ PURPOSE_NAMES[m.purpose] }} · {{ dressWords(m.dress, shape.sport) }}
        </div>
        <div v-if="m.id === startId" class="small"><b>The round starts from this.</b></div>
        <button v-else-if="open" type="button" class="link small" @click="emit('start', m.id)">
          start the round from this
        </button>
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
.link {
  text-decoration: underline;
  text-underline-offset: 3px;
  min-height: 28px;
}
</style>
