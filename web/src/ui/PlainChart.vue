<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { useTheme } from 'vuetify';
import Papa from 'papaparse';
import type { Data, Layout, PlotSelectionEvent, PlotlyHTMLElement } from 'plotly.js-cartesian-dist-min';
import { saveFile } from './save-file';

/** A chart with the look of the application; its picture and its data can be saved. Plotly is loaded only here. */
const props = withDefaults(
  defineProps<{
    label: string;
    file: string;
    data: Data[];
    layout: Partial<Layout>;
    rows: Record<string, string | number | null>[];
    height?: number;
    /** A rectangle can be drawn over it with the mouse: what lies in it is said as `brush`. */
    brushing?: boolean;
    /** Many points in the units of the axes: drawn on a canvas under the rest, since a drawing of each would take too long. */
    cloud?: { x: Float64Array; y: Float64Array; color: string };
  }>(),
  { height: 260 },
);
const plotly = async () => (await import('plotly.js-cartesian-dist-min')).default;
const emit = defineEmits<{ brush: [range: { x: [number, number]; y: [number, number] } | undefined] }>();
const box = ref<HTMLElement>();
const theme = useTheme();
const failure = ref('');
const canvas = ref<HTMLCanvasElement>();

/** Points a frame that are painted: more would hold the page up. */
const PAINTED = 20_000;
let painting = 0;
interface PlotAxis {
  range: [number, number];
}
/** Paints the cloud where the chart's axes are, a part a frame. */
function paint(): void {
  const own = ++painting;
  const chart = box.value as unknown as
    | {
        _fullLayout?: {
          _size: { l: number; t: number; w: number; h: number };
          xaxis: PlotAxis;
          yaxis: PlotAxis;
        };
      }
    | undefined;
  const on = canvas.value;
  const full = chart?._fullLayout;
  if (!on || !full) return;
  const { l, t, w, h } = full._size;
  const dense = window.devicePixelRatio || 1;
  Object.assign(on.style, { left: `${l}px`, top: `${t}px`, width: `${w}px`, height: `${h}px` });
  on.width = w * dense;
  on.height = h * dense;
  const pen = on.getContext('2d');
  const { cloud } = props;
  if (!pen || !cloud) return;
  pen.scale(dense, dense);
  pen.fillStyle = cloud.color;
  // The more there are the fainter each is, so that where they lie thick can still be told.
  pen.globalAlpha = Math.max(0.12, Math.min(0.6, 900 / cloud.x.length));
  const [x0, x1] = full.xaxis.range;
  const [y0, y1] = full.yaxis.range;
  const part = (from: number): void => {
    if (own !== painting) return;
    const to = Math.min(cloud.x.length, from + PAINTED);
    for (let i = from; i < to; i++) {
      const x = (((cloud.x[i] as number) - x0) / (x1 - x0)) * w;
      const y = h - (((cloud.y[i] as number) - y0) / (y1 - y0)) * h;
      if (x >= 0 && x <= w && y >= 0 && y <= h) pen.fillRect(x - 1.5, y - 1.5, 3, 3);
    }
    if (to < cloud.x.length) requestAnimationFrame(() => part(to));
  };
  part(0);
}
watch(() => props.cloud, paint, { flush: 'post' });

/** Hears of what is brushed: once, however often the chart is drawn. */
let heard: HTMLElement | undefined;
function hear(chart: PlotlyHTMLElement): void {
  if (heard === chart) return;
  heard = chart;
  chart.on('plotly_afterplot', paint);
  if (!props.brushing) return;
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
    const Plotly = await plotly();
    const { ink, line, soft } = theme.current.value.colors as Record<string, string>;
    const axis = { gridcolor: line, zerolinecolor: soft, linecolor: soft, tickcolor: soft };
    await Plotly.react(
      box.value,
      props.data,
      {
        height: props.height,
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
    hear(box.value as unknown as PlotlyHTMLElement);
    paint();
  } catch {
    failure.value = 'The chart could not be drawn. Its data can still be saved.';
  }
}
onMounted(draw);
watch(() => [props.data, props.layout, theme.name.value], draw);
onBeforeUnmount(async () => {
  const Plotly = await plotly();
  if (box.value) Plotly.purge(box.value);
});

/** The picture as it is seen: the cloud is laid under the chart as an image where the axes are. */
async function picture(format: 'svg' | 'png'): Promise<void> {
  const Plotly = await plotly();
  if (!box.value) return;
  const under = canvas.value && props.cloud ? canvas.value.toDataURL() : undefined;
  const whole = { x: 0, y: 1, sizex: 1, sizey: 1, sizing: 'stretch', layer: 'below' } as const;
  const figure = box.value as unknown as { data: Data[]; layout: Partial<Layout> };
  const layout = {
    ...figure.layout,
    ...(under ? { images: [{ ...whole, source: under, xref: 'paper', yref: 'paper' } as const] } : {}),
  };
  const { clientWidth: width, clientHeight: height } = box.value;
  await Plotly.downloadImage({ data: figure.data, layout }, { format, filename: props.file, width, height });
}
const csv = (): void => saveFile(`${props.file}.csv`, Papa.unparse(props.rows), 'text/csv');
</script>

<template>
  <figure class="chart">
    <!-- Its place is kept while it is loaded: what stands below does not move. -->
    <div class="plot" :style="{ minHeight: `${height}px` }">
      <canvas v-if="cloud" ref="canvas" aria-hidden="true" />
      <div ref="box" role="img" :aria-label="label" />
    </div>
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
/* The canvas lies under the chart, whose ground lets it through. */
.plot {
  position: relative;
}
canvas {
  position: absolute;
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
