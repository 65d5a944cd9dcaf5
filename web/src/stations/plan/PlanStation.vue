<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import {
  changeOutcome,
  changeUncertainty,
  deviationFrom,
  removalOffers,
  swapOffers,
  withinTolerance,
  type NumberKey,
  type Offer,
  type Part,
  type Plan,
} from '@kevro/core';
import type { PlanRecord } from '@kevro/contract';
import { api } from '../../api/client';
import Lanes from '../../lanes/Lanes.vue';
import { counted } from '../../parts/counted';
import DraftNotice from '../../parts/DraftNotice.vue';
import UnsavedSheet from '../../parts/UnsavedSheet.vue';
import { useUnsaved } from '../../parts/unsaved';
import Rail from '../../rail/Rail.vue';
import { useFitting } from '../../stores/fitting';
import { useSaved } from '../../stores/saved';
import { useUnits } from '../../stores/units';
import WorkingSheet from '../../working/WorkingSheet.vue';
import Bench from '../Bench.vue';
import NotYet from '../NotYet.vue';
import { planWorking, sweetOf, useBenchMarks } from '../bench-marks';
import { useWorking } from '../working';
import EarlierPlans from './EarlierPlans.vue';
import PiecesList from './PiecesList.vue';
import WaysList from './WaysList.vue';
import { useByHand } from './by-hand';
import { missWords } from './plan-words';
import { usePlans } from './plans';
import { useShopParts } from './shop-parts';
import { useStanding } from './standing';
import { useKept } from '../../parts/kept';

// What a fitter comes here to do: see the best way and what each other way misses; move a weight and watch the specs; take it to the bench.
const fitting = useFitting();
const saved = useSaved();
const units = useUnits();
const router = useRouter();
const marks = useBenchMarks();
const { sheet, show } = useWorking();
const { plans, working, share, failure, errors, make, stop } = usePlans();
onBeforeUnmount(stop);
const shop = useShopParts();
const { parts, choices, none: noParts, failure: partsFailure } = shop;
const { history, draft, dirty, markStored, startedEmpty } = useStanding();
const { selected, drag, piece, move, layOn } = useByHand(history);
const question = useUnsaved(dirty);

/** Choices that may be judged for each way. */
const SCREEN_WORK = 300_000;
const aim = computed(() => fitting.aim?.target);
const standing = history.now;
const placements = computed(() => standing.value.placements);

/** Whether grips may be changed and what is on the frame may come off: asked of the fitter, since it changes the feel. */
const mayChange = useKept('kevro-plan-may-change', { grips: false, onIt: false });
const onIt = computed(() => fitting.record?.weights ?? []);
const offers = computed<Offer[]>(() => {
  const { frame, dress } = fitting;
  if (!frame || !dress) return [];
  return [
    ...(mayChange.value.grips ? swapOffers(frame, dress) : []),
    ...(mayChange.value.onIt ? removalOffers(frame, onIt.value, parts.value) : []),
  ];
});
const sameParts = (a: readonly Part[], b: readonly Part[]): boolean =>
  a.map(({ id }) => id).join() === b.map(({ id }) => id).join();

/** Whether the best plan is taken as soon as it is known: until the fitter picks or changes something. */
let takeBest = startedEmpty;
watch(
  [parts, offers, () => fitting.aim?.id, () => fitting.measurement?.id],
  ([laidIn, offered], [laidInBefore, offeredBefore]) => {
    const { record, before } = fitting;
    if (!record || !before || !aim.value || laidIn.length === 0) return;
    // What stands was laid out in other parts: the best plan in the new ones takes its place, and undo brings it back.
    const changed = laidInBefore && laidInBefore.length > 0 && !sameParts(laidIn, laidInBefore);
    if (changed || (offeredBefore && offered.length !== offeredBefore.length)) takeBest = true;
    make({
      shape: record.shape,
      specs: before,
      target: aim.value,
      parts: laidIn,
      offers: offered,
      dress: fitting.dress ?? {},
      // A fitter waits for seven ways: each has a part of the time that a single plan may take.
      work: SCREEN_WORK,
      // The check is likely to be as good as the measurement that the round starts from.
      ...(fitting.measurement ? { instruments: fitting.measurement.uncertainty } : {}),
    });
  },
  { immediate: true },
);
watch(plans, ([best]) => {
  if (best && takeBest) lay(best);
});
watch(standing, ({ byHand, school }) => {
  const [best] = plans.value;
  if (byHand) takeBest = false;
  // Afresh where no plan is stored: from the best one.
  else if (!school && best) lay(best);
});
function pick(plan: Plan): void {
  takeBest = false;
  lay(plan);
}
/** An earlier plan as it was, from where the round starts now. */
function again({ school, placements: laid, swaps, removals, parts: made }: PlanRecord): void {
  takeBest = false;
  selected.value = undefined;
  history.change({ school, byHand: true, placements: laid, swaps, removals, parts: made });
}
/** Whether anything stands yet: the first plan is where undo ends. */
const stands = computed(() => standing.value.school !== undefined || standing.value.byHand);
function lay({ school, placements: laid, swaps, removals }: Plan): void {
  const next = { school, byHand: false, placements: laid, swaps, removals, parts: parts.value };
  if (JSON.stringify(next) === JSON.stringify(standing.value)) return;
  selected.value = undefined;
  if (stands.value) history.change(next);
  else history.restart(next);
}

const outcome = computed(() => {
  const { frame, before, dress } = fitting;
  return frame && before && dress && stands.value
    ? changeOutcome(frame, before, dress, standing.value)
    : undefined;
});
const after = computed(() => outcome.value?.specs);
const shownMarks = computed(() => {
  const { frame, measurement } = fitting;
  if (!after.value || !frame || !measurement) return marks.value;
  const { specs, uncertainty, dress } = measurement;
  return {
    ...marks.value,
    predicted: after.value,
    predictedUncertainty: changeUncertainty(frame, specs, uncertainty, dress, standing.value),
  };
});
const inside = computed(() => (aim.value && after.value ? withinTolerance(aim.value, after.value) : false));
const nowMisses = computed(() =>
  after.value && aim.value
    ? missWords(aim.value, deviationFrom(aim.value, after.value), (key, amount) =>
        units.sayWidth(key, amount, fitting.record?.shape.sport ?? 'tennis'),
      )
    : '',
);
const addedG = computed(() => (after.value && fitting.before ? after.value.massG - fitting.before.massG : 0));
const labels = computed(() => placements.value.map((p) => `${(p.massG / p.sides).toFixed(1)} g`));
const places = computed(() => {
  const { swaps, removals } = standing.value;
  const count = placements.value.length + swaps.length + removals.length;
  return counted(count, 'place', 'places');
});

function explain(what: NumberKey): void {
  if (outcome.value && fitting.frame) show(what, planWorking(what, outcome.value, fitting.frame), 'planned');
}

const busy = ref(false);
async function choose(): Promise<void> {
  const { view, round, measurement, aim: record } = fitting;
  const { school = 'free', byHand, placements: laid, swaps, removals } = standing.value;
  if (!view || !round || !record || !measurement || !stands.value || busy.value) return;
  busy.value = true;
  try {
    await api('choosePlan', {
      id: view.id,
      body: {
        roundId: round.id,
        startId: measurement.id,
        aimId: record.id,
        school,
        byHand,
        placements: [...laid],
        swaps: [...swaps],
        removals: [...removals],
      },
    });
    markStored();
    await fitting.stored();
    await router.push({ name: 'build' });
  } catch (error) {
    saved.failed(error);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <NotYet
    v-if="!fitting.before || !fitting.frame || !fitting.record"
    missing="Nothing is measured yet"
    station="measure"
  />
  <NotYet v-else-if="!aim" missing="No aim is set yet" station="aim" />
  <Bench v-else :title="`Plan for ${fitting.record.tag}`" aside-label="Ways to get there">
    <Rail
      :frame="fitting.frame"
      :dress="fitting.dress"
      :measured-balance-cm="fitting.before.balanceCm"
      :planned-balance-cm="after?.balanceCm"
      :sweet-before="sweetOf(fitting.frame, fitting.before)"
      :sweet-after="sweetOf(fitting.frame, after)"
      :weights="placements"
      :weight-labels="labels"
      :selected="selected"
      movable
      @select="selected = $event"
      @drag="drag"
    />
    <Lanes
      :marks="shownMarks"
      :shape="fitting.record.shape"
      :axis-cm="fitting.before.axisCm"
      @open="explain"
    />

    <template #aside>
      <DraftNotice :draft="draft" />
      <v-select
        :model-value="parts.map((part) => part.id)"
        :items="choices"
        item-title="name"
        item-value="id"
        label="Parts to use"
        multiple
        @update:model-value="shop.choose"
      />
      <div class="may">
        <v-checkbox v-model="mayChange.grips" label="Grips may be changed" />
        <v-checkbox v-if="onIt.length > 0" v-model="mayChange.onIt" label="What is on it may come off" />
      </div>
      <p v-if="noParts" class="miss small">
        The shop has no part to put on. Add tape and putty under
        <RouterLink :to="{ name: 'stock' }">Stock</RouterLink>.
      </p>
      <div v-if="partsFailure" role="alert">
        <p class="miss small">The shop’s parts are not known: {{ partsFailure }}</p>
        <v-btn variant="outlined" @click="shop.load">Try again</v-btn>
      </div>
      <div v-if="working" role="status">
        <v-progress-linear
          :model-value="share * 100"
          color="primary"
          height="6"
          rounded
          aria-label="Working out the ways"
        />
        <div class="line small soft">
          <span>working out the ways…</span>
          <button type="button" class="stop" @click="stop">stop</button>
        </div>
      </div>
      <p v-for="error in errors" :key="error.path" class="miss small" role="alert">{{ error.message }}</p>
      <p v-if="failure" class="miss small" role="alert">The plans could not be worked out: {{ failure }}</p>
      <WaysList
        v-if="plans.length > 0"
        :plans="plans"
        :aim="aim"
        :frame="fitting.frame"
        :on="standing.byHand ? undefined : standing.school"
        @pick="pick"
      />
      <PiecesList
        v-if="stands"
        v-model:selected="selected"
        :frame="fitting.frame"
        :change="standing"
        :by-hand="standing.byHand"
        :can-undo="history.canUndo.value"
        :can-redo="history.canRedo.value"
        @move="move"
        @piece="piece"
        @hoop="layOn"
        @undo="history.undo"
        @redo="history.redo"
      />
      <EarlierPlans v-if="fitting.round" :round="fitting.round" :frame="fitting.frame" @again="again" />
    </template>

    <template #action>
      <div v-if="after" class="line sum small" role="status">
        <span class="soft">{{ addedG.toFixed(1).replace('-', '−') }} g in {{ places }}</span>
        <b :class="inside ? 'good' : 'miss'">{{ inside ? 'inside the aim' : nowMisses }}</b>
      </div>
      <v-btn color="primary" size="large" block :disabled="!after" :loading="busy" @click="choose">
        Make the build sheet
      </v-btn>
    </template>
    <template #keys>
      <span>Drag a piece, or choose it and <kbd>←</kbd> <kbd>→</kbd></span>
      <span><kbd>+</kbd> <kbd>−</kbd> one strip or dab</span>
      <span><kbd>z</kbd> undo</span><span><kbd>Ctrl</kbd> <kbd>Enter</kbd> build sheet</span>
    </template>
  </Bench>
  <WorkingSheet
    v-model="sheet.open"
    :title="sheet.title"
    :parts="sheet.parts"
    :length-cm="fitting.frame?.lengthCm"
  />
  <UnsavedSheet :question="question" what="The plan was changed by hand and is not stored." />
</template>

<style scoped>
.may {
  display: flex;
  flex-wrap: wrap;
  gap: 0 16px;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 0 10px;
}
.sum {
  flex-wrap: wrap;
}
.stop {
  text-decoration: underline;
  padding: 4px 0;
}
</style>
