<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { FrameShape } from '@kevro/core';
import { useRecord } from '../../api/queries';
import { quantityList } from '../../measure/quantities';
import { dayWords } from '../../words/days';
import { dressWords } from '../../words/dress';
import { faultWords } from '../../measure/timeline';
import PutRight from '../../forms/PutRight.vue';
import { useUnits } from '../../stores/units';
import { PURPOSE_NAMES } from '../../words';

const props = defineProps<{
  frameId: string;
  newest?: string;
  /** The measurement that the round starts from. */
  startId: string | null;
  open: boolean;
  shape: FrameShape;
}>();
const emit = defineEmits<{ start: [measurementId: string]; changed: [] }>();
const putRight = ref<InstanceType<typeof PutRight>>();
const units = useUnits();
const { record, load } = useRecord('measurements', () => props.frameId);
const list = computed(() => record.value ?? []);
watch(() => props.newest, load);
async function stored(): Promise<void> {
  await load();
  emit('changed');
}
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
        <div v-if="!m.counts" class="warn small">{{ faultWords(m) }}</div>
        <div v-if="m.id === startId" class="small"><b>The round starts from this.</b></div>
        <div v-if="open && m.supersededBy === null" class="acts">
          <button
            v-if="m.id !== startId && m.counts"
            type="button"
            class="link small"
            @click="emit('start', m.id)"
          >
            start the round from this
          </button>
          <button v-if="m.counts" type="button" class="link small" @click="putRight?.correct(m)">
            Correct…
          </button>
          <button type="button" class="link small" @click="putRight?.mark(m)">
            {{ m.counts ? 'Discard…' : 'Restore' }}
          </button>
        </div>
      </li>
    </ul>
    <PutRight ref="putRight" :shape="shape" @stored="stored" />
  </section>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
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
.link {
  text-decoration: underline;
  text-underline-offset: 3px;
  min-height: 28px;
}
</style>
