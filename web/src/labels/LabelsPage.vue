<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { SPECS, SPEC_KEYS } from '@kevro/core';
import type { FrameRow, PartRow } from '@kevro/contract';
import { api } from '../api/client';
import { useAsked } from '../api/queries';
import NumberField from '../forms/NumberField.vue';
import { useUnits } from '../stores/units';
import { useKept } from '../ui/kept';
import MoreFields from '../ui/MoreFields.vue';
import { PART_WORDS, fieldUnit } from '../words';
import { counted } from '../words/counted';
import { USUAL_SHEETS, barsFit, labelSvg, perPage, sheetProblem, type Label, type LabelSheet } from './label';
import { saveLabels } from './labels-pdf';

// What a fitter comes here to do: see the label; choose the paper that is in the printer; save the file.
const route = useRoute();
const units = useUnits();
const idsOf = (name: string): string[] =>
  String(route.query[name] ?? '')
    .split(',')
    .filter(Boolean);
const asked = computed(() => ({ frames: idsOf('frames'), parts: idsOf('parts') }));
const { record, failure, load } = useAsked(
  'labels',
  () => JSON.stringify(asked.value),
  async () => {
    const { frames, parts } = asked.value;
    const [access, found, all] = await Promise.all([
      api('access'),
      frames.length > 0 ? api('frames', { query: { ids: frames.join(','), limit: 500 } }) : { rows: [] },
      parts.length > 0 ? api('parts') : [],
    ]);
    // A phone finds the shop by its address in the network, where it has one.
    return { base: access.addresses[0] ?? location.origin, frames: found.rows, parts: all };
  },
);

function frameLabel(frame: FrameRow, base: string): Label {
  const { newest, shape } = frame;
  const spec = (key: (typeof SPEC_KEYS)[number]): string => {
    const value = newest?.specs[key];
    if (value === undefined) return '';
    const text = units.show(key, value, shape);
    const inertia = SPECS[key].measure === 'inertia';
    return inertia ? `${SPECS[key].short} ${text}` : `${text} ${units.unit(key)}`.trim();
  };
  const [weight = '', balance = '', swing = '', twist = ''] = SPEC_KEYS.map(spec);
  const both = (...all: string[]): string => all.filter(Boolean).join(' · ');
  return {
    id: frame.id,
    title: frame.tag,
    lines: [
      `${frame.maker} ${frame.model}`,
      newest ? both(weight, balance) : 'not measured yet',
      both(swing, twist),
    ].filter(Boolean),
    code: frame.tag,
    address: `${base}/tag/${encodeURIComponent(frame.tag)}`,
  };
}
function partLabel({ part }: PartRow, base: string): Label {
  const words = PART_WORDS[part.kind];
  const known = Object.entries(words.fields).flatMap(([name, of]) => {
    const value = (part as unknown as Record<string, unknown>)[name];
    if (!of || typeof value !== 'number' || !/^(gPerCm|massG|widthMm)$/.test(name)) return [];
    const unit = fieldUnit(of);
    return [`${units.measureWriting(of.measure ?? 'number', unit).write(value)} ${unit}`];
  });
  return {
    id: part.id,
    title: part.name,
    lines: [words.name, known.join(' · ')].filter(Boolean),
    code: part.id,
    address: `${base}/stock?part=${encodeURIComponent(part.id)}`,
  };
}
const labels = computed<Label[]>(() => {
  if (!record.value) return [];
  const { base, frames, parts } = record.value;
  const inOrder = <T,>(ids: string[], of: (id: string) => T | undefined): T[] =>
    ids.flatMap((id) => of(id) ?? []);
  return [
    ...inOrder(asked.value.frames, (id) => frames.find((one) => one.id === id)).map((f) =>
      frameLabel(f, base),
    ),
    ...inOrder(asked.value.parts, (id) => parts.find(({ part }) => part.id === id)).map((p) =>
      partLabel(p, base),
    ),
  ];
});

const first = USUAL_SHEETS[0]?.sheet as LabelSheet;
const kept = useKept<LabelSheet>('kevro-labels', first, { mergeDefaults: true });
const form = ref<LabelSheet>({ ...kept.value });
const same = (a: LabelSheet, b: LabelSheet): boolean => JSON.stringify(a) === JSON.stringify(b);
const size = computed({
  get: () => USUAL_SHEETS.find(({ sheet }) => same(sheet, form.value))?.title ?? '',
  set: (title: string) => {
    const found = USUAL_SHEETS.find((one) => one.title === title);
    if (found) form.value = { ...found.sheet };
  },
});
const problem = computed(() => sheetProblem(form.value));
watch(form, (now) => !problem.value && (kept.value = { ...now }), { deep: true });
const usedUp = ref<number | null>(null);
const skipped = computed(() => {
  const used = Number(usedUp.value ?? 0);
  return Number.isInteger(used) && used >= 0 && used < perPage(form.value) ? used : 0;
});
const tooNarrow = computed(() => labels.value.filter(({ code }) => !barsFit(form.value, code)).length);
const drawn = computed(() =>
  (problem.value ? [] : labels.value.slice(0, 12)).map((l) => ({
    l,
    src: `data:image/svg+xml,${encodeURIComponent(labelSvg(l, form.value))}`,
  })),
);
const pages = computed(() => Math.ceil((labels.value.length + skipped.value) / perPage(form.value)));

const busy = ref(false);
const saveFailure = ref('');
async function save(): Promise<void> {
  if (busy.value || problem.value) return;
  busy.value = true;
  saveFailure.value = '';
  try {
    await saveLabels(
      labels.value,
      form.value,
      skipped.value,
      `Labels ${labels.value[0]?.title ?? ''}`.trim(),
    );
  } catch (error) {
    console.error(error);
    saveFailure.value = 'The file could not be made. Try a usual size.';
  } finally {
    busy.value = false;
  }
}
const PAPERS = [
  { value: 'a4', title: 'A4 sheet' },
  { value: 'letter', title: 'Letter sheet' },
  { value: 'roll', title: 'roll' },
];
</script>

<template>
  <div class="page">
    <div class="page-top">
      <h1>Labels</h1>
      <span class="spring" />
      <v-btn
        color="primary"
        size="large"
        :loading="busy"
        :disabled="labels.length === 0 || problem !== ''"
        @click="save"
        >Save labels as PDF</v-btn
      >
    </div>
    <div v-if="failure" role="alert">
      <p class="miss">{{ failure }}</p>
      <v-btn variant="outlined" @click="load">Try again</v-btn>
    </div>
    <p v-else-if="!record" class="soft" role="status">Loading…</p>
    <p v-else-if="labels.length === 0" class="soft">
      Nothing to label. Choose <RouterLink to="/frames">frames</RouterLink> or
      <RouterLink to="/stock">parts</RouterLink>.
    </p>
    <div v-else class="columns">
      <section aria-label="Paper" class="form">
        <v-select
          v-model="size"
          :items="USUAL_SHEETS.map(({ title }) => title)"
          label="Size"
          placeholder="own size"
          persistent-placeholder
        />
        <MoreFields title="Own size" :open="size === ''">
          <v-select v-model="form.paper" :items="PAPERS" label="Paper" />
          <div class="two">
            <NumberField v-model="form.widthMm" label="Label width" measure="thickness" unit="mm" />
            <NumberField v-model="form.heightMm" label="Label height" measure="thickness" unit="mm" />
            <template v-if="form.paper !== 'roll'">
              <NumberField v-model="form.columns" label="Side by side" />
              <NumberField v-model="form.rows" label="Rows" />
              <NumberField v-model="form.leftMm" label="Left edge" measure="thickness" unit="mm" />
              <NumberField v-model="form.topMm" label="Top edge" measure="thickness" unit="mm" />
              <NumberField v-model="form.gapXMm" label="Gap sideways" measure="thickness" unit="mm" />
              <NumberField v-model="form.gapYMm" label="Gap down" measure="thickness" unit="mm" />
            </template>
          </div>
        </MoreFields>
        <NumberField
          v-if="form.paper !== 'roll'"
          v-model="usedUp"
          label="Labels used up on the first sheet"
        />
        <p v-if="problem" class="miss small mb-0" role="alert">{{ problem }}</p>
        <p v-if="saveFailure" class="miss small mb-0" role="alert">{{ saveFailure }}</p>
        <p class="small mb-0" role="status">
          {{ counted(labels.length, 'label', 'labels') }} on {{ counted(pages, 'page', 'pages') }}. Print at
          100 %, not fitted to the page.
        </p>
        <p v-if="tooNarrow > 0" class="warn small mb-0">
          {{ tooNarrow === labels.length ? 'No bars' : `${tooNarrow} without bars` }}: this label is too small
          for them. The picture still works.
        </p>
        <p class="soft small mb-0">
          A signed-in phone’s camera opens the page by the picture. A scanner reads the bars.
        </p>
      </section>
      <section aria-label="Preview" class="preview">
        <img
          v-for="{ l, src } in drawn"
          :key="l.id"
          class="label"
          :src="src"
          :alt="`Label ${l.title}: ${l.lines.join(', ')}`"
        />
        <p v-if="labels.length > drawn.length" class="soft small">
          and {{ labels.length - drawn.length }} more
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(280px, 360px) minmax(0, 1fr);
  gap: 32px;
  align-items: start;
}
.form {
  display: flex;
  flex-direction: column;
  gap: 14px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
.preview {
  display: flex;
  flex-wrap: wrap;
  gap: 14px;
}
/* Labels are white, whatever the screen is. */
.label {
  background: #fff;
  border: 1px solid rgb(var(--v-theme-line));
  max-width: 100%;
}
@media (max-width: 800px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
