<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { SPEC_KEYS, explainOutcome, type SpecKey } from '@kevro/core';
import { api } from '../../api/client';
import { useArrowsAlong, useKeys } from '../../app/keys';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import { dressWords } from '../../parts/dress-words';
import { useKept } from '../../parts/kept';
import { later } from '../../parts/later';
import { useFitting } from '../../stores/fitting';
import { useLibrary, type NearSetup } from '../../stores/library';
import { useSaved } from '../../stores/saved';
import WorkingSheet from '../../working/WorkingSheet.vue';
import { SPEC_NAMES } from '../../words';
import Bench from '../Bench.vue';
import MeasuredFrame from '../MeasuredFrame.vue';
import NotYet from '../NotYet.vue';
import { useBenchMarks } from '../bench-marks';
import { useWorking } from '../working';
import CompareTable from './CompareTable.vue';
import NearRow from './NearRow.vue';
import { inBrush, type Brush } from './plane';

// What a fitter comes here to do: see which setups are nearest; set a few beside the frame; take one on to the aim.
const fitting = useFitting();
const saved = useSaved();
const marks = useBenchMarks();
const { sheet, show } = useWorking();
const MOST_GHOSTS = 4;

const library = useLibrary();
const looked = ref<string>();
const full = ref('');
const onlyMeasured = computed({
  get: () => library.query.kind === 'measured',
  set: (only) => {
    library.query.kind = only ? 'measured' : null;
  },
});
const isBeside = (id: string): boolean => fitting.references.includes(id);

const shownMarks = computed(() => ({
  ...marks.value,
  setups: (marks.value.setups ?? []).map((s) => ({ ...s, marked: s.marked || s.id === looked.value })),
}));
const ghosts = computed(() => {
  const ids = [...fitting.references];
  if (looked.value && !ids.includes(looked.value)) ids.push(looked.value);
  return ids.slice(-MOST_GHOSTS).flatMap((id) => {
    const found = library.named(id);
    const balanceCm = found?.specs.balanceCm;
    return found && balanceCm !== undefined ? [{ id, name: found.setup.name, balanceCm }] : [];
  });
});

/** The choices are sent one after the other; only the answer to the newest is shown. */
let sending: Promise<unknown> = Promise.resolve();
let newest = 0;
async function toggle(id: string): Promise<void> {
  const { view } = fitting;
  if (!view) return;
  full.value = '';
  if (!isBeside(id) && view.references.length >= MOST_GHOSTS) {
    // None goes without a word.
    full.value = `${MOST_GHOSTS} setups are set beside it already. Take one of them away first.`;
    return;
  }
  const body = isBeside(id) ? view.references.filter((r) => r !== id) : [...view.references, id];
  // Shown at once, so that a second click counts from it.
  fitting.view = { ...view, references: body };
  const own = ++newest;
  const sent = sending.then(() => api('setReferences', { id: view.id, body }));
  sending = sent.catch(() => undefined);
  try {
    const answer = await sent;
    if (own === newest) await fitting.stored(answer);
    else saved.stored();
  } catch (error) {
    // What was not stored is not shown as if it were.
    if (own === newest && fitting.view) fitting.view = { ...fitting.view, references: view.references };
    saved.failed(error);
  }
}

useArrowsAlong('.row');

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
const listed = computed(() => {
  const within = brush.value;
  return within ? library.found.filter(({ specs }) => inBrush(within, specs)) : library.found;
});
/** What this frame itself lacks is said once. */
const lacks = computed(() => SPEC_KEYS.filter((key) => fitting.before?.[key] === undefined));
function explain(n: NearSetup, key: SpecKey): void {
  show(
    key,
    explainOutcome(key, n.brought.outcome, {
      before: 'as published',
      after: 'in the dress of this frame',
      nameOf: (part) => `${part.name}, ${part.takenOff ? 'taken off' : 'put on'}`,
      assumes: 'typical masses of strings and grips where they were not weighed',
    }),
    n.setup.name,
  );
}
/** In the table: those set beside first, then the nearest. */
const tabled = computed(() => [
  ...library.beside,
  ...listed.value.filter(({ setup }) => !isBeside(setup.id)),
]);
const nearestId = computed(() => library.beside[0]?.setup.id);
</script>

<template>
  <NotYet
    v-if="!fitting.before || !fitting.frame || !fitting.record"
    missing="Nothing is measured yet"
    station="measure"
  />
  <Bench v-else :title="`Compare ${fitting.record.tag}`" aside-label="Setups, nearest first">
    <div class="views">
      <ChoiceRow v-model="view" label="Compare in" :choices="VIEWS" />
      <span class="soft small">
        All brought to: {{ dressWords(fitting.dress ?? {}, fitting.record.shape.sport) }}.
      </span>
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
      :setups="library.atHand"
      :beside="fitting.references"
    />
    <CompareTable
      v-else
      :frame="fitting.frame"
      :own="fitting.before"
      :tag="fitting.record.tag"
      :setups="tabled"
      :beside="fitting.references"
      @toggle="toggle"
      @explain="explain"
    />
    <template #aside>
      <div>
        <h2 class="heading">Setups, nearest to this frame first</h2>
        <p v-if="lacks.length > 0" class="soft small mb-0">
          This frame’s {{ lacks.map((key) => SPEC_NAMES[key].toLowerCase()).join(' and ') }} is not known:
          distances are without it.
        </p>
      </div>
      <v-text-field
        v-model="library.query.search"
        label="Find by name, frame or source"
        clearable
        @click:clear="library.query.search = ''"
      />
      <v-checkbox v-model="onlyMeasured" label="Only measured by us" />
      <p v-if="library.failure" class="miss" role="alert">{{ library.failure }}</p>
      <p v-else-if="library.loading && library.found.length === 0" class="soft" role="status">
        Looking for the nearest setups…
      </p>
      <p v-else-if="library.total === 0" class="soft">
        {{
          library.query.search || library.query.kind
            ? 'No setup matches. Type less, or show all sources.'
            : 'The library has no setup of this sport. Add one under Setups, then come back.'
        }}
      </p>
      <p v-else-if="brush" class="line small">
        <span>{{ listed.length }} of the {{ library.found.length }} at hand are in the brush</span>
        <button type="button" class="all" @click="brush = undefined">show all</button>
      </p>
      <ul v-if="library.total > 0" class="list">
        <li v-for="n in listed" :key="n.setup.id">
          <NearRow
            :near="n"
            :shape="fitting.record.shape"
            :beside="isBeside(n.setup.id)"
            :lacks="lacks"
            @toggle="toggle(n.setup.id)"
            @look="looked = $event ? n.setup.id : undefined"
            @explain="explain(n, $event)"
          />
        </li>
      </ul>
      <v-btn
        v-if="library.found.length < library.total"
        variant="outlined"
        :loading="library.loading"
        @click="library.more()"
      >
        More: {{ library.total - library.found.length }} are further away
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
@media (min-width: 1200px) {
  .views :deep(label) {
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
