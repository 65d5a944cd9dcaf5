<script setup lang="ts">
import { computed, nextTick, ref, shallowRef, watch } from 'vue';
import { nanoid } from 'nanoid';
import { useTimeoutPoll } from '@vueuse/core';
import { sentence, type AnswerOf, type NewReading } from '@kevro/contract';
import { settleCapture, surestPivot, type FilmRead, type Measure } from '@kevro/core';
import { api, upload, urlOf } from '../api/client';
import NumberField from '../forms/NumberField.vue';
import Sheet from '../ui/Sheet.vue';
import { useKept } from '../ui/kept';
import { later } from '../stores/later';
import { useUnits } from '../stores/units';
import { numberOf, type Typed } from '../ui/typed';
import type { CaptureBench } from './capture';
import { FILM_WORDS } from './film-words';
import { useFilming } from './filming';
import { useQuantities } from './quantities';

// What a fitter comes here to do: say how it hangs; give the film; see that it can be trusted, and enter it.
const props = defineProps<{ method: 'filmed-swing' | 'filmed-twist'; bench: CaptureBench }>();
const units = useUnits();
const { unit, show, showBand } = useQuantities();
const FilmChart = later(() => import('./FilmChart.vue'));
const filming = useFilming();
const { working, found, share, camera, filmed } = filming;

interface Field {
  name: 'pivotCm' | 'threadCm' | 'separationCm';
  label: string;
  measure: Measure;
}
const FIELDS: Record<typeof props.method, Field[]> = {
  'filmed-swing': [{ name: 'pivotCm', label: 'Hangs at, from the butt', measure: 'length' }],
  'filmed-twist': [
    { name: 'threadCm', label: 'Length of the threads', measure: 'length' },
    { name: 'separationCm', label: 'Threads apart', measure: 'length' },
  ],
};
const HOW: Record<typeof props.method, string> = {
  'filmed-swing':
    'Hang it by the handle on a thin rod across it, and swing it about 10°, face first. Film it edge-on, along the rod, all of it in the picture.',
  'filmed-twist':
    'Hang it butt down by two upright threads, tied to the head at 3 and 9 o’clock. Twist it about 20°. Film it from straight below: a phone on the floor.',
};
/** The same as the stopwatch's: a frame hangs as it hung. */
const set = useKept<Record<string, Typed>>(
  'kevro-hangs',
  { pivotCm: 1, amplitudeDeg: 8, endAmplitudeDeg: null, threadCm: 120, separationCm: 15, swings: 20 },
  { mergeDefaults: true },
);
const best = computed(() =>
  props.method === 'filmed-swing'
    ? surestPivot(props.bench.settledFrame, props.bench.specs.value, 20)
    : undefined,
);
/** The film itself, which can be kept: what a camera of this device shows is no file. */
const given = shallowRef<File>();
const keeps = ref(false);
const keeping = ref(false);
const keepFailure = ref('');
const slowMotion = ref(false);
const trueRate = ref<Typed>(240);
const wrong = ref<Record<string, string>>({});
const input = ref<HTMLInputElement>();
const video = ref<HTMLVideoElement>();
const isOver = ref(false);
const open = ref(false);

function settings(): Record<string, number> | undefined {
  const given = FIELDS[props.method].map(({ name }): [string, number | undefined] => [
    name,
    numberOf(set.value[name]),
  ]);
  wrong.value = Object.fromEntries(
    given.flatMap(([name, value]) => {
      if (value === undefined) return [[name, sentence('not-a-number')]];
      return value < 0 || (value === 0 && name !== 'pivotCm') ? [[name, sentence('not-positive')]] : [];
    }),
  );
  if (slowMotion.value && !((numberOf(trueRate.value) ?? 0) >= 10))
    wrong.value.trueRate = sentence('not-a-number');
  return Object.keys(wrong.value).length > 0
    ? undefined
    : (Object.fromEntries(given) as Record<string, number>);
}
async function take(file: File | undefined): Promise<void> {
  if (!file || !settings()) return;
  open.value = true;
  given.value = file;
  await filming.read(file, slowMotion.value ? numberOf(trueRate.value) : undefined);
}
function drop(event: DragEvent): void {
  isOver.value = false;
  void take(
    [...(event.dataTransfer?.files ?? [])].find(({ type }) => type.startsWith('video/')) ??
      event.dataTransfer?.files[0],
  );
}
function chosen(): void {
  const [file] = input.value?.files ?? [];
  void take(file);
  // The same film may be chosen again.
  if (input.value) input.value.value = '';
}
async function openCamera(): Promise<void> {
  if (!settings()) return;
  open.value = true;
  await filming.openCamera();
  await nextTick();
  if (video.value && camera.value) video.value.srcObject = camera.value;
}
/** A phone films: it is led to its page by a picture, and what it sends is read here as soon as it has come. */
const link = ref<AnswerOf<'makeFilmLink'>>();
const linkFailure = ref('');
const picture = computed(() =>
  link.value?.picture ? `data:image/svg+xml;charset=utf-8,${encodeURIComponent(link.value.picture)}` : '',
);
const { pause, resume } = useTimeoutPoll(lookForFilm, 1500, { immediate: false });
async function byPhone(): Promise<void> {
  if (!settings()) return;
  open.value = true;
  linkFailure.value = '';
  link.value = undefined;
  try {
    link.value = await api('makeFilmLink', { id: props.bench.frame.id, body: {} });
    resume();
  } catch (error) {
    linkFailure.value = error instanceof Error ? error.message : String(error);
  }
}
async function lookForFilm(): Promise<void> {
  const films = await api('sentFilms', { id: props.bench.frame.id }).catch(() => []);
  const film = films.at(-1);
  if (!film || !open.value || !link.value) return;
  pause();
  const response = await fetch(urlOf(`films/${film.id}/file`));
  const file = new File([await response.blob()], film.name, { type: film.type });
  link.value = undefined;
  // Read once, none of them stays; one that is kept is sent from here.
  for (const { id } of films) void api('dropFilm', { id, body: {} }).catch(() => undefined);
  given.value = file;
  await filming.read(file, slowMotion.value ? numberOf(trueRate.value) : undefined);
}
watch(open, (now) => {
  if (now) return;
  pause();
  link.value = undefined;
  given.value = undefined;
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
const quantity = computed(() => (props.method === 'filmed-swing' ? 'swingWeight' : 'twistWeight'));
const reading = computed<NewReading | undefined>(() => {
  const at = result.value;
  const given =
    at && Object.fromEntries(FIELDS[props.method].map(({ name }) => [name, numberOf(set.value[name])]));
  if (!at || !given) return undefined;
  const timing = {
    ...given,
    swings: at.swings,
    seconds: at.seconds,
    amplitudeDeg: at.startDeg,
    endAmplitudeDeg: at.endDeg,
  };
  const film = { random: at.random, common: at.common };
  return { means: props.method, key: nanoid(), quantity: quantity.value, timing, film } as NewReading;
});
/** What it would come to alone, with the weight and balance that are known. */
const comesTo = computed(() => {
  const one = reading.value;
  if (!one || !('film' in one)) return undefined;
  const { frame, settledFrame, capture } = props.bench;
  const known = (capture.value?.readings ?? []).filter(
    (r) => r.quantity === 'massG' || r.quantity === 'balanceCm',
  );
  const own = { id: 'film', quantity: one.quantity, means: one.means, timing: one.timing, ...one.film };
  const all = [...known, { ...own, source: one.means, setAside: false }];
  const settled = settleCapture(settledFrame, all).settled[one.quantity];
  return settled
    ? `${show(one.quantity, settled.value, frame.shape, 1)} ±${showBand(one.quantity, settled.uncertainty, frame.shape)} ${unit(one.quantity)}`
    : undefined;
});
async function enter(): Promise<void> {
  const now = reading.value;
  if (!now || keeping.value) return;
  keeping.value = true;
  keepFailure.value = '';
  try {
    if (!(await props.bench.addReading(now))) return;
    if (keeps.value && given.value) await keep(given.value, now.key);
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
  <div
    class="film"
    :class="{ over: isOver }"
    @dragover.prevent="isOver = true"
    @dragleave="isOver = false"
    @drop.prevent="drop"
  >
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
      <v-btn color="primary" variant="outlined" @click="input?.click()">Choose a film</v-btn>
      <v-btn variant="text" @click="byPhone">With a phone</v-btn>
      <v-btn v-if="filming.canFilm.value" variant="text" @click="openCamera">Film here</v-btn>
      <span class="soft small">or drop a film here</span>
    </div>
    <input
      ref="input"
      type="file"
      accept="video/*"
      class="d-sr-only"
      tabindex="-1"
      aria-label="Film"
      @change="chosen"
    />
    <Sheet v-model="open" title="Film" :width="760">
      <div v-if="link" class="live">
        <template v-if="link.address">
          <img :src="picture" alt="The address as a picture for a phone’s camera" width="220" height="220" />
          <p class="mb-0">
            <b>{{ link.address }}</b>
          </p>
        </template>
        <p v-else class="mb-0">
          Only this machine reaches Kevro now. For a phone to reach it, press
          <RouterLink :to="{ name: 'safety' }" class="link">Let other devices in</RouterLink>. On this machine
          the link is
          <RouterLink :to="{ name: 'filmed', params: { code: link.code } }" class="link" target="_blank"
            >here</RouterLink
          >.
        </p>
        <p class="soft mb-0" role="status">Waiting for the film…</p>
      </div>
      <p v-else-if="linkFailure" class="miss" role="alert">{{ linkFailure }}</p>
      <div v-else-if="camera" class="live">
        <video ref="video" muted playsinline autoplay aria-label="What the camera shows" />
        <p class="mb-0" role="status">
          {{
            filmed === undefined
              ? 'Let it swing, then start. Film 20 swings.'
              : `${filmed.toFixed(0)} s filmed`
          }}
        </p>
        <div class="buttons">
          <v-btn v-if="filmed === undefined" color="primary" autofocus @click="video && filming.film(video)"
            >Start</v-btn
          >
          <v-btn v-else color="primary" autofocus @click="filming.stopFilming">Stop</v-btn>
        </div>
      </div>
      <p v-else-if="filming.cameraFailure.value" class="miss" role="alert">
        {{ filming.cameraFailure.value }}
      </p>
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
        v-if="result && given"
        v-model="keeps"
        label="Keep the film with the measurement"
        hint="Of the frame alone, with nobody in it."
        :persistent-hint="keeps"
      />
      <p v-if="keepFailure" class="miss mb-0" role="alert">{{ keepFailure }}</p>
      <div class="d-flex ga-2 mt-4">
        <v-spacer />
        <v-btn variant="text" @click="open = false">Close</v-btn>
        <v-btn v-if="result" color="primary" autofocus :loading="keeping" @click="enter">Enter this</v-btn>
      </div>
    </Sheet>
  </div>
</template>

<style scoped>
.film {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.over {
  outline: 3px dashed rgb(var(--v-theme-reference));
  outline-offset: 4px;
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
.live {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
video {
  width: 100%;
  max-height: 50vh;
  background: #000;
}
</style>
