<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { SHEETS, SPORTS, type SheetName } from '@kevro/core';
import { sentence } from '@kevro/contract';
import { api, upload } from '../api/client';
import NumberField from '../forms/NumberField.vue';
import FilmByPhone from '../measure/FilmByPhone.vue';
import OutlineFigures from '../outline/OutlineFigures.vue';
import PhotoMarks from '../outline/PhotoMarks.vue';
import { PHOTO_WORDS } from '../outline/outline-words';
import { useOutlining } from '../outline/outlining';
import { useSaved } from '../stores/saved';
import { numberOf, type Typed } from '../ui/typed';
import FileDrop from '../ui/FileDrop.vue';
import NotOpened from '../ui/NotOpened.vue';
import { shopToday } from '../words/days';
import { PHOTO_STEPS } from '../words/photo-steps';
import { useFramePage } from './frame-page';

// What a fitter comes here to do: give a photo; see that the outline fits, and drag it where it does not; store it.
const props = defineProps<{ id: string }>();
const { page, failure: pageFailure, load } = useFramePage(() => props.id);
const saved = useSaved();
const router = useRouter();

const shape = computed(() => page.value?.frame.shape);
const thickness = ref<Typed>(null);
const CM = 10;
const thicknessMm = computed(() => numberOf(thickness.value));
const thicknessWrong = computed(() => {
  const value = thicknessMm.value;
  return value === undefined || !(value > 0 && value < 60) ? sentence('not-a-number') : '';
});
/** The middle of what its beam is noted as, «23 / 26 / 22», or what is usual in the sport, mm. */
watch(
  page,
  (now) => {
    if (!now || thickness.value !== null) return;
    const noted = (now.frame.beam.match(/\d+(?:[.,]\d+)?/g) ?? []).map((mm) => Number(mm.replace(',', '.')));
    const usual = CM * SPORTS[now.frame.shape.sport].hoop.thickCm;
    const fits = noted.filter((mm) => mm > 4 && mm < 60);
    const middle = fits.reduce((sum, mm) => sum + mm, 0) / fits.length;
    thickness.value = fits.length > 0 ? Math.round(10 * middle) / 10 : usual;
  },
  { immediate: true },
);
const work = useOutlining(
  shape,
  computed(() => (thicknessMm.value ?? 0) / CM),
);
const { working, opened, part, trouble, corners, read, sheet, found, curves } = work;

const byPhone = ref(false);
const keeps = ref(false);
const storing = ref(false);
const failure = ref('');

function take(file: File): void {
  if (thicknessWrong.value) return;
  byPhone.value = false;
  keeps.value = false;
  failure.value = '';
  void work.open(file);
}
/** Read anew where the sheet or the thickness is another; what was dragged goes. */
const again = (): void => {
  if (opened.value && !thicknessWrong.value) void work.look({ corners: corners.value });
};
function thicknessLeft(): void {
  // A field that was only passed through changes nothing.
  const before = CM * (read.value?.taken.thicknessCm ?? 0);
  if (Math.abs(before - (thicknessMm.value ?? 0)) > 1e-6) again();
}
const SHEET_ITEMS = (Object.keys(SHEETS) as SheetName[]).map((name) => ({ value: name, title: name }));
function chooseSheet(name: SheetName): void {
  sheet.value = name;
  again();
}
const said = computed(() => (trouble.value ? PHOTO_WORDS[trouble.value] : work.failure.value));
const hasHoop = computed(() => Boolean(shape.value && SPORTS[shape.value.sport].hoop.sizeIsOf === 'bed'));
const hoopMm = computed<Typed>({
  get: () => (read.value?.hoopCm === undefined ? null : CM * read.value.hoopCm),
  set: (typed) => {
    const mm = numberOf(typed);
    if (!read.value || mm === undefined || !(mm > 0 && mm < 50)) return;
    read.value = { ...read.value, hoopCm: mm / CM };
  },
});

async function store(): Promise<void> {
  const [now, on, from] = [found.value, read.value, opened.value];
  if (!now || !on || !from || storing.value) return;
  storing.value = true;
  failure.value = '';
  try {
    const { file } = from;
    const kept =
      keeps.value && (await upload('addFilm', file, file.type, { name: 'outline.jpg' }, undefined, props.id));
    await api('takeOutline', {
      id: props.id,
      body: {
        outline: {
          points: now.points,
          hoopCm: on.hoopCm,
          from: 'photo',
          takenOn: shopToday(),
          widthSdCm: now.width.uncertainty,
          faceSdCm2: now.face.uncertainty,
        },
        lengthCm: Math.round(100 * now.length.value) / 100,
        pictureId: kept ? kept.id : null,
      },
    });
    saved.stored();
    await router.push({ name: 'frame', params: { id: props.id } });
  } catch (error) {
    failure.value = error instanceof Error ? error.message : String(error);
  } finally {
    storing.value = false;
  }
}
</script>

<template>
  <NotOpened v-if="pageFailure" what="frame" :why="pageFailure" @again="load" />
  <div v-else-if="!page" class="page" role="status"><p class="soft">Loading…</p></div>
  <FileDrop v-else v-slot="{ choose }" class="page" accept="image/*" label="Photo" @file="take">
    <div class="page-top">
      <h1>
        Outline of <router-link :to="{ name: 'frame', params: { id } }">{{ page.frame.tag }}</router-link>{{
          ' '
        }}<span class="soft">{{ page.frame.maker }} {{ page.frame.model }}</span>
      </h1>
      <span class="spring" />
      <v-btn v-if="opened || byPhone" variant="text" @click="(work.forget(), (byPhone = false))"
        >Another photo</v-btn
      >
      <v-btn v-if="found" color="primary" size="large" :loading="storing" @click="store">Keep outline</v-btn>
    </div>
    <p v-if="failure" class="miss" role="alert">{{ failure }}</p>
    <div class="columns">
      <section aria-label="Picture">
        <PhotoMarks
          v-if="opened && part"
          v-model:read="read"
          :address="opened.address"
          :size="opened.photo"
          :part="part"
          :corners="corners"
          :curves="curves"
          :has-hoop="hasHoop"
          @corners="(now) => work.look({ corners: now })"
        />
        <FilmByPhone v-else-if="byPhone" :frame-id="id" takes="photo" @came="take" />
        <div v-else class="start">
          <ol>
            <li v-for="step in PHOTO_STEPS" :key="step">{{ step }}</li>
          </ol>
          <div class="buttons">
            <v-btn v-first color="primary" @click="choose">Choose a photo</v-btn>
            <v-btn variant="outlined" @click="byPhone = true">With a phone</v-btn>
            <span class="soft small">or drop a photo here</span>
          </div>
        </div>
      </section>
      <section aria-label="What it comes to">
        <p v-if="working" role="status">Reading the photo…</p>
        <p v-if="said" class="miss" role="alert">{{ said }}</p>
        <v-btn
          v-if="trouble === 'photo-no-sheet' && !corners"
          variant="outlined"
          class="mb-3"
          @click="work.markCorners"
          >Mark the sheet’s corners</v-btn
        >
        <OutlineFigures v-if="found && shape" :work="work" :shape="shape" :has-hoop="hasHoop" />
        <div class="fields">
          <NumberField
            v-model="thickness"
            label="Thickness at the head"
            measure="thickness"
            :error="thicknessWrong || undefined"
            @left="thicknessLeft"
          />
          <NumberField
            v-if="read && hasHoop"
            v-model="hoopMm"
            label="Width of the hoop"
            measure="thickness"
          />
          <v-select
            v-if="read || trouble === 'photo-other-sheet' || corners"
            :model-value="sheet ?? read?.taken.sheet ?? null"
            :items="SHEET_ITEMS"
            label="Sheet"
            @update:model-value="chooseSheet"
          />
        </div>
        <v-checkbox
          v-if="found"
          v-model="keeps"
          label="Keep the photo with the outline"
          hint="Of the frame alone, with nobody in it."
          :persistent-hint="keeps"
        />
      </section>
    </div>
  </FileDrop>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(320px, 5fr) minmax(300px, 3fr);
  gap: 28px;
  margin-top: 10px;
}
.start ol {
  padding-left: 22px;
  max-width: 560px;
}
.start li {
  margin-bottom: 4px;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
  margin-top: 14px;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  margin-top: 10px;
}
@media (max-width: 860px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
