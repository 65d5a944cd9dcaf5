<script setup lang="ts">
import { shortWeight } from '../words/part-weight';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { SPECS, SPEC_KEYS, isStrung, settleFrame, type AnySpecKey } from '@kevro/core';
import type { FrameRecord, Stringing } from '@kevro/contract';
import { api, urlOf } from '../api/client';
import FormDialog from '../forms/FormDialog.vue';
import { dayWords } from '../words/days';
import { dressWords } from '../words/dress';
import { useDraft } from '../forms/draft';
import NewFitting from '../forms/NewFitting.vue';
import PutRight from '../forms/PutRight.vue';
import Rail from '../rail/Rail.vue';
import { sweetOf } from '../rail/sweet';
import { useSaved } from '../stores/saved';
import { useUnits } from '../stores/units';
import { SPEC_NAMES } from '../words';
import FrameForm from '../forms/FrameForm.vue';
import FrameBed from './FrameBed.vue';
import FrameHistory from './FrameHistory.vue';
import FrameOutline from './FrameOutline.vue';
import StringingForm from '../forms/StringingForm.vue';
import { factsOf } from './facts';
import { useFramePage } from './frame-page';
import { timeline } from '../measure/timeline';
import NotOpened from '../ui/NotOpened.vue';

// What a fitter comes here to do: see what this frame is and what is on it; see what happened to it; measure it.
const props = defineProps<{ id: string }>();
const { page, failure, load, changed } = useFramePage(() => props.id);
const units = useUnits();
const saved = useSaved();
const router = useRouter();
const form = ref<InstanceType<typeof FrameForm>>();
const strings = ref<InstanceType<typeof StringingForm>>();
const putRight = ref<InstanceType<typeof PutRight>>();
const fitting = ref<InstanceType<typeof NewFitting>>();
const twinOpen = ref(false);
const twin = useDraft(() => ({ tag: '' }));
const twinForm = twin.value;

const frame = computed(() => page.value && settleFrame(page.value.frame.shape));
/** What it was measured as last, as it stands: a trial or a step on the way is not it. */
const newest = computed(() =>
  page.value?.measurements.find(({ purpose, counts }) => counts && purpose !== 'trial' && purpose !== 'step'),
);
const show = (key: AnySpecKey, value: number): string => {
  const shape = page.value?.frame.shape;
  const text = shape ? units.show(key, value, shape) : '';
  const plain = SPECS[key].measure === 'inertia' || units.unit(key) === 'points';
  return plain ? text : `${text} ${units.unit(key)}`.trim();
};
const happened = computed(() => (page.value ? timeline(page.value, show) : []));
const KINDS = { measured: 'measured', strings: 'strung', build: 'build' };

const weights = computed(() => page.value?.frame.weights ?? []);
const facts = computed(() => (page.value ? factsOf(page.value, newest.value?.specs, units, show) : []));
const stated = computed(() => {
  const { nominal, shape } = page.value?.frame ?? {};
  if (!nominal || !shape) return [];
  return SPEC_KEYS.flatMap((key) => {
    const value = nominal.specs[key];
    const tolerance = nominal.tolerance[key];
    if (value === undefined) return [];
    const band = tolerance === undefined ? '' : ` ±${units.showWidth(key, tolerance, shape.sport)}`;
    return [{ key, text: `${show(key, value)}${band}` }];
  });
});

const duplicate = (key: string): Promise<FrameRecord> =>
  api('duplicateFrame', { id: props.id, body: { ...twinForm.value, key } });
/** Once the form is shut: the page of the other frame has its own. */
const toTwin = ({ id }: FrameRecord): unknown => router.push(`/frames/${id}`);
async function archive(): Promise<void> {
  const archived = !page.value?.frame.archived;
  try {
    await api('archiveFrame', { id: props.id, body: { archived } });
    await changed();
  } catch (error) {
    saved.failed(error);
  }
}
const filmsOf = (measurementId: string) =>
  (page.value?.films ?? []).filter((film) => film.measurementId === measurementId);
async function removeFilm(filmId: string): Promise<void> {
  try {
    await api('removeFilm', { id: props.id, body: { filmId } });
    await changed();
  } catch (error) {
    saved.failed(error);
  }
}
async function retireStrings({ id, retired }: Stringing): Promise<void> {
  try {
    await api('retireStringing', { id, body: { retired: !retired } });
    await changed();
  } catch (error) {
    saved.failed(error);
  }
}
function startTwin(): void {
  twin.begin(`twin of ${props.id}`, { tag: '' });
  twinOpen.value = true;
}
</script>

<template>
  <NotOpened v-if="failure" what="frame" :why="failure" @again="load" />
  <div v-else-if="!page || !frame" class="page" role="status"><p class="soft">Loading…</p></div>
  <div v-else class="page">
    <div class="page-top">
      <h1>
        {{ page.frame.tag }} <span class="soft">{{ page.frame.maker }} {{ page.frame.model }}</span>
        <span v-if="page.frame.archived" class="warn small"> archived</span>
      </h1>
      <span class="spring" />
      <v-btn variant="text" @click="archive">{{ page.frame.archived ? 'Bring back' : 'Archive' }}</v-btn>
      <v-btn variant="text" @click="startTwin">Duplicate</v-btn>
      <v-btn variant="text" :to="{ name: 'match', query: { frames: id } }">Match</v-btn>
      <v-btn variant="text" :to="{ name: 'frame-card', params: { id } }">Card</v-btn>
      <v-btn variant="text" :to="{ name: 'labels', query: { frames: id } }">Label</v-btn>
      <v-btn variant="outlined" @click="form?.show(page.frame)">Change</v-btn>
      <v-btn
        variant="outlined"
        @click="fitting?.show({ playerId: page.frame.ownerId, frameIds: [page.frame.id] })"
        >Open a fitting</v-btn
      >
      <v-btn color="primary" size="large" :to="`/frames/${id}/measure`">Measure</v-btn>
    </div>
    <Rail
      class="rail"
      :frame="frame"
      :dress="page.frame.onIt"
      :measured-balance-cm="newest?.specs.balanceCm"
      :sweet-before="sweetOf(frame, newest?.specs)"
      :weights="weights"
      :weight-labels="weights.map((w) => shortWeight(w.massG))"
      label-once
    />
    <div class="columns">
      <section aria-label="Frame">
        <dl>
          <template v-for="[name, value] in facts" :key="name + value">
            <dt>{{ name }}</dt>
            <dd>{{ value }}</dd>
          </template>
        </dl>
        <FrameBed
          v-if="isStrung(page.frame.shape.sport)"
          :page="page"
          @stored="changed"
          @restring="strings?.show()"
          @correct="strings?.show($event)"
        />
        <FrameOutline :page="page" @stored="changed" />
        <div class="mt-4 mb-1"><h2 class="heading">The maker states of this model</h2></div>
        <dl v-if="stated.length > 0">
          <template v-for="row in stated" :key="row.key">
            <dt>{{ SPEC_NAMES[row.key] }}</dt>
            <dd>{{ row.text }}</dd>
          </template>
          <dt>With on it</dt>
          <dd>{{ dressWords(page.frame.nominal?.dress ?? {}, page.frame.shape.sport) }}</dd>
        </dl>
        <p v-else class="soft small">No maker’s specs yet. Add them to spot wrong labels and earlier work.</p>
      </section>
      <section aria-label="History">
        <FrameHistory :frame="page.frame" :measurements="page.measurements" />
        <div class="d-flex align-center ga-3">
          <h2 class="heading">History</h2>
          <span class="spring" />
        </div>
        <p v-if="happened.length === 0" class="soft">No history yet. Measure it first.</p>
        <ol class="timeline">
          <li v-for="h in happened" :key="h.key" :class="[h.kind]" :data-row="h.key">
            <span class="when">{{ dayWords(h.at) }}</span>
            <span class="kind">{{ KINDS[h.kind] }}</span>
            <span>
              <RouterLink v-if="h.to" :to="h.to">{{ h.title }}</RouterLink>
              <span v-else :class="{ struck: h.fault }">{{ h.title }}</span>
              <span v-if="h.text" class="soft small d-block">{{ h.text }}</span>
              <span v-if="h.fault" class="warn small d-block">{{ h.fault }}</span>
              <span v-for="film in filmsOf(h.key)" :key="film.id" class="acts no-print">
                <a :href="urlOf(`films/${film.id}/file`)" target="_blank" rel="noopener">Film</a>
                <button type="button" @click="removeFilm(film.id)">Remove film</button>
              </span>
              <span v-if="h.measurement && h.measurement.supersededBy === null" class="acts no-print">
                <button v-if="h.measurement.counts" type="button" @click="putRight?.correct(h.measurement)">
                  Correct…<span class="d-sr-only"> what was measured on {{ dayWords(h.at) }}</span>
                </button>
                <button type="button" @click="putRight?.mark(h.measurement)">
                  {{ h.measurement.counts ? 'Discard…' : 'Restore'
                  }}<span class="d-sr-only"> what was measured on {{ dayWords(h.at) }}</span>
                </button>
              </span>
              <span v-if="h.stringing" class="acts no-print">
                <button v-if="!h.stringing.retired" type="button" @click="strings?.show(h.stringing)">
                  Correct…<span class="d-sr-only"> the strings of {{ dayWords(h.at) }}</span>
                </button>
                <button type="button" @click="retireStrings(h.stringing)">
                  {{ h.stringing.retired ? 'Restore' : 'Discard…'
                  }}<span class="d-sr-only"> the strings of {{ dayWords(h.at) }}</span>
                </button>
              </span>
            </span>
          </li>
        </ol>
      </section>
    </div>
    <FrameForm ref="form" @stored="changed" />
    <StringingForm
      ref="strings"
      :frame-id="id"
      :shape="page.frame.shape"
      :pattern="page.frame.pattern"
      :last="page.stringings.find(({ retired }) => !retired)"
      @stored="changed"
    />
    <PutRight ref="putRight" :shape="page.frame.shape" @stored="changed" />
    <NewFitting ref="fitting" />
    <FormDialog
      v-model="twinOpen"
      title="Duplicate"
      :submit="duplicate"
      :draft="twin"
      @stored="toTwin($event as FrameRecord)"
    >
      <template #default="{ at }">
        <p class="mb-0">
          Copies model, size, grip and owner. Measurements, strings and added weight stay with
          {{ page.frame.tag }}.
        </p>
        <v-text-field v-model="twinForm.tag" v-first label="Its tag" :error-messages="at('tag')" />
      </template>
    </FormDialog>
  </div>
</template>

<style scoped>
/* Its many buttons stand close together, so that the name has room beside them. */
.page-top {
  flex-wrap: wrap;
  gap: 6px;
}
.page-top h1 {
  flex: 1 1 240px;
  min-width: 0;
}
.rail {
  max-width: 760px;
}
.columns {
  display: grid;
  grid-template-columns: minmax(280px, 2fr) 3fr;
  gap: 36px;
  margin-top: 12px;
}
dl {
  display: grid;
  grid-template-columns: 118px 1fr;
  gap: 5px 12px;
  margin: 0;
}
dt {
  color: rgb(var(--v-theme-soft));
}
dd {
  margin: 0;
}
.timeline {
  list-style: none;
  padding: 0;
  margin: 6px 0 0;
}
.timeline li {
  display: grid;
  grid-template-columns: 104px 76px 1fr;
  gap: 8px;
  border-top: 1px solid rgb(var(--v-theme-line));
  padding: 7px 0;
}
.struck {
  text-decoration: line-through;
}
.acts {
  display: flex;
  gap: 14px;
}
.acts button,
.acts a {
  text-decoration: underline;
  text-underline-offset: 3px;
  font-size: 13.5px;
  min-height: 28px;
  color: rgb(var(--v-theme-soft));
}
.when {
  color: rgb(var(--v-theme-soft));
}
.measured .kind {
  font-weight: 700;
}
@media (max-width: 860px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
