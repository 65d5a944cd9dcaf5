<script setup lang="ts">
import { computed, ref } from 'vue';
import {
  benchSteps,
  cutList,
  explainPlan,
  explainRecoil,
  type BenchStep,
  type Placement,
  type SpecKey,
} from '@kevro/core';
import { api } from '../../api/client';
import Lanes from '../../lanes/Lanes.vue';
import Rail from '../../rail/Rail.vue';
import { useFitting } from '../../stores/fitting';
import { useSaved } from '../../stores/saved';
import WorkingSheet from '../../working/WorkingSheet.vue';
import { CAUTIONS, STEP_HINTS, STEP_TITLES, ZONE_NAMES } from '../../words';
import Bench from '../Bench.vue';
import NotYet from '../NotYet.vue';
import { sweetOf, useBenchMarks } from '../bench-marks';
import { useWorking } from '../working';
import CutTable from './CutTable.vue';
import PrintedSheet from './PrintedSheet.vue';
import { cutWords } from './cut-words';

// What a fitter comes here to do: see the next step; read what to cut and where it goes; print the sheet for the bench.
const fitting = useFitting();
const saved = useSaved();
const marks = useBenchMarks();
const { sheet, show } = useWorking();

const plan = computed(() => fitting.view?.plan ?? undefined);
const steps = computed<BenchStep[]>(() => {
  const { frame, dress } = fitting;
  return frame && plan.value
    ? benchSteps(frame, plan.value.placements, plan.value.materials, dress ?? {})
    : [];
});
const cuts = computed(() =>
  fitting.frame && plan.value ? cutList(fitting.frame, plan.value.placements, plan.value.materials) : [],
);
const isDone = (step: BenchStep): boolean => fitting.view?.stepsDone.includes(step.key) ?? false;
const next = computed(() => steps.value.find((step) => !isDone(step)));
const titleOf = (step: BenchStep): string => {
  const [cut] = step.cuts;
  return step.kind === 'fix-head' || step.kind === 'fill-handle'
    ? `${STEP_TITLES[step.kind]}: ${cut ? ZONE_NAMES[cut.zone].toLowerCase() : ''}`
    : STEP_TITLES[step.kind];
};
const waitWords = (minutes: number): string =>
  minutes >= 60 ? `${Math.round(minutes / 60)} h` : `${minutes} min`;

const labels = computed(() =>
  cuts.value.map((cut) =>
    cut.startCm < 0 ? `±${cut.endCm.toFixed(1)} cm` : `${cut.startCm.toFixed(1)}–${cut.endCm.toFixed(1)} cm`,
  ),
);
const shownMarks = computed(() => ({
  ...marks.value,
  predicted: plan.value?.specs,
  predictedUncertainty: plan.value?.uncertainty,
}));

const busy = ref(false);
async function mark(step: BenchStep, done: boolean): Promise<void> {
  if (!fitting.view || !plan.value || busy.value) return;
  busy.value = true;
  try {
    fitting.view = await api('markStep', {
      id: fitting.view.id,
      body: { planId: plan.value.id, step: step.key, done },
    });
    saved.stored();
  } catch (error) {
    saved.failed(error);
  } finally {
    busy.value = false;
  }
}

function explain(what: SpecKey | 'recoil'): void {
  const { frame, before } = fitting;
  if (!frame || !before || !plan.value) return;
  const nameOf = (p: Placement): string => `${ZONE_NAMES[p.zone].toLowerCase()}, ${p.massG.toFixed(2)} g`;
  if (what === 'recoil') show(what, explainRecoil(plan.value.specs), 'planned');
  else show(what, explainPlan(what, frame, before, plan.value.placements, nameOf), 'planned');
}
const print = (): void => window.print();
</script>

<template>
  <NotYet v-if="!fitting.before || !fitting.frame" missing="Nothing is measured yet" station="measure" />
  <NotYet v-else-if="!plan" missing="No plan is chosen yet" station="plan" />
  <Bench v-else aside-label="Steps at the bench">
    <div class="no-print">
      <Rail
        :frame="fitting.frame"
        :dress="fitting.dress"
        :measured-balance-cm="fitting.before.balanceCm"
        :planned-balance-cm="plan.specs.balanceCm"
        :sweet-after="sweetOf(fitting.frame, plan.specs)"
        :weights="plan.placements"
        :weight-labels="labels"
        label-once
      />
      <CutTable :cuts="cuts" class="mb-2" />
      <Lanes
        :marks="shownMarks"
        :length-cm="fitting.frame.lengthCm"
        :axis-cm="fitting.before.axisCm"
        compact
        @open="explain"
      />
    </div>
    <PrintedSheet v-if="fitting.view" :view="fitting.view" :steps="steps" :cuts="cuts" :title-of="titleOf" />

    <template #aside>
      <h2 class="heading">At the bench, in this order</h2>
      <ol class="steps">
        <li v-for="step in steps" :key="step.key" :class="{ done: isDone(step), next: step === next }">
          <v-checkbox
            :model-value="isDone(step)"
            :label="titleOf(step)"
            @update:model-value="mark(step, Boolean($event))"
          />
          <div v-if="step === next || step.cuts.length > 0" class="more">
            <ul v-if="step.kind === 'fix-head' || step.kind === 'fill-handle'" class="cuts">
              <li v-for="cut in step.cuts" :key="cut.zone">{{ cutWords(cut) }}</li>
            </ul>
            <template v-if="step === next">
              <p class="small soft">{{ STEP_HINTS[step.kind] }}</p>
              <p v-for="caution in step.cautions" :key="caution" class="small warn">
                ⚠ {{ CAUTIONS[caution] }}
              </p>
            </template>
            <p v-if="step.waitMinutes" class="small">
              Then wait {{ waitWords(step.waitMinutes) }}, or as the label says, before the grip goes on.
            </p>
          </div>
        </li>
      </ol>
      <p v-if="!next" class="good"><b>All steps are done.</b></p>
    </template>
    <template #action>
      <v-btn color="primary" size="large" block @click="print">Print the build sheet</v-btn>
    </template>
    <template #keys>
      <span><kbd>Tab</kbd> next step</span><span><kbd>Space</kbd> done</span>
    </template>
  </Bench>
  <WorkingSheet v-model="sheet.open" :title="sheet.title" :parts="sheet.parts" />
</template>

<style scoped>
.steps {
  list-style: none;
  padding: 0;
  margin: 0;
}
.steps > li {
  border-top: 1px solid rgb(var(--v-theme-line));
  padding: 4px 0;
}
.steps :deep(.v-label) {
  opacity: 1;
  white-space: normal;
}
.next :deep(.v-label) {
  font-weight: 700;
}
.done :deep(.v-label) {
  color: rgb(var(--v-theme-soft));
}
.more {
  padding-left: 40px;
}
.more p {
  margin: 0 0 6px;
}
.cuts {
  padding: 0;
  list-style: none;
  font-size: 13.5px;
  margin-bottom: 4px;
}
</style>
