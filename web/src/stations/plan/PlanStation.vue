<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import {
  deviationFrom,
  explainPlan,
  explainRecoil,
  planUncertainty,
  specsWith,
  withinTolerance,
  type Placement,
  type Plan,
  type SpecKey,
} from '@kevro/core';
import { api } from '../../api/client';
import Lanes from '../../lanes/Lanes.vue';
import UnsavedSheet from '../../parts/UnsavedSheet.vue';
import { useUnsaved } from '../../parts/unsaved';
import Rail from '../../rail/Rail.vue';
import { useFitting } from '../../stores/fitting';
import { useSaved } from '../../stores/saved';
import WorkingSheet from '../../working/WorkingSheet.vue';
import { ZONE_NAMES } from '../../words';
import Bench from '../Bench.vue';
import NotYet from '../NotYet.vue';
import { sweetOf, useBenchMarks } from '../bench-marks';
import { useWorking } from '../working';
import PiecesList from './PiecesList.vue';
import WaysList from './WaysList.vue';
import { useByHand } from './by-hand';
import { missWords } from './plan-words';
import { usePlans } from './plans';
import { useShopMaterials } from './shop-materials';
import { useStanding } from './standing';

// What a fitter comes here to do: see the best way and what each other way misses; move a weight and watch the specs; take it to the bench.
const fitting = useFitting();
const saved = useSaved();
const router = useRouter();
const marks = useBenchMarks();
const { sheet, show } = useWorking();
const { plans, working, share, failure, errors, make, stop } = usePlans();
onBeforeUnmount(stop);
const { chosen, tape, filling, materials } = useShopMaterials();
const { history, dirty, markStored, startedEmpty } = useStanding();
const { selected, drag, piece, forward, back } = useByHand(history);
const question = useUnsaved(dirty);

const aim = computed(() => fitting.view?.aim?.target);
const standing = history.now;
const placements = computed(() => standing.value.placements);

/** Whether the best plan is taken as soon as it is known: until the fitter picks or changes something. */
let takeBest = startedEmpty;
watch(
  [materials, () => fitting.view?.aim?.id, () => fitting.measurement?.id],
  ([laidIn], [laidInBefore]) => {
    const { view, before } = fitting;
    if (!view || !before || !aim.value || !laidIn) return;
    // What stands was laid out in other materials: the best plan in the new ones takes its place, and undo brings it back.
    if (laidInBefore) takeBest = true;
    make({ shape: view.frame.shape, specs: before, target: aim.value, materials: laidIn });
  },
  { immediate: true },
);
watch(plans, ([best]) => {
  const { school, materials: laidIn } = standing.value;
  if (best && takeBest && (school !== best.school || laidIn !== materials.value)) lay(best);
});
watch(standing, ({ byHand }) => {
  if (byHand) takeBest = false;
});
function pick(plan: Plan): void {
  takeBest = false;
  lay(plan);
}
function lay({ school, placements: laid }: Plan): void {
  selected.value = undefined;
  const next = { school, byHand: false, placements: laid, materials: materials.value };
  // The first plan is where undo ends.
  if (standing.value.materials) history.change(next);
  else history.restart(next);
}

const after = computed(() => {
  const { frame, before } = fitting;
  return frame && before && standing.value.materials ? specsWith(frame, before, placements.value) : undefined;
});
const shownMarks = computed(() => {
  const { frame, measurement } = fitting;
  if (!after.value || !frame || !measurement) return marks.value;
  const { specs, uncertainty } = measurement;
  return {
    ...marks.value,
    predicted: after.value,
    predictedUncertainty: planUncertainty(frame, specs, uncertainty, placements.value),
  };
});
const inside = computed(() => (aim.value && after.value ? withinTolerance(aim.value, after.value) : false));
const nowMisses = computed(() =>
  after.value && aim.value ? missWords(aim.value, deviationFrom(aim.value, after.value)) : '',
);
const addedG = computed(() => placements.value.reduce((sum, p) => sum + p.massG, 0));
const labels = computed(() =>
  placements.value.map((p) => `${(p.massG / (p.mirrored ? 2 : 1)).toFixed(1)} g`),
);
const placesCount = computed(() =>
  placements.value.length === 1 ? '1 place' : `${placements.value.length} places`,
);

function explain(what: SpecKey | 'recoil'): void {
  const { frame, before } = fitting;
  if (!frame || !before) return;
  if (what === 'recoil') {
    if (after.value) show(what, explainRecoil(after.value), 'planned');
    return;
  }
  const nameOf = (p: Placement): string => `${ZONE_NAMES[p.zone].toLowerCase()}, ${p.massG.toFixed(2)} g`;
  show(what, explainPlan(what, frame, before, placements.value, nameOf), 'planned');
}

const busy = ref(false);
async function choose(): Promise<void> {
  const { view, measurement } = fitting;
  const { school = 'free', byHand, materials: laidIn } = standing.value;
  if (!view?.aim || !measurement || !laidIn || busy.value) return;
  busy.value = true;
  try {
    await api('choosePlan', {
      id: view.id,
      body: {
        measurementId: measurement.id,
        aimId: view.aim.id,
        school,
        byHand,
        materials: laidIn,
        placements: placements.value,
      },
    });
    markStored();
    await fitting.refresh();
    await router.push({ name: 'build' });
  } catch (error) {
    saved.failed(error);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <NotYet v-if="!fitting.before || !fitting.frame" missing="Nothing is measured yet" station="measure" />
  <NotYet v-else-if="!aim" missing="No aim is set yet" station="aim" />
  <Bench v-else aside-label="Ways to get there">
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
      :length-cm="fitting.frame.lengthCm"
      :axis-cm="fitting.before.axisCm"
      @open="explain"
    />

    <template #aside>
      <div class="materials">
        <v-select
          :model-value="tape?.id"
          :items="fitting.parts?.tapes ?? []"
          item-title="name"
          item-value="id"
          label="Tape"
          @update:model-value="chosen.tape = $event"
        />
        <v-select
          :model-value="filling?.id"
          :items="fitting.parts?.fillings ?? []"
          item-title="name"
          item-value="id"
          label="In the handle"
          @update:model-value="chosen.filling = $event"
        />
      </div>
      <p v-if="!materials" class="miss small">The shop has no tape or no filling. Add them under Stock.</p>
      <div v-if="working" role="status">
        <v-progress-linear :model-value="share * 100" color="primary" height="6" rounded />
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
        :on="standing.byHand ? undefined : standing.school"
        @pick="pick"
      />
      <PiecesList
        v-if="standing.materials && placements.length > 0"
        v-model:selected="selected"
        :frame="fitting.frame"
        :placements="placements"
        :materials="standing.materials"
        :by-hand="standing.byHand"
        :can-undo="history.canUndo.value"
        @back="back"
        @forward="forward"
        @less="piece(-1)"
        @more="piece(1)"
        @undo="history.undo"
      />
    </template>

    <template #action>
      <div v-if="after" class="line sum small" role="status">
        <span class="soft">{{ addedG.toFixed(1) }} g in {{ placesCount }}</span>
        <b :class="inside ? 'good' : 'miss'">{{ inside ? 'inside the aim' : nowMisses }}</b>
      </div>
      <v-btn color="primary" size="large" block :disabled="!after" :loading="busy" @click="choose">
        Make the build sheet
      </v-btn>
    </template>
    <template #keys>
      <span>Drag a weight, or choose it and <kbd>←</kbd> <kbd>→</kbd></span>
      <span><kbd>+</kbd> <kbd>−</kbd> one piece</span>
      <span><kbd>z</kbd> undo</span>
    </template>
  </Bench>
  <WorkingSheet v-model="sheet.open" :title="sheet.title" :parts="sheet.parts" />
  <UnsavedSheet :question="question" what="The plan was changed by hand and is not stored." />
</template>

<style scoped>
.materials {
  display: grid;
  gap: 10px;
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
