<script setup lang="ts">
import { computed } from 'vue';
import { faceOf, outlineArea, settleFrame, type FrameShape } from '@kevro/core';
import { useUnits } from '../stores/units';
import type { useOutlining } from './outlining';

/** What an outline from a photo comes to, beside what was known of the frame; and whether it is scaled to the frame's length. */
const props = defineProps<{
  work: ReturnType<typeof useOutlining>;
  shape: FrameShape;
  /** Whether the face is a bed within a hoop. */
  hasHoop: boolean;
}>();
const { found, bySight, lengthIsAlike, scalesToRecord, read } = props.work;
const units = useUnits();
const length = (cm: number): string => units.showFound('length', cm);
const area = (cm2: number): string => units.showFound('area', cm2);
const rows = computed(() => {
  const now = found.value;
  if (!now) return [];
  const before = settleFrame(props.shape);
  const face = props.hasHoop ? 'Area of the bed' : 'Area of the face';
  return [
    { name: 'Length', show: length, figure: now.length, before: before.lengthCm },
    { name: 'Head, outside', show: length, figure: now.headLength, before: 2 * before.head.alongCm },
    { name: 'Width, outside', show: length, figure: now.width, before: 2 * before.head.acrossCm },
    { name: face, show: area, figure: now.face, before: outlineArea(faceOf(before)) },
  ];
});
</script>

<template>
  <table class="plain figures">
    <thead>
      <tr>
        <th scope="col"><span class="d-sr-only">What</span></th>
        <th scope="col" class="num">From the photo</th>
        <th scope="col" class="num"><span class="d-sr-only">Uncertainty</span></th>
        <th scope="col" class="num">Until now</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.name">
        <th scope="row">{{ row.name }}</th>
        <td class="num">
          <b>{{ row.show(row.figure.value) }}</b>
        </td>
        <td class="num soft">±{{ row.show(2 * row.figure.uncertainty) }}</td>
        <td class="num soft">{{ row.show(row.before) }}</td>
      </tr>
    </tbody>
  </table>
  <template v-if="bySight">
    <v-checkbox
      v-model="scalesToRecord"
      :label="`Scaled to its length, ${units.showMeasure('length', shape.lengthCm)}`"
      hide-details
    />
    <p class="small" :class="lengthIsAlike ? 'soft' : 'warn'">
      The photo alone says {{ length(bySight.length.value) }} ±{{ length(2 * bySight.length.uncertainty) }}.
      <template v-if="!lengthIsAlike"
        >Measure it with a tape, and check the thickness and the sheet.</template
      >
    </p>
  </template>
  <p v-if="read && !read.bottomSeen" class="small warn">
    Where the head ends toward the handle isn’t seen. Drag its lowest point into place.
  </p>
  <p class="soft small">
    Drag a point where the line leaves the edge. By keys: ← → choose a point, ↑ ↓ move it out and in, with
    Shift in larger steps.
  </p>
</template>

<style scoped>
.figures td,
.figures th {
  white-space: nowrap;
}
</style>
