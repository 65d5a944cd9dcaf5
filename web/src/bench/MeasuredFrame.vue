<script setup lang="ts">
import type { AxisSpecs, Frame, SpecKey } from '@kevro/core';
import type { OfFrame } from '../ui/typed';
import type { LaneMarks } from '../lanes/lane';
import Lanes from '../lanes/Lanes.vue';
import Rail, { type Ghost } from '../rail/Rail.vue';
import { useFitting } from '../stores/fitting';
import { readingWorking } from './bench-marks';
import { sweetOf } from '../rail/sweet';
import { useWorking } from './working';
import WorkingSheet from './WorkingSheet.vue';

/** The frame in hand as it was measured: the rail with what stands beside it, and the lanes; a number opens how it was found. */
defineProps<{
  frame: Frame;
  before: AxisSpecs;
  shape: OfFrame;
  marks: LaneMarks;
  ghosts: readonly Ghost[];
  /** The aim may be moved in the lanes. */
  aimable?: boolean;
}>();
const emit = defineEmits<{ aim: [spec: SpecKey, value: number] }>();
const fitting = useFitting();
const { sheet, show } = useWorking();
</script>

<template>
  <Rail
    :frame="frame"
    :dress="fitting.dress"
    :measured-balance-cm="before.balanceCm"
    :sweet-before="sweetOf(frame, before)"
    :ghosts="ghosts"
  />
  <Lanes
    :marks="marks"
    :shape="shape"
    :axis-cm="before.axisCm"
    :aimable="aimable"
    @aim="(spec, value) => emit('aim', spec, value)"
    @open="show($event, readingWorking($event, fitting.measurement, frame), 'measured')"
  />
  <WorkingSheet v-model="sheet.open" :title="sheet.title" :parts="sheet.parts" :length-cm="frame.lengthCm" />
</template>
