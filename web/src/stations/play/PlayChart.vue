<script setup lang="ts">
import { computed } from 'vue';
import { useTheme } from 'vuetify';
import { capital, SPECS, countedSessions, measuredIn } from '@kevro/core';
import PlainChart from '../../ui/PlainChart.vue';
import { dayWords } from '../../words/days';
import { historyChart } from '../../ui/history-chart';
import { ENERGY_WORDS } from '../../words/sessions';
import { useFitting } from '../../stores/fitting';
import { useUnits } from '../../stores/units';
import { useOutlook } from './outlook';
import { playedWith } from './rounds';

/** The swing weight of the frame in this fitting over time, with how much energy each session left. */
const fitting = useFitting();
const units = useUnits();
const theme = useTheme();
const { next: outlook } = useOutlook();
const sessions = computed(() => fitting.rounds.flatMap(({ sessions: of }) => countedSessions(of)));

const chart = computed(() => {
  const { record, view } = fitting;
  if (!record || !view) return undefined;
  const say = (value: number): string => units.show('swingWeight', value, record.shape);
  const steps = playedWith(record, fitting.rounds).flatMap(({ round, words, specs }) => {
    const at = measuredIn(round)?.takenAt;
    return specs && at ? [{ at, value: specs.swingWeight, text: `${say(specs.swingWeight)}: ${words}` }] : [];
  });
  const ceiling = view.player.ceilings[record.shape.sport];
  const next = outlook.value;
  const to = next && next.change.length > 0 ? (next.ready?.specs ?? next.specs).swingWeight : undefined;
  return historyChart(
    {
      steps: steps.toSorted((a, b) => (a.at < b.at ? -1 : 1)),
      felt: sessions.value.map(({ playedOn, energyLeft, arm }) => ({
        on: playedOn,
        energyLeft,
        sore: arm === 'sore',
        text: `${dayWords(playedOn)}: ${ENERGY_WORDS[energyLeft]} energy left`,
      })),
      level: ceiling ? { value: ceiling, name: `ceiling ${say(ceiling)}` } : undefined,
      next: to === undefined ? undefined : { value: to, name: `next ${say(to)}` },
      unit: `${SPECS.swingWeight.name}, kg·cm²`,
    },
    theme.current.value.colors as Record<string, string>,
    new Date().toISOString(),
  );
});
const rows = computed(() =>
  sessions.value.map(({ playedOn, energyLeft, late, twists, arm, minutes }) => ({
    playedOn,
    energyLeft,
    late: late ?? null,
    twists: twists ?? null,
    arm,
    minutes: minutes ?? null,
  })),
);
</script>

<template>
  <PlainChart
    v-if="chart"
    :label="`${capital(SPECS.swingWeight.name)} over time, with the energy that each session left; the table below says the same in words`"
    :file="`${fitting.record?.tag ?? 'frame'}-played`"
    :data="chart.data"
    :layout="chart.layout"
    :rows="rows"
    :height="230"
  />
</template>
