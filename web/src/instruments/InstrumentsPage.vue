<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { KINDS, type Instrument } from '@kevro/contract';
import { api } from '../api/client';
import ListPage from '../ui/ListPage.vue';
import { useInstruments } from '../stores/instruments';
import { focusRow } from '../ui/focus';
import { unitScale } from '@kevro/core';
import { useSaved } from '../stores/saved';
import { useUnits } from '../stores/units';
import InstrumentForm from './InstrumentForm.vue';
import StandInPanel from './StandInPanel.vue';
import { CALIBRATION_WORDS, KIND_WORDS, instrumentStands, ageWords } from '../words/instruments';

// What a fitter comes here to do: see whether the instruments can be trusted; calibrate one; in the demo, put a frame on one.
const instruments = useInstruments();
instruments.listen();
const failure = ref('');
const saved = useSaved();
const units = useUnits();
const form = ref<InstanceType<typeof InstrumentForm>>();
const withRetired = ref(false);
const retiredCount = computed(() => (instruments.all ?? []).filter(({ retired }) => retired).length);
const rows = computed(() => instruments.all?.filter(({ retired }) => withRetired.value || !retired));
async function load(): Promise<void> {
  failure.value = '';
  try {
    instruments.all = await api('instruments');
  } catch (error) {
    failure.value = error instanceof Error ? error.message : String(error);
  }
}
onMounted(load);
async function stored({ id }: Instrument): Promise<void> {
  saved.stored();
  await load();
  focusRow(id);
}
async function retire({ id, retired }: Instrument): Promise<void> {
  try {
    await api('retireInstrument', { id, body: { retired: !retired } });
    saved.stored();
    await load();
  } catch (error) {
    saved.failed(error);
  }
}
const calibrated = (i: Instrument): string =>
  CALIBRATION_WORDS[i.calibrationState](i.calibration ? ageWords(i.calibration.takenAt) : '');
/** It was carried to this bench and plugged in here. */
async function plugHere({ id }: Instrument): Promise<void> {
  try {
    await api('plugHere', { id, body: {} });
    saved.stored();
    await load();
  } catch (error) {
    saved.failed(error);
  }
}
const shows = (i: Instrument): string => {
  const now = instruments.shown.get(i.id);
  if (!now || i.state === 'lost') return '—';
  const { unit } = KINDS[i.kind];
  const net = now.tared ? ' net' : '';
  if (unit === 'g')
    return `${units.way.mass === 'oz' ? (now.value / (unitScale('mass', 'oz') ?? 1)).toFixed(2) : now.value.toFixed(1)} ${units.way.mass}${net}`;
  if (unit === 'cm')
    return `${(now.value / (unitScale('length', units.way.length) ?? 1)).toFixed(2)} ${units.way.length}`;
  return `${now.value.toFixed(1)} ${unit}`;
};
</script>

<template>
  <ListPage
    title="Instruments"
    action="Add an instrument"
    :rows="rows"
    :failure="failure"
    empty="No instrument yet. Readings can be typed without any; add one to take them with a key."
    @act="form?.show()"
    @retry="load"
  >
    <template #filter>
      <v-checkbox v-if="retiredCount > 0" v-model="withRetired" :label="`Retired ones (${retiredCount})`" />
    </template>
    <template #default="{ rows: shown }">
      <ul class="instruments">
        <li v-for="i in shown" :key="i.id" :data-row="i.id">
          <div class="head">
            <div>
              <button type="button" class="row-name" @click="form?.show(i)">{{ i.name }}</button>
              <span class="soft ml-2">{{ KIND_WORDS[i.kind] }}</span>
              <span v-if="i.retired" class="warn small ml-2">retired</span>
              <div
                class="small"
                :class="i.state === 'ready' || i.bench !== null ? 'soft' : 'warn'"
                role="status"
              >
                {{ instrumentStands(i) }}
              </div>
              <div v-if="i.trouble" class="miss small" role="status">{{ i.trouble }}</div>
            </div>
            <output class="digits">{{ shows(i) }}</output>
            <div class="calibrated">
              <span
                class="small"
                :class="['fresh', 'not-needed'].includes(i.calibrationState) ? 'soft' : 'warn'"
                >{{ calibrated(i) }}</span
              >
              <RouterLink v-if="KINDS[i.kind].calibrates" :to="`/settings/instruments/${i.id}`"
                >Calibrate {{ i.name }}</RouterLink
              >
              <v-btn
                v-if="i.bench !== null"
                variant="text"
                :aria-label="`${i.name} is plugged in here`"
                @click="plugHere(i)"
                >It is here</v-btn
              >
              <v-btn
                variant="text"
                :aria-label="`${i.retired ? 'Bring back' : 'Retire'} ${i.name}`"
                @click="retire(i)"
                >{{ i.retired ? 'Bring back' : 'Retire' }}</v-btn
              >
            </div>
          </div>
          <StandInPanel v-if="i.simulated && !i.retired && i.bench === null" :instrument="i" />
        </li>
      </ul>
      <p v-if="shown.some((i) => i.simulated)" class="soft small mt-3">
        Simulated ones have noise, drift and warm-up.
      </p>
    </template>
    <template #after><InstrumentForm ref="form" @stored="stored" /></template>
  </ListPage>
</template>

<style scoped>
.instruments {
  list-style: none;
  padding: 0;
  margin: 0;
}
.instruments li {
  border-top: 1px solid rgb(var(--v-theme-line));
  padding: 14px 0;
}
.head {
  display: grid;
  grid-template-columns: 1fr 190px 260px;
  gap: 16px;
  align-items: center;
  margin-bottom: 10px;
}
.digits {
  font-size: 28px;
  font-weight: 700;
  text-align: right;
}
.calibrated {
  display: flex;
  flex-direction: column;
  align-items: flex-end;
}
.calibrated a {
  color: inherit;
}
@media (max-width: 700px) {
  .head {
    grid-template-columns: 1fr;
  }
}
</style>
