<script setup lang="ts">
import { computed, ref } from 'vue';
import { useTheme } from 'vuetify';
import {
  specsToShow,
  ALL_SPEC_KEYS,
  STANDING_PURPOSES,
  countedSessions,
  redress,
  type KnownSpecs,
  type AnySpecKey,
} from '@kevro/core';
import type { FrameRecord, Measurement } from '@kevro/contract';
import PlainChart from '../ui/PlainChart.vue';
import { dayWords } from '../words/days';
import { historyChart } from '../ui/history-chart';
import { useRecord } from '../api/queries';
import { same } from '../ui/same';
import { ENERGY_WORDS } from '../words/sessions';
import { useUnits } from '../stores/units';
import { specAxis, SPEC_NAMES } from '../words';

/** The specs of a frame over time, as it stood, with what was felt of it. Drawn once there is something to see. */
const props = defineProps<{ frame: FrameRecord; measurements: readonly Measurement[] }>();
const units = useUnits();
const theme = useTheme();
// Without sessions there is still a line.
const { record: played } = useRecord('frameSessions', () => props.frame.id);
const sessions = computed(() => countedSessions(played.value ?? []));
const spec = ref<AnySpecKey>('swingWeight');
const stands = computed(() =>
  props.measurements
    .filter(({ counts, purpose }) => counts && STANDING_PURPOSES.includes(purpose))
    .toSorted((a, b) => (a.takenAt < b.takenAt ? -1 : 1)),
);
/** What each measured would be in the dress of the last: a line of strung and unstrung numbers would tell of strings, not of the frame. */
const inOneDress = computed(() => {
  const last = stands.value.at(-1);
  return stands.value.map((m): Measurement & { brought: KnownSpecs } => {
    const alike = !last || same(m.dress, last.dress);
    if (alike) return { ...m, brought: m.specs };
    try {
      return { ...m, brought: redress(props.frame.shape, m.specs, m.dress, last.dress).specs };
    } catch {
      // What cannot be brought over has no point on the line; it stands in the list.
      return { ...m, brought: {} };
    }
  });
});
const known = computed(() => inOneDress.value.filter(({ brought }) => brought[spec.value] !== undefined));
const brought = computed(() => inOneDress.value.some((m) => m.brought !== m.specs));
const chart = computed(() =>
  historyChart(
    {
      steps: known.value.map(({ takenAt, brought: now, note }) => ({
        at: takenAt,
        value: now[spec.value] ?? 0,
        text: `${dayWords(takenAt)}: ${units.show(spec.value, now[spec.value] ?? 0, props.frame.shape)}${note ? `, ${note}` : ''}`,
      })),
      felt: sessions.value.map(({ playedOn, energyLeft }) => ({
        on: playedOn,
        energyLeft,
        sore: false,
        text: `${dayWords(playedOn)}: ${ENERGY_WORDS[energyLeft]} energy left`,
      })),
      unit: specAxis(spec.value),
    },
    theme.current.value.colors as Record<string, string>,
    new Date().toISOString(),
  ),
);
/** A rating is offered where it was measured. */
const choices = computed(() => specsToShow(inOneDress.value.map((m) => m.brought)));
const rows = computed(() =>
  inOneDress.value.map(({ takenAt, brought: now }) => ({
    takenAt,
    ...Object.fromEntries(ALL_SPEC_KEYS.map((key) => [key, now[key] ?? null])),
  })),
);
</script>

<template>
  <section
    v-if="inOneDress.length > 1 || (inOneDress.length > 0 && sessions.length > 0)"
    aria-label="Over time"
    class="mb-4"
  >
    <div class="chart-head">
      <h2 class="heading">Over time</h2>
      <span class="spring" />
      <v-select
        v-model="spec"
        :items="choices.map((value) => ({ value, title: SPEC_NAMES[value] }))"
        label="Spec"
      />
    </div>
    <PlainChart
      :label="`${SPEC_NAMES[spec]} of this frame over time, with the energy that each session left; the list says the same in words`"
      :file="`${frame.tag}-over-time`"
      :data="chart.data"
      :layout="chart.layout"
      :rows="rows"
      :height="220"
    />
    <p v-if="brought" class="soft small mb-0">All shown as it was last measured.</p>
  </section>
</template>
