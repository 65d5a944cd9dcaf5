<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import {
  PRIORITIES as ALL_PRIORITIES,
  SPEC_KEYS,
  aimForConditions,
  guardsOf,
  hasTarget,
  unansweredGuards,
  targetOf,
  type Conditions,
  type SpecKey,
} from '@kevro/core';
import { guardedPlayer, sentence } from '@kevro/contract';
import { Refused, api } from '../../api/client';
import { shopYear } from '../../words/days';
import DraftNotice from '../../forms/DraftNotice.vue';
import DressForm from '../../forms/DressForm.vue';
import MoreFields from '../../ui/MoreFields.vue';
import NumberField from '../../forms/NumberField.vue';
import { useActKey } from '../../forms/act-key';
import { focusWrong } from '../../ui/focus';
import UnsavedSheet from '../../ui/UnsavedSheet.vue';
import { useKept } from '../../ui/kept';
import { numberOf } from '../../ui/typed';
import { useUnsaved } from '../../ui/unsaved';
import { useFitting } from '../../stores/fitting';
import { useLibrary } from '../../stores/library';
import { useSaved } from '../../stores/saved';
import { useShop } from '../../stores/shop';
import { useUnits } from '../../stores/units';
import Bench from '../../bench/Bench.vue';
import MeasuredFrame from '../../bench/MeasuredFrame.vue';
import NotYet from '../../bench/NotYet.vue';
import { dressWords } from '../../words/dress';
import { CONDITION_WORDS, SPEC_NAMES, PRIORITY_WORDS } from '../../words';
import AimJudged from './AimJudged.vue';
import AimLearned from './AimLearned.vue';
import AimSource from './AimSource.vue';
import EarlierAims from './EarlierAims.vue';
import AimMeaning from './AimMeaning.vue';
import AimWays from './AimWays.vue';
import { useAimDraft } from './aim-draft';
import { useBenchMarks } from '../../bench/bench-marks';

// What a fitter comes here to do: take an aim from somewhere, or part of the way to it; see what it means and whether this frame gets there; set it, with a reason where something speaks against it.
const fitting = useFitting();
const shop = useShop();
const saved = useSaved();
const units = useUnits();
const marks = useBenchMarks();
const route = useRoute();
const router = useRouter();

const library = useLibrary();
const aim = useAimDraft(typeof route.query.setup === 'string' ? route.query.setup : undefined);
const { kept, draft, shape, setup, typedByHand, read, taking } = aim;
const by = useKept('kevro-by', '');
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

const guards = computed(() => {
  const { record, view } = fitting;
  const finished = aim.finished.value;
  if (!record || !finished || !view || Object.keys(read.value.errors).length > 0) return [];
  const { shape: of } = record;
  return guardsOf({
    shape: of,
    ...finished,
    target: read.value.aim,
    player: guardedPlayer(view.player, of.sport, shopYear()),
    own: shop.shop?.sports[of.sport],
  });
});
/** A strong guard is gone past only with a reason. */
const unanswered = computed(() => unansweredGuards(guards.value, draft.value.overridden));
/** Half a step of balance for where it is played: the note says so. */
function forConditions(conditions: Conditions): void {
  aim.take(aimForConditions(shop.sportOf(shape.value.sport), read.value.aim, conditions));
  const said = CONDITION_WORDS[conditions];
  if (!draft.value.note.includes(said))
    draft.value.note = [draft.value.note, said].filter(Boolean).join('; ');
}
const answerFirst = ref(false);
const empty = ref(false);

const shownMarks = computed(() => {
  const finished = draft.value.finish ? aim.finished.value?.specs : undefined;
  return { ...marks.value, aim: read.value.aim, ...(finished ? { predicted: finished } : {}) };
});
const ghosts = computed(() => {
  const balanceCm = setup.value?.specs.balanceCm;
  return ['copy', 'part-way'].includes(draft.value.way) && setup.value && balanceCm !== undefined
    ? [{ id: setup.value.setup.id, name: setup.value.setup.name, balanceCm }]
    : [];
});

/** How close a spec is to come, in a line: what is seldom changed stands behind it. */
const howClose = (key: SpecKey): string => {
  const { tolerance, priority } = draft.value.rows[key];
  if (priority === 'free') return PRIORITY_WORDS.free;
  const within = numberOf(tolerance);
  return `within ±${within === undefined ? '?' : units.sayWidth(key, within, shape.value.sport)} · ${PRIORITY_WORDS[priority]}`;
};

/** What was opened: its fields are made then. */
const unfolded = reactive(new Set<'finish' | SpecKey>());

const busy = ref(false);
const refused = ref<Refused>();
const specs = ref<HTMLFormElement>();
watch(
  draft,
  () => {
    refused.value = undefined;
    empty.value = false;
  },
  { deep: true },
);
const errorAt = (path: string): string | undefined =>
  read.value.errors[path] ?? refused.value?.at(`target.${path}`);

const actKey = useActKey();
async function store(): Promise<void> {
  const { view, round } = fitting;
  if (!view || !round || busy.value) return;
  if (Object.keys(read.value.errors).length > 0) {
    await focusWrong(specs.value);
    return;
  }
  empty.value = !hasTarget(read.value.aim);
  if (empty.value) return;
  answerFirst.value = unanswered.value.length > 0;
  if (answerFirst.value) return;
  busy.value = true;
  try {
    const { way, setupId, note, overridden } = draft.value;
    const body = {
      roundId: round.id,
      way,
      setupId: way === 'copy' || way === 'part-way' ? setupId : null,
      source: taking.value,
      target: read.value.aim,
      finish: draft.value.finish,
      guards: guards.value.flatMap(({ code }) => {
        const why = overridden[code]?.trim();
        return why ? [{ code, note: why }] : [];
      }),
      note,
      by: by.value,
      after: fitting.aim?.id ?? null,
    };
    await actKey.once((own) => api('setAim', { id: view.id, body: { ...body, key: own } }));
    kept.stored();
    await fitting.stored();
    await router.push({ name: 'plan' });
  } catch (error) {
    saved.failed(error);
    if (!(error instanceof Refused)) return;
    // What stands now is shown, with what was typed beside it.
    if (error.code === 'aim-outdated') await fitting.refresh();
    refused.value = error;
    await focusWrong(specs.value);
  } finally {
    busy.value = false;
  }
}

const PRIORITIES = ALL_PRIORITIES.map((value) => ({ value, title: PRIORITY_WORDS[value] }));
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
      aimable
      @aim="typedByHand"
    />
    <template #aside>
      <DraftNotice :draft="kept" />
      <AimWays :aim="aim" />
      <AimSource :aim="aim" :setups="choices" @search="searchSetups" />
      <AimLearned :aim="aim" />
      <details class="finish" :open="draft.finish !== null" @toggle.once="unfolded.add('finish')">
        <summary>
          <b>Finished as</b> {{ dressWords(aim.finished.value?.dress ?? {}, shape.sport) }}
          <span class="link">change</span>
        </summary>
        <DressForm
          v-if="unfolded.has('finish') || draft.finish !== null"
          class="mt-2"
          :model-value="aim.finished.value?.dress ?? {}"
          :sport="shape.sport"
          :error="refused?.at('finish') ?? ''"
          @update:model-value="aim.finishAs"
        />
      </details>
      <form id="aim" ref="specs" class="specs" novalidate @submit.prevent="store">
        <fieldset v-for="key in SPEC_KEYS" :key="key">
          <NumberField
            :model-value="draft.rows[key].value"
            :label="SPEC_NAMES[key]"
            :spec="key"
            :shape="shape"
            :error="errorAt(`${key}.value`)"
            hide-details="auto"
            @update:model-value="typedByHand(key, $event)"
          />
          <details @toggle.once="unfolded.add(key)">
            <summary>{{ howClose(key) }}</summary>
            <div v-if="unfolded.has(key)" class="second">
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
      <div v-if="targetOf(read.aim, 'balanceCm')" class="small conditions">
        <span class="soft">Adjust for</span>
        <button type="button" class="link" @click="forConditions('hot-fast')">hot, fast courts</button>
        <span class="soft">(control) or</span>
        <button type="button" class="link" @click="forConditions('cold-slow')">cold, slow courts</button>
        <span class="soft">(power): half a step of balance.</span>
      </div>
      <AimMeaning :aim="aim" />
      <MoreFields title="Notes">
        <v-text-field v-model="draft.note" label="Reason" />
        <v-text-field v-model="by" label="Decided by" />
      </MoreFields>
      <p v-if="settled && fitting.view" class="small mb-0">
        <router-link :to="{ name: 'shelf', query: { fitting: fitting.view.id, frame: fitting.record?.id } }"
          >Find the closest frame in stock</router-link
        >
      </p>
      <EarlierAims />
    </template>
    <template #action>
      <div class="judged"><AimJudged :aim="aim" :guards="guards" /></div>
      <p v-if="empty" class="miss small mb-0" role="alert">{{ sentence('empty-aim') }}</p>
      <p v-if="answerFirst && unanswered.length > 0" class="warn small mb-0" role="alert">
        Give a reason beside {{ unanswered.length === 1 ? 'the warning' : 'each warning' }} above.
      </p>
      <v-btn v-if="settled" color="primary" size="large" block :to="{ name: 'plan' }">Go on to Plan</v-btn>
      <v-btn v-else type="submit" form="aim" color="primary" size="large" block :loading="busy"
        >Set this aim</v-btn
      >
    </template>
    <template #keys
      ><span><kbd>Tab</kbd> next field</span><span><kbd>Enter</kbd> set the aim</span
      ><span><kbd>←→</kbd> move an aim in its lane</span></template
    >
  </Bench>
  <UnsavedSheet :question="question" what="The aim has changed but is not set." />
</template>

<style scoped>
.finish summary {
  color: inherit;
  font-size: inherit;
}
/* Warnings stand over the button, always in sight. */
.judged {
  display: flex;
  flex-direction: column;
  gap: 6px;
  max-height: 34vh;
  overflow-y: auto;
}
/* Between words in a row of elements no space is left by the template. */
.conditions .link {
  margin-inline: 0.3em;
}
.specs {
  display: grid;
  gap: 6px;
}
fieldset {
  border: 0;
  padding: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 104px;
  gap: 2px 8px;
  align-items: center;
  min-width: 0;
  margin: 0;
}
details[open] {
  grid-column: 1 / -1;
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
