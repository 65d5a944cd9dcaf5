<script setup lang="ts">
import { computed, ref } from 'vue';
import {
  changeOutcome,
  cutList,
  type BenchStep,
  type ChangeOutcome,
  type Mark,
  type NumberKey,
} from '@kevro/core';
import { api } from '../../api/client';
import { useArrowsAlong } from '../../app/keys';
import Lanes from '../../lanes/Lanes.vue';
import { momentWords, wholeMomentWords } from '../../parts/day-words';
import Tick from '../../parts/Tick.vue';
import Rail from '../../rail/Rail.vue';
import { useFitting } from '../../stores/fitting';
import { useSaved } from '../../stores/saved';
import { useUnits } from '../../stores/units';
import WorkingSheet from '../../working/WorkingSheet.vue';
import { CAUTIONS, MARK_WORDS, STEP_HINTS } from '../../words';
import Bench from '../Bench.vue';
import NotYet from '../NotYet.vue';
import { planWorking, sweetOf, useBenchMarks } from '../bench-marks';
import { useWorking } from '../working';
import CutTable from './CutTable.vue';
import PrintedSheet from './PrintedSheet.vue';
import { cutWords, waitWords } from './cut-words';
import { isOnePlace, stepDoing, stepTitle } from './step-words';

// What a fitter comes here to do: see the next step; read what to cut and where it goes; print the sheet for the bench.
const fitting = useFitting();
const saved = useSaved();
const units = useUnits();
const marks = useBenchMarks();
const { sheet, show } = useWorking();

const plan = computed(() => fitting.plan);
const steps = computed<BenchStep[]>(() => plan.value?.steps ?? []);
/** The measurement that the plan starts from: of a trim a check, else where the round starts. */
const start = computed(() => fitting.round?.measurements.find(({ id }) => id === plan.value?.startId));
const outcome = computed<ChangeOutcome | undefined>(() =>
  fitting.frame && plan.value && start.value
    ? changeOutcome(fitting.frame, start.value.specs, start.value.dress, plan.value)
    : undefined,
);
const cuts = computed(() =>
  fitting.frame && plan.value ? cutList(fitting.frame, plan.value.placements, plan.value.parts) : [],
);
const cutsOf = (step: BenchStep) => cuts.value.filter((cut) => step.placementIds.includes(cut.placementId));

const stateOf = (step: BenchStep) => fitting.round?.state.steps[step.key];
const isOver = (step: BenchStep): boolean => (stateOf(step)?.mark ?? 'open') !== 'open';
const next = computed(() => steps.value.find((step) => !isOver(step)));
const closed = computed(() => fitting.view?.closed !== null);
const titleOf = (step: BenchStep): string =>
  plan.value && fitting.frame ? stepTitle(step, plan.value, fitting.frame) : '';
const doingOf = (step: BenchStep): string[] =>
  plan.value && fitting.frame ? stepDoing(step, plan.value, fitting.frame) : [];
const whenOf = (step: BenchStep, say: (iso: string) => string = momentWords): string => {
  const state = stateOf(step);
  return state && state.mark !== 'open' ? `${MARK_WORDS[state.mark]} ${say(state.at)}` : '';
};

const labels = computed(() =>
  cuts.value.map((cut) =>
    cut.startCm < 0
      ? `±${units.benchLength(cut.endCm)} ${units.way.length}`
      : `${units.benchLength(cut.startCm)}–${units.benchLength(cut.endCm)} ${units.way.length}`,
  ),
);
const shownMarks = computed(() => ({
  ...marks.value,
  predicted: plan.value?.specs,
  predictedUncertainty: plan.value?.uncertainty,
}));

/** Marks are stored one after the other: several steps ticked at once are all kept, in their order, and none is shown before it is stored. */
let marking = Promise.resolve();
const waiting = ref<readonly string[]>([]);
function mark(step: BenchStep): void {
  const { view } = fitting;
  const planId = plan.value?.id;
  if (!view || planId === undefined || waiting.value.includes(step.key)) return;
  waiting.value = [...waiting.value, step.key];
  const as: Mark = isOver(step) ? 'open' : 'done';
  marking = marking.then(async () => {
    try {
      await fitting.stored(
        await api('markStep', { id: view.id, body: { planId, step: step.key, mark: as } }),
      );
    } catch (error) {
      saved.failed(error);
    } finally {
      waiting.value = waiting.value.filter((key) => key !== step.key);
    }
  });
}

function explain(what: NumberKey): void {
  if (outcome.value && fitting.frame) show(what, planWorking(what, outcome.value, fitting.frame), 'planned');
}
const print = (): void => window.print();
useArrowsAlong('.steps input', '.steps .next input');
</script>

<template>
  <NotYet
    v-if="!fitting.before || !fitting.frame || !fitting.record || !fitting.round"
    missing="Nothing is measured yet"
    station="measure"
  />
  <NotYet v-else-if="!plan" missing="No plan is chosen yet" station="plan" />
  <Bench v-else :title="`Build ${fitting.record.tag}`" aside-label="Steps at the bench">
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
        :shape="fitting.record.shape"
        :axis-cm="fitting.before.axisCm"
        compact
        @open="explain"
      />
    </div>
    <PrintedSheet
      :frame="fitting.record"
      :measurement="start"
      :aimed="fitting.aim"
      :plan="plan"
      :cuts="cuts"
      :labels="labels"
      :title-of="titleOf"
      :doing-of="doingOf"
      :when-of="(step) => whenOf(step, wholeMomentWords)"
    />

    <template #aside>
      <h2 class="heading">At the bench, in this order</h2>
      <ol class="steps">
        <li v-for="step in steps" :key="step.key" :class="{ done: isOver(step), next: step === next }">
          <Tick
            :checked="isOver(step)"
            :label="titleOf(step)"
            :waiting="waiting.includes(step.key)"
            :disabled="closed"
            @tick="mark(step)"
          />
          <div class="more">
            <p v-if="whenOf(step)" class="small soft">{{ whenOf(step) }}</p>
            <ul v-if="isOnePlace(step)" class="cuts">
              <li v-for="cut in cutsOf(step)" :key="cut.placementId">{{ cutWords(cut, units.bench) }}</li>
            </ul>
            <p v-for="doing in doingOf(step)" :key="doing" class="small">{{ doing }}</p>
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
      <p v-if="!next" class="good"><b>Everything at the bench is done.</b></p>
    </template>
    <template #action>
      <v-btn color="primary" size="large" block @click="print">Print the build sheet</v-btn>
    </template>
    <template #keys>
      <span><kbd>↑</kbd> <kbd>↓</kbd> along the steps</span><span><kbd>Space</kbd> done</span>
    </template>
  </Bench>
  <WorkingSheet
    v-model="sheet.open"
    :title="sheet.title"
    :parts="sheet.parts"
    :length-cm="fitting.frame?.lengthCm"
  />
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
.next :deep(.tick) {
  font-weight: 700;
}
.done :deep(.tick) {
  color: rgb(var(--v-theme-soft));
}
.more {
  padding-left: 36px;
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
