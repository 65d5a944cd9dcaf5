<script setup lang="ts">
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { SOURCE_KINDS, ALL_SPEC_KEYS, SPORTS } from '@kevro/core';
import { SETUP_SORTS, type Setup } from '@kevro/contract';
import { api, urlOf } from '../api/client';
import FormDialog from '../forms/FormDialog.vue';
import MoreFields from '../ui/MoreFields.vue';
import NumberField from '../forms/NumberField.vue';
import { counted } from '../words/counted';
import { useSparseList } from '../ui/sparse-list';
import { SPORT_ITEMS } from '../words/players';
import { useSaved } from '../stores/saved';
import { useWholeLibrary } from '../stores/whole-library';
import { SOURCE_NAMES, SPEC_NAMES } from '../words';
import ImportSetups from './ImportSetups.vue';
import SetupForm from './SetupForm.vue';
import SetupTable from './SetupTable.vue';
import { COLUMNS, COLUMN_NAMES, useSetupView, type SortKey } from './setup-view';

// What a fitter comes here to do: find a setup among many; add one, or a whole list; look at one with all that is told of it.
const saved = useSaved();
/** What was worked out of the whole library holds no more when the library changes. */
const whole = useWholeLibrary();
const router = useRouter();
const { filters, columns, views, query, ranged, narrowed, keep, show, forget, clear } = useSetupView();
const { row, look, inAll, failure, load } = useSparseList(
  () => query.value,
  (asked) => api('setups', { query: asked }),
);
const form = ref<InstanceType<typeof SetupForm>>();
const reading = ref<InstanceType<typeof ImportSetups>>();

const ALL = { value: null, title: 'all' };
const sports = [{ ...ALL, title: 'all sports' }, ...SPORT_ITEMS];
const kinds = [
  { ...ALL, title: 'all kinds' },
  ...SOURCE_KINDS.map((kind) => ({ value: kind, title: SOURCE_NAMES[kind] })),
];
const picks = COLUMNS.map((value) => ({ value, title: COLUMN_NAMES[value] }));
const shape = computed(() => ({
  sport: filters.sport ?? ('tennis' as const),
  lengthCm: SPORTS[filters.sport ?? 'tennis'].lengthCm,
}));
function sortBy(key: SortKey): void {
  if (!SETUP_SORTS.includes(key)) return;
  filters.down = filters.sort === key ? !filters.down : false;
  filters.sort = key;
}
async function stored({ id }: Setup): Promise<void> {
  saved.stored();
  whole.forget();
  await router.push({ name: 'setup', params: { id } });
}
async function read(): Promise<void> {
  saved.stored();
  whole.forget();
  await load();
}

const naming = ref(false);
const viewName = ref('');
async function keepView(): Promise<void> {
  keep(viewName.value.trim() || 'my view');
  viewName.value = '';
}
const file = (of: 'setups.csv' | 'setups.json'): string => urlOf(of, query.value);
</script>

<template>
  <div class="page setups">
    <div class="page-top">
      <h1>Setups</h1>
      <span class="soft" role="status">{{
        inAll === undefined
          ? ''
          : counted(inAll, 'setup', 'setups') + (inAll.orMore ? `, the first ${inAll.total} listed` : '')
      }}</span>
      <span class="spring" />
      <router-link :to="{ name: 'guides' }">Guides</router-link>
      <v-btn variant="outlined" size="large" @click="reading?.show()">Import</v-btn>
      <v-btn color="primary" size="large" @click="form?.show()">Add a setup</v-btn>
    </div>
    <div class="filters no-print">
      <v-text-field
        v-model="filters.search"
        label="Find"
        class="find"
        clearable
        hide-details
        @click:clear="filters.search = ''"
      />
      <v-select v-model="filters.sport" :items="sports" label="Sport" class="narrow" hide-details />
      <v-select v-model="filters.kind" :items="kinds" label="Kind of source" class="narrow" hide-details />
      <v-select v-model="columns" :items="picks" label="Columns" multiple class="narrow" hide-details>
        <template #selection="{ index }"
          ><span v-if="index === 0">{{ columns.length }} of {{ picks.length }}</span></template
        >
      </v-select>
    </div>
    <MoreFields
      :title="`More filters, views, export${ranged ? ` · ${counted(ranged, 'range', 'ranges')} set` : ''}`"
      class="no-print more"
    >
      <div class="ranges">
        <fieldset v-for="key in ALL_SPEC_KEYS" :key="key">
          <legend class="soft small">{{ SPEC_NAMES[key] }}, as published</legend>
          <NumberField v-model="filters.ranges[key][0]" label="from" :spec="key" :shape="shape" />
          <NumberField v-model="filters.ranges[key][1]" label="to" :spec="key" :shape="shape" />
        </fieldset>
      </div>
      <div class="line">
        <v-text-field v-model="filters.style" label="How they play" class="find" hide-details />
        <v-switch v-model="filters.retired" label="Show retired" hide-details />
        <span class="spring" />
        <span class="soft">Export results:</span>
        <a class="link" :href="file('setups.csv')" download>CSV</a>
        <a class="link" :href="file('setups.json')" download>JSON</a>
      </div>
      <div class="line">
        <v-btn variant="outlined" @click="naming = true">Save view</v-btn>
        <template v-for="view in views" :key="view.name">
          <span class="view">
            <v-btn variant="text" @click="show(view)">{{ view.name }}</v-btn>
            <button
              type="button"
              class="link small"
              :aria-label="`Forget the view ${view.name}`"
              @click="forget(view.name)"
            >
              Delete
            </button>
          </span>
        </template>
        <v-btn v-if="narrowed" variant="text" @click="clear">Show all</v-btn>
      </div>
    </MoreFields>
    <div v-if="failure" role="alert">
      <p class="miss">{{ failure }}</p>
      <v-btn variant="outlined" @click="load">Try again</v-btn>
    </div>
    <p v-else-if="inAll === undefined" class="soft" role="status">Loading…</p>
    <p v-else-if="inAll.total === 0" class="soft">
      {{
        narrowed
          ? 'No setup like that. Search for less, or look among the others.'
          : 'The library is empty. Add the first setup, or read a list in.'
      }}
    </p>
    <SetupTable
      v-else
      :total="inAll.total"
      :row="row"
      :columns="columns"
      :sort="filters.sort"
      :down="filters.down"
      @look="look"
      @sort="sortBy"
    />
    <SetupForm ref="form" @stored="stored" />
    <ImportSetups ref="reading" @stored="read" />
    <FormDialog v-model="naming" title="Save view" store="Save" :submit="keepView">
      <v-text-field v-model="viewName" v-first label="Name" />
    </FormDialog>
  </div>
</template>

<style scoped>
.setups {
  max-width: 1240px;
}
.filters,
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}
.find {
  flex: 1 1 220px;
  max-width: 300px;
}
.narrow {
  flex: 0 1 185px;
}
.more {
  margin: 8px 0;
}
.ranges {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 16px;
}
fieldset {
  border: 0;
  padding: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.view {
  display: inline-flex;
  align-items: center;
  gap: 4px;
}
@media (max-width: 900px) {
  .ranges {
    grid-template-columns: 1fr;
  }
}
</style>
