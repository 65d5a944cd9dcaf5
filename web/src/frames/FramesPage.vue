<script setup lang="ts">
import { computed, reactive, ref } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { SPECS, capital, SPEC_KEYS, type Sport, type AnySpecKey } from '@kevro/core';
import type { FrameQuery, FrameRow } from '@kevro/contract';
import { api } from '../api/client';
import ListFilter from '../forms/ListFilter.vue';
import ListFoot from '../ui/ListFoot.vue';
import ListPage from '../ui/ListPage.vue';
import { dayWords } from '../words/days';
import { dressWords } from '../words/dress';
import { useListing } from '../api/queries';

import { useUnits } from '../stores/units';
import { SPORT_NAMES } from '../words';
import FrameForm from '../forms/FrameForm.vue';
import { vWide } from '../ui/wide-table';

// What a fitter comes here to do: find a frame by its tag or owner; read its newest numbers; open it.
const query = reactive({
  search: '',
  sport: null as Sport | null,
  sort: 'tag' as FrameQuery['sort'],
  archived: false,
});
const { rows, left, failure, load, more } = useListing(
  'frames',
  query,
  ({ search, sport, sort, archived, limit, offset }) =>
    api('frames', {
      query: { search, sort, archived: archived ? 'yes' : 'no', limit, offset, ...(sport ? { sport } : {}) },
    }),
);
/** The frames that are listed: their labels are printed together. */
const labelled = computed(() =>
  (rows.value ?? [])
    .slice(0, 200)
    .map(({ id }) => id)
    .join(','),
);
const units = useUnits();
const router = useRouter();
const form = ref<InstanceType<typeof FrameForm>>();
const show = (f: FrameRow, key: AnySpecKey): string => {
  const value = f.newest?.specs[key];
  return value === undefined ? '—' : units.show(key, value, f.shape);
};
const guessed = (f: FrameRow, key: AnySpecKey): boolean => f.newest?.estimated.includes(key) ?? false;
const SORTS: { value: typeof query.sort; title: string }[] = [
  { value: 'tag', title: 'by tag' },
  { value: 'model', title: 'by maker and model' },
  { value: 'owner', title: 'by owner' },
  { value: 'measured', title: 'last measured first' },
];
</script>

<template>
  <ListPage
    title="Frames"
    action="Add a frame"
    :rows="rows"
    :failure="failure"
    :empty="
      query.search || query.sport || query.archived
        ? 'No frames found. Try fewer letters or another sport.'
        : 'No frames yet.'
    "
    @act="form?.show()"
    @retry="load"
  >
    <template #filter>
      <ListFilter
        v-model:search="query.search"
        v-model:sport="query.sport"
        v-model:sort="query.sort"
        label="Find by tag, model or owner"
        :sorts="SORTS"
      />
      <span class="links no-print">
        <RouterLink :to="{ name: 'match' }">Match frames</RouterLink>
        <RouterLink v-if="labelled" :to="{ name: 'labels', query: { frames: labelled } }"
          >Print labels</RouterLink
        >
      </span>
    </template>
    <template #default="{ rows: frames }">
      <table v-wide class="plain wide">
        <thead>
          <tr>
            <th>Tag</th>
            <th>Maker and model</th>
            <th>Owner</th>
            <th v-for="key in SPEC_KEYS" :key="key" class="num">
              {{ capital(SPECS[key].short) }}
              <div class="unit">{{ units.unit(key) }}</div>
            </th>
            <th>Measured</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="f in frames" :key="f.id">
            <td class="nowrap">
              <RouterLink :to="`/frames/${f.id}`" class="tag">{{ f.tag }}</RouterLink>
            </td>
            <td>
              {{ f.maker }} {{ f.model }}
              <div class="soft small">
                {{ SPORT_NAMES[f.shape.sport] }}<template v-if="f.paint">, painted {{ f.paint }}</template>
              </div>
            </td>
            <td>{{ f.ownerName ?? 'shop stock' }}</td>
            <td v-for="key in SPEC_KEYS" :key="key" class="num nowrap">
              {{ show(f, key) }}
              <div v-if="guessed(f, key)" class="warn small">est.</div>
            </td>
            <td>
              <template v-if="f.newest">
                <span class="nowrap">{{ dayWords(f.newest.takenAt) }}</span>
                <div class="soft small">{{ dressWords(f.newest.dress, f.shape.sport) }}</div>
              </template>
              <span v-else class="soft">not yet</span>
            </td>
          </tr>
        </tbody>
      </table>
      <ListFoot :left="left" @more="more" />
    </template>
    <template #after>
      <v-switch v-model="query.archived" label="Show the archived ones" class="no-print" />
      <FrameForm ref="form" @stored="router.push(`/frames/${$event.id}`)" />
    </template>
  </ListPage>
</template>

<style scoped>
.tag {
  font-weight: 700;
  color: inherit;
  text-underline-offset: 3px;
}
.links {
  display: flex;
  flex-direction: column;
  white-space: nowrap;
}
.unit {
  font-weight: 400;
  font-size: 12.5px;
}
</style>
