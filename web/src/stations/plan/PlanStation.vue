<script setup lang="ts">
import { partWeight } from '../../words/part-weight';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import {
  jobOf,
  changeOutcome,
  changeUncertainty,
  deviationFrom,
  withinTolerance,
  type AxisSpecs,
  type NumberKey,
} from '@kevro/core';
import { api } from '../../api/client';
import Lanes from '../../lanes/Lanes.vue';
import { counted } from '../../words/counted';
import DraftNotice from '../../forms/DraftNotice.vue';
import UnsavedSheet from '../../ui/UnsavedSheet.vue';
import { useUnsaved } from '../../ui/unsaved';
import Rail from '../../rail/Rail.vue';
import { useFitting } from '../../stores/fitting';
import { useSaved } from '../../stores/saved';
import { useUnits } from '../../stores/units';
import WorkingSheet from '../../bench/WorkingSheet.vue';
import Bench from '../../bench/Bench.vue';
import NotYet from '../../bench/NotYet.vue';
import { planWorking, useBenchMarks } from '../../bench/bench-marks';
import { sweetOf } from '../../rail/sweet';
import { useWorking } from '../../bench/working';
import EarlierPlans from './EarlierPlans.vue';
import HowSure from './HowSure.vue';
import ChangeDress from './ChangeDress.vue';
import PiecesList from './PiecesList.vue';
import PlanLimits from './PlanLimits.vue';
import VariantsList from './VariantsList.vue';
import WaysList from './WaysList.vue';
import WaysTable from './WaysTable.vue';
import { useByHand } from './by-hand';
import { ONLY_WORDS, missWords } from '../../words/plan';
import { useShopParts } from './shop-parts';
import { useSideBySide, useVariants } from './side-by-side';
import { useStanding, type Standing } from './standing';
import { useWays } from './ways';
import { later } from '../../stores/later';
import { useActKey } from '../../forms/act-key';
import { useKeys } from '../../ui/keys';

// What a fitter comes here to do: see the best way and what each other way misses; move a weight and watch the specs; take it to the bench.
const fitting = useFitting();
const saved = useSaved();
const units = useUnits();
const router = useRouter();
const marks = useBenchMarks();
const { sheet, show } = useWorking();
const shop = useShopParts();
const { parts, choices, only, none: noParts, failure: partsFailure } = shop;
const held = ref(false);
const { history, draft, dirty, markStored, startedEmpty } = useStanding(() => held.value);
const { selected, dragging, drag, piece, move, layOn, grams, span, clock, takeOff, add, swap } =
  useByHand(history);
watch(dragging, (now) => (held.value = now), { flush: 'sync' });
const question = useUnsaved(dirty);
const { asking, finishing, plans, mayChange, onIt, limits, stands, pick, layAgain, finish, lighten } =
  useWays(history, shop, selected, startedEmpty);
const { working, share, failure, errors, stop } = asking;
useKeys({ f: finish });

const aim = computed(() => fitting.aim?.target);
const standing = history.now;
const placements = computed(() => standing.value.placements);
const { variants, keep: keepVariant, drop: dropVariant } = useVariants(standing);
const {
  open: tableOpen,
  compared,
  on: tableOn,
  wayOf,
  variantOf,
} = useSideBySide(plans, parts, standing, variants);
function takeCompared(id: string): void {
  const [way, variant] = [wayOf(id), variantOf(id)];
  if (way) pick(way);
  if (variant) layAgain(variant.standing);
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
/** What is costly waits while a weight is in the hand. */
const settledStanding = shallowRef<Standing>();
const settledAfter = shallowRef<AxisSpecs>();
watch(
  [standing, after, dragging],
  () => {
    if (dragging.value) return;
    settledStanding.value = standing.value;
    settledAfter.value = after.value;
  },
  { immediate: true },
);
// Each is worked out once: what does not move with the weight is not drawn anew.
const sweetBefore = computed(() => sweetOf(fitting.frame, fitting.before));
const sweetAfter = computed(() => sweetOf(fitting.frame, after.value));
const partIds = computed(() => parts.value.map(({ id }) => id));
const AddStarters = later(() => import('../../forms/AddStarters.vue'));
const effectOpen = ref(false);
const EffectOnPlay = later(() => import('./EffectOnPlay.vue'));

const inside = computed(() => (aim.value && after.value ? withinTolerance(aim.value, after.value) : false));
const nowMisses = computed(() =>
  after.value && aim.value && fitting.frame
    ? missWords(
        aim.value,
        deviationFrom(aim.value, after.value),
        (key, amount) => units.sayWidth(key, amount, fitting.record?.shape.sport ?? 'tennis'),
        { sport: fitting.frame.sport, hand: after.value.swingWeight },
      )
    : '',
);
const addedG = computed(() => (after.value && fitting.before ? after.value.massG - fitting.before.massG : 0));
const labels = computed(() => placements.value.map((p) => partWeight(p.massG / p.sides)));
const places = computed(() => {
  const { swaps, removals } = standing.value;
  const count = placements.value.length + swaps.length + removals.length;
  return counted(count, 'place', 'places');
});

function explain(what: NumberKey): void {
  if (outcome.value && fitting.frame) show(what, planWorking(what, outcome.value, fitting.frame), 'planned');
}

const busy = ref(false);
const key = useActKey();
async function choose(): Promise<void> {
  const { view, round, measurement, aim: record } = fitting;
  const { school = 'free', byHand, placements: laid, swaps, removals } = standing.value;
  if (!view || !round || !record || !measurement || !stands.value || busy.value) return;
  busy.value = true;
  try {
    const body = {
      roundId: round.id,
      startId: measurement.id,
      aimId: record.id,
      school,
      byHand,
      placements: [...laid],
      swaps: [...swaps],
      removals: [...removals],
    };
    await key.once((own) => api('choosePlan', { id: view.id, body: { ...body, key: own } }));
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
  <Bench v-else :title="`Plan for ${fitting.record.tag}`" aside-label="Placements">
    <Rail
      :frame="fitting.frame"
      :dress="fitting.dress"
      :measured-balance-cm="fitting.before.balanceCm"
      :planned-balance-cm="after?.balanceCm"
      :sweet-before="sweetBefore"
      :sweet-after="sweetAfter"
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
    <details class="effect" @toggle="effectOpen = ($event.target as HTMLDetailsElement).open">
      <summary class="heading">Effect on play, and what a gram does</summary>
      <EffectOnPlay
        v-if="effectOpen && after"
        :frame="fitting.frame"
        :shape="fitting.record.shape"
        :before="fitting.before"
        :after="after"
      />
    </details>

    <template #aside>
      <DraftNotice :draft="draft" />
      <v-select
        :model-value="partIds"
        :items="choices"
        item-title="name"
        item-value="id"
        label="Materials"
        multiple
        @update:model-value="shop.choose"
      />
      <div class="may">
        <v-checkbox v-model="mayChange.grips" label="Allow grip changes" />
        <v-checkbox v-if="onIt.length > 0" v-model="mayChange.onIt" label="Allow removing what’s on it" />
      </div>
      <p v-if="only && after && !inside" class="warn small mb-0" role="status">{{ ONLY_WORDS[only] }}</p>
      <section v-if="noParts" aria-label="Parts to put on">
        <h2 class="heading">Nothing in Stock to put on</h2>
        <AddStarters />
      </section>
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
          <span>Calculating…</span>
          <button type="button" class="stop" @click="stop">stop</button>
        </div>
      </div>
      <p v-for="error in errors" :key="error.path" class="miss small" role="alert">{{ error.message }}</p>
      <p v-if="failure" class="miss small" role="alert">Couldn’t work out a plan: {{ failure }}</p>
      <WaysList
        v-if="plans.length > 0"
        :plans="plans"
        :aim="aim"
        :frame="fitting.frame"
        :on="standing.byHand ? undefined : standing.school"
        @pick="pick"
        @table="tableOpen = true"
      />
      <PiecesList
        v-if="stands"
        v-model:selected="selected"
        :frame="fitting.frame"
        :change="settledStanding ?? standing"
        :by-hand="standing.byHand"
        :can-undo="history.canUndo.value"
        :can-redo="history.canRedo.value"
        :parts="parts"
        @grams="grams"
        @span="span"
        @clock="clock"
        @off="takeOff"
        @add="add"
        @move="move"
        @piece="piece"
        @hoop="layOn"
        @undo="history.undo"
        @redo="history.redo"
      />
      <ChangeDress
        v-if="stands && fitting.dress"
        :frame="fitting.frame"
        :shape="fitting.record.shape"
        :dress="fitting.dress"
        :change="settledStanding ?? standing"
        :bed="fitting.bed && jobOf(fitting.bed.stringing)"
        @swap="swap"
      />
      <div v-if="stands && placements.length > 0" class="from-here">
        <v-btn variant="outlined" :loading="finishing.working.value" @click="finish">Finish from here</v-btn>
        <v-btn variant="outlined" @click="lighten">Lighten 10 %</v-btn>
      </div>
      <p v-if="finishing.failure.value" class="miss small" role="alert">{{ finishing.failure.value }}</p>
      <VariantsList
        :frame="fitting.frame"
        :variants="variants"
        :stands="stands"
        @keep="keepVariant"
        @take="layAgain($event.standing)"
        @drop="dropVariant"
      />
      <PlanLimits v-model="limits" :frame="fitting.frame" />
      <EarlierPlans
        v-if="fitting.round"
        :round="fitting.round"
        :frame="fitting.frame"
        @again="layAgain($event)"
      />
    </template>

    <template #action>
      <div v-if="after" class="line sum small" role="status">
        <span class="soft">{{ partWeight(addedG) }} in {{ places }}</span>
        <b :class="inside ? 'good' : 'miss'">{{ inside ? 'all in tolerance' : nowMisses }}</b>
      </div>
      <HowSure
        v-if="after && fitting.dress"
        :frame="fitting.frame"
        :dress="fitting.dress"
        :change="settledStanding ?? standing"
        :inside="inside"
      />
      <v-btn color="primary" size="large" block :disabled="!after" :loading="busy" @click="choose">
        Make the build sheet
      </v-btn>
    </template>
    <template #keys>
      <span>Drag a piece, or choose it and <kbd>←</kbd> <kbd>→</kbd></span>
      <span><kbd>+</kbd> <kbd>−</kbd> one strip or dab</span>
      <span><kbd>z</kbd> undo</span><span><kbd>f</kbd> finish from here</span
      ><span><kbd>Ctrl</kbd> <kbd>Enter</kbd> build sheet</span>
    </template>
  </Bench>
  <WorkingSheet
    v-model="sheet.open"
    :title="sheet.title"
    :parts="sheet.parts"
    :length-cm="fitting.frame?.lengthCm"
  />
  <WaysTable
    v-if="fitting.frame && fitting.before && fitting.measurement && aim"
    v-model="tableOpen"
    :frame="fitting.frame"
    :before="fitting.before"
    :ways="compared"
    :on="tableOn"
    @pick="takeCompared"
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
/* Both in one row. */
.from-here {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.from-here :deep(.v-btn) {
  padding: 0 8px;
}
.sum {
  flex-wrap: wrap;
}
.stop {
  text-decoration: underline;
  padding: 4px 0;
}
</style>
