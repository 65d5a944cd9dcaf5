<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue';
import { nanoid } from 'nanoid';
import { sentence, type NewReading } from '@kevro/contract';
import { readingByHand, settleCapture, surestPivot, type FilmRead } from '@kevro/core';
import { api, upload } from '../api/client';
import NumberField from '../forms/NumberField.vue';
import FileDrop from '../ui/FileDrop.vue';
import Sheet from '../ui/Sheet.vue';
import { later } from '../stores/later';
import { useUnits } from '../stores/units';
import { numberOf, type Typed } from '../ui/typed';
import type { CaptureBench } from './capture';
import FilmByPhone from './FilmByPhone.vue';
import FilmHere from './FilmHere.vue';
import { FILM_WORDS } from './film-words';
import { useFilming } from './filming';
import { PENDULUM_HANGS, THREADS_HANGS, useHangs, type HangField } from './hangs';
import { useQuantities } from './quantities';

// What a fitter comes here to do: say how it hangs; give the film; see that it can be trusted, and enter it.
const props = defineProps<{ method: 'filmed-swing' | 'filmed-twist'; bench: CaptureBench }>();
const units = useUnits();
const { unit, show, showBand } = useQuantities();
const FilmChart = later(() => import('./FilmChart.vue'));
const filming = useFilming();
const { working, found, share } = filming;

const FIELDS: Record<typeof props.method, readonly HangField[]> = {
  'filmed-swing': PENDULUM_HANGS,
  'filmed-twist': THREADS_HANGS,
};
const HOW: Record<typeof props.method, string> = {
  'filmed-swing':
    'Hang it by the handle on a thin rod across it, and swing it about 10°, face first. Film it edge-on, along the rod, all of it in the picture.',
  'filmed-twist':
    'Hang it butt down by two upright threads, tied to the head at 3 and 9 o’clock. Twist it about 20°. Film it from straight below: a phone on the floor.',
};
const set = useHangs();
const best = computed(() =>
  props.method === 'filmed-swing'
    ? surestPivot(props.bench.settledFrame, props.bench.specs.value, 20)
    : undefined,
);
/** The film itself, which can be kept: what a camera of this device shows is no file. */
const film = shallowRef<File>();
const keeps = ref(false);
const keeping = ref(false);
const keepFailure = ref('');
const slowMotion = ref(false);
const trueRate = ref<Typed>(240);
const wrong = ref<Record<string, string>>({});
const open = ref(false);
/** Where the film comes from while there is none yet. */
const from = ref<'phone' | 'here'>();

const hangs = computed(() =>
  Object.fromEntries(FIELDS[props.method].map(({ name }) => [name, numberOf(set.value[name])])),
);
/** Whether how it hangs is said; what is not is shown beside its field. */
function isSaid(): boolean {
  wrong.value = Object.fromEntries(
    Object.entries(hangs.value).flatMap(([name, value]) => {
      if (value === undefined) return [[name, sentence('not-a-number')]];
      return value < 0 || (value === 0 && name !== 'pivotCm') ? [[name, sentence('not-positive')]] : [];
    }),
  );
  if (slowMotion.value && !((numberOf(trueRate.value) ?? 0) >= 10))
    wrong.value.trueRate = sentence('not-a-number');
  return Object.keys(wrong.value).length === 0;
}
async function take(file: File): Promise<void> {
  if (!isSaid()) return;
  open.value = true;
  from.value = undefined;
  film.value = file;
  await filming.read(file, slowMotion.value ? numberOf(trueRate.value) : undefined);
}
function begin(by: 'phone' | 'here'): void {
  if (!isSaid()) return;
  from.value = by;
  open.value = true;
}
watch(open, (now) => {
  if (now) return;
  from.value = undefined;
  film.value = undefined;
  keeps.value = false;
  filming.stop();
  filming.closeCamera();
  filming.forget();
});

const answer = computed(() => found.value?.answer);
const trouble = computed(() =>
  answer.value && 'trouble' in answer.value ? FILM_WORDS[answer.value.trouble] : '',
);
const result = computed<FilmRead | undefined>(() =>
  answer.value && 'fit' in answer.value ? answer.value : undefined,
);
const reading = computed<NewReading | undefined>(() => {
  const at = result.value;
  if (!at) return undefined;
  const timing = {
    ...hangs.value,
    swings: at.swings,
    seconds: at.seconds,
    amplitudeDeg: at.startDeg,
    endAmplitudeDeg: at.endDeg,
  };
  const { random, common } = at;
  const quantity = props.method === 'filmed-swing' ? 'swingWeight' : 'twistWeight';
  return { means: props.method, key: nanoid(), quantity, timing, film: { random, common } } as NewReading;
});
/** What it would come to alone, with the weight and balance that are known. */
const comesTo = computed(() => {
  const one = reading.value;
  if (!one) return undefined;
  const { frame, settledFrame, capture } = props.bench;
  const { quantity } = one;
  const others = (capture.value?.readings ?? []).filter((r) => r.quantity !== quantity);
  const own = readingByHand(settledFrame, one, settleCapture(settledFrame, others));
  if (!own) return undefined;
  const all = [...others, { ...own, id: one.key, setAside: false }];
  const settled = settleCapture(settledFrame, all).settled[quantity];
  return (
    settled &&
    `${show(quantity, settled.value, frame.shape, 1)} ±${showBand(quantity, settled.uncertainty, frame.shape)} ${unit(quantity)}`
  );
});
async function enter(): Promise<void> {
  const now = reading.value;
  if (!now || keeping.value) return;
  keeping.value = true;
  keepFailure.value = '';
  try {
    if (!(await props.bench.addReading(now))) return;
    if (keeps.value && film.value) await keep(film.value, now.key);
    open.value = false;
  } catch (error) {
    keepFailure.value = `The reading is entered. The film is not kept: ${error instanceof Error ? error.message : String(error)}`;
  } finally {
    keeping.value = false;
  }
}
async function keep(file: File, readingId: string): Promise<void> {
  const { id } = props.bench.frame;
  const type = file.type.startsWith('video/') ? file.type : 'video/mp4';
  const sent = await upload('addFilm', file, type, { name: file.name.slice(0, 120) }, undefined, id);
  await api('keepFilm', { id, body: { filmId: sent.id, readingId } });
}
</script>

<template>
  <FileDrop v-slot="{ choose }" class="film" accept="video/*" label="Film" @file="take">
    <p class="soft small mb-0">
      {{ HOW[method] }}
      <template v-if="best"
        >Most accurate hung {{ units.showMeasure('length', best.pivotCm) }} from the butt.</template
      >
    </p>
    <div class="fields">
      <NumberField
        v-for="f in FIELDS[method]"
        :key="f.name"
        v-model="set[f.name]!"
        :label="f.label"
        :measure="f.measure"
        :error="wrong[f.name]"
      />
    </div>
    <v-checkbox v-model="slowMotion" label="Slow motion" hide-details />
    <NumberField
      v-if="slowMotion"
      v-model="trueRate"
      label="Filmed at, pictures a second"
      :error="wrong.trueRate"
    />
    <div class="buttons">
      <v-btn color="primary" variant="outlined" @click="choose">Choose a film</v-btn>
      <v-btn variant="text" @click="begin('phone')">With a phone</v-btn>
      <v-btn v-if="filming.canFilm.value" variant="text" @click="begin('here')">Film here</v-btn>
      <span class="soft small">or drop a film here</span>
    </div>
    <Sheet v-model="open" title="Film" :width="760">
      <FilmByPhone v-if="from === 'phone'" :frame-id="bench.frame.id" @came="take" />
      <FilmHere v-else-if="from === 'here' && !found && !filming.failure.value" :filming="filming" />
      <p v-else-if="working" role="status">Reading the film… {{ Math.round(100 * share) }} %</p>
      <p v-else-if="filming.failure.value" class="miss" role="alert">{{ filming.failure.value }}</p>
      <template v-if="trouble">
        <p class="miss" role="alert">{{ trouble }}</p>
        <p class="soft small">Nothing was entered.</p>
      </template>
      <FilmChart v-if="found && found.pictures.length > 0" :found="found" />
      <template v-if="result">
        <p class="mb-1" role="status">
          <b>{{ result.swings }} swings in {{ result.seconds.toFixed(3) }} s</b>
          ±{{ (2 * Math.hypot(result.random, result.common)).toFixed(3) }}, from
          {{ result.startDeg.toFixed(1) }}° to {{ result.endDeg.toFixed(1) }}°.
          <template v-if="result.leftOut > 0"
            >{{ result.leftOut }} pictures with a bump are left out.</template
          >
        </p>
        <p v-if="comesTo" class="mb-0">Comes to {{ comesTo }}.</p>
        <p v-else class="warn mb-0">Read weight and balance too: without them it stays a time.</p>
      </template>
      <v-checkbox
        v-if="result && film"
        v-model="keeps"
        label="Keep the film with the measurement"
        hint="Of the frame alone, with nobody in it."
        :persistent-hint="keeps"
      />
      <p v-if="keepFailure" class="miss mb-0" role="alert">{{ keepFailure }}</p>
      <div class="d-flex ga-2 mt-4">
        <v-spacer />
        <v-btn variant="text" @click="open = false">Close</v-btn>
        <v-btn v-if="result" v-first color="primary" :loading="keeping" @click="enter">Enter this</v-btn>
      </div>
    </Sheet>
  </FileDrop>
</template>

<style scoped>
.film {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  align-items: start;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}
</style>
