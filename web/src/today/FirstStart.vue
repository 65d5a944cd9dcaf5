<script setup lang="ts">
import { onMounted, ref } from 'vue';
import { PART_UNITS, type PartUnit, type Sport } from '@kevro/core';
import type { BenchTool } from '@kevro/contract';
import { Refused, api } from '../api/client';
import { queries } from '../api/queries';
import { useActKey } from '../forms/act-key';
import DraftNotice from '../forms/DraftNotice.vue';
import StarterStock from '../forms/StarterStock.vue';
import { noStarters, picked } from '../forms/starters';
import { useDraft } from '../forms/draft';
import { useShop } from '../stores/shop';
import { WAYS, useUnits } from '../stores/units';
import { focusWrong } from '../ui/focus';
import ChoiceRow from '../ui/ChoiceRow.vue';
import ManyChoices from '../ui/ManyChoices.vue';
import { BENCH_TOOL_NAMES } from '../words/instruments';
import { items, SPORT_CHOICES } from '../words/players';

// What a fitter comes here to do: say what the shop is, in a minute or not at all; put the usual parts into the stock; begin the first fitting.
const emit = defineEmits<{ begun: [] }>();
const shop = useShop();
const units = useUnits();
const draft = useDraft(() => ({
  name: '',
  town: '',
  fits: [] as Sport[],
  way: String(units.index),
  partUnit: 'g' as PartUnit,
  measuresWith: [] as BenchTool[],
  starters: noStarters(),
}));
const form = draft.value;
onMounted(() => draft.begin('first start', form.value));
const TOOLS = items(BENCH_TOOL_NAMES);
const SAYINGS = WAYS.map(({ label }, i) => ({ value: String(i), title: label }));
const refused = ref<Refused>();
const failure = ref('');
const busy = ref(false);
const page = ref<HTMLFormElement>();
const key = useActKey();
const at = (path: string): string[] => [refused.value?.at(path)].filter((s) => s !== undefined);

/** @param asAnswered without it the page is skipped: nothing is stored but that it was */
async function begin(asAnswered: boolean): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  refused.value = undefined;
  failure.value = '';
  try {
    const { name, town, fits, way, partUnit, measuresWith, starters } = form.value;
    const named = name.trim() === '' ? {} : { name };
    const body = asAnswered
      ? { ...named, town, fits, partUnit, measuresWith, starters: picked(starters, fits) }
      : {};
    await key.once((own) => api('beginShop', { body: { ...body, key: own } }));
    if (asAnswered) units.index = Number(way);
    draft.stored();
    // Said first: once the shop is known to have begun, this page is gone.
    emit('begun');
    // The stock may have been looked at before.
    void queries.invalidateQueries({ queryKey: ['parts'] });
    await shop.load();
  } catch (error) {
    if (error instanceof Refused && error.errors.length > 0) {
      refused.value = error;
      if (!(await focusWrong(page.value))) failure.value = error.message;
    } else failure.value = error instanceof Error ? error.message : String(error);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <form ref="page" class="page first" novalidate @submit.prevent="begin(true)">
    <div class="page-top">
      <div>
        <h1>Set up your bench</h1>
        <p class="soft mb-0">
          Five short questions. Change the answers later under Settings, or
          <button type="button" class="link" @click="begin(false)">skip and start a fitting</button>.
        </p>
      </div>
      <span class="spring" />
      <v-btn type="submit" color="primary" size="large" :loading="busy">Start the first fitting</v-btn>
    </div>
    <DraftNotice :draft="draft" />
    <p v-if="failure" class="miss" role="alert">{{ failure }}</p>
    <section>
      <h2 class="asked">Your shop</h2>
      <div class="shop">
        <v-text-field v-model="form.name" label="Name" :error-messages="at('name')" />
        <v-text-field v-model="form.town" label="Town" :error-messages="at('town')" />
      </div>
    </section>
    <section>
      <div>
        <h2 class="asked">What you fit</h2>
        <p class="soft small mb-0">None chosen: all of them.</p>
      </div>
      <ManyChoices v-model="form.fits" label="What you fit" :choices="SPORT_CHOICES" />
    </section>
    <section>
      <h2 class="asked">Your units</h2>
      <div class="said">
        <ChoiceRow v-model="form.way" label="Your units" :choices="SAYINGS" />
        <v-select v-model="form.partUnit" :items="PART_UNITS" label="Weights of parts in" />
      </div>
    </section>
    <section>
      <div>
        <h2 class="asked">What you measure with</h2>
        <p class="soft small mb-0">No machine is fine: a scale, a ruler and a stopwatch will do.</p>
      </div>
      <ManyChoices v-model="form.measuresWith" label="What you measure with" :choices="TOOLS" />
    </section>
    <section>
      <div>
        <h2 class="asked">What you stick on</h2>
        <p class="soft small mb-0">
          Common parts with typical weights, marked <i>typical</i> until you weigh yours.
        </p>
      </div>
      <StarterStock v-model="form.starters" :sports="form.fits" :said="(path) => refused?.at(path)" />
    </section>
    <Teleport defer to="#foot-keys">
      <span><kbd>Ctrl</kbd> <kbd>Enter</kbd> start</span>
    </Teleport>
  </form>
</template>

<style scoped>
section {
  display: grid;
  grid-template-columns: 220px minmax(0, 1fr);
  gap: 8px 28px;
  align-items: start;
  padding: 14px 0;
  border-top: 1px solid rgb(var(--v-theme-line));
}
.first p {
  margin-top: 2px;
}
.asked {
  font-size: 15px;
  font-weight: 700;
  margin: 0;
}
.shop {
  display: grid;
  grid-template-columns: 1.4fr 1fr;
  gap: 8px;
  max-width: 540px;
}
.said {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 190px;
  gap: 12px;
  max-width: 700px;
}
@media (max-width: 820px) {
  section,
  .said,
  .shop {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
