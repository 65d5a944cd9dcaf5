<script setup lang="ts">
import { useNow } from '@vueuse/core';
import { computed, nextTick, ref } from 'vue';
import {
  cutList,
  readingAfter,
  spanCmOf,
  type BenchStep,
  type Change,
  type Expected,
  type Frame,
  type Placement,
  type SpecKey,
  type Surprise,
} from '@kevro/core';
import type { FrameRecord, Measurement, StepMark } from '@kevro/contract';
import { momentWords } from '../../words/days';
import NumberField from '../../forms/NumberField.vue';
import Tick from '../../ui/Tick.vue';
import { numberOf, type Typed } from '../../ui/typed';
import { useCatalogue } from '../../stores/catalogue';
import { useShop } from '../../stores/shop';
import { useUnits } from '../../stores/units';
import { CAUTIONS, MARK_WORDS, STEP_HINTS } from '../../words';
import { cutWords, waitWords } from '../../words/cuts';
import { isOnePlace, stepDoing, stepTitle } from './words';
import { causeWords, offWords } from './surprise-words';
import { partUnit, partWeightLabel, partWeight } from '../../words/part-weight';

/** One step at the bench: done or not, what to do, what to read after it, what was read, and what was built otherwise. */
const props = defineProps<{
  step: BenchStep;
  frame: FrameRecord;
  settled: Frame;
  change: Change;
  mark: StepMark | undefined;
  /** Its pieces, where they were built otherwise. */
  noted: readonly Placement[];
  /** Since when it is so. */
  since: string | undefined;
  /** The next to do. */
  next: boolean;
  storing: boolean;
  disabled: boolean;
  expected: Expected | undefined;
  read: Measurement | undefined;
  surprise: Surprise | undefined;
  /** Until when it sets. */
  until: string | undefined;
  calendar: string;
}>();
const emit = defineEmits<{
  tick: [];
  skip: [reason: string];
  built: [pieces: Placement[], reason: string];
  strings: [];
}>();
const units = useUnits();
const catalogue = useCatalogue();
const now = useNow({ interval: 20_000 });

const over = computed(() => (props.mark?.mark ?? 'open') !== 'open');
const when = computed(() =>
  props.mark && over.value
    ? `${MARK_WORDS[props.mark.mark]} ${momentWords(props.since ?? props.mark.at)}`
    : '',
);
const pieces = computed(() =>
  props.change.placements.filter(({ id }) => isOnePlace(props.step) && props.step.placementIds.includes(id)),
);
const cuts = computed(() => cutList(props.settled, pieces.value, props.change.parts));
const title = computed(() => stepTitle(props.step, props.change, props.settled));
const shop = useShop();
const doing = computed(() =>
  stepDoing(props.step, props.change, props.settled, {
    pattern: props.frame.pattern,
    order: shop.orderOf(props.frame.shape.sport),
  }),
);

/** What is worth reading after it. */
const reads = computed(() => readingAfter(props.step.kind));
const { shape } = props.frame;
const expects = computed(() => {
  const { expected } = props;
  if (!expected || !reads.value) return '';
  const words = reads.value.specs.flatMap((key) => {
    const value = expected.specs[key];
    if (value === undefined) return [];
    const unit = units.unit(key);
    return [
      `${units.show(key, value, shape)} ±${units.showWidth(key, 2 * expected.uncertainty[key], shape.sport)}${unit === 'points' ? '' : ` ${unit}`}`,
    ];
  });
  return words.join(' · ');
});
const say = (key: SpecKey, amount: number): string => units.sayWidth(key, amount, shape.sport);
/** What is typed beside a step: why it is skipped, or what was built instead. */
const open = ref<'skip' | 'built'>();
const reason = ref('');
const reasonError = ref('');
const built = ref<{ id: string; massG: Typed; startCm: Typed; endCm: Typed }[]>([]);
const form = ref<HTMLElement>();
async function show(what: 'skip' | 'built'): Promise<void> {
  open.value = open.value === what ? undefined : what;
  reason.value = '';
  reasonError.value = '';
  built.value = pieces.value.map((planned) => {
    const p = props.noted.find(({ id }) => id === planned.id) ?? planned;
    return {
      id: p.id,
      massG: p.massG,
      startCm: p.path === 'slot' ? null : p.startCm,
      endCm: p.path === 'slot' ? null : p.endCm,
    };
  });
  await nextTick();
  form.value?.querySelector<HTMLElement>('input')?.focus();
}
function skip(): void {
  if (reason.value.trim() === '') {
    reasonError.value = 'Give a reason: it is kept with the build.';
    return;
  }
  emit('skip', reason.value.trim());
  open.value = undefined;
}
const wrong = ref<Record<string, string>>({});
function storeBuilt(): void {
  const found: Placement[] = [];
  const errors: Record<string, string> = {};
  for (const row of built.value) {
    const planned = pieces.value.find(({ id }) => id === row.id);
    const massG = numberOf(row.massG);
    if (!planned) continue;
    if (massG === undefined || !(massG > 0))
      errors[`${row.id}.massG`] = `How many ${partWeightLabel().toLowerCase()}?`;
    else if (planned.path === 'slot') found.push({ ...planned, massG });
    else {
      const startCm = numberOf(row.startCm);
      const endCm = numberOf(row.endCm);
      if (startCm === undefined) errors[`${row.id}.startCm`] = 'From where?';
      if (endCm === undefined || endCm < (startCm ?? endCm))
        errors[`${row.id}.endCm`] = 'To where, further on?';
      if (startCm !== undefined && endCm !== undefined && endCm >= startCm)
        found.push({ ...planned, massG, startCm, endCm });
    }
  }
  wrong.value = errors;
  if (Object.keys(errors).length > 0) return;
  emit('built', found, reason.value.trim());
  open.value = undefined;
}
const differs = computed(() =>
  (over.value ? props.noted : []).map((p) => {
    const planned = pieces.value.find(({ id }) => id === p.id);
    const span = spanCmOf(p) > 0 ? `, ${units.bench.say(spanCmOf(p))} ${units.bench.unit} long` : '';
    return `as built ${partWeight(p.massG, 2)}${span}${planned ? ` (planned ${partWeight(planned.massG, 2)})` : ''}`;
  }),
);

const left = computed(() => {
  if (!props.until) return undefined;
  const minutes = (Date.parse(props.until) - Math.max(now.value.getTime(), Date.now())) / 60_000;
  return minutes > 0 ? Math.ceil(minutes) : 0;
});
</script>

<template>
  <li :class="{ done: over, next }">
    <Tick :checked="over" :label="title" :waiting="storing" :disabled="disabled" @tick="emit('tick')" />
    <div class="more">
      <p v-if="when" class="when small soft">
        {{ when }}<template v-if="mark?.reason">: {{ mark.reason }}</template>
      </p>
      <ul v-if="cuts.length > 0" class="cuts">
        <li v-for="cut in cuts" :key="cut.placementId">{{ cutWords(cut, units.bench) }}</li>
      </ul>
      <p v-for="words in differs" :key="words" class="small warn">{{ words }}</p>
      <p v-for="words in doing" :key="words" class="small">{{ words }}</p>
      <template v-if="next">
        <p class="small soft">{{ STEP_HINTS[step.kind] }}</p>
        <p v-for="caution in step.cautions" :key="caution" class="small warn">⚠ {{ CAUTIONS[caution] }}</p>
      </template>
      <p v-if="next && expects" class="small">
        <span class="soft">{{ step.kind === 'weigh-before' ? 'Expect' : 'Expect after this step' }}</span>
        {{ expects }}
      </p>
      <p v-if="read" class="small">
        <span class="soft">Read:</span> {{ units.show('massG', read.specs.massG, shape) }} ·
        {{ units.show('balanceCm', read.specs.balanceCm, shape) }} ·
        {{ units.show('swingWeight', read.specs.swingWeight, shape) }}
        <b v-if="!surprise" class="good">as expected</b>
      </p>
      <div v-if="surprise" class="surprise" role="alert">
        <p class="small">
          <b>Off: {{ offWords(surprise, say) }}.</b>
          {{
            surprise.causes.length > 0 ? 'Check first:' : 'No single mistake explains this. Measure again.'
          }}
        </p>
        <ul v-if="surprise.causes.length > 0" class="small">
          <li v-for="cause in surprise.causes.slice(0, 4)" :key="JSON.stringify(cause)">
            {{ causeWords(cause, change, settled, catalogue.inUse) }}
          </li>
        </ul>
      </div>
      <p v-if="step.waitMinutes && !until" class="small">
        Wait {{ waitWords(step.waitMinutes)
        }}{{ step.kind === 'restring' ? ' for them to settle' : ' (or per the label)' }}.
      </p>
      <p v-if="until" class="small" role="timer">
        <template v-if="left">
          {{ step.kind === 'restring' ? 'Settling' : 'Curing' }} until <b>{{ momentWords(until) }}</b>:
          {{ waitWords(left) }} left.
          <a :href="calendar" download>Add to calendar</a>
        </template>
        <span v-else class="good">{{ step.kind === 'restring' ? 'Settled' : 'Cured' }}</span>
      </p>
      <div v-if="(next || over) && !disabled" class="acts small">
        <RouterLink
          v-if="reads"
          :to="{
            name: 'measure',
            query: { for: reads.purpose, ...(reads.purpose === 'step' ? { step: step.key } : {}) },
          }"
          >{{ read ? 'measure it again' : 'measure it' }}</RouterLink
        >
        <button
          v-if="cuts.length > 0"
          type="button"
          class="link"
          :aria-expanded="open === 'built'"
          @click="show('built')"
        >
          Built differently…
        </button>
        <RouterLink v-if="step.kind === 'trial'" :to="{ name: 'plan' }"
          >Used putty dabs? Enter where they ended up</RouterLink
        >
        <button v-if="step.kind === 'restring'" type="button" class="link" @click="emit('strings')">
          note the new strings…
        </button>
        <button
          v-if="!over"
          type="button"
          class="link"
          :aria-expanded="open === 'skip'"
          @click="show('skip')"
        >
          Skip…
        </button>
      </div>
      <form v-if="open === 'skip'" ref="form" class="form" @submit.prevent="skip">
        <v-text-field v-model="reason" label="Reason" :error-messages="reasonError ? [reasonError] : []" />
        <v-btn type="submit" variant="outlined">Skip it</v-btn>
      </form>
      <form v-if="open === 'built'" ref="form" class="form" novalidate @submit.prevent="storeBuilt">
        <div v-for="row in built" :key="row.id" class="row-built">
          <NumberField
            v-model="row.massG"
            :label="`${partWeightLabel()}, all of it`"
            measure="mass"
            :unit="partUnit()"
            :error="wrong[`${row.id}.massG`]"
          />
          <template v-if="row.startCm !== null">
            <NumberField
              v-model="row.startCm"
              label="From"
              measure="length"
              :error="wrong[`${row.id}.startCm`]"
            />
            <NumberField v-model="row.endCm" label="to" measure="length" :error="wrong[`${row.id}.endCm`]" />
          </template>
        </div>
        <v-text-field v-model="reason" label="Reason (optional)" />
        <v-btn type="submit" variant="outlined">Save as built</v-btn>
      </form>
    </div>
  </li>
</template>

<style scoped>
li {
  border-top: 1px solid rgb(var(--v-theme-line));
  padding: 4px 0;
}
.next :deep(.tick) {
  font-weight: 700;
}
.done :deep(.tick) {
  color: rgb(var(--v-theme-soft));
}
.more {
  padding-left: 36px;
}
.more p {
  margin: 0 0 6px;
}
.cuts,
.surprise ul {
  padding: 0;
  list-style: none;
  font-size: 13.5px;
  margin-bottom: 4px;
}
.cuts li,
.surprise li {
  border: 0;
  padding: 0;
}
.surprise {
  border-left: 4px solid rgb(var(--v-theme-brick));
  padding: 2px 0 2px 10px;
  margin-bottom: 6px;
}
.surprise b {
  color: rgb(var(--v-theme-brick));
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 16px;
  margin-bottom: 6px;
}
.acts a,
.acts button {
  min-height: 28px;
}
.form {
  display: grid;
  gap: 8px;
  padding-bottom: 8px;
}
.row-built {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.row-built > :first-child {
  grid-column: 1 / -1;
}
</style>
