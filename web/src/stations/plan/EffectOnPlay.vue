<script setup lang="ts">
import { refDebounced } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useTheme } from 'vuetify';
import type { Data, Layout } from 'plotly.js-cartesian-dist-min';
import {
  SPECS,
  SPEC_KEYS,
  compareBuilds,
  faceMap,
  sensitivity,
  strokeWith,
  type AxisSpecs,
  type FaceMap,
  type Frame,
  type FrameShape,
} from '@kevro/core';
import ChoiceRow from '../../ui/ChoiceRow.vue';
import PlainChart from '../../ui/PlainChart.vue';
import { useStroke } from '../../stores/stroke';
import { DERIVED_NAMES, SPEC_NAMES, STROKE_NAMES } from '../../words';

/** What a plan changes for the ball: maps of the face before, after, and their difference; and what a gram does along the frame. */
const props = defineProps<{
  frame: Frame;
  shape: FrameShape;
  before: AxisSpecs;
  after: AxisSpecs;
}>();
const theme = useTheme();
const strokes = useStroke();
const stroke = computed(() => strokes.of(props.frame.sport));

// While a weight is dragged the maps wait.
const after = refDebounced(
  computed(() => props.after),
  250,
);

const VIEWS = [
  { value: 'difference', title: 'Difference' },
  { value: 'before', title: 'Before' },
  { value: 'after', title: 'After' },
] as const;
const view = ref<(typeof VIEWS)[number]['value']>('difference');
const OF = [
  { value: 'ball-speed', title: 'Speed of the ball' },
  { value: 'effective-mass', title: 'Weight behind it' },
] as const;
const of = ref<(typeof OF)[number]['value']>('ball-speed');

const [COLUMNS, ROWS] = [72, 56];
type Whole = AxisSpecs & { twistWeight: number };
const whole = (specs: AxisSpecs): Whole | undefined =>
  specs.twistWeight === undefined ? undefined : { ...specs, twistWeight: specs.twistWeight };
/** Why there is no map. */
const none = computed(() => {
  if (props.frame.sport.shaft === 'bends')
    return 'No map is drawn: the shaft bends while it meets the shuttle, and a rigid frame’s map would be untrue.';
  return whole(props.before) && whole(after.value)
    ? ''
    : `No map is drawn: the ${SPECS.twistWeight.name} is not known. Measure it, or estimate it.`;
});
const map = computed((): FaceMap | undefined => {
  const [from, to] = [whole(props.before), whole(after.value)];
  if (!from || !to || none.value) return undefined;
  const { frame } = props;
  if (view.value === 'before') return faceMap(frame, from, of.value, COLUMNS, ROWS, stroke.value);
  if (view.value === 'difference')
    return compareBuilds(frame, from, to, of.value, COLUMNS, ROWS, stroke.value);
  const slower = strokeWith(stroke.value, from.swingWeight, to.swingWeight);
  return faceMap(frame, to, of.value, COLUMNS, ROWS, slower);
});
const unit = computed(() => (of.value === 'ball-speed' ? 'm/s' : 'g'));
const at = (first: number, step: number, count: number): number[] =>
  Array.from({ length: count }, (_, i) => Number((first + i * step).toFixed(2)));
const mapData = computed((): Data[] => {
  const { value: m } = map;
  if (!m) return [];
  const { ink, reference, sheet, aim } = theme.current.value.colors as Record<string, string>;
  const z = Array.from({ length: m.rows }, (_, r) =>
    Array.from(m.values.subarray(r * m.columns, (r + 1) * m.columns), (v) => (Number.isNaN(v) ? null : v)),
  );
  return [
    {
      type: 'contour',
      x: at(m.origin.xCm, m.stepXCm, m.columns),
      y: at(m.origin.yCm, m.stepYCm, m.rows),
      z,
      colorscale:
        view.value === 'difference'
          ? [
              [0, reference],
              [0.5, sheet],
              [1, aim],
            ]
          : [
              [0, sheet],
              [1, aim],
            ],
      ...(view.value === 'difference' ? { zmid: 0 } : {}),
      connectgaps: false,
      contours: { showlabels: true, labelfont: { color: ink, size: 11 } },
      colorbar: { title: { text: unit.value }, thickness: 12 },
      hovertemplate: `%{z:.2f} ${unit.value}<extra></extra>`,
    },
  ] as unknown as Data[];
});
const mapLayout: Partial<Layout> = {
  xaxis: { title: { text: 'cm from the butt' } },
  yaxis: { title: { text: 'cm off the axis' }, scaleanchor: 'x' },
};
const mapRows = computed(() => {
  const { value: m } = map;
  if (!m) return [];
  return Array.from(m.values, (v, i) => ({
    'along, cm': Number((m.origin.xCm + (i % m.columns) * m.stepXCm).toFixed(2)),
    'across, cm': Number((m.origin.yCm + Math.floor(i / m.columns) * m.stepYCm).toFixed(2)),
    [`${of.value}, ${unit.value}`]: Number.isNaN(v) ? null : Number(v.toFixed(3)),
  })).filter((row) => Object.values(row).every((v) => v !== null));
});

/** What a gram does along the frame: each curve as a share of its own largest, since the units differ. */
const points = computed(() => sensitivity(props.shape, props.before));
const CURVES = [...SPEC_KEYS.filter((key) => key !== 'massG'), 'recoilWeight'] as const;
const lineData = computed((): Data[] => {
  const { ink, reference, aim, good } = theme.current.value.colors as Record<string, string>;
  const colours = [reference, aim, good, ink];
  return CURVES.map((key, i): Data => {
    const name = key === 'recoilWeight' ? DERIVED_NAMES[key] : SPEC_NAMES[key];
    const most = Math.max(...points.value.map((p) => Math.abs(p[key]))) || 1;
    return {
      x: points.value.map((p) => p.xCm),
      y: points.value.map((p) => p[key] / most),
      customdata: points.value.map((p) => p[key]),
      mode: 'lines',
      name,
      line: {
        color: colours[i] ?? '',
        width: 2,
        dash: (['solid', 'dash', 'dot', 'dashdot'] as const)[i] ?? 'solid',
      },
      hovertemplate: `${name} %{customdata:.3f}<extra></extra>`,
    } as Data;
  });
});
const lineLayout: Partial<Layout> = {
  showlegend: true,
  legend: { orientation: 'h', y: 1.18 },
  xaxis: { title: { text: 'cm from the butt' } },
  yaxis: { title: { text: 'share of the most' } },
};
const lineRows = computed(() =>
  points.value.map((p) => ({
    'cm from the butt': Number(p.xCm.toFixed(2)),
    'balance, cm': Number(p.balanceCm.toFixed(4)),
    [`${SPECS.swingWeight.name}, kg·cm²`]: Number(p.swingWeight.toFixed(4)),
    [`${SPECS.twistWeight.name}, kg·cm²`]: Number(p.twistWeight.toFixed(4)),
    'recoil weight, kg·cm²': Number(p.recoilWeight.toFixed(4)),
  })),
);
</script>

<template>
  <section aria-label="Effect on play">
    <h2 class="heading">For a {{ STROKE_NAMES[stroke.name] }}</h2>
    <p v-if="none" class="soft small">{{ none }}</p>
    <template v-else>
      <div class="choices">
        <ChoiceRow v-model="view" label="Which map" :choices="VIEWS" />
        <ChoiceRow v-model="of" label="Of what" :choices="OF" />
      </div>
      <PlainChart
        :label="`Map of the face: ${view}`"
        file="face-map"
        :data="mapData"
        :layout="mapLayout"
        :rows="mapRows"
        :height="330"
      />
      <p class="soft small">
        Model: rigid frame held freely, ball {{ frame.sport.ballG.toFixed(1) }} g at
        {{ stroke.ballSpeed }} m/s, face at {{ stroke.faceSpeed }} m/s, slower with more
        {{ SPECS.swingWeight.name }}. Use it to compare, not to predict.
      </p>
    </template>
    <h2 class="heading">What a gram does along the racket</h2>
    <PlainChart
      label="What a gram does to each spec, from butt to tip"
      file="what-a-gram-does"
      :data="lineData"
      :layout="lineLayout"
      :rows="lineRows"
      :height="240"
    />
    <p class="soft small mb-0">
      Effect of 1 g along the frame (a pair of 0.5 g on the head). Each curve is scaled to its own maximum.
    </p>
  </section>
</template>

<style scoped>
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 6px 0;
}
</style>
