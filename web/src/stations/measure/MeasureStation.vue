<script setup lang="ts">
import { computed, ref } from 'vue';
import { useRoute } from 'vue-router';
import { PURPOSES, purposeChoice, type Purpose, type Station } from '@kevro/core';
import { api } from '../../api/client';
import MeasureBench from '../../measure/MeasureBench.vue';
import { useFitting } from '../../stores/fitting';
import { useSaved } from '../../stores/saved';
import { STATION_NAMES } from '../../words';
import { useBenchMarks } from '../../bench/bench-marks';
import { planCheck } from '../plan/plan-check';
import EarlierMeasurements from './EarlierMeasurements.vue';

/** Measuring the frame of a fitting. */
const fitting = useFitting();
const saved = useSaved();
const marks = useBenchMarks();
const purposes = computed(() => {
  const { round } = fitting;
  return round && purposeChoice(round, round.state);
});
/** What is next after measuring; a frame that was never measured goes on to Compare. */
const stored = ref<Purpose>();
const AFTER: Partial<Record<Purpose, Station>> = { check: 'check', trial: 'build', step: 'build' };
const onward = computed(() => {
  const after = stored.value && AFTER[stored.value];
  if (after) return after;
  const due = fitting.round?.state.next?.station;
  return due === undefined || due === 'measure' ? 'compare' : due;
});
async function hear(purpose: Purpose): Promise<void> {
  stored.value = purpose;
  await fitting.stored();
}
/** What the page was opened for: the check from its station, a reading at a bench step. */
const route = useRoute();
const asked = computed(() => {
  const purpose = PURPOSES.find((one) => one === route.query.for);
  const { step } = route.query;
  return purpose && { purpose, step: typeof step === 'string' ? step : undefined };
});
/** The plan that stands, whose check this may be. */
const planned = computed(() => {
  const { plan, round } = fitting;
  const check =
    plan &&
    planCheck(
      plan,
      round?.measurements.find(({ id }) => id === plan.startId),
    );
  return check && { check, readings: plan.readings };
});
async function startFrom(measurementId: string): Promise<void> {
  const { view, round } = fitting;
  if (!view || !round) return;
  try {
    await fitting.stored(
      await api('startRound', { id: view.id, body: { roundId: round.id, measurementId } }),
    );
  } catch (error) {
    saved.failed(error);
  }
}
</script>

<template>
  <MeasureBench
    v-if="fitting.view && fitting.record && fitting.round"
    :key="fitting.record.id"
    :frame="fitting.record"
    :measurement="fitting.measurement"
    :marks="marks"
    :round-id="fitting.round.id"
    :purposes="purposes"
    :asked="asked"
    :planned="planned"
    @stored="hear"
  >
    <template #more>
      <EarlierMeasurements
        :frame-id="fitting.record.id"
        :newest="fitting.round.measurements.at(-1)?.id"
        :start-id="fitting.round.startId"
        :open="fitting.view.closed === null"
        :shape="fitting.record.shape"
        @start="startFrom"
        @changed="fitting.stored()"
      />
    </template>
    <template #onward>
      <v-btn color="primary" size="large" block :to="{ name: onward }">
        Go on to {{ STATION_NAMES[onward] }}
      </v-btn>
    </template>
  </MeasureBench>
</template>
