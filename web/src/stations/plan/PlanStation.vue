<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core';
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import {
  changePieces,
  deviationFrom,
  dragTo,
  explainPlan,
  explainRecoil,
  nudge,
  placementPlace,
  planUncertainty,
  specsWith,
  withinTolerance,
  type Materials,
  type Placement,
  type Plan,
  type School,
  type SpecKey,
} from '@kevro/core';
import { api } from '../../api/client';
import { useKeys } from '../../app/keys';
import Lanes from '../../lanes/Lanes.vue';
import UnsavedSheet from '../../parts/UnsavedSheet.vue';
import { useUnsaved } from '../../parts/unsaved';
import Rail from '../../rail/Rail.vue';
import { useFitting } from '../../stores/fitting';
import { useSaved } from '../../stores/saved';
import WorkingSheet from '../../working/WorkingSheet.vue';
import { SCHOOL_NAMES, ZONE_NAMES } from '../../words';
import Bench from '../Bench.vue';
import NotYet from '../NotYet.vue';
import { sweetOf, useBenchMarks } from '../bench-marks';
import { useWorking } from '../working';
import { useHistory } from './history';
import { missWords, pieceWords, placesWords } from './plan-words';
import { usePlans } from './plans';

// What a fitter comes here to do: see the best way and what each other way misses; move a weight and watch the specs; take it to the bench.
const fitting = useFitting();
const saved = useSaved();
const router = useRouter();
const marks = useBenchMarks();
const { sheet, show } = useWorking();
const { plans, working, share, failure, errors, make, stop } = usePlans();
onBeforeUnmount(stop);

const chosenParts = useLocalStorage('kevro-materials', { tape: '', filling: '' });
const tape = computed(
  () => fitting.parts?.tapes.find((t) => t.id === chosenParts.value.tape) ?? fitting.parts?.tapes[0],
);
const filling = computed(
  () => fitting.parts?.fillings.find((f) => f.id === chosenParts.value.filling) ?? fitting.parts?.fillings[0],
);
const withoutId = <T extends { id: string }>({ id: _, ...rest }: T): Omit<T, 'id'> => rest;
const materials = computed<Materials | undefined>(() => {
  if (!tape.value || !filling.value) return undefined;
  return { tape: withoutId(tape.value), filling: withoutId(filling.value) };
});
const aim = computed(() => fitting.view?.aim?.target);

/** What is on the racket in this draft: the school it started from and the placements as they stand now. */
interface Standing {
  school: School | undefined;
  byHand: boolean;
  placements: Placement[];
}
const stored = fitting.view?.plan;
const start: Standing = stored
  ? { school: stored.school, byHand: stored.byHand, placements: stored.placements }
  : { school: undefined, byHand: false, placements: [] };
const history = useHistory<Standing>(start);
const selected = ref<number>();
const savedState = ref(JSON.stringify(start));
const dirty = computed(
  () => history.now.value.byHand && JSON.stringify(history.now.value) !== savedState.value,
);
const question = useUnsaved(dirty);

const draftKey = computed(() => `kevro-plan-${fitting.view?.aim?.id ?? ''}-${fitting.measurement?.id ?? ''}`);
const draft = useLocalStorage<Standing | null>(draftKey.value, null, {
  writeDefaults: false,
  serializer: {
    read: (text) => JSON.parse(text) as Standing | null,
    write: (value) => JSON.stringify(value),
  },
});
if (!stored && draft.value) history.restart(draft.value);
watch(history.now, (now) => {
  draft.value = now.byHand ? now : null;
});

watch(
  [materials, () => fitting.view?.aim?.id, () => fitting.measurement?.id],
  () => {
    const { view, before } = fitting;
    if (!view || !before || !aim.value || !materials.value) return;
    make({ shape: view.frame.shape, specs: before, target: aim.value, materials: materials.value });
  },
  { immediate: true },
);
// The best plan is taken as soon as it is known, unless something stands already.
watch(plans, (list) => {
  const best = list[0];
  const { school, byHand } = history.now.value;
  if (
    best &&
    !byHand &&
    !stored &&
    (school === undefined || working.value || list.length > 0) &&
    !pickedByHand.value
  )
    pick(best, false);
});
const pickedByHand = ref(false);

function pick(plan: Plan, byFitter = true): void {
  if (byFitter) pickedByHand.value = true;
  selected.value = undefined;
  const next = { school: plan.school, byHand: false, placements: plan.placements };
  if (byFitter) history.change(next);
  else history.restart(next);
}

const placements = computed(() => history.now.value.placements);
const after = computed(() => {
  const { frame, before } = fitting;
  return frame && before && (placements.value.length > 0 || plans.value.length > 0 || stored)
    ? specsWith(frame, before, placements.value)
    : undefined;
});
const afterUncertainty = computed(() => {
  const { frame, measurement } = fitting;
  return frame && measurement
    ? planUncertainty(frame, measurement.specs, measurement.uncertainty, placements.value)
    : undefined;
});
const inside = computed(() => (aim.value && after.value ? withinTolerance(aim.value, after.value) : false));
const shownMarks = computed(() => ({
  ...marks.value,
  ...(after.value ? { predicted: after.value, predictedUncertainty: afterUncertainty.value } : {}),
}));
const addedG = computed(() => placements.value.reduce((sum, p) => sum + p.massG, 0));
const labels = computed(() =>
  placements.value.map((p) => `${(p.massG / (p.mirrored ? 2 : 1)).toFixed(1)} g`),
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

// By hand
function edit(index: number, next: Placement | undefined, mark: string): void {
  const list = [...placements.value];
  if (next) list[index] = next;
  else {
    list.splice(index, 1);
    selected.value = undefined;
  }
  history.change({ school: history.now.value.school, byHand: true, placements: list }, mark);
}
function withSelected(work: (placement: Placement, index: number) => void): void {
  const placement = selected.value === undefined ? undefined : placements.value[selected.value];
  if (placement && selected.value !== undefined) work(placement, selected.value);
}
const step = (byCm: number) => (): void =>
  withSelected((p, i) => fitting.frame && edit(i, nudge(fitting.frame, p, byCm), `nudge ${i}`));
const piece = (by: 1 | -1) => (): void =>
  withSelected((p, i) => {
    if (fitting.frame && materials.value)
      edit(i, changePieces(fitting.frame, p, materials.value, by), `pieces ${i} ${Date.now()}`);
  });
function drag(index: number, xCm: number, yCm: number, last: boolean): void {
  const placement = placements.value[index];
  if (placement && fitting.frame)
    edit(index, dragTo(fitting.frame, placement, { xCm, yCm }), `drag ${index}`);
  if (last) history.rest();
}
const arrow =
  (sign: 1 | -1) =>
  (event: KeyboardEvent): void =>
    step(sign * (event.shiftKey ? 0.1 : 0.5))();
useKeys({
  ArrowRight: arrow(1),
  ArrowLeft: arrow(-1),
  '+': piece(1),
  '-': piece(-1),
  z: history.undo,
  'Shift+z': history.redo,
});

// Ways
const SHOWN_FIRST = 3;
const showAll = ref(false);
const shownPlans = computed(() => (showAll.value ? plans.value : plans.value.slice(0, SHOWN_FIRST)));
const isOn = (plan: Plan): boolean => history.now.value.school === plan.school && !history.now.value.byHand;
const judged = (plan: Plan): string =>
  plan.withinTolerance
    ? `${plan.places === 1 ? '1 place' : `${plan.places} places`} · ${plan.addedG.toFixed(1)} g`
    : missWords(aim.value ?? {}, plan.deviation);
const nowMisses = computed(() =>
  after.value && aim.value ? missWords(aim.value, deviationFrom(aim.value, after.value)) : '',
);
const inHandle = (p: Placement): boolean =>
  fitting.frame ? placementPlace(fitting.frame, p).on === 'handle' : false;

const busy = ref(false);
async function choose(): Promise<void> {
  const { view, measurement } = fitting;
  if (!view?.aim || !measurement || !materials.value || busy.value) return;
  busy.value = true;
  try {
    const { school = 'free', byHand } = history.now.value;
    await api('choosePlan', {
      id: view.id,
      body: {
        measurementId: measurement.id,
        aimId: view.aim.id,
        school,
        byHand,
        materials: materials.value,
        placements: placements.value,
      },
    });
    savedState.value = JSON.stringify(history.now.value);
    draft.value = null;
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
          @update:model-value="chosenParts.tape = $event"
        />
        <v-select
          :model-value="filling?.id"
          :items="fitting.parts?.fillings ?? []"
          item-title="name"
          item-value="id"
          label="In the handle"
          @update:model-value="chosenParts.filling = $event"
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

      <template v-if="plans.length > 0">
        <h2 class="heading">Ways to get there</h2>
        <ul class="ways">
          <li v-for="plan in shownPlans" :key="plan.school">
            <button
              type="button"
              class="way"
              :class="{ on: isOn(plan) }"
              :aria-pressed="isOn(plan)"
              @click="pick(plan)"
            >
              <span class="line">
                <b>{{ SCHOOL_NAMES[plan.school] }}</b>
                <span :class="plan.withinTolerance ? 'good' : 'miss'" class="judged">{{ judged(plan) }}</span>
              </span>
              <span class="soft small">{{ placesWords(plan.placements) }}</span>
            </button>
          </li>
        </ul>
        <button
          v-if="plans.length > SHOWN_FIRST"
          type="button"
          class="more small"
          @click="showAll = !showAll"
        >
          {{ showAll ? 'fewer ways' : `${plans.length - SHOWN_FIRST} more ways` }}
        </button>
      </template>

      <template v-if="materials && placements.length > 0">
        <h2 class="heading">
          {{ history.now.value.byHand ? 'Pieces, changed by hand' : 'Pieces of this plan' }}
        </h2>
        <ul class="pieces">
          <li v-for="(p, i) in placements" :key="i">
            <button
              type="button"
              class="piece"
              :class="{ on: selected === i }"
              :aria-pressed="selected === i"
              @click="selected = i"
            >
              <span class="line">
                <b>{{ ZONE_NAMES[p.zone] }}</b><span class="num">{{ p.massG.toFixed(1) }} g</span>
              </span>
              <span class="soft small">{{ pieceWords(p, materials, inHandle(p)) }}</span>
            </button>
          </li>
        </ul>
        <div class="tools" role="group" aria-label="Change by hand">
          <v-btn
            variant="outlined"
            :disabled="selected === undefined"
            aria-label="Toward the butt"
            @click="step(-0.5)()"
            >←</v-btn
          >
          <v-btn
            variant="outlined"
            :disabled="selected === undefined"
            aria-label="Toward the tip"
            @click="step(0.5)()"
            >→</v-btn
          >
          <v-btn
            variant="outlined"
            :disabled="selected === undefined"
            aria-label="One piece less"
            @click="piece(-1)()"
            >−</v-btn
          >
          <v-btn
            variant="outlined"
            :disabled="selected === undefined"
            aria-label="One piece more"
            @click="piece(1)()"
            >+</v-btn
          >
          <v-btn variant="outlined" :disabled="!history.canUndo.value" @click="history.undo()">undo</v-btn>
        </div>
      </template>
    </template>

    <template #action>
      <div v-if="after" class="line sum small" role="status">
        <span class="soft"
          >{{ addedG.toFixed(1) }} g in
          {{ placements.length === 1 ? '1 place' : `${placements.length} places` }}</span
        >
        <b :class="inside ? 'good' : 'miss'">{{ inside ? 'inside the aim' : nowMisses }}</b>
      </div>
      <v-btn
        color="primary"
        size="large"
        block
        :disabled="!after || !materials"
        :loading="busy"
        @click="choose"
      >
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
.line b {
  white-space: nowrap;
}
.sum {
  flex-wrap: wrap;
}
.stop,
.more {
  text-decoration: underline;
  color: rgb(var(--v-theme-soft));
  padding: 4px 0;
  align-self: flex-start;
}
.ways,
.pieces {
  list-style: none;
  padding: 0;
  margin: 0;
}
.ways li + li {
  margin-top: 6px;
}
.way {
  display: block;
  width: 100%;
  text-align: left;
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 4px;
  background: rgb(var(--v-theme-paper));
  padding: 8px 10px;
}
.way.on {
  border: 2px solid rgb(var(--v-theme-ink));
  background: rgb(var(--v-theme-sheet));
  padding: 7px 9px;
}
.judged {
  font-weight: 600;
  font-size: 13.5px;
  text-align: right;
}
.pieces li {
  border-top: 1px solid rgb(var(--v-theme-line));
}
.piece {
  display: block;
  width: 100%;
  text-align: left;
  padding: 7px 6px;
}
.piece.on {
  box-shadow: inset 4px 0 rgb(var(--v-theme-reference));
  padding-left: 12px;
}
.tools {
  display: flex;
  gap: 6px;
}
.tools :deep(.v-btn) {
  min-width: 44px;
  padding: 0 10px;
}
</style>
