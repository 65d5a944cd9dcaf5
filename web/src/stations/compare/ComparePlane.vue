<script setup lang="ts">
import { useElementSize } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useTheme } from 'vuetify';
import type { Data, Layout } from 'plotly.js-cartesian-dist-min';
import { SPECS, becomes, type AxisSpecs, type Frame } from '@kevro/core';
import NumberField from '../../forms/NumberField.vue';
import PlainChart from '../../ui/PlainChart.vue';
import type { Compared } from '../../stores/beside';
import { useUnits } from '../../stores/units';
import type { LibraryPart } from '../../workers/library.worker';
import { axes, extent, inBrush, placesOf, rangeOf, swingLines, type Brush } from './plane';

/** Weight across, balance up: where the frame lies, what it can become, and the setups at hand around it. */
const props = defineProps<{
  frame: Frame;
  own: AxisSpecs;
  setups: readonly Compared[];
  /** The ids of those set beside the frame. */
  beside: readonly string[];
  /** Every setup of the sport, where the whole library was read. */
  library: readonly LibraryPart[];
}>();
const brush = defineModel<Brush | undefined>('brush');
const units = useUnits();
const theme = useTheme();

interface Dot {
  id: string;
  name: string;
  massG: number;
  balanceCm: number;
  swingWeight?: number | undefined;
}
const dots = computed(() =>
  props.setups.flatMap(({ id, name, specs: { massG, balanceCm, swingWeight } }): Dot[] =>
    massG === undefined || balanceCm === undefined ? [] : [{ id, name, massG, balanceCm, swingWeight }],
  ),
);
const shape = computed(() => ({ sport: props.frame.sport.sport, lengthCm: props.frame.lengthCm }));
const on = computed(() => axes(units.way, props.frame.lengthCm));
const shown = computed(() => extent(props.frame.sport, props.own, dots.value));

const xy = (points: readonly { massG: number; balanceCm: number }[]) => ({
  x: points.map((p) => on.value.mass.write(p.massG)),
  y: points.map((p) => on.value.balance.write(p.balanceCm)),
});
const swing = (value: number): string => units.show('swingWeight', value, shape.value);
const titled = (dot: Dot): string =>
  dot.swingWeight === undefined ? dot.name : `${dot.name} ${swing(dot.swingWeight)}`;

/** The height of the chart, and what of it the axes take, px. */
const HEIGHT_PX = 440;
const AROUND_PX = { wide: 76, high: 50 };
const chart = ref<HTMLElement>();
const { width } = useElementSize(chart);
const ownName = computed(() => `this frame ${swing(props.own.swingWeight)}`);
/** Where the names stand: that of the frame in hand first, then those beside it. */
const places = computed(() => {
  const { massG, balanceCm } = ranges.value;
  const size = { width: width.value - AROUND_PX.wide, height: HEIGHT_PX - AROUND_PX.high };
  const share = (value: number, [from, to]: readonly number[]): number =>
    (value - (from ?? 0)) / ((to ?? 1) - (from ?? 0));
  const at = (one: { massG: number; balanceCm: number }) => ({
    x: share(on.value.mass.write(one.massG), massG) * size.width,
    y: (1 - share(on.value.balance.write(one.balanceCm), balanceCm)) * size.height,
  });
  const named = besideDots.value.map((dot) => ({ ...at(dot), name: titled(dot) }));
  return placesOf([{ ...at(props.own), name: ownName.value }, ...named], aroundDots.value.map(at), size);
});
const aroundDots = computed(() => dots.value.filter(({ id }) => !props.beside.includes(id)));
const besideDots = computed(() => dots.value.filter(({ id }) => props.beside.includes(id)));
/** The ends of the two axes as they are written. The tip is up, whichever way the balance is counted. */
const ranges = computed(() => {
  const { massG, balanceCm } = shown.value;
  const balance = rangeOf(balanceCm, on.value.balance.write);
  return {
    massG: massG.map(on.value.mass.write),
    balanceCm: on.value.points ? balance.toReversed() : balance,
  };
});

const data = computed((): Data[] => {
  const { ink, reference, soft } = theme.current.value.colors as Record<string, string>;
  const { value: beside } = besideDots;
  const [ownPlace, ...besidePlaces] = places.value;
  const { value: around } = aroundDots;
  const within = (dot: Dot): number => (!brush.value || inBrush(brush.value, dot) ? 0.75 : 0.25);
  return [
    {
      ...xy([...becomes(props.frame, props.own), props.own]),
      mode: 'lines',
      fill: 'toself',
      fillcolor: `${ink}14`,
      line: { color: soft ?? '', width: 1 },
      hoverinfo: 'skip',
    },
    ...swingLines(props.own, shown.value).map(({ swingWeight, points }): Data => ({
      ...xy(points),
      mode: 'text+lines',
      text: points.map((_, i) => (i === Math.floor(points.length / 6) ? String(swingWeight) : '')),
      textposition: 'top center',
      textfont: { color: reference ?? '', size: 12 },
      line: { color: reference ?? '', width: 1, dash: 'dot' },
      hoverinfo: 'skip',
    })),
    {
      ...xy(around),
      mode: 'markers',
      text: around.map(titled),
      marker: { color: reference ?? '', size: 7, opacity: around.map(within) },
      hoverinfo: 'text',
    },
    {
      ...xy(beside),
      mode: 'text+markers',
      text: beside.map(titled),
      textposition: besidePlaces,
      textfont: { color: reference ?? '', size: 13 },
      marker: { color: reference ?? '', size: 13, symbol: 'circle-open', line: { width: 3 } },
      hoverinfo: 'text',
    },
    {
      ...xy([props.own]),
      mode: 'text+markers',
      text: [`<b>${ownName.value}</b>`],
      textposition: ownPlace,
      textfont: { color: ink ?? '', size: 13 },
      marker: { color: ink ?? '', size: 13, symbol: 'square' },
      hoverinfo: 'skip',
    },
  ] as Data[];
});
const layout = computed((): Partial<Layout> => {
  const { massG, balanceCm } = ranges.value;
  return {
    dragmode: 'select',
    xaxis: { title: { text: `weight, ${units.unit('massG')}` }, range: massG },
    yaxis: {
      title: { text: on.value.points ? 'balance, points head-light' : `balance, ${units.unit('balanceCm')}` },
      range: balanceCm,
    },
  };
});
/** All points of the library in the units of the axes. */
const cloud = computed(() => {
  const count = props.library.reduce((sum, { ids }) => sum + ids.length, 0);
  if (count === 0) return undefined;
  const x = new Float64Array(count);
  const y = new Float64Array(count);
  let at = 0;
  for (const { massG, balanceCm } of props.library)
    for (let i = 0; i < massG.length; i++, at++) {
      x[at] = on.value.mass.write(massG[i] as number);
      y[at] = on.value.balance.write(balanceCm[i] as number);
    }
  const { reference } = theme.current.value.colors as Record<string, string>;
  return { x, y, color: reference ?? '' };
});
/** How many of the whole library are brushed. */
const brushedOf = computed(() => {
  const within = brush.value;
  if (!within || props.library.length === 0) return undefined;
  let count = 0;
  for (const { massG, balanceCm } of props.library)
    for (let i = 0; i < massG.length; i++)
      if (inBrush(within, { massG: massG[i] as number, balanceCm: balanceCm[i] as number })) count++;
  return count;
});
/** What of the library is drawn, and how much of it is brushed, in whole sentences. */
const libraryWords = computed(() => {
  const all = `The faint points are the ${cloud.value?.x.length ?? 0} of the whole library.`;
  const within = brushedOf.value;
  return within === undefined ? `${all} ` : `${all} ${within} of them are selected. `;
});
const rows = computed(() =>
  dots.value.map(({ name, massG, balanceCm, swingWeight }) => ({
    name,
    'weight, g': Number(massG.toFixed(1)),
    'balance, cm': Number(balanceCm.toFixed(2)),
    [`${SPECS.swingWeight.name}, kg·cm²`]: swingWeight === undefined ? null : Number(swingWeight.toFixed(1)),
  })),
);

function brushed(range: { x: [number, number]; y: [number, number] } | undefined): void {
  brush.value = range && {
    massG: rangeOf(range.x, on.value.mass.read),
    balanceCm: rangeOf(range.y, on.value.balance.read),
  };
}
/** The brush by keys: its four ends as fields. */
const ENDS = [
  { key: 'massG', end: 0, label: 'Weight from' },
  { key: 'massG', end: 1, label: 'Weight to' },
  { key: 'balanceCm', end: 0, label: 'Balance from' },
  { key: 'balanceCm', end: 1, label: 'Balance to' },
] as const;
function setEnd(key: keyof Brush, end: 0 | 1, value: unknown): void {
  if (typeof value !== 'number') return;
  const { massG, balanceCm } = brush.value ?? shown.value;
  const next: Brush = { massG: [...massG], balanceCm: [...balanceCm] };
  next[key][end] = value;
  brush.value = next;
}
const missing = computed(() => props.setups.length - dots.value.length);
</script>

<template>
  <div ref="chart">
    <PlainChart
      label="Weight across, balance up: this frame, what it can become, and the setups around it"
      file="compare"
      :data="data"
      :layout="layout"
      :rows="rows"
      :height="HEIGHT_PX"
      brushing
      v-bind="cloud ? { cloud } : {}"
      @brush="brushed"
    />
  </div>
  <p class="soft small mb-2">
    Shaded: reachable with added weight. Dotted: equal {{ SPECS.swingWeight.name }}.
    <template v-if="cloud">{{ libraryWords }}</template>
    <template v-if="missing > 0">{{ missing }} loaded setups have no weight or no balance.</template>
  </p>
  <div class="ends" role="group" aria-label="Only setups between">
    <NumberField
      v-for="{ key, end, label } in ENDS"
      :key="label"
      :model-value="brush ? brush[key][end] : null"
      :label="label"
      :spec="key"
      :shape="shape"
      @update:model-value="setEnd(key, end, $event)"
    />
    <v-btn variant="outlined" :disabled="!brush" @click="brush = undefined">all</v-btn>
  </div>
</template>

<style scoped>
.ends {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: start;
}
.ends > :deep(.v-input) {
  flex: 1 1 158px;
}
</style>
