<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { useTheme } from 'vuetify';
import type { Bar } from '@kevro/core';
import type { FilmFound } from '../workers/film.worker';
import PlainChart from '../ui/PlainChart.vue';

/** What was seen in a film: its first and last picture with the bar that was followed, and its angle over time. */
const props = defineProps<{ found: FilmFound }>();
const theme = useTheme();
const canvases = ref<HTMLCanvasElement[]>([]);
const read = computed(() => ('fit' in props.found.answer ? props.found.answer : undefined));
const DEG = 180 / Math.PI;

/** The axis of a bar, over twice its spread to either side of its middle. */
function drawBar(pen: CanvasRenderingContext2D, { x, y, angle, along }: Bar): void {
  const [dx, dy] = [2 * along * Math.cos(angle), 2 * along * Math.sin(angle)];
  for (const [colour, wide] of [
    ['#fff', 5],
    ['#b0210c', 2],
  ] as const) {
    pen.strokeStyle = colour;
    pen.lineWidth = wide;
    pen.beginPath();
    pen.moveTo(x - dx, y - dy);
    pen.lineTo(x + dx, y + dy);
    pen.stroke();
  }
}
onMounted(() => {
  props.found.pictures.forEach((picture, i) => {
    const pen = canvases.value[i]?.getContext('2d');
    if (!pen) return;
    pen.drawImage(picture, 0, 0);
    const bar = i === 0 ? read.value?.bars[0] : read.value?.bars.at(-1);
    if (bar) drawBar(pen, bar);
  });
});

/** Angle from where it hangs, and what is left of it beside the fit. */
const rows = computed(() => {
  const of = read.value;
  if (!of) return [];
  const { bars, fit } = of;
  const rest = fit.fitted.reduce((sum, a) => sum + a, 0) / Math.max(1, fit.fitted.length);
  const out = new Set(fit.outliers);
  return bars.map(({ at, angle }, i) => ({
    'time, s': at,
    'angle, degrees': (angle - rest) * DEG,
    'beside the fit, degrees': (angle - (fit.fitted[i] ?? angle)) * DEG,
    'left out': out.has(i) ? 'yes' : '',
  }));
});
const data = computed(() => {
  const { reference = '', brick = '', ink = '' } = theme.current.value.colors as Record<string, string>;
  const x = rows.value.map((r) => r['time, s']);
  return [
    {
      x,
      y: rows.value.map((r) => r['angle, degrees']),
      type: 'scatter' as const,
      mode: 'lines' as const,
      name: 'angle',
      line: { width: 1.2, color: reference },
    },
    {
      x,
      y: rows.value.map((r) => r['beside the fit, degrees']),
      type: 'scatter' as const,
      mode: 'markers' as const,
      name: 'beside the fit',
      yaxis: 'y2' as const,
      marker: {
        size: 4,
        color: rows.value.map((r) => (r['left out'] ? brick : ink)),
        symbol: rows.value.map((r) => (r['left out'] ? 'x' : 'circle')),
      },
    },
  ];
});
const layout = {
  xaxis: { title: { text: 'time, s' }, anchor: 'y2' as const },
  yaxis: { title: { text: 'angle, °' }, domain: [0.42, 1] as [number, number] },
  yaxis2: { title: { text: 'beside the fit, °' }, domain: [0, 0.3] as [number, number] },
  showlegend: false,
};
</script>

<template>
  <div>
    <div class="pictures">
      <figure v-for="(_, i) in found.pictures" :key="i">
        <canvas
          ref="canvases"
          :width="found.width"
          :height="found.height"
          role="img"
          :aria-label="i === 0 ? 'First picture' : 'Last picture'"
        />
        <figcaption class="soft small">{{ i === 0 ? 'First picture' : 'Last picture' }}</figcaption>
      </figure>
    </div>
    <PlainChart
      v-if="read"
      :data="data"
      :layout="layout"
      :rows="rows"
      :height="230"
      file="swing"
      :label="`Angle over ${read.fit.swings} swings, from ${read.startDeg.toFixed(1)} to ${read.endDeg.toFixed(1)} degrees`"
    />
  </div>
</template>

<style scoped>
.pictures {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
}
figure {
  flex: 1 1 220px;
  margin: 0;
}
canvas {
  width: 100%;
  max-height: 200px;
  object-fit: contain;
}
</style>
