<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue';
import { nanoid } from 'nanoid';
import {
  changeOutcome,
  cutList,
  isOver,
  newStrings,
  type BenchStep,
  type ChangeOutcome,
  type NumberKey,
} from '@kevro/core';
import type { BodyOf } from '@kevro/contract';
import { sendOrKeep } from '../../api/waiting';
import { useArrowsAlong } from '../../ui/keys';
import StringingForm from '../../forms/StringingForm.vue';
import Lanes from '../../lanes/Lanes.vue';
import { momentWords, wholeMomentWords } from '../../words/days';
import SavePdf from '../../ui/SavePdf.vue';
import Rail from '../../rail/Rail.vue';
import { useFitting } from '../../stores/fitting';
import { useShop } from '../../stores/shop';
import { useSaved } from '../../stores/saved';
import { useUnits } from '../../stores/units';
import WorkingSheet from '../../bench/WorkingSheet.vue';
import { MARK_WORDS } from '../../words';
import Bench from '../../bench/Bench.vue';
import NotYet from '../../bench/NotYet.vue';
import { planWorking, useBenchMarks } from '../../bench/bench-marks';
import { sweetOf } from '../../rail/sweet';
import { useWorking } from '../../bench/working';
import CutTable from './CutTable.vue';
import PrintedSheet from './PrintedSheet.vue';
import BuildStep from './BuildStep.vue';
import { useBuilding } from './building';
import { useNewStrings } from './new-strings';
import { stepDoing, stepTitle } from './words';

// What a fitter comes here to do: see the next step; read what to cut and where it goes; print the sheet for the bench.
const fitting = useFitting();
const saved = useSaved();
const units = useUnits();
const marks = useBenchMarks();
const { sheet, show } = useWorking();

const shop = useShop();
const plan = computed(() => fitting.plan);
/** How the plan wants its strings to go in. */
const job = computed(() => newStrings(plan.value?.swaps ?? [])?.job);
const steps = computed<BenchStep[]>(() => plan.value?.steps ?? []);
const { start, markOf, builtAt, expected, readAt, surprise, waits } = useBuilding();
const outcome = computed<ChangeOutcome | undefined>(() =>
  fitting.frame && plan.value && start.value
    ? changeOutcome(fitting.frame, start.value.specs, start.value.dress, plan.value)
    : undefined,
);
const cuts = computed(() =>
  fitting.frame && plan.value ? cutList(fitting.frame, plan.value.placements, plan.value.parts) : [],
);

const stateOf = (step: BenchStep) => fitting.round?.state.steps[step.key];
const isDone = (step: BenchStep): boolean => isOver(stateOf(step)?.mark);
const next = computed(() => steps.value.find((step) => !isDone(step)));
const closed = computed(() => fitting.view?.closed !== null);
const titleOf = (step: BenchStep): string =>
  plan.value && fitting.frame ? stepTitle(step, plan.value, fitting.frame) : '';
const doingOf = (step: BenchStep): string[] =>
  plan.value && fitting.frame && fitting.record
    ? stepDoing(step, plan.value, fitting.frame, {
        pattern: fitting.record.pattern,
        order: shop.orderOf(fitting.record.shape.sport),
      })
    : [];
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
type MarkBody = BodyOf<'markStep'>;
function mark(step: BenchStep, as: Pick<MarkBody, 'mark' | 'reason' | 'asBuilt'>): void {
  const { view } = fitting;
  const planId = plan.value?.id;
  if (!view || planId === undefined || waiting.value.includes(step.key)) return;
  waiting.value = [...waiting.value, step.key];
  const key = nanoid();
  marking = marking.then(async () => {
    try {
      const seen = stateOf(step)?.mark ?? 'open';
      const body = { planId, step: step.key, ...as, seen, key };
      const what = `${fitting.record?.tag ?? ''}: ${titleOf(step)}, ${MARK_WORDS[as.mark]}`;
      const answer = await sendOrKeep('markStep', { id: view.id, body, what });
      if (answer) await fitting.stored(answer);
    } catch (error) {
      saved.failed(error);
    } finally {
      waiting.value = waiting.value.filter((key) => key !== step.key);
    }
  });
}
const tick = (step: BenchStep): void => mark(step, { mark: isDone(step) ? 'open' : 'done' });
const {
  last: lastStrings,
  noteStrings,
  stringsNoted,
} = useNewStrings(useTemplateRef('stringing'), (step) => {
  if (!isDone(step)) mark(step, { mark: 'done' });
});
const until = (step: BenchStep): string | undefined =>
  waits.value.find((wait) => wait.step === step.key)?.until;
const calendar = computed(() => `/api/v1/fittings/${fitting.view?.id ?? ''}/calendar.ics`);

function explain(what: NumberKey): void {
  if (outcome.value && fitting.frame) show(what, planWorking(what, outcome.value, fitting.frame), 'planned');
}
/** Cut out and laid on the head: where each piece starts and ends. */
const template = (format: 'pdf' | 'svg', paper: 'a4' | 'letter'): string =>
  `/api/v1/fittings/${fitting.view?.id ?? ''}/template.${format}?${new URLSearchParams({ plan: plan.value?.id ?? '', paper }).toString()}`;
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
      <h2 class="heading">Steps</h2>
      <ol class="steps">
        <BuildStep
          v-for="step in steps"
          :key="step.key"
          :step="step"
          :frame="fitting.record"
          :settled="fitting.frame"
          :change="plan"
          :mark="markOf(step)"
          :noted="builtAt(step)"
          :since="stateOf(step)?.at"
          :next="step === next"
          :storing="waiting.includes(step.key)"
          :disabled="closed"
          :expected="expected(step)"
          :read="readAt(step)"
          :surprise="surprise(step)"
          :until="until(step)"
          :calendar="calendar"
          @tick="tick(step)"
          @strings="noteStrings(step)"
          @skip="mark(step, { mark: 'skipped', reason: $event })"
          @built="
            (pieces, reason) => mark(step, { mark: 'done', reason, asBuilt: pieces as MarkBody['asBuilt'] })
          "
        />
      </ol>
      <p v-if="!next" class="good"><b>All done</b></p>
      <div class="papers small">
        <span class="soft">Template at true scale:</span>
        <a :href="template('pdf', 'a4')" download>PDF, A4</a>
        <a :href="template('pdf', 'letter')" download>PDF, Letter</a>
        <a :href="template('svg', 'a4')" download>SVG</a>
        <SavePdf
          of=".sheet.print-only"
          :title="`Build sheet ${fitting.record.tag}`"
          label="The build sheet as PDF"
        />
      </div>
      <p
        v-if="
          fitting.frame.sport.dress.components.includes('strings') &&
          !steps.some(({ kind }) => kind === 'restring')
        "
        class="small mb-0"
      >
        Restrung?
        <button type="button" class="link" @click="noteStrings()">Note strings and tension</button>
      </p>
      <StringingForm
        ref="stringing"
        :frame-id="fitting.record.id"
        :shape="fitting.record.shape"
        :pattern="fitting.record.pattern"
        v-bind="{ ...(lastStrings ? { last: lastStrings } : {}), ...(job ? { job } : {}) }"
        @stored="stringsNoted"
      />
    </template>
    <template #action>
      <v-btn v-if="next" color="primary" size="large" block @click="print">Print the build sheet</v-btn>
      <template v-else>
        <v-btn color="primary" size="large" block :to="{ name: 'check' }">Go on to Check</v-btn>
        <button type="button" class="link small" @click="print">Print the build sheet</button>
      </template>
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
.papers {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  border-top: 1px solid rgb(var(--v-theme-line));
  padding-top: 8px;
}
</style>
