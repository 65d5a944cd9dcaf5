<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core';
import { computed, nextTick, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import {
  SPEC_KEYS,
  TYPICAL_READING,
  specProblems,
  type AxisSpecs,
  type Dress,
  type KnownSpecs,
  type SpecKey,
} from '@kevro/core';
import { fieldError, sentence } from '@kevro/contract';
import { Refused, api } from '../../api/client';
import Lanes from '../../lanes/Lanes.vue';
import DressForm from '../../parts/DressForm.vue';
import SpecField from '../../parts/SpecField.vue';
import UnsavedSheet from '../../parts/UnsavedSheet.vue';
import { readSpec } from '../../parts/spec-text';
import { useUnsaved } from '../../parts/unsaved';
import Rail from '../../rail/Rail.vue';
import { useFitting } from '../../stores/fitting';
import { useSaved } from '../../stores/saved';
import { useUnits } from '../../stores/units';
import WorkingSheet from '../../working/WorkingSheet.vue';
import Bench from '../Bench.vue';
import { readingWorking, sweetOf, useBenchMarks } from '../bench-marks';
import { useWorking } from '../working';
import EarlierMeasurements from './EarlierMeasurements.vue';

// What a fitter comes here to do: say what is on the racket; type the readings; see at once whether they can be.
const fitting = useFitting();
const units = useUnits();
const saved = useSaved();
const marks = useBenchMarks();
const { sheet, show } = useWorking();
const route = useRoute();

interface Draft {
  key: string;
  dress: Dress;
  text: Record<SpecKey, string>;
}
const emptyDraft = (): Draft => ({
  key: crypto.randomUUID(),
  dress: { ...(fitting.dress ?? { strings: true, baseGrip: 'synthetic', overgrips: 1 }) },
  text: { massG: '', balanceCm: '', swingWeight: '', twistWeight: '' },
});
const frameId = fitting.view?.frame.id ?? '';
const draft = useLocalStorage<Draft>(`kevro-measure-${frameId}`, emptyDraft(), { writeDefaults: false });
const left = ref(new Set<SpecKey>());
const refused = ref<Refused>();
const busy = ref(false);

const lengthCm = computed(() => fitting.frame?.lengthCm ?? 0);
const axisCm = computed(() => fitting.frame?.sport.axisCm ?? 0);
const typed = computed<KnownSpecs>(() => {
  const values: KnownSpecs = {};
  for (const key of SPEC_KEYS) {
    const value = readSpec(key, draft.value.text[key], units.way, lengthCm.value);
    if (value !== undefined) values[key] = value;
  }
  return values;
});
const started = computed(() => SPEC_KEYS.some((key) => draft.value.text[key].trim() !== ''));
const whole = computed<AxisSpecs | undefined>(() => {
  const { massG, balanceCm, swingWeight, twistWeight } = typed.value;
  if (massG === undefined || balanceCm === undefined || swingWeight === undefined) return undefined;
  return {
    massG,
    balanceCm,
    swingWeight,
    axisCm: axisCm.value,
    ...(twistWeight === undefined ? {} : { twistWeight }),
  };
});

const OPTIONAL: SpecKey = 'twistWeight';
/** The sentence beside each field, whether or not the fitter has got there yet. */
const errors = computed<Partial<Record<SpecKey, string>>>(() => {
  const found: Partial<Record<SpecKey, string>> = {};
  for (const key of SPEC_KEYS) {
    const text = draft.value.text[key].trim();
    if (text === '') {
      if (key !== OPTIONAL) found[key] = sentence('missing');
    } else if (typed.value[key] === undefined) found[key] = sentence('not-a-number');
  }
  // Single values are judged as soon as they stand; how they go together once all three are there.
  const values = {
    massG: 300,
    balanceCm: lengthCm.value / 2,
    swingWeight: 1e5,
    ...typed.value,
    axisCm: axisCm.value,
  };
  for (const { path, ...problem } of specProblems(whole.value ?? values, lengthCm.value, '')) {
    const key = path.slice(1) as SpecKey;
    found[key] ??= fieldError({ path, ...problem }).message;
  }
  return found;
});
const errorAt = (key: SpecKey): string | undefined =>
  (left.value.has(key) ? errors.value[key] : undefined) ?? refused.value?.at(`specs.${key}`);

const shownMarks = computed(() => {
  if (!started.value) return marks.value;
  return { ...marks.value, measured: typed.value, measuredUncertainty: TYPICAL_READING };
});
const shownBalance = computed(() => (started.value ? typed.value.balanceCm : fitting.before?.balanceCm));
const sweet = computed(() =>
  Object.keys(errors.value).length === 0 && started.value
    ? sweetOf(fitting.frame, whole.value)
    : started.value
      ? undefined
      : sweetOf(fitting.frame, fitting.before),
);

const question = useUnsaved(started);

async function store(): Promise<void> {
  left.value = new Set(SPEC_KEYS);
  refused.value = undefined;
  if (Object.keys(errors.value).length > 0 || !whole.value || busy.value) {
    await nextTick();
    document.querySelector<HTMLElement>('.readings .v-input--error input')?.focus();
    return;
  }
  busy.value = true;
  try {
    const { key, dress } = draft.value;
    await api('addMeasurement', { id: frameId, body: { key, dress, specs: whole.value } });
    const keptDress = dress;
    draft.value = { ...emptyDraft(), dress: keptDress };
    left.value = new Set();
    await fitting.refresh();
  } catch (error) {
    if (error instanceof Refused) refused.value = error;
    saved.failed(error);
  } finally {
    busy.value = false;
  }
}

const readings = ref<HTMLElement>();
watch(
  () => route.query.take,
  async (take) => {
    if (!take) return;
    await nextTick();
    readings.value?.querySelector('input')?.focus();
  },
  { immediate: true },
);
</script>

<template>
  <Bench aside-label="Readings">
    <template v-if="fitting.frame">
      <Rail
        :frame="fitting.frame"
        :dress="draft.dress"
        :measured-balance-cm="shownBalance"
        :sweet-before="sweet"
      />
      <Lanes
        :marks="shownMarks"
        :length-cm="lengthCm"
        :axis-cm="axisCm"
        @open="show($event, readingWorking($event), 'measured')"
      />
    </template>
    <template #aside>
      <h2 class="heading">First: what is on the racket?</h2>
      <DressForm v-model="draft.dress" />
      <h2 class="heading">Then the readings</h2>
      <form id="readings" ref="readings" class="readings" novalidate @submit.prevent="store">
        <SpecField
          v-for="key in SPEC_KEYS"
          :key="key"
          v-model="draft.text[key]"
          :spec="key"
          :length-cm="lengthCm"
          :error="errorAt(key)"
          :label="key === 'twistWeight' ? 'Twist weight if measured' : undefined"
          large
          @left="draft.text[key] !== '' && left.add(key)"
        />
      </form>
      <p class="soft small mb-0">Balance also as “6 HL”, “324 mm” or “12.8 in”; weight also as “11.5 oz”.</p>
      <EarlierMeasurements :frame-id="frameId" :newest="fitting.measurement?.id" :length-cm="lengthCm" />
    </template>
    <template #action>
      <v-btn
        v-if="started || !fitting.measurement"
        type="submit"
        form="readings"
        color="primary"
        size="large"
        :loading="busy"
        block
        >Store the measurement</v-btn
      >
      <v-btn v-else color="primary" size="large" block :to="{ name: 'compare' }">Go on to Compare</v-btn>
    </template>
    <template #keys>
      <span><kbd>m</kbd> to the readings</span><span><kbd>Tab</kbd> next reading</span
      ><span><kbd>Enter</kbd> store</span>
    </template>
  </Bench>
  <WorkingSheet v-model="sheet.open" :title="sheet.title" :parts="sheet.parts" />
  <UnsavedSheet :question="question" what="Readings are typed but not stored." />
</template>

<style scoped>
.readings {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
</style>
