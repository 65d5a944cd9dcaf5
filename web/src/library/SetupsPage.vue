<script setup lang="ts">
import { reactive, ref } from 'vue';
import { SPEC_KEYS, type SpecKey } from '@kevro/core';
import type { Setup, SetupRow } from '@kevro/contract';
import { api } from '../api/client';
import ListFoot from '../parts/ListFoot.vue';
import ListPage from '../parts/ListPage.vue';
import { dressWords } from '../parts/dress-words';
import { focusRow } from '../parts/focus';
import { useListing } from '../parts/listing';
import { useSaved } from '../stores/saved';
import { useUnits } from '../stores/units';
import { SOURCE_NAMES, SPEC_NAMES } from '../words';
import SetupForm from './SetupForm.vue';
import { vWide } from '../parts/wide-table';

// What a fitter comes here to do: find a setup; add one that was published; put right what was wrong in one.
const units = useUnits();
const saved = useSaved();
const query = reactive({ search: '', retired: false });
const { rows, total, failure, load, more } = useListing(query, ({ search, retired, limit, offset }) =>
  api('setups', { query: { search, retired: retired ? 'yes' : 'no', limit, offset } }),
);
const value = (s: Setup, key: SpecKey): string =>
  s.specs[key] === undefined ? '—' : units.show(key, s.specs[key], s.shape);
const form = ref<InstanceType<typeof SetupForm>>();

async function stored({ id }: Setup): Promise<void> {
  saved.stored();
  await load();
  focusRow(id);
}
async function retire(setup: SetupRow): Promise<void> {
  try {
    await api('retireSetup', { id: setup.id, body: { retired: !setup.retired } });
    saved.stored();
    await load();
  } catch (error) {
    saved.failed(error);
  }
}
</script>

<template>
  <ListPage
    title="Setups"
    action="Add a setup"
    :rows="rows"
    :failure="failure"
    :empty="
      query.search || query.retired
        ? 'No setup like that. Search for less, or look among the others.'
        : 'The library is empty. Add the first setup.'
    "
    @act="form?.show()"
    @retry="load"
  >
    <template #filter>
      <v-text-field v-model="query.search" label="Find" class="find" hide-details />
    </template>
    <template #default="{ rows: setups }">
      <table v-wide class="plain wide">
        <thead>
          <tr>
            <th>Name</th>
            <th>Source</th>
            <th>As published in</th>
            <th v-for="key in SPEC_KEYS" :key="key" class="num">
              {{ SPEC_NAMES[key] }}<br />
              <span class="unit">{{ units.unit(key) }}</span>
            </th>
            <th class="no-print"><span class="d-sr-only">Retire</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="s in setups" :key="s.id" :data-row="s.id">
            <td>
              <button type="button" class="row-name" @click="form?.show(s)">{{ s.name }}</button>
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
            <td class="num no-print">
              <v-btn
                variant="text"
                :aria-label="`${s.retired ? 'Bring back' : 'Retire'} ${s.name}`"
                @click="retire(s)"
                >{{ s.retired ? 'Bring back' : 'Retire' }}</v-btn
              >
            </td>
          </tr>
        </tbody>
      </table>
      <ListFoot :shown="setups.length" :total="total" @more="more" />
    </template>
    <template #after>
      <v-switch v-model="query.retired" label="Show the retired ones" class="no-print" />
      <SetupForm ref="form" @stored="stored" />
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
