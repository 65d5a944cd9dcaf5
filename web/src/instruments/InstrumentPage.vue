<script setup lang="ts">
import { computed } from 'vue';
import { useTheme } from 'vuetify';
import { KINDS } from '@kevro/contract';
import { api } from '../api/client';
import { useAsked } from '../api/queries';
import PlainChart from '../ui/PlainChart.vue';
import { vWide } from '../ui/wide-table';
import NotOpened from '../ui/NotOpened.vue';
import { useInstruments } from '../stores/instruments';
import { useSaved } from '../stores/saved';
import { dayWords } from '../words/days';
import CalibrationGuide from './CalibrationGuide.vue';
import { CALIBRATION_WORDS, KIND_WORDS, REFUSAL_WORDS, ageWords } from '../words/instruments';

// What a fitter comes here to do: calibrate the machine with the rods; see whether it drifts; know how long that counts.
const props = defineProps<{ id: string }>();
const instruments = useInstruments();
instruments.listen();
const saved = useSaved();
const { record, failure, load } = useAsked(
  'instrument',
  () => props.id,
  async (id) => {
    const [all, history, shop] = await Promise.all([
      api('instruments'),
      api('calibrations', { id }),
      api('shop'),
    ]);
    instruments.all = all;
    return { history, shop };
  },
);
const history = computed(() => record.value?.history);
const shop = computed(() => record.value?.shop);
const instrument = computed(() => instruments.all?.find((i) => i.id === props.id));
async function stored(): Promise<void> {
  saved.stored();
  await load();
}

/** The value at which the machine's error is drawn: where most frames of the larger sports are. */
const DRAWN_AT = 300;
const rows = computed(() =>
  (history.value ?? []).toReversed().map((c) => ({
    taken: c.takenAt,
    'error at 300 before correction, kg cm2': Number((c.slope * DRAWN_AT + c.offset - DRAWN_AT).toFixed(3)),
    slope: Number(c.slope.toFixed(5)),
    'offset, kg cm2': Number(c.offset.toFixed(3)),
    'largest left at a rod, kg cm2': Number(Math.max(...c.residuals.map(Math.abs)).toFixed(3)),
    refused: c.refused ?? '',
  })),
);
const theme = useTheme();
const chart = computed(() => {
  const { reference, brick } = theme.current.value.colors as Record<string, string>;
  const good = rows.value.filter((r) => r.refused === '');
  const bad = rows.value.filter((r) => r.refused !== '');
  const points = (of: typeof rows.value) => ({
    x: of.map((r) => r.taken),
    y: of.map((r) => r['error at 300 before correction, kg cm2']),
  });
  return [
    {
      ...points(good),
      type: 'scatter' as const,
      mode: 'lines+markers' as const,
      line: { width: 1.5, color: reference },
      marker: { size: 9, color: reference },
      name: 'used',
    },
    {
      ...points(bad),
      type: 'scatter' as const,
      mode: 'markers' as const,
      marker: { size: 13, symbol: 'x', color: brick },
      name: 'refused',
    },
  ];
});
const layout = {
  yaxis: { title: { text: `error at ${DRAWN_AT}, kg·cm²` }, rangemode: 'tozero' as const },
  xaxis: { type: 'date' as const, tickformat: '%-d %b\n%Y' },
};
</script>

<template>
  <NotOpened v-if="failure" what="instrument" :why="failure" @again="load" />
  <div v-else-if="!instrument || !history" class="page" role="status"><p class="soft">Loading…</p></div>
  <div v-else class="page">
    <div class="page-top">
      <h1>
        {{ instrument.name }} <span class="soft">{{ KIND_WORDS[instrument.kind] }}</span>
      </h1>
      <span class="spring" />
      <v-btn variant="text" to="/settings/instruments">All instruments</v-btn>
    </div>
    <p :class="instrument.calibrationState === 'fresh' ? 'soft' : 'warn'">
      {{
        CALIBRATION_WORDS[instrument.calibrationState](
          instrument.calibration ? ageWords(instrument.calibration.takenAt) : '',
        )
      }}<span v-if="shop" class="soft"> · calibration valid for {{ shop.calibrationHours }} h</span>
    </p>
    <div class="columns">
      <CalibrationGuide v-if="KINDS[instrument.kind].calibrates" :instrument="instrument" @stored="stored" />
      <p v-else class="soft">A {{ KIND_WORDS[instrument.kind] }} is not calibrated with rods.</p>
      <section v-if="KINDS[instrument.kind].calibrates" aria-label="Calibrations so far">
        <h2 class="heading">How far off it was, before correction</h2>
        <p v-if="history.length === 0" class="soft">
          Never calibrated: readings use the data sheet’s accuracy.
        </p>
        <template v-else>
          <PlainChart
            :data="chart"
            :layout="layout"
            :rows="rows"
            :file="`calibration ${instrument.name}`"
            :label="`Error of ${instrument.name} at ${DRAWN_AT} kg·cm² at each of ${history.length} calibrations; the newest is ${rows.at(-1)?.['error at 300 before correction, kg cm2']}`"
          />
          <table v-wide class="plain wide">
            <thead>
              <tr>
                <th>Taken</th>
                <th class="num">Slope</th>
                <th class="num">Offset</th>
                <th class="num">Left at a rod</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="c in history.slice(0, 6)" :key="c.id">
                <td>
                  {{ dayWords(c.takenAt) }}
                  <div v-if="c.refused" class="miss small">refused: {{ REFUSAL_WORDS[c.refused] }}</div>
                </td>
                <td class="num">{{ c.slope.toFixed(4) }}</td>
                <td class="num">{{ c.offset.toFixed(2) }}</td>
                <td class="num">±{{ Math.max(...c.residuals.map(Math.abs)).toFixed(2) }}</td>
              </tr>
            </tbody>
          </table>
        </template>
      </section>
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 6fr) minmax(0, 5fr);
  gap: 32px;
  align-items: start;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
