<script setup lang="ts">
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import {
  SPEC_KEYS,
  noticeableStep,
  specName,
  targetOf,
  widthsOf,
  settleFrame,
  type Matched,
  type Plan,
  type SpecKey,
} from '@kevro/core';
import Bench from '../bench/Bench.vue';
import { useUnits } from '../stores/units';
import AddStarters from '../forms/AddStarters.vue';
import { percent } from '../words/chance';
import { dressWords } from '../words/dress';
import { doingWords, missWords } from '../words/plan';
import { partWeight } from '../words/part-weight';
import { SPEC_NAMES } from '../words';
import { vWide } from '../ui/wide-table';
import MatchLane from './MatchLane.vue';
import { useMatching, type Named, type To } from './matching';

// What a fitter comes here to do: see how far the frames are apart; choose what they come to; take every one of them to the bench.
const props = defineProps<{
  frames: readonly Named[];
  /** Frames of the set that nobody measured yet. */
  missing: readonly string[];
  /** The target that the fitting has already. */
  own?: Partial<Record<SpecKey, number>> | undefined;
  partIds?: readonly string[];
  /** What the main action does, and whether it is under way. */
  action: (matched: Matched) => string;
  busy?: boolean;
}>();
const emit = defineEmits<{ take: [matched: Matched, to: To] }>();
const units = useUnits();
const matching = useMatching(
  computed(() => props.frames),
  computed(() => props.own),
  () => props.partIds ?? [],
);
const { to, keys, able, dress, sport, parts, found, working, failure } = matching;
const shape = computed(() => props.frames[0]?.shape ?? { sport: 'tennis' as const, lengthCm: 0 });
const tagOf = (id: string): string => props.frames.find((f) => f.id === id)?.tag ?? '';
const chosen = computed({
  get: () => (typeof to.value === 'string' ? to.value : to.value.frameId),
  set: (value: string) => {
    to.value = value === 'least' || value === 'own' ? value : { frameId: value };
  },
});
const say = (key: SpecKey, amount: number): string => units.sayWidth(key, amount, shape.value.sport);

/** What is done to a frame, in a line. */
function doing(plan: Plan, id: string): string {
  const frame = props.frames.find((f) => f.id === id);
  return frame && plan.places > 0 ? doingWords(plan, settleFrame(frame.shape)) : 'Leave as it is';
}
const short = (plan: Plan): string =>
  found.value && sport.value
    ? missWords(found.value.target, plan.deviation, say, {
        sport: sport.value,
        hand: plan.specs.swingWeight,
      })
    : '';
const rows = computed(() => found.value?.frames ?? []);
/** Those that do not get there: a frame that is too heavy cannot come down by putting on. */
const outside = computed(() => rows.value.filter(({ plan }) => !plan.withinTolerance));
const widths = computed(() => ({
  before: widthsOf(rows.value.map((f) => f.before)),
  after: widthsOf(rows.value.map((f) => f.plan.specs)),
}));
const widthWords = (of: Record<SpecKey, number>): string =>
  able.value.map((key) => say(key, of[key])).join(', ');
/** The spec by which a hand tells them apart first. */
const worst = computed(() => {
  const [first] = rows.value;
  const { value: data } = sport;
  if (!first || !data) return undefined;
  const steps = able.value.map((key) => ({
    key,
    steps: widths.value.before[key] / noticeableStep(data.noticeable, key, first.before.swingWeight),
  }));
  return steps.toSorted((a, b) => b.steps - a.steps)[0];
});
const laneOf = (key: SpecKey) =>
  rows.value.map(({ id, before, plan }) => ({ id, before: before[key], after: plan.specs[key] }));
const toggle = (key: SpecKey, on: boolean | null): void => {
  keys.value = SPEC_KEYS.filter((one) => (one === key ? on === true : keys.value.includes(one)));
};
const options = computed(() => [
  { value: 'least', title: 'Least added weight', says: 'all come up to the heaviest' },
  ...props.frames.map((f) => ({ value: f.id, title: `Match ${f.tag}`, says: 'the others go to it' })),
  ...(props.own
    ? [{ value: 'own', title: 'The target set', says: 'all go to the target of this fitting' }]
    : []),
]);
const take = (): void => {
  if (found.value) emit('take', found.value, to.value);
};
</script>

<template>
  <Bench title="Match frames" aside-label="Match these frames">
    <div class="top">
      <slot name="pick" />
      <span v-if="frames.length > 1" class="soft small"
        >Compared as {{ dressWords(dress, shape.sport) }}</span
      >
      <span class="legend small soft" aria-hidden="true">
        <i class="dot before" /> as measured <i class="dot after" /> after the plan
        <b class="aim">[ ]</b> target
      </span>
    </div>
    <p v-if="missing.length > 0" class="warn" role="status">
      Not measured yet: {{ missing.join(', ') }}. Measure {{ missing.length === 1 ? 'it' : 'them' }} first.
    </p>
    <p v-if="frames.length < 2" class="soft">Choose two to six measured frames of one sport.</p>
    <p v-else-if="failure" class="miss" role="alert">{{ failure }}</p>
    <p v-else-if="working" class="soft" role="status">Calculating…</p>
    <AddStarters v-else-if="parts.length === 0" />
    <template v-if="found">
      <MatchLane
        v-for="key in able"
        :key="key"
        :spec="key"
        :frames="laneOf(key)"
        :target="targetOf(found.target, key)"
        :shape="shape"
      />
      <table v-wide class="plain wide">
        <thead>
          <tr>
            <th>Frame</th>
            <th v-for="key in able" :key="key" class="num">
              {{ SPEC_NAMES[key].split(' ')[0] }}, {{ units.unit(key) }}
            </th>
            <th>What to do</th>
            <th class="num">Adds</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="{ id, before, plan } in rows" :key="id">
            <td>
              <slot :id="id" name="frame" :tag="tagOf(id)">
                <RouterLink :to="`/frames/${id}`">{{ tagOf(id) }}</RouterLink>
              </slot>
            </td>
            <td v-for="key in able" :key="key" class="num">
              {{ before[key] === undefined ? '—' : units.show(key, before[key]!, shape) }}
            </td>
            <td>
              {{ doing(plan, id) }}
              <div v-if="!plan.withinTolerance" class="miss small">Not reachable: {{ short(plan) }}</div>
            </td>
            <td class="num nowrap">{{ plan.places > 0 ? partWeight(plan.addedG) : '—' }}</td>
          </tr>
        </tbody>
      </table>
      <p class="soft small">
        Furthest apart now: {{ widthWords(widths.before)
        }}<template v-if="worst"
          >, mostly {{ specName(worst.key) }} ({{ worst.steps.toFixed(1) }} steps)</template
        >. After: {{ widthWords(widths.after) }}.
      </p>
    </template>

    <template #aside>
      <fieldset class="to">
        <legend class="heading">Match these frames to</legend>
        <label v-for="one in options" :key="one.value" :class="{ on: chosen === one.value }">
          <input v-model="chosen" type="radio" name="match-to" :value="one.value" :aria-label="one.title" />
          <b>{{ one.title }}</b>
          <b v-if="chosen === one.value && found" class="good num">{{ partWeight(found.addedG) }}</b>
          <span class="soft small">{{ one.says }}</span>
        </label>
      </fieldset>
      <p v-if="outside.length > 0" class="warn small my-0" role="status">
        {{ outside.map(({ id }) => tagOf(id)).join(', ') }} can’t get there. Match the others, or start from
        lighter frames.
      </p>
      <section aria-label="What must match">
        <h2 class="heading">What must match</h2>
        <v-checkbox
          v-for="key in able"
          :key="key"
          :model-value="keys.includes(key)"
          :label="`${SPEC_NAMES[key]} ±${sport ? say(key, sport.tolerance[key]) : ''}`"
          density="compact"
          hide-details
          @update:model-value="toggle(key, $event)"
        />
      </section>
      <section v-if="found" aria-label="How sure">
        <h2 class="heading">How sure</h2>
        <p class="my-0">
          <b>{{ percent(found.chance) }}</b> of such sets pass: every frame at its first check.
        </p>
      </section>
    </template>
    <template v-if="found" #action>
      <slot name="problem" />
      <v-btn color="primary" size="large" block :loading="busy" @click="take">{{ action(found) }}</v-btn>
    </template>
    <template #keys>
      <span><kbd>↑</kbd> <kbd>↓</kbd> choose a target</span>
      <span><kbd>Ctrl</kbd> <kbd>Enter</kbd> take it</span>
    </template>
  </Bench>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 18px;
  padding: 8px 0;
}
.legend {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
.dot {
  width: 10px;
  height: 10px;
  border-radius: 50%;
  border: 1.8px solid rgb(var(--v-theme-ink));
}
.dot.before {
  background: rgb(var(--v-theme-ink));
}
.aim {
  color: rgb(var(--v-theme-aim));
}
.to {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 6px;
}
.to label {
  position: relative;
  display: grid;
  grid-template-columns: 1fr auto;
  padding: 5px 10px;
  border: 1px solid rgb(var(--v-theme-line));
  line-height: 1.25;
}
.to label span {
  grid-column: 1 / -1;
}
.to .on {
  outline: 2px solid rgb(var(--v-theme-ink));
  outline-offset: -1px;
}
.to label:focus-within {
  outline: 3px solid rgb(var(--v-theme-reference));
}
.to input {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  margin: 0;
  opacity: 0;
  cursor: pointer;
}
</style>
