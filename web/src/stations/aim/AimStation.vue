<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { PRIORITIES as ALL_PRIORITIES, SPEC_KEYS, aimGuards, type SpecKey } from '@kevro/core';
import { Refused, api } from '../../api/client';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import DraftNotice from '../../parts/DraftNotice.vue';
import NumberField from '../../parts/NumberField.vue';
import { focusWrong } from '../../parts/focus';
import UnsavedSheet from '../../parts/UnsavedSheet.vue';
import { numberOf } from '../../parts/typed';
import { useUnsaved } from '../../parts/unsaved';
import { useFitting } from '../../stores/fitting';
import { useLibrary } from '../../stores/library';
import { useSaved } from '../../stores/saved';
import { useUnits } from '../../stores/units';
import Bench from '../Bench.vue';
import MeasuredFrame from '../MeasuredFrame.vue';
import NotYet from '../NotYet.vue';
import { SPEC_NAMES } from '../../words';
import { useAimDraft, type Way } from './aim-draft';
import { guardWords } from './guard-words';
import { useBenchMarks } from '../bench-marks';

// What a fitter comes here to do: take a setup's numbers, or half the way to them; change what they know better; say what matters.
const fitting = useFitting();
const saved = useSaved();
const units = useUnits();
const marks = useBenchMarks();
const route = useRoute();
const router = useRouter();

const library = useLibrary();
const { kept, draft, shape, setup, choose, typedByHand, read } = useAimDraft(
  typeof route.query.setup === 'string' ? route.query.setup : undefined,
);
const choices = computed(() => {
  const beside = new Set(fitting.references);
  const { setupId } = draft.value;
  // Until the chosen one is there, its field must not show a key for a name.
  const coming = setupId && !setup.value ? [{ value: setupId, title: 'looking it up…', subtitle: '' }] : [];
  const known = [...library.atHand]
    .sort((a, b) => Number(beside.has(b.setup.id)) - Number(beside.has(a.setup.id)))
    .map((n) => ({
      value: n.setup.id,
      title: n.setup.name + (n.setup.year ? ` ${n.setup.year}` : ''),
      subtitle: `${n.unknown.length > 0 ? 'at least ' : ''}${n.distanceSteps.toFixed(1)} steps away${beside.has(n.setup.id) ? ', set beside' : ''}`,
    }));
  return [...coming, ...known];
});
watch(
  () => [draft.value.setupId, fitting.measurement?.id],
  ([id]) => {
    if (id) void library.ask(id);
  },
  { immediate: true },
);
/** What is typed asks the server for setups; the name of the chosen one, which the field writes itself, does not. */
function searchSetups(text: string): void {
  const own = choices.value.find(({ value }) => value === draft.value.setupId);
  library.query.search = text === own?.title ? '' : text;
}

const settled = computed(() => fitting.aim && !kept.dirty.value);
const question = useUnsaved(kept.dirty);

const guards = computed(() =>
  aimGuards(read.value.aim, {
    ceilingSwingWeight: fitting.view?.player.ceilings[shape.value.sport],
  }).map((guard) => guardWords(guard, fitting.view?.player.name ?? 'this player')),
);

const shownMarks = computed(() => ({ ...marks.value, aim: read.value.aim }));
const ghosts = computed(() => {
  const balanceCm = setup.value?.specs.balanceCm;
  return draft.value.way !== 'by-hand' && setup.value && balanceCm !== undefined
    ? [{ id: setup.value.setup.id, name: setup.value.setup.name, balanceCm }]
    : [];
});

/** How close a spec is to come, in a line: what is seldom changed stands behind it. */
const howClose = (key: SpecKey): string => {
  const { tolerance, priority } = draft.value.rows[key];
  if (priority === 'free') return 'free: left out of the plan';
  const within = numberOf(tolerance);
  return `within ±${within === undefined ? '?' : units.sayWidth(key, within, shape.value.sport)} · ${priority}`;
};

const busy = ref(false);
const refused = ref<Refused>();
const specs = ref<HTMLFormElement>();
watch(draft, () => (refused.value = undefined), { deep: true });
const errorAt = (path: string): string | undefined =>
  read.value.errors[path] ?? refused.value?.at(`target.${path}`);

async function store(): Promise<void> {
  const { view, round } = fitting;
  if (!view || !round || busy.value) return;
  if (Object.keys(read.value.errors).length > 0) {
    focusWrong(specs.value);
    return;
  }
  busy.value = true;
  try {
    const { way, setupId } = draft.value;
    await api('setAim', {
      id: view.id,
      body: {
        roundId: round.id,
        way,
        setupId: way === 'by-hand' ? null : setupId,
        target: read.value.aim,
      },
    });
    kept.stored();
    await fitting.stored();
    await router.push({ name: 'plan' });
  } catch (error) {
    saved.failed(error);
    if (!(error instanceof Refused)) return;
    refused.value = error;
    await nextTick();
    focusWrong(specs.value);
  } finally {
    busy.value = false;
  }
}

const WAYS: { title: string; value: Way }[] = [
  { title: 'Copy', value: 'copy' },
  { title: 'Part of the way', value: 'part-way' },
  { title: 'By hand', value: 'by-hand' },
];
const PRIORITIES = ALL_PRIORITIES.map((value) => ({ value, title: value }));
</script>

<template>
  <NotYet v-if="!fitting.before || !fitting.frame" missing="Nothing is measured yet" station="measure" />
  <Bench v-else :title="`Aim for ${fitting.record?.tag ?? ''}`" aside-label="Aim">
    <MeasuredFrame
      :frame="fitting.frame"
      :before="fitting.before"
      :shape="shape"
      :marks="shownMarks"
      :ghosts="ghosts"
    />
    <template #aside>
      <DraftNotice :draft="kept" />
      <ChoiceRow
        :model-value="draft.way"
        label="Way to an aim"
        :choices="WAYS"
        @update:model-value="choose({ way: $event })"
      />
      <template v-if="draft.way !== 'by-hand'">
        <v-autocomplete
          :model-value="draft.setupId"
          :items="choices"
          label="Setup"
          item-props
          no-filter
          :error-messages="setup ? [] : ['Choose a setup.']"
          @update:search="searchSetups"
          @update:model-value="choose({ setupId: $event })"
        />
        <div v-if="draft.way === 'part-way'">
          <label for="share" class="small soft">How far: {{ draft.share }} % of the way</label>
          <v-slider
            id="share"
            :model-value="draft.share"
            :min="0"
            :max="100"
            :step="5"
            aria-label="Share of the way, per cent"
            @update:model-value="choose({ share: Number($event) })"
          />
        </div>
      </template>
      <form id="aim" ref="specs" class="specs" novalidate @submit.prevent="store">
        <fieldset v-for="key in SPEC_KEYS" :key="key">
          <NumberField
            :model-value="draft.rows[key].value"
            :label="SPEC_NAMES[key]"
            :spec="key"
            :shape="shape"
            :error="errorAt(`${key}.value`)"
            @update:model-value="typedByHand(key, $event)"
          />
          <details>
            <summary>{{ howClose(key) }}</summary>
            <div class="second">
              <NumberField
                v-model="draft.rows[key].tolerance"
                label="within ±"
                :spec="key"
                :shape="shape"
                width
                :error="errorAt(`${key}.tolerance`)"
              />
              <v-select v-model="draft.rows[key].priority" :items="PRIORITIES" label="priority" />
            </div>
          </details>
        </fieldset>
      </form>
      <p v-for="guard in guards" :key="guard" class="warn small mb-0" role="status">⚠ {{ guard }}</p>
    </template>
    <template #action>
      <v-btn v-if="settled" color="primary" size="large" block :to="{ name: 'plan' }">Go on to Plan</v-btn>
      <v-btn v-else type="submit" form="aim" color="primary" size="large" block :loading="busy"
        >Set this aim</v-btn
      >
    </template>
    <template #keys
      ><span><kbd>Tab</kbd> next field</span><span><kbd>Enter</kbd> set the aim</span></template
    >
  </Bench>
  <UnsavedSheet :question="question" what="The aim has changed but is not set." />
</template>

<style scoped>
.specs {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
fieldset {
  border: 0;
  padding: 0;
  display: grid;
  grid-template-columns: 1fr;
  gap: 2px;
  border-top: 1px solid rgb(var(--v-theme-line));
  padding-top: 10px;
}
summary {
  cursor: pointer;
  font-size: 13.5px;
  color: rgb(var(--v-theme-soft));
  padding: 3px 0;
}
.second {
  padding-top: 6px;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
</style>
