<script setup lang="ts">
import { computedAsync } from '@vueuse/core';
import { computed } from 'vue';
import { SPEC_KEYS, settleFrame, targetOf, type BenchStep, type Cut } from '@kevro/core';
import type { AimRecord, FrameRecord, Measurement, PlanRecord } from '@kevro/contract';
import { api } from '../../api/client';
import { wholeDayWords } from '../../words/days';
import { dressWords } from '../../words/dress';
import Rail from '../../rail/Rail.vue';
import { useUnits } from '../../stores/units';
import { CAUTIONS, SPEC_NAMES, STEP_HINTS } from '../../words';
import CutTable from './CutTable.vue';
import { cutWords, waitWords } from '../../words/cuts';
import { isOnePlace } from './words';

/** The build sheet on paper: what the screen shows, in one column. Player notes are left out. */
const props = defineProps<{
  frame: FrameRecord;
  measurement: Measurement | undefined;
  aimed: AimRecord | undefined;
  plan: PlanRecord;
  cuts: readonly Cut[];
  labels: readonly string[];
  titleOf: (step: BenchStep) => string;
  doingOf: (step: BenchStep) => string[];
  whenOf: (step: BenchStep) => string;
}>();
const units = useUnits();
const shape = computed(() => props.frame.shape);
const aims = computed(() =>
  SPEC_KEYS.map((key) => ({ key, target: targetOf(props.aimed?.target ?? {}, key) })),
);
const cutsOf = (step: BenchStep) => props.cuts.filter((cut) => step.placementIds.includes(cut.placementId));

/** The setup that the aim was taken from. */
const setupName = computedAsync(async () => {
  const id = props.aimed?.setupId;
  const found = id ? await api('setups', { query: { ids: id } }).catch(() => undefined) : undefined;
  return found?.rows[0]?.name ?? '';
}, '');
</script>

<template>
  <article class="print-only sheet">
    <h2>Build sheet</h2>
    <p>
      <template v-if="measurement">
        Measured {{ wholeDayWords(measurement.takenAt) }}: {{ dressWords(measurement.dress, shape.sport)
        }}<br />
      </template>
      <template v-if="aimed">
        Aim of {{ wholeDayWords(aimed.createdAt)
        }}<template v-if="setupName">, from the setup of {{ setupName }}</template
        ><br />
      </template>
      Planned {{ wholeDayWords(plan.createdAt) }}
    </p>
    <Rail
      :frame="settleFrame(shape)"
      :dress="measurement?.dress"
      :planned-balance-cm="plan.specs.balanceCm"
      :measured-balance-cm="measurement?.specs.balanceCm"
      :weights="plan.placements"
      :weight-labels="labels"
      :fixed-width="660"
      label-once
    />
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
        <tr v-for="{ key, target } in aims" :key="key">
          <td>{{ SPEC_NAMES[key] }}, {{ units.unit(key) }}</td>
          <td class="num">
            {{ measurement?.specs[key] === undefined ? '—' : units.show(key, measurement.specs[key], shape)
            }}<template v-if="measurement?.estimated.includes(key)"> est.</template>
          </td>
          <td class="num">
            <template v-if="plan.specs[key] !== undefined">
              {{ units.show(key, plan.specs[key], shape) }} ±{{
                units.showWidth(key, 2 * plan.uncertainty[key], shape.sport)
              }}
            </template>
            <template v-else>—</template>
          </td>
          <td class="num">
            <template v-if="target">
              {{ units.show(key, target.value, shape) }} ±{{
                units.showWidth(key, target.tolerance, shape.sport)
              }}
            </template>
            <template v-else>free</template>
          </td>
          <td class="blank" />
        </tr>
      </tbody>
    </table>
    <CutTable :cuts="cuts" />
    <h2>Steps</h2>
    <ol>
      <li v-for="step in plan.steps" :key="step.key">
        <span class="box" aria-hidden="true">{{ whenOf(step) ? '✓' : '' }}</span><b>{{ titleOf(step) }}</b>
        <template v-if="whenOf(step)"> ({{ whenOf(step) }})</template>
        <template v-if="isOnePlace(step)">
          <div v-for="cut in cutsOf(step)" :key="cut.placementId">{{ cutWords(cut, units.bench) }}</div>
        </template>
        <div v-for="doing in doingOf(step)" :key="doing">{{ doing }}</div>
        <div>{{ STEP_HINTS[step.kind] }}</div>
        <div v-for="caution in step.cautions" :key="caution">Caution. {{ CAUTIONS[caution] }}</div>
        <div v-if="step.waitMinutes">Wait {{ waitWords(step.waitMinutes) }} (or per the label).</div>
      </li>
    </ol>
  </article>
</template>

<style scoped>
.sheet {
  font-size: 12pt;
  line-height: 1.35;
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
  line-height: 11pt;
  text-align: center;
}
.blank {
  border-bottom: 1pt solid #000;
  width: 25mm;
}
</style>
