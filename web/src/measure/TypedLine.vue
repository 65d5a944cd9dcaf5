<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { nanoid } from 'nanoid';
import { SPECS, SPEC_KEYS, isStrung, parseSpecs, type Dress } from '@kevro/core';
import DraftNotice from '../forms/DraftNotice.vue';
import Sheet from '../ui/Sheet.vue';
import { useDraft } from '../forms/draft';
import { dressWords } from '../words/dress';
import { useUnits } from '../stores/units';
import { SPEC_NAMES } from '../words';
import type { CaptureBench } from './capture';
import { useQuantities } from './quantities';

/** All specs in one typed line; what was understood stands below before anything is entered. */
const props = defineProps<{ bench: CaptureBench }>();
const open = defineModel<boolean>({ required: true });
const { unit, show } = useQuantities();
const units = useUnits();
const kept = useDraft(() => ({ text: '' }));
const text = computed({
  get: () => kept.value.value.text,
  set: (now: string) => {
    kept.value.value = { text: now };
  },
});
/** A frame of the sport as one would type it. */
const example = computed(() => {
  const { usual } = sport;
  const strung = isStrung(sport.sport) ? ', strung' : '';
  return `${usual.massG} g, ${usual.balanceCm} cm, sw ${usual.swingWeight}, twist ${usual.twistWeight}${strung}, 1 overgrip`;
});
const busy = ref(false);
watch(open, (now) => {
  if (now) kept.begin(`line ${props.bench.frame.id}`, { text: '' });
});
const { lengthCm, sport } = props.bench.settledFrame;
const { shape } = props.bench.frame;
const parsed = computed(() => parseSpecs(text.value, sport.sport, lengthCm));
const specs = computed(() =>
  SPEC_KEYS.flatMap((key) => {
    const value = parsed.value.specs[key];
    return value === undefined ? [] : [{ key, value }];
  }),
);
const dress = computed<Dress | undefined>(() =>
  Object.keys(parsed.value.dress).length > 0 ? parsed.value.dress : undefined,
);
let keys = new Map<string, string>();
watch(text, () => {
  keys = new Map();
});

async function enter(): Promise<void> {
  if (busy.value || specs.value.length === 0) return;
  busy.value = true;
  try {
    const { bench } = props;
    if (dress.value && !(await bench.setDress({ ...bench.capture.value?.dress, ...dress.value }))) return;
    for (const { key: quantity, value } of specs.value) {
      // Sent again after a failure, each counts once.
      const key = keys.get(quantity) ?? nanoid();
      keys.set(quantity, key);
      const { axisCm } = parsed.value.specs;
      const about = quantity === 'swingWeight' && axisCm !== undefined ? { axisCm } : bench.aboutOf(quantity);
      if (!(await bench.addReading({ means: 'typed', key, quantity, value, ...about }))) return;
    }
    text.value = '';
    open.value = false;
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <Sheet v-model="open" title="Type the readings in one line" :width="620">
    <form novalidate @submit.prevent="enter">
      <DraftNotice :draft="kept" />
      <v-text-field
        v-model="text"
        v-first
        label="Readings"
        :placeholder="example"
        autocomplete="off"
        class="line"
      />
      <p class="soft small">e.g. 11.5 oz, 6 HL, sw 320, tw 13.6</p>
      <dl v-if="specs.length > 0" class="read">
        <template v-for="{ key, value } in specs" :key="key">
          <dt>{{ SPEC_NAMES[key] }}</dt>
          <dd>
            <b>{{ show(key, value, shape, 1) }}</b> {{ unit(key) }}
          </dd>
        </template>
        <template v-if="dress">
          <dt>On it</dt>
          <dd>{{ dressWords({ ...bench.capture.value?.dress, ...dress }, sport.sport) }}</dd>
        </template>
      </dl>
      <p v-if="parsed.leftover" class="warn">Not understood: “{{ parsed.leftover }}”</p>
      <p v-if="parsed.specs.axisCm !== undefined" class="soft">
        The {{ SPECS.swingWeight.name }} is about {{ units.showMeasure('length', parsed.specs.axisCm) }} from
        the butt; it is moved to {{ units.showMeasure('length', sport.axisCm) }}.
      </p>
      <p v-if="bench.failure.value" class="miss" role="alert">{{ bench.failure.value }}</p>
      <div class="d-flex ga-2 mt-3">
        <v-spacer />
        <v-btn variant="text" @click="open = false">Close</v-btn>
        <v-btn type="submit" color="primary" :loading="busy" :disabled="specs.length === 0"
          >Enter these</v-btn
        >
      </div>
    </form>
  </Sheet>
</template>

<style scoped>
.line :deep(input) {
  font-size: 22px;
  font-weight: 600;
}
.read {
  display: grid;
  grid-template-columns: 130px 1fr;
  gap: 4px 12px;
}
.read dd {
  margin: 0;
}
</style>
