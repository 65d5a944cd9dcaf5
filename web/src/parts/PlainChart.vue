<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { useTheme } from 'vuetify';
import Papa from 'papaparse';
import type { Data, Layout, PlotSelectionEvent, PlotlyHTMLElement } from 'plotly.js-basic-dist-min';
import { saveFile } from './save-file';

/** A chart with the look of the application; its picture and its data can be saved. Plotly is loaded only here. */
const props = defineProps<{
  label: string;
  file: string;
  data: Data[];
  layout: Partial<Layout>;
  rows: Record<string, string | number | null>[];
  height?: number;
  /** A rectangle can be drawn over it with the mouse: what lies in it is said as `brush`. */
  brushing?: boolean;
}>();
const emit = defineEmits<{ brush: [range: { x: [number, number]; y: [number, number] } | undefined] }>();
const box = ref<HTMLElement>();
const theme = useTheme();
const failure = ref('');

/** Hears of what is brushed: once, however often the chart is drawn. */
let heard: HTMLElement | undefined;
function hear(chart: PlotlyHTMLElement): void {
  if (heard === chart) return;
  heard = chart;
  chart.on('plotly_selected', (event?: PlotSelectionEvent) => {
    const range = event?.range;
    if (range)
      emit('brush', {
        x: [range.x[0], range.x[1]] as [number, number],
        y: [range.y[0], range.y[1]] as [number, number],
      });
  });
  chart.on('plotly_deselect', () => emit('brush', undefined));
}

async function draw(): Promise<void> {
  if (!box.value) return;
  try {
    const { default: Plotly } = await import('plotly.js-basic-dist-min');
    const { ink, line, soft } = theme.current.value.colors as Record<string, string>;
    const axis = { gridcolor: line, zerolinecolor: soft, linecolor: soft, tickcolor: soft };
    await Plotly.react(
      box.value,
      props.data,
      {
        height: props.height ?? 260,
        margin: { l: 62, r: 14, t: 8, b: 42 },
        paper_bgcolor: 'transparent',
        plot_bgcolor: 'transparent',
        font: { family: getComputedStyle(document.body).fontFamily, color: ink, size: 13 },
        showlegend: false,
        dragmode: false,
        ...props.layout,
        xaxis: { ...axis, ...props.layout.xaxis },
        yaxis: { ...axis, ...props.layout.yaxis },
      },
      { displayModeBar: false, responsive: true },
    );
    if (props.brushing) hear(box.value as unknown as PlotlyHTMLElement);
  } catch {
    failure.value = 'The chart could not be drawn. Its data can still be saved.';
  }
}
onMounted(draw);
watch(() => [props.data, props.layout, theme.name.value], draw);
onBeforeUnmount(async () => {
  const { default: Plotly } = await import('plotly.js-basic-dist-min');
  if (box.value) Plotly.purge(box.value);
});

async function picture(format: 'svg' | 'png'): Promise<void> {
  const { default: Plotly } = await import('plotly.js-basic-dist-min');
  if (box.value)
    await Plotly.downloadImage(box.value, { format, filename: props.file, width: 1000, height: 500 });
}
const csv = (): void => saveFile(`${props.file}.csv`, Papa.unparse(props.rows), 'text/csv');
</script>

<template>
  <figure class="chart">
    <div ref="box" role="img" :aria-label="label" />
    <p v-if="failure" class="miss mb-0" role="alert">{{ failure }}</p>
    <figcaption class="no-print">
      Save as
      <button type="button" @click="picture('svg')">SVG</button>
      <button type="button" @click="picture('png')">PNG</button>
      <button type="button" @click="csv">CSV</button>
    </figcaption>
  </figure>
</template>

<style scoped>
.chart {
  margin: 0;
}
figcaption {
  font-size: 13.5px;
  color: rgb(var(--v-theme-soft));
  text-align: right;
}
figcaption button {
  text-decoration: underline;
  text-underline-offset: 3px;
  margin-left: 8px;
}
/* The chart is drawn anew for paper, which may be later than the printer asks for it. */
@media print {
  .chart :deep(svg text) {
    fill: rgb(0 0 0) !important;
  }
}
</style>
