<script setup lang="ts">
import { computed } from 'vue';
import { fromSpot, settleFrame } from '@kevro/core';
import Lane from '../lanes/Lane.vue';
import type { LaneMarks } from '../lanes/lane';
import Rail from '../rail/Rail.vue';
import Sheet from '../ui/Sheet.vue';

/** What the marks of lanes and rail mean, drawn as they are drawn at the stations. */
const open = defineModel<boolean>({ required: true });
const SHAPE = { sport: 'tennis', lengthCm: 68.58 } as const;
const frame = settleFrame(SHAPE);
const UNSURE = { massG: 0.6, balanceCm: 0.1, swingWeight: 1, twistWeight: 0.2 };
const own = { massG: 325 };
const MARKS: { marks: LaneMarks; says: string }[] = [
  { marks: { measured: own, measuredUncertainty: UNSURE }, says: 'as measured; the line is how sure' },
  { marks: { measured: own, estimated: ['massG'] }, says: 'estimated, not measured' },
  { marks: { measured: own, predicted: { massG: 331 } }, says: 'open: where the plan brings it' },
  {
    marks: { measured: own, aim: { massG: { value: 332, tolerance: 1.5 } } },
    says: 'brackets: the target and its tolerance',
  },
  { marks: { measured: own, guide: { massG: [318, 334] } }, says: 'hatched: the guide for the player' },
  {
    marks: {
      measured: own,
      setups: [
        { id: 'a', specs: { massG: 320 }, marked: false },
        { id: 'b', specs: { massG: 329 }, marked: true },
      ],
    },
    says: 'below: published setups; thick: set beside',
  },
  {
    marks: { measured: own, walls: { massG: { value: 335, name: 'ceiling' } } },
    says: 'the player’s ceiling',
  },
];
const weights = [
  fromSpot(frame, { at: { zone: 'sides' }, massG: 4, spanCm: 8 }, { id: 'sides', partId: '' }),
];
const labels = computed(() => weights.map(() => '2 g'));
</script>

<template>
  <Sheet v-model="open" title="What the marks mean" :width="680">
    <div v-for="{ marks, says } in MARKS" :key="says" class="mark">
      <Lane
        spec="massG"
        :marks="marks"
        :shape="SHAPE"
        :width="260"
        :compact="!marks.setups"
        aria-hidden="true"
        inert
      />
      <span>{{ says }}</span>
    </div>
    <div class="mark">
      <div class="rail" aria-hidden="true" inert>
        <Rail
          :frame="frame"
          :dress="{ strings: true, baseGrip: 'synthetic' }"
          :measured-balance-cm="32.3"
          :planned-balance-cm="33.2"
          :weights="weights"
          :weight-labels="labels"
          label-once
          :fixed-width="260"
        />
      </div>
      <span
        >On the frame: filled triangle, the balance as measured; open, as planned. Black strips are what is
        put on. The dot is the axis of the hand.</span
      >
    </div>
    <div class="d-flex mt-4">
      <v-spacer /><v-btn v-first color="primary" @click="open = false">Close</v-btn>
    </div>
  </Sheet>
</template>

<style scoped>
.mark {
  display: grid;
  grid-template-columns: 270px minmax(0, 1fr);
  gap: 18px;
  align-items: center;
  border-top: 1px solid rgb(var(--v-theme-line));
}
.mark :deep(.lane) {
  display: block;
  border: 0;
  min-height: 0;
}
.mark :deep(.name),
.mark :deep(.value) {
  display: none;
}
.rail {
  width: 260px;
  padding-top: 10px;
}
@media (max-width: 600px) {
  .mark {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
    padding-bottom: 6px;
  }
}
</style>
