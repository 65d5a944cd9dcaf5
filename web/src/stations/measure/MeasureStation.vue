<script setup lang="ts">
import MeasureBench from '../../measure/MeasureBench.vue';
import { useFitting } from '../../stores/fitting';
import { useBenchMarks } from '../bench-marks';
import EarlierMeasurements from './EarlierMeasurements.vue';

/** Measuring the frame of a fitting. */
const fitting = useFitting();
const marks = useBenchMarks();
</script>

<template>
  <MeasureBench
    v-if="fitting.view && fitting.frame"
    :frame="fitting.view.frame"
    :measurement="fitting.measurement"
    :marks="marks"
    @stored="fitting.refresh()"
  >
    <template #more>
      <EarlierMeasurements
        :frame-id="fitting.view.frame.id"
        :newest="fitting.measurement?.id"
        :length-cm="fitting.frame.lengthCm"
        :sport="fitting.frame.sport.sport"
      />
    </template>
    <template #onward>
      <v-btn color="primary" size="large" block :to="{ name: 'compare' }">Go on to Compare</v-btn>
    </template>
  </MeasureBench>
</template>
