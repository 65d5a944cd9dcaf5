<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue';
import { nanoid } from 'nanoid';
import {
  SPECS,
  isPlanned,
  quantitiesOf,
  type Dress,
  type NumberKey,
  type Purpose,
  type PurposeChoice,
  type Quantity,
  type Working,
} from '@kevro/core';
import type { FrameRecord, Measurement } from '@kevro/contract';
import { isNumber, useBurst } from '../ui/bursts';
import { isDialogOpen, useKeys } from '../ui/keys';
import Lanes from '../lanes/Lanes.vue';
import type { LaneMarks } from '../lanes/lane';
import AxisQuestion from '../forms/AxisQuestion.vue';
import DressForm from '../forms/DressForm.vue';
import Sheet from '../ui/Sheet.vue';
import UnsavedSheet from '../ui/UnsavedSheet.vue';
import { counted } from '../words/counted';
import { dressWords } from '../words/dress';
import { useUnsaved } from '../ui/unsaved';
import Rail from '../rail/Rail.vue';
import Bench from '../bench/Bench.vue';
import { readingWorking } from '../bench/bench-marks';
import { sweetOf } from '../rail/sweet';
import { useWorking } from '../bench/working';
import { useInstruments } from '../stores/instruments';
import { useUnits } from '../stores/units';
import { later } from '../stores/later';
import WorkingSheet from '../bench/WorkingSheet.vue';
import { PURPOSE_HINTS, PURPOSE_NAMES } from '../words';
import { percent, timesWords } from '../words/chance';
import { onChanged } from '../ui/changes';
import { useCapture } from './capture';
import { useEnough, type Planned } from './enough';
import JudgementList from './JudgementList.vue';
import { QUANTITY_NAMES } from './quantities';
import QuantityRow from './QuantityRow.vue';
import TakePanel from './TakePanel.vue';
import TypedLine from './TypedLine.vue';

// What a fitter comes here to do: say what is on the frame; read each quantity with as little as one key; see at once whether the readings can be trusted.
const props = defineProps<{
  frame: FrameRecord;
  measurement: Measurement | undefined;
  marks?: LaneMarks;
  /** The round that the measurement belongs to, and what it may be for; without a round it is of the frame alone. */
  roundId?: string;
  purposes?: PurposeChoice;
  /** What it was opened for, and the bench step that it is taken at, where that is known. */
  asked?: { purpose: Purpose; step?: string | undefined } | undefined;
  /** The plan whose check this may be. */
  planned?: Planned | undefined;
}>();
const emit = defineEmits<{ stored: [purpose: Purpose] }>();

const bench = useCapture(props.frame);
const { capture, judgements, started, anything, busy, failure } = bench;
const { sport } = bench.settledFrame;
const quantities = quantitiesOf(sport);
const instruments = useInstruments();
const units = useUnits();
const { sheet, show } = useWorking();
const active = ref<Quantity>('massG');
const dressOpen = ref(false);
const line = ref(false);
const panel = ref<InstanceType<typeof TakePanel>>();
const rows = ref<HTMLElement>();
const storeButton = ref<{ $el: HTMLElement }>();

onMounted(async () => {
  await bench.load();
  dressOpen.value = capture.value ? !capture.value.dressSaid && capture.value.readings.length === 0 : false;
});
instruments.listen((message) => {
  // What another frame's readings did is no news here.
  if ('rod' in message.asked || message.asked.frameId !== props.frame.id) return;
  if (message.kind === 'failed') panel.value?.refused(message.message);
  else {
    const { instrumentId, asked: read, value } = message;
    panel.value?.took(instrumentId, read.quantity, value);
    void bench.reload().then(() => panel.value?.goOn(instrumentId, read.quantity));
  }
});

// Somebody reads at another device.
onChanged((change) => change?.id === props.frame.id && bench.reload(), ['reading']);

const dress = computed<Dress>(() => capture.value?.dress ?? props.frame.onIt);
async function sayDress(): Promise<void> {
  if (await bench.setDress(dress.value)) dressOpen.value = false;
}

const shownMarks = computed<LaneMarks>(() => {
  if (!anything.value) return props.marks ?? {};
  return {
    ...props.marks,
    measured: bench.specs.value,
    measuredUncertainty: bench.uncertainty.value,
    estimated: bench.estimated.value,
  };
});
const balance = computed(() =>
  anything.value ? bench.specs.value.balanceCm : props.measurement?.specs.balanceCm,
);
const sweet = computed(() => {
  const { massG, balanceCm, swingWeight, twistWeight } = bench.specs.value;
  if (!anything.value) return sweetOf(bench.settledFrame, props.measurement?.specs);
  if (massG === undefined || balanceCm === undefined || swingWeight === undefined) return undefined;
  const twist = twistWeight === undefined ? {} : { twistWeight };
  return sweetOf(bench.settledFrame, { massG, balanceCm, swingWeight, ...twist, axisCm: sport.axisCm });
});
/** The working of a stored number; of a number still being read, its readings are the working. */
function openWorking(what: NumberKey): void {
  if (anything.value) return;
  const parts: Working | undefined = readingWorking(what, props.measurement, bench.settledFrame);
  show(what, parts, 'measured');
}

/** What the measurement is for: asked only where more than one thing is likely. */
const asksPurpose = computed(() => (props.purposes?.choices.length ?? 0) > 1);
const chosenPurpose = ref<Purpose>();
watch(
  () => props.purposes?.suggested,
  () => {
    chosenPurpose.value = undefined;
  },
);
/** What was asked for counts where it can be. */
const asked = computed(() =>
  props.asked && props.purposes?.choices.includes(props.asked.purpose) ? props.asked : undefined,
);
const purpose = computed<Purpose>(
  () => chosenPurpose.value ?? asked.value?.purpose ?? props.purposes?.suggested ?? 'found',
);
const enough = useEnough(bench, purpose, () => props.planned);
/** What fewer readings than asked cost. */
const costWords = computed(() => {
  const cost = enough.cost.value;
  if (!cost) return '';
  const more = cost.short.map((key) => {
    const left = enough.left(key);
    return `${QUANTITY_NAMES[key].toLowerCase()} ${left === 1 ? 'once' : timesWords(left)} more`;
  });
  return `Read ${more.join(', ')}: the first check then passes in ${percent(cost.to)} of builds, without it in ${percent(cost.from)}.`;
});
/** About which axis typed swing weights are is asked where one is typed; else it stands below, to be changed. */
const asksNow = computed(() => bench.typedAxis.asks.value && active.value === 'swingWeight');
const purposeItems = computed(() =>
  (props.purposes?.choices ?? []).map((value) => ({
    value,
    title: PURPOSE_NAMES[value],
    subtitle: PURPOSE_HINTS[value],
  })),
);

const question = useUnsaved(started);
async function store(): Promise<void> {
  const { value: storedFor } = purpose;
  const step = asked.value?.purpose === storedFor ? (asked.value.step ?? null) : null;
  if (await bench.store({ purpose: storedFor, roundId: props.roundId ?? null, step }))
    emit('stored', storedFor);
  else {
    await nextTick();
    rows.value?.querySelector<HTMLElement>('.v-input--error input')?.focus();
  }
}

const MarksLegend = later(() => import('../bench/MarksLegend.vue'));
const legend = ref(false);
const marked = ref(false);
const askAnew = ref(false);
/** Readings that were taken are not dropped by a slip. */
const anew = (): void => {
  askAnew.value = true;
};
async function dropAll(): Promise<void> {
  if (await bench.drop()) askAnew.value = false;
}

/** From one quantity to the next; behind those that weight changes stands the button that stores: few shops read a rating. */
async function goOn(from: Quantity): Promise<void> {
  const [next] = quantities
    .slice(quantities.indexOf(from) + 1)
    .filter((quantity) => quantity === 'leftRightG' || isPlanned(quantity));
  await nextTick();
  const field = next && rows.value?.querySelectorAll<HTMLElement>('.row input')[quantities.indexOf(next)];
  (field ?? storeButton.value?.$el)?.focus();
}
function step(by: number): void {
  const to = quantities[quantities.indexOf(active.value) + by];
  if (to) active.value = to;
}
/** A scale that types is read like one that is typed for: as what is being read, in the units that are shown. */
useBurst((text) => {
  if (!isNumber(text) || isDialogOpen()) return false;
  const quantity = active.value;
  const writing =
    quantity === 'leftRightG'
      ? units.measureWriting('mass', 'g')
      : units.writing(quantity, props.frame.shape);
  const value = writing.read(text);
  if (value === undefined) return false;
  void bench.addReading({ means: 'typed', key: nanoid(), quantity, value, ...bench.aboutOf(quantity) });
  return true;
});
useKeys({
  m: () => void panel.value?.take(),
  p: () => void panel.value?.putOn(),
  '/': () => {
    line.value = true;
  },
  ArrowDown: () => step(1),
  ArrowUp: () => step(-1),
});
watch(
  () => instruments.connected,
  (now, before) => {
    // What came in while the stream was broken is fetched.
    if (now && before === false && capture.value) void bench.reload();
  },
);
</script>

<template>
  <Bench :title="`Measure ${frame.tag}`" aside-label="Readings" wide>
    <Rail :frame="bench.settledFrame" :dress="dress" :measured-balance-cm="balance" :sweet-before="sweet" />
    <JudgementList :judgements="judgements" :frame="bench.settledFrame" />
    <Lanes
      :marks="shownMarks"
      :shape="frame.shape"
      :axis-cm="sport.axisCm"
      :compact="judgements.length > 0"
      @open="openWorking"
    />
    <template #aside>
      <section aria-label="What is on the frame">
        <div class="on-it">
          <span><span class="soft">On it:</span> {{ dressWords(dress, sport.sport) }}</span>
          <button type="button" class="link" :aria-expanded="dressOpen" @click="dressOpen = !dressOpen">
            {{ dressOpen ? 'close' : 'change' }}
          </button>
        </div>
        <template v-if="dressOpen">
          <div v-if="capture && !capture.dressSaid" class="mt-2">
            <h2 class="heading">First: check what’s on it</h2>
          </div>
          <DressForm
            class="mt-3"
            :model-value="dress"
            :sport="sport.sport"
            @update:model-value="bench.setDress"
          />
          <v-btn variant="outlined" class="mt-2" @click="sayDress">Confirm</v-btn>
        </template>
      </section>
      <TakePanel ref="panel" :quantity="active" :bench="bench" :left="enough.left(active)" />
      <AxisQuestion v-if="asksNow" v-model="bench.typedAxis.axisCm.value" :sport="sport" class="my-2" />
      <div ref="rows" class="rows">
        <QuantityRow
          v-for="quantity in quantities"
          :key="quantity"
          :quantity="quantity"
          :bench="bench"
          :active="active === quantity"
          :times="enough.timesOf(quantity)"
          :left="enough.left(quantity)"
          @activate="active = quantity"
          @next="goOn(quantity)"
        />
      </div>
      <AxisQuestion
        v-if="bench.typedAxis.asks.value && !asksNow"
        v-model="bench.typedAxis.axisCm.value"
        :sport="sport"
        class="mt-2"
      />
      <div class="tools">
        <button type="button" class="link" @click="line = true">Type all in one line</button>
        <button v-if="anything" type="button" class="link" @click="anew">Start over</button>
        <button type="button" class="link" @click="legend = marked = true">What the marks mean</button>
      </div>
      <slot name="more" />
    </template>
    <template #action>
      <p v-if="failure" class="miss mb-0" role="alert">{{ failure }}</p>
      <p v-if="costWords" class="warn small mb-0" role="status">{{ costWords }}</p>
      <p v-if="bench.canEstimate.value" class="small mb-0">
        No {{ SPECS.swingWeight.name }} yet?
        <button type="button" class="link" @click="bench.estimateSwingWeight">
          Estimate it from weight and balance
        </button>
        for now. A pendulum is more accurate.
      </p>
      <v-select
        v-if="asksPurpose && anything"
        v-model="chosenPurpose"
        :placeholder="PURPOSE_NAMES[purpose]"
        persistent-placeholder
        :items="purposeItems"
        item-props
        label="Purpose"
        :hint="PURPOSE_HINTS[purpose]"
        persistent-hint
      />
      <v-btn
        v-if="anything || busy || !measurement"
        ref="storeButton"
        color="primary"
        size="large"
        :loading="busy"
        block
        @click="store"
        >Save measurement</v-btn
      >
      <slot v-else name="onward" />
    </template>
    <template #keys>
      <span><kbd>m</kbd> take</span><span><kbd>↑</kbd> <kbd>↓</kbd> choose</span
      ><span><kbd>/</kbd> one line</span><span><kbd>Enter</kbd> enter value</span>
    </template>
  </Bench>
  <MarksLegend v-if="marked" v-model="legend" />
  <TypedLine v-model="line" :bench="bench" />
  <Sheet v-model="askAnew" title="Start over?" :width="460">
    <p class="my-3">
      Discards {{ counted(capture?.readings.length ?? 0, 'reading', 'readings') }} and anything typed. What is
      on the frame stays.
    </p>
    <p v-if="failure" class="miss" role="alert">{{ failure }}</p>
    <div class="d-flex ga-2">
      <v-spacer />
      <v-btn variant="outlined" @click="dropAll">Start over</v-btn>
      <v-btn v-first color="primary" @click="askAnew = false">Keep</v-btn>
    </div>
  </Sheet>
  <WorkingSheet
    v-model="sheet.open"
    :title="sheet.title"
    :parts="sheet.parts"
    :length-cm="frame.shape.lengthCm"
  />
  <UnsavedSheet :question="question" what="A reading is typed but not entered." />
</template>

<style scoped>
.on-it {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
}
.link {
  min-height: 28px;
}
.rows {
  margin: 0 -8px;
}
</style>
