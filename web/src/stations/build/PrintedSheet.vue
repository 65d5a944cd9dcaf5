<script setup lang="ts">
import { SPEC_KEYS, type BenchStep, type Cut } from '@kevro/core';
import type { FittingView } from '@kevro/contract';
import { dressWords, lengthWords } from '../../parts/dress-words';
import { useUnits } from '../../stores/units';
import { CAUTIONS, SPEC_NAMES, STEP_HINTS } from '../../words';
import CutTable from './CutTable.vue';
import { cutWords } from './cut-words';

/** The build sheet on paper: what the screen shows, in one column. Player notes are left out. */
const props = defineProps<{
  view: FittingView;
  steps: readonly BenchStep[];
  cuts: readonly Cut[];
  titleOf: (step: BenchStep) => string;
}>();
const units = useUnits();
const lengthCm = props.view.frame.shape.lengthCm;
const today = new Date().toLocaleDateString([], { day: 'numeric', month: 'long', year: 'numeric' });
</script>

<template>
  <article class="print-only sheet">
    <h1>Build sheet</h1>
    <p>
      <b>{{ view.player.name }}</b> · {{ view.frame.maker }} {{ view.frame.model }}, tag {{ view.frame.tag }},
      {{ lengthWords(lengthCm) }} · {{ today }}<br />
      Measured {{ view.measurement ? dressWords(view.measurement.dress) : '' }}
    </p>
    <table class="plain">
      <thead>
        <tr>
          <th>Spec</th>
          <th class="num">Measured</th>
          <th class="num">Planned</th>
          <th class="num">Aim</th>
          <th class="num">As built</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="key in SPEC_KEYS" :key="key">
          <td>{{ SPEC_NAMES[key] }}, {{ units.unit(key) }}</td>
          <td class="num">
            {{
              view.measurement?.specs[key] === undefined
                ? '—'
                : units.show(key, view.measurement.specs[key], lengthCm)
            }}<template v-if="view.measurement?.estimated.includes(key)"> est.</template>
          </td>
          <td class="num">
            <template v-if="view.plan?.specs[key] !== undefined">
              {{ units.show(key, view.plan.specs[key], lengthCm) }} ±{{
                units.showWidth(key, 2 * view.plan.uncertainty[key])
              }}
            </template>
            <template v-else>—</template>
          </td>
          <td class="num">
            <template v-if="view.aim?.target[key] && view.aim.target[key].priority !== 'free'">
              {{ units.show(key, view.aim.target[key].value, lengthCm) }} ±{{
                units.showWidth(key, view.aim.target[key].tolerance)
              }}
            </template>
            <template v-else>free</template>
          </td>
          <td class="blank" />
        </tr>
      </tbody>
    </table>
    <CutTable :cuts="cuts" />
    <h2>At the bench, in this order</h2>
    <ol>
      <li v-for="step in steps" :key="step.key">
        <span class="box" aria-hidden="true" /><b>{{ titleOf(step) }}</b>
        <template v-if="step.kind === 'fix-head' || step.kind === 'fill-handle'">
          <div v-for="cut in step.cuts" :key="cut.zone">{{ cutWords(cut) }}</div>
        </template>
        <div>{{ STEP_HINTS[step.kind] }}</div>
        <div v-for="caution in step.cautions" :key="caution">Caution. {{ CAUTIONS[caution] }}</div>
        <div v-if="step.waitMinutes">
          Wait {{ Math.round(step.waitMinutes / 60) }} h, or as the label says.
        </div>
      </li>
    </ol>
  </article>
</template>

<style scoped>
.sheet {
  font-size: 12pt;
  line-height: 1.35;
}
h1 {
  font-size: 20pt;
}
h2 {
  font-size: 14pt;
  margin: 10pt 0 4pt;
}
ol {
  list-style: none;
  padding: 0;
}
li {
  break-inside: avoid;
  padding: 4pt 0 4pt 22pt;
  position: relative;
}
.box {
  position: absolute;
  left: 0;
  top: 6pt;
  width: 12pt;
  height: 12pt;
  border: 1pt solid #000;
}
.blank {
  border-bottom: 1pt solid #000;
  width: 25mm;
}
</style>
