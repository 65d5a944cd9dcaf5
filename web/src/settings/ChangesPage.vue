<script setup lang="ts">
import { reactive } from 'vue';
import { RouterLink } from 'vue-router';
import type { AnswerOf } from '@kevro/contract';
import { api } from '../api/client';
import ListFoot from '../ui/ListFoot.vue';
import { momentWords } from '../words/days';
import { useListing } from '../api/queries';
import { vWide } from '../ui/wide-table';

// What a fitter comes here to do: see who changed something, when, and go to it.
const { rows, inAll, left, failure, load, more } = useListing('changes', reactive({}), ({ limit, offset }) =>
  api('changes', { query: { limit, offset } }),
);
type Row = AnswerOf<'changes'>['rows'][number];
const PAGES: Record<string, string> = {
  player: '/players/',
  frame: '/frames/',
  fitting: '/fittings/',
  setup: '/setups/',
  instrument: '/settings/instruments/',
};
const linkOf = ({ record, recordId, title }: Row): string | undefined => {
  const page = record === null ? undefined : PAGES[record];
  return page && recordId && title ? `${page}${recordId}` : undefined;
};
</script>

<template>
  <div class="page">
    <h1>Change log</h1>
    <p class="soft">Newest first.</p>
    <div v-if="failure" role="alert">
      <p class="miss">{{ failure }}</p>
      <v-btn variant="outlined" @click="load">Try again</v-btn>
    </div>
    <p v-else-if="!rows" class="soft" role="status">Loading…</p>
    <p v-else-if="rows.length === 0" class="soft">Nothing was changed yet.</p>
    <template v-else>
      <table v-wide class="plain wide">
        <thead>
          <tr>
            <th>When</th>
            <th>From</th>
            <th>What</th>
            <th>Of</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, i) in rows" :key="inAll.total - i">
            <td class="nowrap">{{ momentWords(row.at) }}</td>
            <td>{{ row.who }}</td>
            <td>{{ row.what }}</td>
            <td>
              <RouterLink v-if="linkOf(row)" :to="linkOf(row) ?? ''" class="link">{{ row.title }}</RouterLink>
              <template v-else>{{ row.title }}</template>
            </td>
          </tr>
        </tbody>
      </table>
      <ListFoot :left="left" @more="more" />
    </template>
  </div>
</template>
