<script setup lang="ts">
import { computed } from 'vue';
import { purposeChoice, roundState } from '@kevro/core';
import { api } from '../../api/client';
import MeasureBench from '../../measure/MeasureBench.vue';
import { useFitting } from '../../stores/fitting';
import { useSaved } from '../../stores/saved';
import { STATION_NAMES } from '../../words';
import { useBenchMarks } from '../bench-marks';
import { pageOf } from '../pages';
import EarlierMeasurements from './EarlierMeasurements.vue';

/** Measuring the frame of a fitting. */
const fitting = useFitting();
const saved = useSaved();
const marks = useBenchMarks();
const purposes = computed(() => {
  const { round, references } = fitting;
  if (!round) return undefined;
  const records = { ...round, compared: references.length > 0 };
  return purposeChoice(records, roundState(records, new Date().toISOString()));
});
/** What is next after measuring; a frame that was never measured goes on to Compare. */
const onward = computed(() => {
  const due = fitting.round?.state.next?.station;
  return pageOf(due === undefined || due === 'measure' ? 'compare' : due);
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
    @stored="fitting.stored()"
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
