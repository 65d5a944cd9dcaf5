<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { PART_UNITS, WANTED_CHANCE, type PartUnit, type Sport } from '@kevro/core';
import type { BenchTool } from '@kevro/contract';
import { Refused, api } from '../api/client';
import DraftNotice from '../forms/DraftNotice.vue';
import NumberField from '../forms/NumberField.vue';
import { useDraft } from '../forms/draft';
import { sent, type Typed } from '../ui/typed';
import { useShop } from '../stores/shop';
import { useSaved } from '../stores/saved';
import ManyChoices from '../ui/ManyChoices.vue';
import { BENCH_TOOL_NAMES } from '../words/instruments';
import { items, SPORT_CHOICES } from '../words/players';

/** The shop's name, where it is, how long a calibration counts, and how often a check is to pass. */
const saved = useSaved();
const shop = useShop();
const draft = useDraft(() => ({
  name: '',
  town: '',
  timeZone: '',
  hours: null as Typed,
  kept: null as Typed,
  signedIn: null as Typed,
  wanted: WANTED_CHANCE,
  partUnit: 'g' as PartUnit,
  learnsFromAll: true,
  fits: [] as Sport[],
  measuresWith: [] as BenchTool[],
}));
const form = draft.value;
const WANTED = [
  { value: 0.8, title: '8 in 10' },
  { value: 0.9, title: '9 in 10' },
  { value: 0.95, title: '19 in 20' },
];
/** What is stored may be another share: it is shown as it is. */
const wantedChoices = computed(() => {
  const { wanted } = form.value;
  if (WANTED.some(({ value }) => value === wanted)) return WANTED;
  return [...WANTED, { value: wanted, title: `${Math.round(100 * wanted)} in 100` }];
});
const ZONES = Intl.supportedValuesOf('timeZone');
const refused = ref<Refused>();
const failure = ref('');
const loaded = ref(false);
const busy = ref(false);
onMounted(async () => {
  try {
    const { calibrationHours, backupsKept, signedInHours, wantedChance, ...same } = await shop.load();
    const { name, town, timeZone, partUnit, learnsFromAll, fits, measuresWith } = same;
    draft.begin('shop', {
      name,
      town,
      timeZone,
      hours: calibrationHours,
      kept: backupsKept,
      signedIn: signedInHours,
      wanted: wantedChance,
      partUnit,
      learnsFromAll,
      fits,
      measuresWith,
    });
    loaded.value = true;
  } catch (error) {
    failure.value = error instanceof Error ? error.message : String(error);
  }
});
async function store(): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  refused.value = undefined;
  failure.value = '';
  try {
    const { hours, kept, signedIn, wanted, ...same } = form.value;
    await api('editShop', {
      body: {
        ...same,
        calibrationHours: sent(hours),
        backupsKept: sent(kept),
        signedInHours: sent(signedIn),
        wantedChance: wanted,
      },
    });
    draft.stored();
    await shop.load();
    saved.stored();
  } catch (error) {
    if (error instanceof Refused && error.errors.length > 0) refused.value = error;
    else failure.value = error instanceof Error ? error.message : String(error);
  } finally {
    busy.value = false;
  }
}
const at = (path: string): string[] => [refused.value?.at(path)].filter((s) => s !== undefined);
</script>

<template>
  <form class="shop" novalidate @submit.prevent="store">
    <h2 class="heading">The shop</h2>
    <p v-if="failure" class="miss" role="alert">{{ failure }}</p>
    <template v-if="loaded">
      <DraftNotice :draft="draft" />
      <v-text-field v-model="form.name" label="Name" :error-messages="at('name')" />
      <v-text-field v-model="form.town" label="Town" :error-messages="at('town')" />
      <v-autocomplete
        v-model="form.timeZone"
        :items="ZONES"
        label="Time zone"
        :error-messages="at('timeZone')"
      />
      <NumberField
        v-model="form.hours"
        label="Calibration valid for"
        measure="hours"
        :error="at('calibrationHours')[0]"
      />
      <NumberField
        v-model="form.kept"
        label="Daily backups to keep (0: none)"
        :error="at('backupsKept')[0]"
      />
      <NumberField
        v-model="form.signedIn"
        label="Device sign-in lasts"
        measure="hours"
        :error="at('signedInHours')[0]"
      />
      <v-select
        v-model="form.wanted"
        :items="wantedChoices"
        label="First checks that should pass"
        hint="Measure asks for as many readings as that takes"
        persistent-hint
      />
      <v-select
        v-model="form.partUnit"
        :items="PART_UNITS"
        label="Weights of parts in"
        hint="Tape, grips, pieces; frames are weighed as the head line says"
        persistent-hint
      />
      <v-checkbox
        v-model="form.learnsFromAll"
        label="Let sessions of all players advise the next one"
        hint="Within this shop, without names, from eight players on"
        persistent-hint
        :hide-details="false"
      />
      <h3 class="heading">What you fit</h3>
      <ManyChoices v-model="form.fits" label="What you fit" :choices="SPORT_CHOICES" />
      <h3 class="heading">What you measure with</h3>
      <ManyChoices
        v-model="form.measuresWith"
        label="What you measure with"
        :choices="items(BENCH_TOOL_NAMES)"
      />
      <div><v-btn type="submit" color="primary" :loading="busy">Store</v-btn></div>
    </template>
  </form>
</template>

<style scoped>
.shop {
  display: flex;
  flex-direction: column;
  gap: 12px;
  max-width: 420px;
}
</style>
