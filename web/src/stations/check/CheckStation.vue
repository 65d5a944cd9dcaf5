<script setup lang="ts">
import { partWeight } from '../../words/part-weight';
import { computed, nextTick, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import {
  specName,
  SPEC_KEYS,
  conformance,
  deviationFrom,
  verdictOf,
  withinTolerance,
  targetOf,
  type NumberKey,
  type SpecKey,
  type Trim,
} from '@kevro/core';
import { Refused, api } from '../../api/client';
import { useActKey } from '../../forms/act-key';
import { useKeys } from '../../ui/keys';
import Lanes from '../../lanes/Lanes.vue';
import { momentWords } from '../../words/days';
import { useKept } from '../../ui/kept';
import { saveFile } from '../../ui/save-file';
import Rail from '../../rail/Rail.vue';
import { useFitting } from '../../stores/fitting';
import { useSaved } from '../../stores/saved';
import { useShop } from '../../stores/shop';
import { useUnits } from '../../stores/units';
import WorkingSheet from '../../bench/WorkingSheet.vue';
import { SPEC_NAMES } from '../../words';
import Bench from '../../bench/Bench.vue';
import NotYet from '../../bench/NotYet.vue';
import { readingWorking, useBenchMarks } from '../../bench/bench-marks';
import { sweetOf } from '../../rail/sweet';
import { percent } from '../../words/chance';
import { missWords } from '../../words/plan';
import { useShopParts } from '../plan/shop-parts';
import { useWorking } from '../../bench/working';
import SetAlike from './SetAlike.vue';
import WhatItTaught from './WhatItTaught.vue';
import { useChecked } from './checked';
import { changeOfTrim, opensHandle, touchWords } from './words';
import { LEAVE, useChosenTrim, useTrims } from './trims';

// What a fitter comes here to do: see whether it measures right, and how sure that is; bring in what is not by the smallest touch; sign it off.
const fitting = useFitting();
const saved = useSaved();
const shop = useShop();
const units = useUnits();
const router = useRouter();
const marks = useBenchMarks();
const { sheet, show } = useWorking();
const { check, laid, signed } = useChecked();
const { parts: chosenParts } = useShopParts();
const { trims, failure: trimFailure, work } = useTrims();

const plan = computed(() => fitting.plan);
const aim = computed(() => fitting.aim?.target);
const sport = computed(() => fitting.record?.shape.sport ?? 'tennis');
const say = (key: SpecKey, amount: number): string => units.sayWidth(key, amount, sport.value);
const inside = computed(() =>
  aim.value && check.value ? withinTolerance(aim.value, check.value.specs) : false,
);
/** How sure it is that the frame is as it reads: an instrument may say inside of a frame outside. */
const sure = computed(() =>
  aim.value && check.value ? conformance(aim.value, check.value.specs, check.value.uncertainty) : undefined,
);
const verdict = computed(() => (aim.value && check.value ? verdictOf(aim.value, check.value.specs) : []));
const list = (keys: readonly SpecKey[]): string => {
  const names = keys.map((key) => specName(key));
  return names.length > 1 ? `${names.slice(0, -1).join(', ')} and ${names.at(-1)}` : (names[0] ?? '');
};
const insideWords = computed(() => {
  const keys = verdict.value.filter((v) => v.inside).map(({ spec }) => spec);
  const words = list(keys);
  return words
    ? `${words[0]?.toUpperCase()}${words.slice(1)} ${keys.length > 1 ? 'are' : 'is'} in tolerance.`
    : '';
});
const heading = computed(() => {
  if (!check.value || !aim.value) return '';
  if (inside.value) return 'Yes: it measures right';
  const missed = SPEC_KEYS.filter(
    (key) => targetOf(aim.value ?? {}, key) && check.value?.specs[key] === undefined,
  );
  if (missed.length > 0) return `Not known: ${list(missed)} was not measured`;
  const { specs } = check.value;
  const hand = { sport: shop.sportOf(sport.value), hand: specs.swingWeight };
  return `Not yet: ${missWords(aim.value, deviationFrom(aim.value, specs), say, hand)}`;
});

const shownMarks = computed(() => ({
  ...marks.value,
  setups: [],
  ...(check.value ? { checked: check.value.specs, checkedUncertainty: check.value.uncertainty } : {}),
  ...(plan.value ? { predicted: plan.value.specs, predictedUncertainty: plan.value.uncertainty } : {}),
}));
const labels = computed(() => laid.value.map((p) => partWeight(p.massG / p.sides)));

// The pieces that a trim may use: those of the plan, and those chosen for it.
const parts = computed(() => {
  const own = plan.value?.parts ?? [];
  return [...own, ...chosenParts.value.filter(({ id }) => !own.some((part) => part.id === id))];
});
watch(
  [check, laid, parts],
  () => {
    const { record } = fitting;
    const [checked, target] = [check.value, aim.value];
    const wanted = checked && target && record && !inside.value && !signed.value;
    work(
      wanted
        ? {
            shape: record.shape,
            specs: checked.specs,
            target,
            placements: laid.value,
            parts: parts.value,
            instruments: fitting.instrumentsFrom(checked),
            wanted: shop.wanted,
            leastG: shop.sportOf(record.shape.sport).smallestPieceG,
          }
        : undefined,
    );
  },
  { immediate: true },
);
const touches = (trim: Trim): string[] =>
  trim.changes.map((change) => touchWords(change, laid.value, parts.value, units.bench));
/** What the specs furthest outside become: «swing weight 346.9 → 346.3». */
const becomes = (trim: Trim): string =>
  verdict.value
    .filter((v) => !v.inside)
    .map(({ spec, value }) => {
      const to = trim.specs[spec];
      const shape = fitting.record?.shape;
      if (to === undefined || !shape) return '';
      return `${specName(spec)} ${units.show(spec, value, shape)} → ${units.show(spec, to, shape)}`;
    })
    .join(', ');

const { chosen, trim } = useChosenTrim(trims, () => check.value?.id);

const note = ref('');
const noteError = ref('');
watch(note, () => (noteError.value = ''));
const noteField = ref<{ focus: () => void }>();
const by = useKept('kevro-by', '');
const busy = ref(false);

const key = useActKey();
async function trimIt(): Promise<void> {
  const { view, round, aim: record } = fitting;
  if (!view || !round || !record || !plan.value || !check.value || !trim.value || busy.value) return;
  busy.value = true;
  const { placements, removals } = changeOfTrim(trim.value.changes, laid.value);
  try {
    const body = {
      roundId: round.id,
      startId: check.value.id,
      aimId: record.id,
      trims: plan.value.id,
      school: plan.value.school,
      byHand: false,
      placements,
      removals,
    };
    await key.once((own) => api('choosePlan', { id: view.id, body: { ...body, key: own } }));
    await fitting.stored();
    await router.push({ name: 'build' });
  } catch (error) {
    saved.failed(error);
  } finally {
    busy.value = false;
  }
}
const signing = useActKey();
async function signOff(): Promise<void> {
  const { view } = fitting;
  if (!view || !plan.value || !check.value || busy.value) return;
  busy.value = true;
  try {
    const body = {
      planId: plan.value.id,
      measurementId: check.value.id,
      by: by.value,
      note: note.value,
    };
    await signing.once((own) => api('signOff', { id: view.id, body: { ...body, key: own } }));
    await fitting.stored();
  } catch (error) {
    if (error instanceof Refused && error.at('note')) {
      noteError.value = error.at('note') ?? '';
      await nextTick();
      noteField.value?.focus();
    } else saved.failed(error);
  } finally {
    busy.value = false;
  }
}
const measure = (): unknown => router.push({ name: 'measure', query: { for: 'check' } });
async function exportRecord(): Promise<void> {
  const { record } = fitting;
  if (!record) return;
  try {
    const page = await api('frame', { id: record.id });
    saveFile(
      `${record.tag}.json`,
      JSON.stringify({ ...page, signOffs: fitting.round?.signOffs ?? [] }, null, 2),
      'application/json',
    );
  } catch (error) {
    saved.failed(error);
  }
}
useKeys({
  m: measure,
  t: () => (trim.value && !signed.value ? void trimIt() : false),
});

function explain(what: NumberKey): void {
  if (fitting.frame) show(what, readingWorking(what, check.value, fitting.frame), 'measured');
}
</script>

<template>
  <NotYet
    v-if="!fitting.before || !fitting.frame || !fitting.record || !fitting.round"
    missing="Nothing is measured yet"
    station="measure"
  />
  <NotYet v-else-if="!plan || !aim" missing="No plan is chosen yet" station="plan" />
  <Bench v-else :title="`Check ${fitting.record.tag}`" aside-label="Check">
    <Rail
      :frame="fitting.frame"
      :dress="check?.dress ?? fitting.dress"
      :measured-balance-cm="check?.specs.balanceCm"
      :planned-balance-cm="plan.specs.balanceCm"
      :sweet-before="sweetOf(fitting.frame, fitting.before)"
      :sweet-after="sweetOf(fitting.frame, check?.specs)"
      :weights="laid"
      :weight-labels="labels"
    />
    <Lanes
      :marks="shownMarks"
      :shape="fitting.record.shape"
      :axis-cm="fitting.before.axisCm"
      @open="explain"
    />
    <p v-if="check" class="soft small mb-0">Solid: measured now. Open: planned. Grey: as it was found.</p>

    <template #aside>
      <section v-if="!check" aria-label="Check">
        <h2 class="heading">Check</h2>
        <p class="verdict">Not checked yet</p>
        <p class="soft small">
          Measure the finished frame. Kevro compares it with the target and suggests the smallest trim if
          needed.
        </p>
      </section>
      <section v-else aria-label="Check">
        <h2 class="heading">Check</h2>
        <p class="verdict" :class="inside ? 'good' : 'miss'" role="status">{{ heading }}</p>
        <p class="soft small mb-1">
          {{ insideWords }} Measured {{ momentWords(check.takenAt)
          }}{{ check.estimated.length > 0 ? ', in part estimated' : '' }}.
        </p>
        <p v-if="sure" class="small mb-0">
          <b>{{ percent(sure.all) }}</b> sure it is really in tolerance.
          <template v-if="inside && sure.all < 0.8"> Take more readings before relying on it.</template>
        </p>
        <ul v-if="sure" class="sure small">
          <li v-for="v in verdict" :key="v.spec">
            <span>{{ SPEC_NAMES[v.spec] }}</span>
            <span :class="v.inside ? 'good' : 'miss'">{{
              v.inside ? 'in tolerance' : 'out of tolerance'
            }}</span>
            <span class="num">{{ percent(sure.of[v.spec] ?? 0) }}</span>
          </li>
        </ul>
        <p v-if="check.leftRight" class="small mb-0">
          Left and right: the {{ check.leftRight.massG >= 0 ? 'right' : 'left' }} side is
          {{ Math.abs(check.leftRight.massG).toFixed(1) }} g ±{{
            (2 * check.leftRight.uncertainty).toFixed(1)
          }}
          heavier.
        </p>
      </section>
      <section v-if="check && !inside && !signed" aria-label="Smallest trim">
        <h2 class="heading">Smallest trim</h2>
        <p v-if="trimFailure" class="miss small" role="alert">Couldn’t work it out: {{ trimFailure }}</p>
        <p v-else-if="!trims" class="soft small" role="status">Finding the smallest trim…</p>
        <p v-else-if="trims.length === 0" class="warn small">
          No trim of one or two pieces fixes this.
          <RouterLink :to="{ name: 'plan' }">Make a new plan</RouterLink>, or measure again as a new start.
        </p>
        <div role="radiogroup" aria-label="What to do" class="ways">
          <label v-for="(one, i) in trims ?? []" :key="i" class="way" :class="{ on: chosen === i }">
            <input v-model="chosen" type="radio" name="trim" :value="i" class="d-sr-only" />
            <b v-for="words in touches(one)" :key="words" class="d-block">{{ words }}</b>
            <span class="soft small d-block"
              >{{ becomes(one) }} · {{ percent(one.chance) }} to pass{{
                opensHandle(one.changes, fitting.frame) ? ' · the grip comes off for it' : ''
              }}</span
            >
          </label>
          <label class="way" :class="{ on: chosen === LEAVE }">
            <input v-model="chosen" type="radio" name="trim" :value="LEAVE" class="d-sr-only" />
            <b class="d-block">Accept as is</b>
            <span class="soft small d-block">signed off out of tolerance</span>
          </label>
        </div>
      </section>
      <SetAlike v-if="fitting.view && fitting.view.frames.length > 1" />
      <template v-if="check && !signed && (inside || chosen === LEAVE)">
        <v-text-field
          ref="noteField"
          v-model="note"
          :label="inside ? 'Note' : 'Reason'"
          :error-messages="noteError ? [noteError] : []"
        />
        <v-text-field v-model="by" label="Signed off by" />
      </template>
      <WhatItTaught v-if="check" :key="check.id" :plan="plan" />
      <section v-if="signed" aria-label="Signed off">
        <h2 class="heading">Signed off</h2>
        <p class="mb-1">
          {{ momentWords(signed.at) }}{{ signed.by ? ` by ${signed.by}` : '' }}:
          <b :class="signed.passed ? 'good' : 'warn'">{{
            signed.passed ? 'all in tolerance' : 'out of tolerance'
          }}</b>
        </p>
        <p v-if="signed.note" class="small mb-1">{{ signed.note }}</p>
        <p class="soft small">Saved to this frame’s record: the next visit starts from there.</p>
        <div class="d-flex flex-wrap ga-2">
          <v-btn variant="outlined" :to="{ name: 'frame-card', params: { id: fitting.record.id } }"
            >The spec card</v-btn
          >
          <v-btn variant="outlined" @click="exportRecord">Its record as JSON</v-btn>
        </div>
      </section>
    </template>

    <template #action>
      <v-btn v-if="!check" color="primary" size="large" block @click="measure">Measure the check</v-btn>
      <v-btn v-else-if="signed" size="large" variant="outlined" block @click="measure"
        >Measure it again</v-btn
      >
      <template v-else>
        <v-btn v-if="trim && !inside" color="primary" size="large" block :loading="busy" @click="trimIt"
          >Trim, then measure again</v-btn
        >
        <v-btn
          v-else-if="inside || chosen === LEAVE"
          color="primary"
          size="large"
          block
          :loading="busy"
          @click="signOff"
          >{{ inside ? 'Sign off' : 'Sign off out of tolerance' }}</v-btn
        >
        <button type="button" class="link small" @click="measure">Measure it again</button>
      </template>
    </template>
    <template #keys>
      <span><kbd>m</kbd> measure</span><span v-if="trim"><kbd>t</kbd> trim</span
      ><span><kbd>Ctrl</kbd> <kbd>Enter</kbd> {{ inside ? 'sign off' : 'main action' }}</span>
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
.verdict {
  font-size: 23px;
  font-weight: 700;
  line-height: 1.2;
  margin: 4px 0 8px;
}
.sure {
  list-style: none;
  padding: 0;
  margin: 6px 0 0;
}
.sure li {
  display: grid;
  grid-template-columns: 1fr auto 76px;
  gap: 10px;
  border-top: 1px solid rgb(var(--v-theme-line));
  padding: 3px 0;
}
.sure .num {
  text-align: right;
}
.ways {
  display: grid;
  gap: 6px;
}
.way {
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 4px;
  background: rgb(var(--v-theme-paper));
  padding: 8px 10px;
  cursor: pointer;
}
.way.on {
  border: 2px solid rgb(var(--v-theme-ink));
  background: rgb(var(--v-theme-sheet));
  padding: 7px 9px;
}
.way:focus-within {
  outline: 3px solid rgb(var(--v-theme-reference));
  outline-offset: 1px;
}
</style>
