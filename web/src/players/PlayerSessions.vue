<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useTheme } from 'vuetify';
import { specsToShow, ALL_SPEC_KEYS, type AnySpecKey, type Sport } from '@kevro/core';
import type { PlayerPage } from '@kevro/contract';
import PlainChart from '../ui/PlainChart.vue';
import { dayWords } from '../words/days';
import { historyChart } from '../ui/history-chart';
import { vWide } from '../ui/wide-table';
import { ARM_WORDS, ENERGY_WORDS, OFTEN_WORDS, aroundWords, ballWords } from '../words/sessions';
import { useUnits } from '../stores/units';
import { specAxis, SPEC_NAMES, SPORT_NAMES } from '../words';
import WhatWorks from '../bench/WhatWorks.vue';

/** What a player played and felt over time, in one sport, and what went with better sessions. */
const props = defineProps<{ page: PlayerPage }>();
/** How the arm was, and what was said in words, is shown when it is asked for: a customer may look on. */
const withArm = defineModel<boolean>({ required: true });
const units = useUnits();
const theme = useTheme();
const sports = computed(() => {
  const played = new Set(props.page.sessions.map(({ sport }) => sport));
  return props.page.player.sports.filter((sport) => played.size === 0 || played.has(sport));
});
const sport = ref<Sport>();
watch(sports, ([first]) => (sport.value ??= first), { immediate: true });
const spec = ref<AnySpecKey>('swingWeight');
const played = computed(() =>
  props.page.sessions.filter(({ sport: of, counts }) => counts && of === sport.value).toReversed(),
);
const shapeOf = (frameId: string) => props.page.frames.find(({ id }) => id === frameId)?.shape;
const show = (key: AnySpecKey, value: number | undefined, frameId: string): string => {
  const shape = shapeOf(frameId);
  return value === undefined || !shape ? '—' : units.show(key, value, shape);
};
const chart = computed(() => {
  const known = played.value.filter(({ specs }) => specs[spec.value] !== undefined);
  if (known.length < 2 || !sport.value) return undefined;
  const ceiling = spec.value === 'swingWeight' ? props.page.ceilings[sport.value] : undefined;
  return historyChart(
    {
      steps: known.map(({ playedOn, specs, tag, frameId }) => ({
        at: `${playedOn}T12:00:00Z`,
        value: specs[spec.value] ?? 0,
        text: `${dayWords(playedOn)}: ${tag}, ${show(spec.value, specs[spec.value], frameId)}`,
      })),
      felt: known.map(({ playedOn, energyLeft, arm }) => ({
        on: playedOn,
        energyLeft,
        sore: withArm.value && arm === 'sore',
        text: `${dayWords(playedOn)}: ${ENERGY_WORDS[energyLeft]} energy left`,
      })),
      level: ceiling ? { value: ceiling.swingWeight, name: `ceiling ${ceiling.swingWeight}` } : undefined,
      unit: specAxis(spec.value),
    },
    theme.current.value.colors as Record<string, string>,
    new Date().toISOString(),
  );
});
/** A rating is offered where it is known. */
const choices = computed(() => specsToShow(played.value.map(({ specs }) => specs)));
const rows = computed(() =>
  played.value.map(({ playedOn, tag, specs, energyLeft, late, twists }) => ({
    playedOn,
    tag,
    energyLeft,
    late: late ?? null,
    twists: twists ?? null,
    ...Object.fromEntries(ALL_SPEC_KEYS.map((key) => [key, specs[key] ?? null])),
  })),
);
</script>

<template>
  <section aria-label="Sessions" class="mt-4">
    <div class="chart-head">
      <h2 class="heading">Sessions</h2>
      <span class="spring" />
      <v-select
        v-if="sports.length > 1"
        v-model="sport"
        :items="sports.map((value) => ({ value, title: SPORT_NAMES[value] }))"
        label="Sport"
      />
      <v-select
        v-if="chart"
        v-model="spec"
        :items="choices.map((value) => ({ value, title: SPEC_NAMES[value] }))"
        label="Over time"
      />
    </div>
    <p v-if="played.length === 0" class="soft">No sessions yet. Add them at Play.</p>
    <template v-else>
      <PlainChart
        v-if="chart"
        :label="`${SPEC_NAMES[spec]} over time, with the energy that each session left; the table below says the same in words`"
        :file="`${page.player.name} played`"
        :data="chart.data"
        :layout="chart.layout"
        :rows="rows"
        :height="250"
      />
      <p v-if="page.sessionCount > page.sessions.length" class="soft small">
        The newest {{ page.sessions.length }} of {{ page.sessionCount }} sessions.
      </p>
      <table v-wide class="plain wide">
        <thead>
          <tr>
            <th>Session</th>
            <th>Frame</th>
            <th class="num">Swing, kg·cm²</th>
            <th>Energy left</th>
            <th>Late</th>
            <th>Twists</th>
            <th v-if="withArm" class="no-print">Arm</th>
            <th>{{ withArm ? 'Words' : 'The ball' }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="s in played.toReversed()" :key="s.id">
            <td class="nowrap">
              {{ dayWords(s.playedOn) }}
              <div v-if="aroundWords(s)" class="soft small">{{ aroundWords(s) }}</div>
            </td>
            <td class="nowrap">
              <RouterLink :to="`/fittings/${s.fittingId}/play?frame=${s.frameId}`" class="link">{{
                s.tag
              }}</RouterLink>, round {{ s.round }}
            </td>
            <td class="num">{{ show('swingWeight', s.specs.swingWeight, s.frameId) }}</td>
            <td>{{ ENERGY_WORDS[s.energyLeft] }}</td>
            <td>{{ s.late ? OFTEN_WORDS[s.late] : '' }}</td>
            <td>{{ s.twists ? OFTEN_WORDS[s.twists] : '' }}</td>
            <td v-if="withArm" class="no-print">{{ ARM_WORDS[s.arm] }}</td>
            <td class="soft">
              <template v-if="withArm && s.note">“{{ s.note }}”</template>
              <div v-if="ballWords(s)" class="small">{{ ballWords(s) }}</div>
            </td>
          </tr>
        </tbody>
      </table>
      <v-switch v-model="withArm" label="Show the arm and the words" class="no-print" />
      <h2 class="heading works">What works for this player</h2>
      <WhatWorks v-if="sport" :sport="sport" :sessions="page.sessions" />
    </template>
  </section>
</template>

<style scoped>
.works {
  margin-top: 18px;
}
</style>
