<script setup lang="ts">
import { computed } from 'vue';
import { SPECS, SPEC_KEYS, brokenLimits } from '@kevro/core';
import { limitSentence } from '@kevro/contract';
import { dayWords } from '../words/days';
import { dressWords } from '../words/dress';
import SavePdf from '../ui/SavePdf.vue';
import { useUnits } from '../stores/units';
import { SPEC_NAMES } from '../words';
import { useFramePage } from './frame-page';

/** A frame's measured numbers on a card, for a customer who asks from afar. */
const props = defineProps<{ id: string }>();
const { page, failure, load } = useFramePage(() => props.id);
const units = useUnits();
const newest = computed(() =>
  page.value?.measurements.find(({ purpose, counts }) => counts && purpose !== 'trial' && purpose !== 'step'),
);
const limits = computed(() => (page.value ? brokenLimits(page.value.frame.shape) : []));
const print = (): void => window.print();
</script>

<template>
  <div v-if="failure" class="page" role="alert">
    <h1>Card</h1>
    <p class="miss">{{ failure }}</p>
    <v-btn variant="outlined" @click="load">Try again</v-btn>
  </div>
  <div v-else-if="!page" class="page">
    <h1>Card</h1>
    <p class="soft" role="status">Loading…</p>
  </div>
  <div v-else class="page">
    <div class="page-top no-print">
      <router-link :to="{ name: 'frame', params: { id } }">{{ page.frame.tag }}</router-link>
      <span class="spring" />
      <SavePdf v-if="newest" of=".card" :title="`Card ${page.frame.tag}`" label="The card as PDF" />
      <v-btn v-if="newest" color="primary" size="large" @click="print">Print the card</v-btn>
    </div>
    <article class="card">
      <h1>{{ page.frame.maker }} {{ page.frame.model }}</h1>
      <p class="soft mb-2">
        {{ page.frame.tag }}, {{ units.showMeasure('length', page.frame.shape.lengthCm)
        }}<template v-if="page.frame.shape.headAreaCm2"
          >, {{ units.showMeasure('area', page.frame.shape.headAreaCm2) }}</template
        ><template v-if="page.frame.gripSize">, grip {{ page.frame.gripSize }}</template>
      </p>
      <p v-if="!newest" class="soft">It has not been measured yet.</p>
      <template v-else>
        <table class="plain">
          <tbody>
            <tr v-for="key in SPEC_KEYS" :key="key">
              <th scope="row">{{ SPEC_NAMES[key] }}</th>
              <td class="num big">
                {{
                  newest.specs[key] === undefined
                    ? '—'
                    : units.show(key, newest.specs[key]!, page.frame.shape)
                }}
              </td>
              <td class="soft nowrap">
                {{ units.unit(key) === 'points' ? '' : units.unit(key)
                }}<template v-if="newest.specs[key] !== undefined">
                  ±{{ units.showWidth(key, 2 * newest.uncertainty[key], page.frame.shape.sport) }}</template
                >
              </td>
            </tr>
          </tbody>
        </table>
        <p class="small mt-2 mb-0">
          Measured {{ dayWords(newest.takenAt) }}, {{ dressWords(newest.dress, page.frame.shape.sport) }};
          {{ SPECS.swingWeight.name }} about {{ units.showMeasure('length', newest.specs.axisCm) }} from the
          butt. ±: 95 % sure.
        </p>
        <p v-for="limit in limits" :key="limit.of" class="small warn mb-0">{{ limitSentence(limit) }}</p>
      </template>
    </article>
  </div>
</template>

<style scoped>
.card {
  max-width: 460px;
  border: 1px solid rgb(var(--v-theme-line));
  padding: 18px 22px;
  background: rgb(var(--v-theme-sheet));
}
.big {
  font-size: 22px;
  font-weight: 700;
}
th {
  color: rgb(var(--v-theme-soft));
  font-weight: 600;
  text-align: left;
  padding: 8px;
}
</style>
