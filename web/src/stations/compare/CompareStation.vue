<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue';
import { watchDebounced } from '@vueuse/core';
import { type SpecKey, specName, SPEC_KEYS, explainOutcome, isStrung } from '@kevro/core';
import type { AnswerOf } from '@kevro/contract';
import { api } from '../../api/client';
import { useArrowsAlong, useKeys } from '../../ui/keys';
import ChoiceRow from '../../ui/ChoiceRow.vue';
import { howMany } from '../../words/counted';
import { dressWords } from '../../words/dress';
import { bedWords, spreadWords } from '../../words/strings';
import { useKept } from '../../ui/kept';
import { later } from '../../stores/later';
import { useFitting } from '../../stores/fitting';
import { useBeside, type Compared } from '../../stores/beside';
import { useLibrary } from '../../stores/library';
import { useWholeLibrary } from '../../stores/whole-library';
import WorkingSheet from '../../bench/WorkingSheet.vue';
import Bench from '../../bench/Bench.vue';
import MeasuredFrame from '../../bench/MeasuredFrame.vue';
import NotYet from '../../bench/NotYet.vue';
import { useBenchMarks } from '../../bench/bench-marks';
import { useWorking } from '../../bench/working';
import CompareTable from './CompareTable.vue';
import NearRow from './NearRow.vue';
import PickBeside from './PickBeside.vue';
import { inBrush, type Brush } from './plane';
import { MOST_BESIDE, useSetBeside } from './set-beside';
import { SPEC_NAMES } from '../../words';

// What a fitter comes here to do: see which setups are nearest; set a few beside the frame; take one on to the aim.
const fitting = useFitting();
const marks = useBenchMarks();
const { sheet, show } = useWorking();

const library = useLibrary();
const whole = useWholeLibrary();
const looked = ref<string>();
const { ids: besideIds, full, add, toggle } = useSetBeside();
const others = useBeside();
const onlyMeasured = computed({
  get: () => library.query.kind === 'measured',
  set: (only) => {
    library.query.kind = only ? 'measured' : null;
  },
});
/** Only what this frame can get to, and only what is brushed: of the whole library, once that was worked out. */
const onlyReached = ref(false);
const isBeside = (id: string): boolean => besideIds.value.includes(id);

const shownMarks = computed(() => ({
  ...marks.value,
  setups: (marks.value.setups ?? []).map((s) => ({ ...s, marked: s.marked || s.id === looked.value })),
}));
const compared = (id: string): Compared | undefined =>
  library.named(id) ?? others.all.find((one) => one.id === id);
const ghosts = computed(() => {
  const ids = [...besideIds.value];
  if (looked.value && !ids.includes(looked.value)) ids.push(looked.value);
  return ids.slice(-MOST_BESIDE).flatMap((id) => {
    const found = compared(id);
    const balanceCm = found?.specs.balanceCm;
    return found && balanceCm !== undefined ? [{ id, name: found.name, balanceCm }] : [];
  });
});

useArrowsAlong('.row');

/** How the library is strung. */
const tensions = shallowRef<AnswerOf<'setupTensions'>>(null);
watch(
  () => fitting.record?.shape.sport,
  async (sport) => {
    tensions.value = null;
    if (!sport || !isStrung(sport)) return;
    // Nothing else waits for it, or fails with it.
    const found = await api('setupTensions', { query: { sport } }).catch(() => null);
    if (fitting.record?.shape.sport === sport) tensions.value = found;
  },
  { immediate: true },
);

/** Three views of the same choice. */
const ComparePlane = later(() => import('./ComparePlane.vue'));
const VIEWS = [
  { value: 'lanes', title: 'Lanes' },
  { value: 'plane', title: 'Plane' },
  { value: 'table', title: 'Table' },
] as const;
type View = (typeof VIEWS)[number]['value'];
const view = useKept<View>('kevro-compare-view', 'lanes');
useKeys({
  v: () => {
    const at = VIEWS.findIndex(({ value }) => value === view.value);
    view.value = VIEWS[(at + 1) % VIEWS.length]?.value ?? 'lanes';
  },
});
const brush = ref<Brush>();
watch(
  () => fitting.measurement?.id,
  () => {
    brush.value = undefined;
  },
);
/** What is kept to of the whole library, nearest first; nothing where it was not worked out, or all of it counts. */
const keptTo = computed(() => {
  const { value: within } = brush;
  if (!whole.ready || !(onlyReached.value || within)) return undefined;
  return whole.list(
    (part, i) =>
      (!onlyReached.value || part.reachable[i] === 1) &&
      (!within || inBrush(within, { massG: part.massG[i], balanceCm: part.balanceCm[i] })),
  );
});
watchDebounced(keptTo, (ids) => library.keepTo(ids), { debounce: 150 });
// What was kept to goes with what it was worked out from.
watch(
  () => whole.ready,
  (ready) => {
    if (!ready) onlyReached.value = false;
  },
);
const listed = computed(() => {
  const within = brush.value;
  return within ? library.found.filter(({ specs }) => inBrush(within, specs)) : library.found;
});
/** What this frame itself lacks is said once. */
const lacks = computed(() => SPEC_KEYS.filter((key) => fitting.before?.[key] === undefined));
function explain(n: Compared, key: SpecKey): void {
  if (!n.brought) return;
  show(
    key,
    explainOutcome(key, n.brought.outcome, {
      before: isBeside(n.id) && others.all.includes(n) ? 'as it was' : 'as published',
      after: 'shown as this frame is strung and gripped',
      nameOf: (part) => `${part.name}, ${part.takenOff ? 'taken off' : 'put on'}`,
      assumes: 'typical masses of strings and grips where they were not weighed',
    }),
    n.name,
  );
}
/** In the table: those set beside first, then the nearest. */
const tabled = computed(() => [
  ...others.all,
  ...library.beside,
  ...listed.value.filter(({ id }) => !isBeside(id)),
]);
const nearestId = computed(() => library.beside[0]?.id);
</script>

<template>
  <NotYet
    v-if="!fitting.before || !fitting.frame || !fitting.record"
    missing="Nothing is measured yet"
    station="measure"
  />
  <Bench v-else :title="`Compare ${fitting.record.tag}`" aside-label="Setups, nearest first">
    <div class="views">
      <ChoiceRow v-model="view" class="no-print" label="Compare in" :choices="VIEWS" />
      <span class="soft small">
        All shown {{ dressWords(fitting.dress ?? {}, fitting.record.shape.sport) }}.
      </span>
      <PickBeside class="pick" :there="besideIds" @add="add" />
    </div>
    <MeasuredFrame
      v-if="view === 'lanes'"
      :frame="fitting.frame"
      :before="fitting.before"
      :shape="fitting.record.shape"
      :marks="shownMarks"
      :ghosts="ghosts"
    />
    <ComparePlane
      v-else-if="view === 'plane'"
      v-model:brush="brush"
      :frame="fitting.frame"
      :own="fitting.before"
      :setups="[...others.all, ...library.atHand]"
      :beside="besideIds"
      :library="whole.parts"
    />
    <CompareTable
      v-else
      :frame="fitting.frame"
      :own="fitting.before"
      :tag="fitting.record.tag"
      :setups="tabled"
      :beside="besideIds"
      :reached="whole.ready ? whole.reached : undefined"
      :strung="fitting.bed ? bedWords(fitting.bed) : ''"
      @toggle="toggle"
      @explain="explain"
    />
    <template #aside>
      <ul v-if="others.all.length > 0" class="list" aria-label="Beside this frame">
        <li v-for="n in others.all" :key="n.id">
          <NearRow
            :near="n"
            :shape="fitting.record.shape"
            beside
            :lacks="lacks"
            @toggle="toggle(n.id)"
            @explain="explain(n, $event)"
          />
        </li>
      </ul>
      <div>
        <h2 class="heading">Nearest setups</h2>
        <p v-if="fitting.bed || tensions" class="small mb-1">
          <template v-if="fitting.bed">This frame: {{ bedWords(fitting.bed) }}.</template>
          <span v-if="tensions" class="soft"
            >{{ ' ' }}{{ spreadWords(tensions, fitting.bed?.stringing.unit ?? 'kg') }}</span
          >
        </p>
        <p v-if="lacks.length > 0" class="soft small mb-0">
          {{ lacks.map((key, i) => (i === 0 ? SPEC_NAMES[key] : specName(key))).join(' and ') }} not measured:
          distances ignore it.
        </p>
      </div>
      <v-text-field
        v-model="library.query.search"
        label="Find by name, frame or source"
        clearable
        @click:clear="library.query.search = ''"
      />
      <v-checkbox v-model="onlyMeasured" label="Only measured by us" />
      <div v-if="whole.working" class="line small" role="status">
        <v-progress-linear
          :model-value="whole.total > 0 ? (100 * whole.done) / whole.total : 0"
          aria-label="How much of the library is worked out"
          height="6"
        />
        <span class="nowrap">{{ whole.done }} of {{ whole.total }}</span>
        <button type="button" class="all" @click="whole.forget()">stop</button>
      </div>
      <v-checkbox
        v-else-if="whole.ready"
        v-model="onlyReached"
        :label="`Only what this frame can become (${whole.reachableCount})`"
      />
      <v-btn v-else variant="outlined" @click="whole.start()">What can this frame become?</v-btn>
      <p v-if="whole.failure" class="miss small mb-0" role="alert">{{ whole.failure }}</p>
      <p v-if="library.failure" class="miss" role="alert">{{ library.failure }}</p>
      <p v-else-if="library.loading && library.found.length === 0" class="soft" role="status">
        Finding setups…
      </p>
      <p v-else-if="library.inAll.total === 0" class="soft">
        {{
          library.query.search || library.query.kind
            ? 'No setups found. Try fewer letters or all sources.'
            : 'The library has no setup of this sport. Add one under Setups, then come back.'
        }}
      </p>
      <p v-else-if="brush" class="line small">
        <span v-if="keptTo">{{ keptTo.length }} selected from the library</span>
        <span v-else>{{ listed.length }} selected of {{ library.found.length }} loaded</span>
        <button type="button" class="all" @click="brush = undefined">show all</button>
      </p>
      <ul v-if="library.inAll.total > 0" class="list">
        <li v-for="n in listed" :key="n.id">
          <NearRow
            :near="n"
            :shape="fitting.record.shape"
            :beside="isBeside(n.id)"
            :lacks="lacks"
            :reached="whole.reached(n.id)"
            @toggle="toggle(n.id)"
            @look="looked = $event ? n.id : undefined"
            @explain="explain(n, $event)"
          />
        </li>
      </ul>
      <v-btn
        v-if="library.found.length < library.inAll.total || library.inAll.orMore"
        variant="outlined"
        :loading="library.loading"
        @click="library.more()"
      >
        More: {{ howMany(library.inAll, library.found.length) }} are further away
      </v-btn>
    </template>
    <template #action>
      <p v-if="full" class="warn small mb-0" role="alert">{{ full }}</p>
      <v-btn
        color="primary"
        size="large"
        block
        :to="{ name: 'aim', query: nearestId ? { setup: nearestId } : {} }"
        >{{ nearestId ? 'Aim from these' : 'Go on to Aim' }}</v-btn
      >
    </template>
    <template #keys>
      <span><kbd>v</kbd> lanes, plane, table</span><span><kbd>↑</kbd> <kbd>↓</kbd> along the setups</span
      ><span><kbd>Enter</kbd> set beside the frame</span>
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
.list {
  list-style: none;
  padding: 0;
  margin: 0;
}
.list li {
  border-top: 1px solid rgb(var(--v-theme-line));
}
.views {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  margin: 6px 0;
}
.pick {
  flex: 0 1 300px;
  min-width: 220px;
  margin-left: auto;
}
@media (min-width: 1200px) {
  .views :deep(.choices label) {
    min-height: 34px;
    padding-inline: 10px;
  }
}
.all {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
</style>
