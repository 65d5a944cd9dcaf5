<script setup lang="ts">
import { computed, nextTick, ref } from 'vue';
import { nanoid } from 'nanoid';
import { RODS, ROD_TOLERANCE, calibrateReads } from '@kevro/core';
import { sentence, type Instrument } from '@kevro/contract';
import { Refused, api } from '../api/client';
import { useKeys } from '../ui/keys';
import { useInstruments } from '../stores/instruments';
import { REFUSAL_WORDS } from '../words/instruments';
import NumberField from '../forms/NumberField.vue';
import { useDraft } from '../forms/draft';
import { numberOf, type Typed } from '../ui/typed';

/** Rod by rod: put it on, read it three times; then the correction, or why the machine is refused. */
const props = defineProps<{ instrument: Instrument }>();
const emit = defineEmits<{ stored: [] }>();
const instruments = useInstruments();

const WANTED = 3;
interface Draft {
  key: string;
  reads: Record<string, { key: string; value: number }[]>;
  typed: Typed;
}
const empty = (): Draft => ({ key: '', reads: {}, typed: null });
/** Kept by the browser, so that a reload in the middle loses no rod. */
const kept = useDraft(empty);
kept.begin(`calibration ${props.instrument.id}`, empty());
const draft = kept.value;
const readsOf = (rod: number) => draft.value.reads[rod] ?? [];
const rod = ref<number>(RODS.find((r) => readsOf(r).length < WANTED) ?? RODS[0]);
const typedFailure = ref('');
const failure = ref('');
const busy = ref(false);
const storeButton = ref<{ $el: HTMLElement }>();

instruments.listen((message) => {
  if (message.instrumentId !== props.instrument.id) return;
  if (message.kind === 'failed') failure.value = message.message;
  else if ('rod' in message.asked && asked.has(message.key))
    keep(message.asked.rod, message.key, message.value);
});
const asked = new Set<string>();
function keep(of: number, key: string, value: number): void {
  const reads = readsOf(of);
  if (reads.some((r) => r.key === key)) return;
  draft.value.reads = { ...draft.value.reads, [of]: [...reads, { key, value }] };
  if (of === rod.value && readsOf(of).length === WANTED) goOn();
}
function goOn(): void {
  const next = RODS.find((r) => readsOf(r).length < WANTED);
  if (next) rod.value = next;
  else void nextTick(() => storeButton.value?.$el.focus());
}
const liesOn = computed(() => {
  const { on } = props.instrument;
  return on && 'rod' in on ? on.rod : undefined;
});

async function run(work: () => Promise<unknown>): Promise<void> {
  failure.value = '';
  try {
    await work();
  } catch (error) {
    failure.value = error instanceof Refused ? (error.errors[0]?.message ?? error.message) : String(error);
  }
}
const putOn = () =>
  run(async () => {
    if (props.instrument.simulated) await instruments.put(props.instrument.id, { rod: rod.value });
  });
const take = () =>
  run(async () => {
    if (props.instrument.reading) return;
    const key = nanoid();
    asked.add(key);
    await instruments.take(props.instrument.id, { rod: rod.value }, key);
  });
function enterTyped(): void {
  const value = numberOf(draft.value.typed);
  typedFailure.value = value === undefined ? sentence('not-a-number') : '';
  if (value === undefined) return;
  draft.value.typed = null;
  keep(rod.value, nanoid(), value);
}
const takeOff = (of: number, key: string): void => {
  draft.value.reads = { ...draft.value.reads, [of]: readsOf(of).filter((r) => r.key !== key) };
  rod.value = of;
};
useKeys({ m: () => void take(), p: () => void putOn() });

const rodReads = computed(() => RODS.map((r) => ({ trueValue: r, reads: readsOf(r).map((x) => x.value) })));
const found = computed(() =>
  rodReads.value.every(({ reads }) => reads.length > 0) ? calibrateReads(rodReads.value) : undefined,
);
const signed = (value: number, digits = 2): string => {
  const text = value.toFixed(digits);
  return Number(text) > 0 ? `+${text}` : text.replace('-', '−');
};

async function store(): Promise<void> {
  if (busy.value || !found.value) return;
  busy.value = true;
  await run(async () => {
    // Sent again after a failure it counts once.
    draft.value.key ||= nanoid();
    const body = { key: draft.value.key, rods: rodReads.value };
    await api('calibrate', { id: props.instrument.id, body });
    draft.value = empty();
    rod.value = RODS[0];
    emit('stored');
  });
  busy.value = false;
}
</script>

<template>
  <section aria-label="Calibrate with rods">
    <ol class="rods">
      <li v-for="r in RODS" :key="r" :class="{ on: rod === r }">
        <button type="button" class="rod" :aria-current="rod === r ? 'step' : undefined" @click="rod = r">
          <b>{{ r }}</b> rod <span class="soft">kg·cm² ±{{ ROD_TOLERANCE }}</span>
        </button>
        <span class="reads">
          <button
            v-for="read in readsOf(r)"
            :key="read.key"
            type="button"
            class="read"
            :aria-label="`Take ${read.value.toFixed(1)} off the ${r} rod`"
            title="Discard reading"
            @click="takeOff(r, read.key)"
          >
            {{ read.value.toFixed(1) }}
          </button>
          <span v-if="readsOf(r).length < WANTED" class="soft small"
            >{{ WANTED - readsOf(r).length }} more</span
          >
        </span>
      </li>
    </ol>
    <div class="now">
      <output class="digits">{{
        instrument.reading ? '…' : (readsOf(rod).at(-1)?.value.toFixed(1) ?? '–')
      }}</output>
      <div class="buttons">
        <v-btn color="primary" size="large" :loading="Boolean(instrument.reading)" @click="take"
          >Read the {{ rod }} rod<kbd class="ml-2">m</kbd></v-btn
        >
        <v-btn v-if="instrument.simulated && liesOn !== rod" variant="outlined" @click="putOn"
          >Put the {{ rod }} rod on<kbd class="ml-2">p</kbd></v-btn
        >
        <span v-else-if="instrument.simulated" class="soft small">On it: the {{ rod }} rod.</span>
        <NumberField
          v-model="draft.typed"
          :label="`Or type it for ${rod}`"
          measure="inertia"
          :error="typedFailure"
          @keydown.enter.prevent="enterTyped"
        />
      </div>
    </div>
    <p v-if="instrument.state === 'lost'" class="warn" role="status">
      {{ instrument.name }} is not connected. Plug it in.
    </p>
    <p v-if="instrument.state === 'warming'" class="warn" role="status">
      Still warming up, {{ instrument.warmInSeconds }} s: wait before you calibrate.
    </p>
    <p v-if="failure" class="miss" role="alert">{{ failure }}</p>
    <div v-if="found" class="found" :class="{ refused: found.refused }" role="status">
      <p class="mb-1">
        <b v-if="found.refused" class="miss">Refused: {{ REFUSAL_WORDS[found.refused] }}</b>
        <b v-else class="good">This correction can be used.</b>
      </p>
      <p class="mb-1">
        It reads {{ found.slope.toFixed(4) }} × the true value {{ signed(found.offset) }}. Error left after
        correction: {{ found.residuals.map((v, i) => `${RODS[i]}: ${signed(v)}`).join(', ') }} kg·cm².
      </p>
      <p v-if="found.refused" class="small">
        Check that each rod is the right one and sits well. Discard the odd reading and read again. If it
        still fails, have the machine serviced: it can’t measure until a calibration passes.
      </p>
      <v-btn ref="storeButton" color="primary" :loading="busy" @click="store">{{
        found.refused ? 'Save as failed' : 'Save calibration'
      }}</v-btn>
    </div>
  </section>
</template>

<style scoped>
.rods {
  list-style: none;
  padding: 0;
  margin: 0;
}
.rods li {
  display: grid;
  grid-template-columns: 190px 1fr;
  align-items: center;
  border-left: 4px solid transparent;
  border-bottom: 1px solid rgb(var(--v-theme-line));
  padding: 8px 10px;
}
.rods li.on {
  border-left-color: rgb(var(--v-theme-reference));
  background: rgb(var(--v-theme-sheet));
}
.rod {
  text-align: left;
}
.rod b {
  font-size: 20px;
}
.reads {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.read {
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 3px;
  padding: 3px 9px;
  font-weight: 600;
}
.now {
  display: grid;
  grid-template-columns: 190px 1fr;
  gap: 16px;
  align-items: center;
  padding: 14px 0;
}
.digits {
  font-size: 60px;
  font-weight: 700;
  line-height: 1.05;
  text-align: right;
  padding-right: 16px;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}
.buttons > :deep(.v-input) {
  flex: 1 1 220px;
  max-width: 280px;
}
@media (max-width: 640px) {
  .rods li,
  .now {
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
  }
  .buttons > :deep(.v-input) {
    max-width: none;
  }
}
.found {
  border-left: 6px solid rgb(var(--v-theme-good));
  padding: 8px 14px;
}
.found.refused {
  border-left: 6px double rgb(var(--v-theme-brick));
}
</style>
