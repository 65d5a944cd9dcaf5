<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue';
import { SPEC_KEYS, SPORTS, isStrung, type Dress, type SpecKey, type Sport } from '@kevro/core';
import { sourceKind, type Setup, type SourceKind } from '@kevro/contract';
import { api } from '../api/client';
import AddDialog from '../parts/AddDialog.vue';
import DressForm from '../parts/DressForm.vue';
import ListPage from '../parts/ListPage.vue';
import SpecField from '../parts/SpecField.vue';
import { dressWords } from '../parts/dress-words';
import ListFoot from '../parts/ListFoot.vue';
import { useListing } from '../parts/listing';
import { readSpec } from '../parts/spec-text';
import { typedNumber, typedOrNull } from '../parts/typed-number';
import { SPORT_ITEMS } from '../players/words';
import { useUnits } from '../stores/units';
import { SOURCE_NAMES, SPEC_NAMES } from '../words';

const units = useUnits();
const query = reactive({ search: '' });
const { rows, total, failure, load, more } = useListing(query, (asked) => api('setups', { query: asked }));
const value = (s: Setup, key: SpecKey): string =>
  s.specs[key] === undefined ? '—' : units.show(key, s.specs[key], s.shape);

const adding = ref(false);
const emptyText = (): Record<SpecKey, string> => ({
  massG: '',
  balanceCm: '',
  swingWeight: '',
  twistWeight: '',
});
/** As players play: strung where there are strings, with a grip and an overgrip. */
const playedDress = (sport: Sport): Dress => ({
  ...SPORTS[sport].dress.bare,
  baseGrip: 'synthetic',
  overgrips: 1,
  ...(isStrung(sport) ? { strings: true } : {}),
});
const draft = reactive({
  name: '',
  frameName: '',
  sourceKind: 'published' as SourceKind,
  source: '',
  year: '',
  sport: 'tennis' as Sport,
  shape: null as string | null,
  length: '68.58',
  dress: playedDress('tennis'),
  text: emptyText(),
});
function start(): void {
  Object.assign(draft, {
    name: '',
    frameName: '',
    source: '',
    year: '',
    text: emptyText(),
    dress: playedDress(draft.sport),
  });
  adding.value = true;
}
const kinds = sourceKind.options.map((kind) => ({ value: kind, title: SOURCE_NAMES[kind] }));
const lengthCm = computed(() => {
  const typed = typedNumber(draft.length);
  return typeof typed === 'number' && typed > 0 ? typed : SPORTS[draft.sport].lengthCm;
});
/** A change of sport brings its usual length and its own named shapes. */
watch(
  () => draft.sport,
  (sport) => {
    draft.length = String(Number(SPORTS[sport].lengthCm.toFixed(2)));
    draft.shape = null;
    draft.dress = playedDress(sport);
  },
);
const shapes = computed(() => Object.keys(SPORTS[draft.sport].shapes));
function submit() {
  // An empty field stays missing; what cannot be read is sent as typed, so that it is refused with its sentence.
  const specs = Object.fromEntries(
    SPEC_KEYS.filter((key) => draft.text[key].trim() !== '').map((key) => [
      key,
      readSpec(key, draft.text[key], units.way, lengthCm.value) ?? typedNumber(draft.text[key]),
    ]),
  );
  return api('addSetup', {
    body: {
      name: draft.name,
      frameName: draft.frameName,
      sourceKind: draft.sourceKind,
      source: draft.source,
      year: typedOrNull(draft.year),
      shape: {
        sport: draft.sport,
        lengthCm: typedNumber(draft.length),
        ...(draft.shape ? { shape: draft.shape } : {}),
      },
      dress: draft.dress,
      specs,
    },
  });
}
</script>

<template>
  <ListPage
    title="Setups"
    action="Add a setup"
    :rows="rows"
    :failure="failure"
    :empty="query.search ? 'No setup matches. Type less.' : 'The library is empty. Add the first setup.'"
    @act="start"
    @retry="load"
  >
    <template #filter>
      <v-text-field v-model="query.search" label="Find" class="find" hide-details />
    </template>
    <template #default="{ rows: setups }">
      <table class="plain">
        <thead>
          <tr>
            <th>Name</th>
            <th>Source</th>
            <th>As published in</th>
            <th v-for="key in SPEC_KEYS" :key="key" class="num">
              {{ SPEC_NAMES[key] }}<br />
              <span class="unit">{{ units.unit(key) }}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="s in setups" :key="s.id">
            <td>
              <b>{{ s.name }}</b>
              <div class="soft small">{{ s.frameName }}</div>
            </td>
            <td>
              {{ SOURCE_NAMES[s.sourceKind] }}{{ s.year ? ` ${s.year}` : '' }}
              <div class="soft small">{{ s.source }}</div>
            </td>
            <td class="small">
              {{ dressWords(s.dress, s.shape.sport) }}
              <div v-if="s.specs.axisCm" class="soft">axis {{ s.specs.axisCm.toFixed(2) }} cm</div>
            </td>
            <td v-for="key in SPEC_KEYS" :key="key" class="num nowrap">{{ value(s, key) }}</td>
          </tr>
        </tbody>
      </table>
      <ListFoot :shown="setups.length" :total="total" @more="more" />
    </template>
    <template #after>
      <AddDialog v-model="adding" title="Add a setup" :submit="submit" @stored="load">
        <template #default="{ at }">
          <v-text-field v-model="draft.name" label="Whose frame" autofocus :error-messages="at('name')" />
          <v-text-field
            v-model="draft.frameName"
            label="What frame, as far as it is known"
            :error-messages="at('frameName')"
          />
          <div class="two">
            <v-select v-model="draft.sourceKind" :items="kinds" label="Kind of source" />
            <v-text-field
              v-model="draft.year"
              label="Year"
              inputmode="numeric"
              :error-messages="at('year')"
            />
          </div>
          <v-text-field v-model="draft.source" label="Where it comes from" :error-messages="at('source')" />
          <div class="three">
            <v-select v-model="draft.sport" :items="SPORT_ITEMS" label="Sport" />
            <v-text-field
              v-model="draft.length"
              label="Length"
              suffix="cm"
              inputmode="decimal"
              :error-messages="at('shape')"
            />
            <v-select
              v-if="shapes.length > 0"
              v-model="draft.shape"
              :items="shapes"
              label="Shape"
              clearable
            />
          </div>
          <DressForm v-model="draft.dress" :sport="draft.sport" />
          <p class="soft small mb-0">
            Leave a value empty where it was not published: missing stays missing.
          </p>
          <div class="two">
            <SpecField
              v-for="key in SPEC_KEYS"
              :key="key"
              v-model="draft.text[key]"
              :spec="key"
              :shape="{ sport: draft.sport, lengthCm }"
              :error="at(`specs.${key}`)[0]"
            />
          </div>
        </template>
      </AddDialog>
    </template>
  </ListPage>
</template>

<style scoped>
.find {
  max-width: 240px;
}
.unit {
  font-weight: 400;
}
</style>
