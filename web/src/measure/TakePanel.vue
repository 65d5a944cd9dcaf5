<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';
import { nanoid } from 'nanoid';
import { corrected, readingMean, type Quantity } from '@kevro/core';
import { KINDS, type NewReading } from '@kevro/contract';
import { Refused } from '../api/client';
import { useInstruments } from '../stores/instruments';
import { useShop } from '../stores/shop';
import { useUnits } from '../stores/units';
import { CALIBRATION_WORDS, ageWords } from '../words/instruments';
import NumberField from '../forms/NumberField.vue';
import { sent, type Typed } from '../ui/typed';
import type { CaptureBench } from './capture';
import { QUANTITY_NAMES, useQuantities, waysToTake } from './quantities';
import Stopwatch from './Stopwatch.vue';
import { later } from '../stores/later';
import { useKept } from '../ui/kept';

/** How the chosen quantity is taken: the way, large digits, and the reading that is under way. */
const props = defineProps<{
  quantity: Quantity;
  bench: CaptureBench;
  /** How many more readings are asked for. */
  left: number;
}>();
// Only few films: it comes when it is chosen.
const FilmPanel = later(() => import('./FilmPanel.vue'));
const instruments = useInstruments();
const { unit, show } = useQuantities();
const units = useUnits();
const shop = useShop();
const failure = ref('');
const edgeOn = ref<Typed>(null);
const { shape } = props.bench.frame;
const frameId = props.bench.frame.id;

const ways = computed(() => waysToTake(props.quantity, instruments.all ?? [], shop.measuresWith));
const preferred = useKept<Partial<Record<Quantity, string>>>('kevro-ways', {});
/** Where a reading of this is under way; or the way last used; or the best there is: an instrument that is calibrated and there. */
const way = computed(() => {
  const usable = (w: (typeof ways.value)[number]): number => {
    if (w.kind !== 'instrument') return 2;
    const { state, calibrationState } = w.instrument;
    if (state === 'lost' || calibrationState === 'refused') return 3;
    return calibrationState === 'fresh' || calibrationState === 'not-needed' ? 0 : 1;
  };
  const busy = ways.value.find((w) => {
    const asked = w.kind === 'instrument' ? w.instrument.reading?.asked : undefined;
    return asked && !('rod' in asked) && asked.frameId === frameId && asked.quantity === props.quantity;
  });
  const chosen = ways.value.find((w) => w.value === preferred.value[props.quantity]);
  return busy ?? chosen ?? ways.value.toSorted((a, b) => usable(a) - usable(b))[0];
});
const choose = (value: string): void => {
  preferred.value = { ...preferred.value, [props.quantity]: value };
};
const instrument = computed(() => (way.value?.kind === 'instrument' ? way.value.instrument : undefined));
/** Whether it sends nothing until its print key is pressed. */
const prints = computed(() => instrument.value?.link?.output === 'key');
const underWay = computed(() => instrument.value?.reading ?? null);
const liesHere = computed(() => {
  const on = instrument.value?.on;
  return Boolean(on && 'frameId' in on && on.frameId === frameId);
});
const needed = computed(() => (instrument.value ? KINDS[instrument.value.kind].valuesAReading : 1));
const last = ref<{ quantity: Quantity; id: string; value: number }>();
/** What is taken, and how: as one value, so that nothing is forgotten each time an instrument says something. */
const taking = computed(() => `${props.quantity} ${way.value?.value ?? ''}`);
watch(taking, () => {
  failure.value = '';
});

/** What the large digits show: the live display, the mean of the swings so far, or the reading just taken. */
const digits = computed(() => {
  const one = instrument.value;
  if (!one || one.state === 'lost') return undefined;
  const swings = underWay.value?.swings ?? [];
  if (swings.length > 0) {
    const mean = readingMean(swings);
    return one.calibration && props.quantity !== 'leftRightG' ? corrected(one.calibration, mean) : mean;
  }
  // What is on a real device only the fitter sees.
  if (KINDS[one.kind].shows)
    return liesHere.value || !one.simulated ? instruments.shown.get(one.id)?.value : undefined;
  return last.value?.quantity === props.quantity && last.value.id === one.id ? last.value.value : undefined;
});
const shownDigits = computed(() => {
  if (digits.value === undefined) return '·  ·  ·';
  // Edge-on, what is read is a swing weight.
  const read = props.quantity === 'twistWeight' ? 'swingWeight' : props.quantity;
  // A machine's display has a decimal, also where the sport shows none.
  return show(
    read,
    digits.value,
    shape,
    read === 'swingWeight' && units.digits(read, shape.sport) === 0 ? 1 : 0,
  );
});
const status = computed<{ text: string; warn: boolean }>(() => {
  const one = instrument.value;
  if (!one) return { text: '', warn: false };
  const say = (text: string, warn = false) => ({ text, warn });
  if (instruments.connected === false)
    return say('No word from the server. What was read is kept; trying again…', true);
  if (one.bench !== null)
    return say(`${one.name} is plugged in at ${one.bench}. Read it there; its readings show here too.`, true);
  if (one.trouble && one.state !== 'lost') return say(one.trouble, true);
  if (one.state === 'lost') {
    const kept = underWay.value?.swings.length ?? 0;
    if (!underWay.value)
      return say(one.trouble || `${one.name} is not connected. Plug it in, or take another way.`, true);
    const had = kept > 0 ? ` ${kept} of ${needed.value} swings are kept;` : '';
    return say(`${one.name} is lost.${had} the reading goes on when it is back.`, true);
  }
  if (underWay.value) {
    return say(
      needed.value > 1
        ? `swing ${underWay.value.swings.length + 1} of ${needed.value}`
        : prints.value
          ? 'press its print key'
          : 'waiting until it is steady',
    );
  }
  if (instruments.shown.get(one.id)?.tared) return say('net, after a tare');
  if (one.state === 'warming') return say(`warming up, ${one.warmInSeconds} s: readings are less sure`, true);
  return say('');
});
const calibration = computed(() => {
  const one = instrument.value;
  if (!one || one.calibrationState === 'not-needed') return undefined;
  const age = one.calibration ? ageWords(one.calibration.takenAt) : '';
  return {
    text: CALIBRATION_WORDS[one.calibrationState](age),
    warn: one.calibrationState !== 'fresh',
    id: one.id,
  };
});

async function run(work: () => Promise<unknown>): Promise<void> {
  failure.value = '';
  try {
    await work();
  } catch (error) {
    failure.value = error instanceof Refused || error instanceof Error ? error.message : String(error);
  }
}
let asking = false;
/** A stand-in takes all that is asked for, one after the other, until it is stopped. */
let oneAfterTheOther = false;
watch(taking, () => {
  oneAfterTheOther = false;
});
/** Takes a reading the chosen way. */
async function take(): Promise<void> {
  const chosen = way.value;
  if (!chosen || asking) return;
  asking = true;
  oneAfterTheOther = chosen.kind === 'instrument' && chosen.instrument.simulated;
  choose(chosen.value);
  try {
    if (chosen.kind === 'instrument' && !underWay.value) {
      const { id } = chosen.instrument;
      await run(() => instruments.take(id, { frameId, quantity: props.quantity }));
    } else if (chosen.kind === 'estimate' && props.quantity !== 'massG') {
      await add({ means: 'estimate', key: nanoid(), quantity: props.quantity } as NewReading);
    }
  } finally {
    asking = false;
  }
}
async function add(reading: NewReading): Promise<void> {
  await props.bench.addReading(reading);
}
async function enterEdgeOn(): Promise<void> {
  const value = sent(edgeOn.value);
  const reading = {
    means: 'edge-on' as const,
    key: nanoid(),
    quantity: 'twistWeight' as const,
    value,
  };
  if (await props.bench.addReading(reading)) edgeOn.value = null;
}
const putOn = (): Promise<void> =>
  run(async () => {
    if (instrument.value?.simulated) await instruments.put(instrument.value.id, { frameId });
  });
const cancel = (): Promise<void> => {
  oneAfterTheOther = false;
  return run(async () => instrument.value && instruments.cancel(instrument.value.id));
};
/** After a reading came in: the next, where more are asked for. How many that are may have changed with it. */
const goOn = async (id: string, quantity: Quantity): Promise<void> => {
  await nextTick();
  const here = instrument.value?.id === id && props.quantity === quantity;
  if (here && oneAfterTheOther && props.left > 0) void take();
};
const took = (id: string, quantity: Quantity, value: number): void => {
  last.value = { id, quantity, value };
};
const refused = (message: string): void => {
  oneAfterTheOther = false;
  failure.value = message;
};
defineExpose({ take, putOn, took, goOn, refused });
</script>

<template>
  <section class="take" :aria-label="`Take ${QUANTITY_NAMES[quantity]}`">
    <v-select
      v-if="ways.length > 0"
      :model-value="way?.value"
      :items="ways"
      :label="`${QUANTITY_NAMES[quantity]} by`"
      @update:model-value="choose"
    />
    <p v-else class="soft small mb-0">No instrument connected: type the reading</p>
    <template v-if="instrument">
      <div class="face">
        <output
          class="digits"
          :class="{
            unsteady: instruments.shown.get(instrument.id)?.steady === false,
            none: digits === undefined,
          }"
          aria-live="off"
        >
          {{ shownDigits }}<small v-if="digits !== undefined"> {{ unit(quantity) }}</small>
        </output>
        <v-btn
          v-if="!underWay"
          color="primary"
          variant="outlined"
          size="large"
          :disabled="instrument.state === 'lost'"
          @click="take"
          >Take<kbd class="ml-2">m</kbd></v-btn
        >
        <v-btn v-else variant="text" @click="cancel">Stop</v-btn>
      </div>
      <p v-if="status.text" class="mb-0" :class="status.warn ? 'warn' : 'soft'" role="status">
        {{ status.text }}
      </p>
      <p class="small mb-0 lies">
        <template v-if="calibration">
          <RouterLink
            :to="`/settings/instruments/${calibration.id}`"
            :class="calibration.warn ? 'warn' : 'soft'"
            >{{ calibration.text }}</RouterLink
          >
        </template>
        <span v-if="liesHere" class="soft">On it: {{ bench.frame.tag }}</span>
        <button
          v-else-if="instrument.simulated && instrument.bench === null"
          type="button"
          class="link"
          @click="putOn"
        >
          Put {{ bench.frame.tag }} on <kbd>p</kbd>
        </button>
      </p>
    </template>
    <Stopwatch
      v-else-if="way?.kind === 'pendulum' || way?.kind === 'threads'"
      :key="way.kind"
      :method="way.kind"
      :bench="bench"
      @timed="add"
    />
    <FilmPanel
      v-else-if="way?.kind === 'filmed-swing' || way?.kind === 'filmed-twist'"
      :key="way.kind"
      :method="way.kind"
      :bench="bench"
    />
    <div v-else-if="way?.kind === 'estimate'" class="face">
      <p class="soft small mb-0">Estimated from weight and balance until you measure it.</p>
      <v-btn color="primary" variant="outlined" @click="take">Estimate<kbd class="ml-2">m</kbd></v-btn>
    </div>
    <div v-else-if="way?.kind === 'edge-on'" class="face">
      <NumberField
        v-model="edgeOn"
        label="Read edge-on"
        measure="inertia"
        @keydown.enter.prevent="enterEdgeOn"
      />
      <v-btn color="primary" variant="outlined" :disabled="edgeOn === null" @click="enterEdgeOn">Enter</v-btn>
    </div>
    <p v-if="failure" class="miss mb-0" role="alert">{{ failure }}</p>
  </section>
</template>

<style scoped>
.take {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding-bottom: 10px;
  border-bottom: 1px solid rgb(var(--v-theme-line));
}
.face {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
}
.digits {
  font-size: 64px;
  font-weight: 700;
  line-height: 1.05;
  letter-spacing: -0.02em;
  white-space: nowrap;
}
.digits small {
  font-size: 20px;
  font-weight: 400;
  letter-spacing: 0;
}
.unsteady,
.none {
  color: rgb(var(--v-theme-soft));
}
.none {
  font-size: 28px;
  line-height: 67px;
}
.lies {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}
</style>
